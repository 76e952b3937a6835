package project

import (
	"fmt"
	"slices"
)

// PutPoint adds a point at From, or moves the one that is there to Value. A line begins with it.
type PutPoint struct {
	Stretch
	Value float64 `json:"value"`
	Shape string  `json:"shape,omitempty"`
}

func (c *PutPoint) apply(p *Project, effects Effects) ([]Change, error) {
	c.To = c.From
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	shape, bend := w.shape(c.Shape), 0.0
	if i, _ := w.line.Inside(w.from+1, w.from+1); i > 0 && c.Shape == "" { // it goes on as the stretch that it parts
		shape, bend = w.line.Points[i-1].Shape, w.line.Points[i-1].Bend
	}
	return w.edit(p, effects, w.from, w.from, []Point{{w.from, w.value(c.Value), shape, bend}})
}

// BeginLine gives a parameter a line: flat, at its present value.
type BeginLine struct {
	Owner string `json:"owner"`
	Name  string `json:"name"`
}

func (c *BeginLine) apply(p *Project, effects Effects) ([]Change, error) {
	w, err := Stretch{Owner: c.Owner, Name: c.Name}.work(p, effects)
	if err != nil {
		return nil, err
	}
	if l, _ := p.Line(c.Owner, c.Name); l != nil {
		return nil, fmt.Errorf("%s has a line already", w.d.Label)
	}
	return p.each(effects, &SetLine{Owner: c.Owner, Name: c.Name, Points: []Point{}})
}

// MovePoints moves the points at some ticks, by frames and by a part of the parameter's travel; with Copy they stay where
// they are, and others like them go there.
type MovePoints struct {
	Stretch
	Ticks []int64 `json:"ticks"`
	By    int64   `json:"by"`
	Up    float64 `json:"up"`
	Copy  bool    `json:"copy,omitempty"`
}

func (c *MovePoints) apply(p *Project, effects Effects) ([]Change, error) {
	return c.change(p, effects, c.Ticks, func(w *worked, pt Point) []Point {
		was := pt
		if c.By != 0 {
			pt.Tick = max(0, w.tick(w.time.Frame(pt.Tick)+c.By))
		}
		if c.Up != 0 {
			pt.Value = w.value(w.d.At(max(0, min(1, w.d.Place(pt.Value)+c.Up))))
		}
		if c.Copy {
			return []Point{was, pt}
		}
		return []Point{pt}
	})
}

// change puts others in the place of every point at some ticks, or none.
func (s Stretch) change(p *Project, effects Effects, ticks []int64, to func(w *worked, pt Point) []Point) ([]Change, error) {
	if len(ticks) == 0 {
		return nil, fmt.Errorf("there are no points to change")
	}
	s.To = s.From
	w, err := s.work(p, effects)
	if err != nil {
		return nil, err
	}
	from, end := slices.Min(ticks), slices.Max(ticks)
	i, j := w.line.Inside(from, end)
	var out []Point
	found := false
	for _, pt := range w.line.Points[i:j] {
		if !slices.Contains(ticks, pt.Tick) {
			out = append(out, pt)
			continue
		}
		found = true
		out = append(out, to(w, pt)...)
	}
	if !found {
		return nil, Gone("the point")
	}
	return w.edit(p, effects, from, end, out)
}

// SetPoints sets what is given of the points at some ticks.
type SetPoints struct {
	Stretch
	Ticks []int64  `json:"ticks"`
	Value *float64 `json:"value,omitempty"`
	Shape *string  `json:"shape,omitempty"`
	Bend  *float64 `json:"bend,omitempty"`
}

func (c *SetPoints) apply(p *Project, effects Effects) ([]Change, error) {
	return c.change(p, effects, c.Ticks, func(w *worked, pt Point) []Point {
		if c.Value != nil {
			pt.Value = w.value(*c.Value)
		}
		if c.Shape != nil {
			pt.Shape = w.shape(*c.Shape)
		}
		if c.Bend != nil {
			pt.Bend = max(-1, min(1, *c.Bend))
			if !w.d.Stepped() {
				pt.Shape = Curve
			}
		}
		return []Point{pt}
	})
}

// CutPoints takes points away.
type CutPoints struct {
	Stretch
	Ticks []int64 `json:"ticks"`
}

func (c *CutPoints) apply(p *Project, effects Effects) ([]Change, error) {
	return c.change(p, effects, c.Ticks, func(*worked, Point) []Point { return nil })
}
