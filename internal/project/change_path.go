package project

import (
	"fmt"
	"math"
	"slices"

	"shoal/internal/dsp"
)

// AddPath puts a path into a fork. A band takes a crossover with it: Hz, which parts it from
// the one below (from the one above, if it is the lowest). A missing id is filled in.
type AddPath struct {
	Fork  string  `json:"fork"`
	Index int     `json:"index"`
	Path  *Path   `json:"path"`
	Hz    float64 `json:"hz,omitempty"`
}

func (c *AddPath) apply(p *Project, _ Effects) ([]Change, error) {
	f, _, ok := p.ForkByID(c.Fork)
	if !ok {
		return nil, Gone("the fork")
	}
	if c.Path == nil {
		return nil, fmt.Errorf("there is no path to add")
	}
	if err := noHoles(&c.Path.Chain, 0); err != nil {
		return nil, err
	}
	if f.Kind == LeftRight || f.Kind == MidSide {
		return nil, fmt.Errorf("a fork of %s has its two paths: fork inside one of them", f.KindInWords())
	}
	path := Clone(c.Path)
	if path.ID == "" {
		path.ID = NewID()
	}
	if path.Chain.Nodes == nil {
		path.Chain.Nodes = []*Node{}
	}
	index := min(max(c.Index, 0), len(f.Paths))
	f.Paths = insert(f.Paths, index, path)
	if f.Kind == Bands {
		f.Crossovers = insert(f.Crossovers, max(0, index-1), c.Hz)
	}
	return []Change{&RemovePath{path.ID}}, nil
}

// RemovePath takes a path out with all that is on it. A band's place is taken by the one
// below (by the one above, if it is the lowest).
type RemovePath struct {
	ID string `json:"id"`
}

func (c *RemovePath) apply(p *Project, _ Effects) ([]Change, error) {
	at, ok := p.placeOfPath(c.ID)
	if !ok {
		return nil, Gone("the path")
	}
	f := at.fork
	switch {
	case f.Kind == LeftRight || f.Kind == MidSide:
		return nil, fmt.Errorf("a fork of %s keeps both paths: mute one, or dissolve the fork", f.KindInWords())
	case f.Kind == Bands && len(f.Paths) == 2:
		return nil, fmt.Errorf("two bands are the least: dissolve the fork")
	case len(f.Paths) == 1:
		return nil, fmt.Errorf("a fork keeps one path: dissolve it")
	}
	back := &AddPath{Fork: f.ID, Index: at.index, Path: at.path()}
	inside := map[string]bool{c.ID: true}
	for _, n := range at.path().Chain.Nodes {
		nodeIDs(n, inside)
	}
	undo := append([]Change{back}, p.dropLines(inside)...)
	node, _ := at.channel.find(f.ID)
	before := node.before()
	undo = append(undo, p.retap(func(t *Tap) bool { return inside[t.Node] }, func(Tap) *Tap { k := *before; return &k })...)
	undo = append(undo, resend(at.channel, inside, before)...)
	f.Paths = slices.Delete(f.Paths, at.index, at.index+1)
	if f.Kind == Bands {
		i := max(0, at.index-1)
		back.Hz = f.Crossovers[i]
		f.Crossovers = slices.Delete(f.Crossovers, i, i+1)
	}
	return undo, nil
}

// NewPathOf adds an empty path to a fork of copies. It starts switched off: the sum does not jump.
type NewPathOf struct {
	ID   string `json:"id,omitempty"` // of the new path
	Fork string `json:"fork"`
}

func (c *NewPathOf) apply(p *Project, effects Effects) ([]Change, error) {
	f, _, ok := p.ForkByID(c.Fork)
	if !ok {
		return nil, Gone("the fork")
	}
	if f.Kind == Bands {
		return nil, fmt.Errorf("to have one more band, divide one that is there")
	}
	path := NewPath(f.freeName("Path"))
	path.Mute = true
	if c.ID != "" {
		path.ID = c.ID
	}
	return p.each(effects, &AddPath{Fork: f.ID, Index: len(f.Paths), Path: path})
}

// freeName is a name with the next number that no path of the fork has.
func (f *Fork) freeName(name string) string {
	for n := 2; ; n++ {
		s := fmt.Sprintf("%s %d", firstLetters(name, maxName-4), n)
		if !slices.ContainsFunc(f.Paths, func(x *Path) bool { return x.Name == s }) {
			return s
		}
	}
}

// DuplicatePath puts a copy of a path, with all that is on it, behind it. The copy starts switched
// off: two alike would be 6 dB louder.
type DuplicatePath struct {
	ID  string `json:"id"`
	New string `json:"new,omitempty"` // id of the copy
}

func (c *DuplicatePath) apply(p *Project, effects Effects) ([]Change, error) {
	at, ok := p.placeOfPath(c.ID)
	if !ok {
		return nil, Gone("the path")
	}
	if at.fork.Kind != Copies {
		return nil, fmt.Errorf("a path of %s cannot stand twice: fork inside it, or divide a band", at.fork.KindInWords())
	}
	name := at.fork.freeName(at.path().Name)
	return p.copyPath(at, c.New, 0, effects, func(copied *Path) { copied.Name, copied.Mute = name, true })
}

// copyPath puts a copy of a path behind it, with new ids for all that is on it and with all that moves in it.
func (p *Project) copyPath(at pathPlace, id string, hz float64, effects Effects, differ func(*Path)) ([]Change, error) {
	copied := Clone(at.path())
	if copied.ID = id; id == "" {
		copied.ID = NewID()
	}
	nodes, fresh, err := p.freshNodes(at.channel.ID, copied.Chain.Nodes, effects)
	if err != nil {
		return nil, err
	}
	copied.Chain.Nodes = append([]*Node{}, nodes...)
	differ(copied)
	undo, err := p.each(effects, &AddPath{Fork: at.fork.ID, Index: at.index + 1, Path: copied, Hz: hz})
	if err != nil {
		return nil, err
	}
	fresh[at.path().ID] = copied.ID
	p.moveCopies(fresh)
	return undo, nil
}

// DivideBand makes two bands of one, at Hz or in its middle. Both hold what the one held, so that
// nothing changes in what is heard.
type DivideBand struct {
	Path string  `json:"path"`
	Hz   float64 `json:"hz,omitempty"`
	New  string  `json:"new,omitempty"` // id of the upper one
}

func (c *DivideBand) apply(p *Project, effects Effects) ([]Change, error) {
	at, ok := p.placeOfPath(c.Path)
	if !ok {
		return nil, Gone("the band")
	}
	f := at.fork
	if f.Kind != Bands {
		return nil, fmt.Errorf("only a band can be divided; this is a fork of %s", f.KindInWords())
	}
	if len(f.Paths) == MaxBands {
		return nil, fmt.Errorf("%d bands are the most: fork inside one of them", MaxBands)
	}
	low, high := 20.0, 20000.0
	if at.index > 0 {
		low = f.Crossovers[at.index-1]
	}
	if at.index < len(f.Crossovers) {
		high = f.Crossovers[at.index]
	}
	hz := c.Hz
	if hz == 0 {
		hz = math.Round(math.Sqrt(low * high))
	}
	if at.index > 0 && hz < low*dsp.Apart || at.index < len(f.Crossovers) && hz > high/dsp.Apart {
		return nil, fmt.Errorf(
			"%s reaches from %.0f to %.0f Hz: there is no room for a crossover at %.0f Hz, a third of an octave from both",
			at.path().Name,
			low,
			high,
			hz,
		)
	}
	name := f.freeName(at.path().Name)
	return p.copyPath(at, c.New, hz, effects, func(upper *Path) { upper.Name = name })
}

// MovePath puts a path of a fork of copies in another place.
type MovePath struct {
	ID    string `json:"id"`
	Index int    `json:"index"`
}

func (c *MovePath) apply(p *Project, _ Effects) ([]Change, error) {
	at, ok := p.placeOfPath(c.ID)
	if !ok {
		return nil, Gone("the path")
	}
	if at.fork.Kind != Copies {
		return nil, fmt.Errorf("the paths of a fork of %s have their order", at.fork.KindInWords())
	}
	path := at.path()
	at.fork.Paths = slices.Delete(at.fork.Paths, at.index, at.index+1)
	at.fork.Paths = insert(at.fork.Paths, c.Index, path)
	return []Change{&MovePath{c.ID, at.index}}, nil
}

// SetPath sets what is given of a path's properties.
type SetPath struct {
	ID     string  `json:"id"`
	Name   *string `json:"name,omitempty"`
	Mute   *bool   `json:"mute,omitempty"`
	Invert *bool   `json:"invert,omitempty"`
}

func (c *SetPath) apply(p *Project, _ Effects) ([]Change, error) {
	path, ok := p.findPath(c.ID)
	if !ok {
		return nil, Gone("the path")
	}
	if c.Name != nil && *c.Name != "" && !ValidName(*c.Name) {
		return nil, fmt.Errorf("the name of a path has at most 80 letters")
	}
	return []Change{&SetPath{c.ID, swap(&path.Name, c.Name), swap(&path.Mute, c.Mute), swap(&path.Invert, c.Invert)}}, nil
}
