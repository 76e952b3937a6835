package project

import (
	"fmt"
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// Kinds of forks.
const (
	Copies    = "copies"    // every path gets the whole signal
	LeftRight = "leftright" // the first gets the left side, the second the right
	MidSide   = "midside"   // the first gets what both sides share, the second their difference
	Bands     = "bands"     // from the lowest band up
)

// MaxPaths is how many paths a fork of copies has at most; MaxBands how many bands.
const (
	MaxPaths = 64
	MaxBands = dsp.MaxCrossovers + 1
)

// Fork divides a chain into paths and joins them again.
type Fork struct {
	ID     string  `json:"id" required:"true"`
	Name   string  `json:"name" required:"true"`
	Kind   string  `json:"kind" required:"true" enum:"copies,leftright,midside,bands"`
	Bypass bool    `json:"bypass" required:"true"`
	Mix    float64 `json:"mix" required:"true"`
	MixLaw string  `json:"mixLaw" required:"true" enum:"blend,add"`
	// Trim turns what the paths make together up or down, in dB, before the mix.
	Trim float64 `json:"trim" required:"true"`
	// Crossovers part the bands, in Hz from the lowest up: one less than there are paths. Other
	// kinds have none.
	Crossovers []float64 `json:"crossovers" required:"true"`
	Slope      int       `json:"slope" required:"true" enum:"[24,48]"` // dB an octave
	Linear     bool      `json:"linear" required:"true"`               // linear phase: later, and no phase is turned
	Paths      []*Path   `json:"paths" required:"true"`
}

// Path is one branch of a fork.
type Path struct {
	ID     string  `json:"id" required:"true"`
	Name   string  `json:"name" required:"true"`
	Level  float64 `json:"level" required:"true"`
	Pan    float64 `json:"pan" required:"true"`
	Width  float64 `json:"width" required:"true"` // percent
	Mute   bool    `json:"mute" required:"true"`
	Invert bool    `json:"invert" required:"true"`
	Chain  Chain   `json:"chain" required:"true"`
}

// UnmarshalJSON fills in what documents written before forks had bands do not say.
func (f *Fork) UnmarshalJSON(b []byte) error {
	type plain Fork
	v := plain{Slope: 24, Crossovers: []float64{}}
	if err := strict(b, &v); err != nil {
		return err
	}
	if v.Crossovers == nil {
		v.Crossovers = []float64{}
	}
	*f = Fork(v)
	return nil
}

// UnmarshalJSON takes a path as wide as it is where nothing is said.
func (p *Path) UnmarshalJSON(b []byte) error {
	type plain Path
	v := plain{Width: 100}
	if err := strict(b, &v); err != nil {
		return err
	}
	*p = Path(v)
	return nil
}

// NewPath returns a path with nodes on it.
func NewPath(name string, nodes ...*Node) *Path {
	return &Path{ID: NewID(), Name: name, Width: 100, Chain: Chain{Nodes: append([]*Node{}, nodes...)}}
}

// At sets a path's level in dB, in passing.
func (p *Path) At(level float64) *Path { p.Level = level; return p }

// Forked returns a node that is a fork of a kind with these paths in place of its own, if any. A
// kind that there is not, or too many bands, is a mistake of the program.
func Forked(kind, name string, paths ...*Path) *Node {
	f, err := NewFork(kind, max(2, len(paths)))
	if err != nil {
		panic(err)
	}
	f.Name = name
	if len(paths) > 0 {
		f.Paths = paths
	}
	return &Node{Fork: f}
}

// NewFork returns a fork of a kind with paths that hold nothing; bands counts those of a fork of bands.
func NewFork(kind string, bands int) (*Fork, error) {
	f := &Fork{ID: NewID(), Kind: kind, Mix: 100, MixLaw: "blend", Crossovers: []float64{}, Slope: 24}
	switch kind {
	case Copies:
		f.Paths = []*Path{NewPath("Dry"), NewPath("Path 2")}
		f.Paths[1].Mute = true // two alike would be 6 dB louder
	case LeftRight:
		f.Paths = []*Path{NewPath("Left"), NewPath("Right")}
	case MidSide:
		f.Paths = []*Path{NewPath("Mid"), NewPath("Side")}
	case Bands:
		if bands < 2 || bands > MaxBands {
			return nil, fmt.Errorf("a fork divides into 2 to %d bands, not %d", MaxBands, bands)
		}
		for _, name := range bandNames[bands-2] {
			f.Paths = append(f.Paths, NewPath(name))
		}
		f.Crossovers = append(f.Crossovers, bandEdges[bands-2]...)
	default:
		return nil, fmt.Errorf("there is no fork of the kind %q", kind)
	}
	return f, nil
}

var (
	bandNames = [][]string{
		{"Low", "High"},
		{"Low", "Mids", "High"},
		{"Low", "Low mids", "High mids", "High"},
		{"Low", "Low mids", "Mids", "High mids", "High"},
	}
	bandEdges = [][]float64{{800}, {200, 3000}, {120, 800, 5000}, {100, 400, 1800, 7000}}
)

// KindInWords says what a fork does.
func (f *Fork) KindInWords() string {
	switch f.Kind {
	case LeftRight:
		return "left/right"
	case MidSide:
		return "mid/side"
	case Bands:
		return fmt.Sprintf("%d bands", len(f.Paths))
	}
	return "copies"
}

// Title is the fork's name, or what it is.
func (f *Fork) Title() string {
	if f.Name != "" {
		return f.Name
	}
	return "Fork, " + f.KindInWords()
}

// crossoverParam finds the description of a crossover by its name, and its place.
func (f *Fork) crossoverParam(name string) (param.Param, int, bool) {
	for i := range f.Crossovers {
		if name == param.CrossoverName(i+1) {
			return param.Crossover(i+1, f.Linear), i, true
		}
	}
	return param.Param{}, 0, false
}

// Room is how far a crossover can go before it comes within a third of an octave of its neighbours.
func (f *Fork) Room(i int) (low, high float64) {
	d := param.Crossover(i+1, f.Linear)
	low, high = d.Min, d.Max
	if i > 0 {
		low = f.Crossovers[i-1] * dsp.Apart
	}
	if i+1 < len(f.Crossovers) {
		high = f.Crossovers[i+1] / dsp.Apart
	}
	return low, high
}

// check refuses a fork that cannot be played, apart from what stands on its paths.
func (f *Fork) check() error {
	paths := func(least, most int) error {
		switch n := len(f.Paths); {
		case n < least:
			return fmt.Errorf("a fork of %s has at least %d paths", f.Kind, least)
		case n > most:
			return fmt.Errorf("a fork of %s has at most %d paths; this one would have %d", f.Kind, most, n)
		}
		return nil
	}
	var err error
	switch f.Kind {
	case Copies:
		err = paths(1, MaxPaths)
	case LeftRight, MidSide:
		err = paths(2, 2)
	case Bands:
		err = paths(2, MaxBands)
	default:
		err = fmt.Errorf("unknown kind %q", f.Kind)
	}
	if err != nil {
		return err
	}
	if err := checkMix(f.Mix, f.MixLaw); err != nil {
		return err
	}
	if err := param.Joined.Check(f.Trim); err != nil {
		return err
	}
	if f.Slope != 24 && f.Slope != 48 {
		return fmt.Errorf("a slope of %d dB an octave: it must be 24 or 48", f.Slope)
	}
	if f.Kind != Bands {
		if len(f.Crossovers) > 0 || f.Linear {
			return fmt.Errorf("only a fork of bands has crossovers")
		}
		return nil
	}
	if len(f.Crossovers) != len(f.Paths)-1 {
		return fmt.Errorf("%d bands are parted by %d crossovers, not by %d", len(f.Paths), len(f.Paths)-1, len(f.Crossovers))
	}
	for i, hz := range f.Crossovers {
		p := param.Crossover(i+1, f.Linear)
		if err := p.Check(hz); err != nil {
			return err
		}
		if i > 0 && hz < f.Crossovers[i-1]*dsp.Apart*(1-1e-9) {
			return fmt.Errorf("the crossovers at %.0f and %.0f Hz are closer than a third of an octave", f.Crossovers[i-1], hz)
		}
	}
	return nil
}

func (p *Path) check() error {
	if err := param.Path.Check(p.Level); err != nil {
		return err
	}
	if err := param.Pan.Check(p.Pan); err != nil {
		return err
	}
	return param.Width.Check(p.Width)
}

// keepApart moves a crossover to where it is wanted, as far as there is room.
func (f *Fork) keepApart(i int, hz float64) float64 {
	low, high := f.Room(i)
	if low > high {
		return f.Crossovers[i]
	}
	hz = max(low, min(high, hz))
	if r := math.Round(hz*100) / 100; r >= low && r <= high {
		return r
	}
	return hz
}
