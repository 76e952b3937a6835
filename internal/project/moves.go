package project

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"shoal/internal/param"
)

// Mover moves parameters to and fro around where they stand: an oscillation or chance, a pure
// function of the song's position. Several on one parameter add up.
type Mover struct {
	ID    string `json:"id" required:"true"`
	Name  string `json:"name" required:"true"`
	Shape string `json:"shape" required:"true"` // one of Shapes
	// Rate is how often it moves to and fro, in Hz; Quarters, where it is above 0, how long that takes
	// in quarter notes instead.
	Rate     float64 `json:"rate" required:"true"`
	Quarters float64 `json:"quarters" required:"true"`
	Phase    float64 `json:"phase" required:"true"`  // where in its cycle it begins, 0 to 1
	OneWay   bool    `json:"oneWay" required:"true"` // from where the parameter stands to one side only
	Seed     int64   `json:"seed" required:"true"`   // of chance: the throw
	// Drawn is the movement of the shape DrawnShape: at evenly spaced places of its cycle, -1 to 1,
	// joined by straight lines, the last to the first.
	Drawn []float64 `json:"drawn,omitempty"`
	// Follow is what a mover of the shape LevelShape follows; it has no cycle.
	Follow *Follow `json:"follow,omitempty"`
	// Targets are what it moves, each by its own depth.
	Targets []MoverTarget `json:"targets" required:"true"`
}

// Follow is a signal whose level moves something: from not at all at Low to all the way at High.
type Follow struct {
	Tap     *Tap    `json:"tap,omitempty"`           // nil: nothing
	Attack  float64 `json:"attack" required:"true"`  // ms, 63 % of the way up
	Release float64 `json:"release" required:"true"` // ms, 63 % of the way down
	Low     float64 `json:"low" required:"true"`     // dBFS, peak
	High    float64 `json:"high" required:"true"`
}

// LevelShape is the shape of a mover that follows a level, DrawnShape of one that was drawn by hand.
const (
	LevelShape = "level"
	DrawnShape = "drawn"
)

// mostDrawn bounds the places of a drawn movement; usualDrawn is how many it begins with.
const (
	mostDrawn  = 256
	usualDrawn = 32
)

// MoverTarget is a parameter that a mover moves by Depth of its travel, -1 to 1, to each side.
type MoverTarget struct {
	Owner string  `json:"owner" required:"true"`
	Name  string  `json:"name" required:"true"`
	Depth float64 `json:"depth" required:"true"`
}

// Shapes of movers: as effect.Wave knows them, one that is drawn, and the level of a signal.
var Shapes = []string{"sine", "triangle", "falling", "rising", "square", "wander", "random steps", DrawnShape, LevelShape}

// Handle is one control for several parameters, each over its own range. It gives them their base in
// place of their hand and their line.
type Handle struct {
	ID      string         `json:"id" required:"true"`
	Name    string         `json:"name" required:"true"`
	Value   float64        `json:"value" required:"true"` // percent
	Targets []HandleTarget `json:"targets" required:"true"`
	// Home is the channel or fork that it belongs to; empty: the project. Shown says that the row
	// of its home shows it.
	Home  string `json:"home,omitempty"`
	Shown bool   `json:"shown,omitempty"`
}

// HandleTarget is a parameter that goes from From to To, in its own unit, while its handle goes from 0 to
// 100 %; Bend makes it late (above 0) or early.
type HandleTarget struct {
	Owner string  `json:"owner" required:"true"`
	Name  string  `json:"name" required:"true"`
	From  float64 `json:"from" required:"true"`
	To    float64 `json:"to" required:"true"`
	Bend  float64 `json:"bend" required:"true"`
}

// At is the value of a handle's target when the handle stands at a place, 0 to 1.
func (t HandleTarget) At(place float64, d param.Param) float64 {
	x, y := d.Place(t.From), d.Place(t.To)
	return d.Clamp(d.At(x + (y-x)*Bent(Curve, t.Bend, place)))
}

// HandleOf is the handle that gives a parameter its base, and how.
func (p *Project) HandleOf(owner, name string) (*Handle, HandleTarget, bool) {
	for _, h := range p.Handles {
		for _, t := range h.Targets {
			if t.Owner == owner && t.Name == name {
				return h, t, true
			}
		}
	}
	return nil, HandleTarget{}, false
}

// movable finds what a mover or handle is to move, and refuses what cannot be moved smoothly.
func (p *Project) movable(owner, name string, effects Effects) (param.Param, error) {
	f, err := p.address(owner, name, effects)
	switch {
	case err != nil:
		return param.Param{}, err
	case f.Structural:
		return param.Param{}, fmt.Errorf("%s cannot be moved: it changes latency or memory", f.Label)
	case f.Stepped():
		return param.Param{}, fmt.Errorf("%s has steps only: a line can move it", f.Label)
	case slices.ContainsFunc(p.Handles, func(h *Handle) bool { return h.ID == owner }):
		return f.Param, nil
	}
	return f.Param, nil
}

func (p *Project) checkMoves(effects Effects) error {
	for _, m := range p.Movers {
		if err := p.checkMover(m, effects); err != nil {
			return fmt.Errorf("mover %s: %w", m.Name, err)
		}
	}
	taken := map[Address]string{}
	for _, h := range p.Handles {
		if !ValidName(h.Name) {
			return fmt.Errorf("a handle needs a name of 1 to 80 letters")
		}
		if err := param.Handle.Check(h.Value); err != nil {
			return fmt.Errorf("handle %s: %w", h.Name, err)
		}
		if err := p.checkHome(h); err != nil {
			return fmt.Errorf("handle %s: %w", h.Name, err)
		}
		for _, t := range h.Targets {
			d, err := p.movable(t.Owner, t.Name, effects)
			if err == nil && slices.ContainsFunc(p.Handles, func(x *Handle) bool { return x.ID == t.Owner }) {
				err = fmt.Errorf("a handle cannot move a handle")
			}
			if err == nil {
				err = d.Check(t.From)
			}
			if err == nil {
				err = d.Check(t.To)
			}
			if err == nil {
				err = param.Moves.Bend.Check(100 * t.Bend)
			}
			if err != nil {
				return fmt.Errorf("handle %s: %w", h.Name, err)
			}
			a := Address{t.Owner, t.Name}
			if other, ok := taken[a]; ok {
				return fmt.Errorf("%s hangs on the handle %s already: one handle gives a parameter its base", d.Label, other)
			}
			taken[a] = h.Name
		}
	}
	return nil
}

func (p *Project) checkHome(h *Handle) error {
	if _, ok := p.Channel(h.Home); ok || h.Home == "" {
		return nil
	}
	if _, _, ok := p.ForkByID(h.Home); ok {
		return nil
	}
	return fmt.Errorf("it belongs to a row or fork that is not there")
}

func (p *Project) checkMover(m *Mover, effects Effects) error {
	switch {
	case !slices.Contains(Shapes, m.Shape):
		return fmt.Errorf("unknown shape %q", m.Shape)
	case !(m.Quarters >= 0 && m.Quarters <= 256):
		return fmt.Errorf("a cycle of %g quarter notes: it must be at most 256", m.Quarters)
	}
	if err := errors.Join(param.Moves.Rate.Check(m.Rate), param.Moves.Phase.Check(100*m.Phase)); err != nil {
		return err
	}
	if err := m.checkDrawn(); err != nil {
		return err
	}
	if err := p.checkFollow(m); err != nil {
		return err
	}
	for _, t := range m.Targets {
		if _, err := p.movable(t.Owner, t.Name, effects); err != nil {
			return err
		}
		if err := param.Moves.Depth.Check(100 * t.Depth); err != nil {
			return err
		}
	}
	return nil
}

func (m *Mover) checkDrawn() error {
	if n := len(m.Drawn); n > mostDrawn || m.Shape == DrawnShape && n < 2 {
		return fmt.Errorf("a drawn movement has 2 to %d places, not %d", mostDrawn, n)
	}
	for _, v := range m.Drawn {
		if !(v >= -1 && v <= 1) {
			return fmt.Errorf("a drawn movement goes from -1 to 1, not to %g", v)
		}
	}
	return nil
}

// DrawnAt is where a drawn movement is at a phase in cycles.
func (m *Mover) DrawnAt(phase float64) float64 {
	n := len(m.Drawn)
	x := (phase - math.Floor(phase)) * float64(n)
	i := min(int(x), n-1)
	a, b := m.Drawn[i], m.Drawn[(i+1)%n]
	return a + (b-a)*(x-float64(i))
}

func (p *Project) checkFollow(m *Mover) error {
	f := m.Follow
	switch {
	case f == nil && m.Shape == LevelShape:
		return fmt.Errorf("it follows a level: say which")
	case f == nil:
		return nil
	case !(f.High >= f.Low+1):
		return fmt.Errorf("a range of %g to %g dB: it must rise by 1 dB at least", f.Low, f.High)
	}
	x := &param.Moves
	if err := errors.Join(
		x.Attack.Check(f.Attack),
		x.Release.Check(f.Release),
		x.Low.Check(f.Low),
		x.High.Check(f.High),
		p.checkTap(f.Tap),
	); err != nil {
		return err
	}
	for _, t := range m.Targets {
		if slices.ContainsFunc(p.Handles, func(h *Handle) bool { return h.ID == t.Owner }) {
			return fmt.Errorf("a level cannot move a handle: let it move what hangs there")
		}
	}
	return nil
}

// Follows reports whether a mover follows a signal that is there.
func (m *Mover) Follows() bool {
	return m.Shape == LevelShape && m.Follow != nil && m.Follow.Tap != nil
}
