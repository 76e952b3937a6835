package project

import (
	"fmt"
	"slices"

	"shoal/internal/dsp"
)

// HoldStretch gives a stretch one value, with steps at both ends: "on for the solo, off after".
type HoldStretch struct {
	Stretch
	Value float64 `json:"value"`
}

func (c *HoldStretch) apply(p *Project, effects Effects) ([]Change, error) {
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	return w.replace(p, effects, []Point{{Tick: w.from, Value: w.value(c.Value), Shape: Hold}})
}

// replace puts points in the place of the stretch; before it and behind it the line stays what it was.
func (w *worked) replace(p *Project, effects Effects, points []Point) ([]Change, error) {
	if w.to <= w.from {
		return nil, fmt.Errorf("select a stretch of the line first")
	}
	before, after := w.at(w.from), w.at(w.to)
	i, j := w.line.Inside(w.from, w.to)
	shape, bend := w.shape(""), 0.0
	if j > 0 {
		shape, bend = w.line.Points[j-1].Shape, w.line.Points[j-1].Bend
	}
	if len(w.line.Points) == 0 || j == len(w.line.Points) {
		shape, bend = Hold, 0
	}
	var out []Point
	switch {
	case w.from == 0:
	case i > 0 && w.line.Points[i-1].Shape != Hold: // it arrives where it would have been
		out = append(out, Point{Tick: w.from, Value: before, Shape: Hold})
	case i == 0: // the line began later, or was flat
		out = append(out, Point{Tick: 0, Value: before, Shape: Hold})
	}
	from := w.from
	if i == 0 && w.from > 0 {
		from = 0
	}
	out = append(out, points...)
	if last := out[len(out)-1]; last.Tick < w.to && last.Shape != Hold { // the last value is held as far as the end
		out[len(out)-1].Shape = Hold
	}
	out = append(out, Point{Tick: w.to, Value: after, Shape: shape, Bend: bend})
	return w.edit(p, effects, from, w.to, out)
}

// FillStretch gives every so many ticks of a stretch a value: one, rising from low to high, or by
// chance between them. Seed is the throw: the same one falls the same way.
type FillStretch struct {
	Stretch
	Every int64   `json:"every"`
	How   string  `json:"how"` // value, rise, chance
	Low   float64 `json:"low"`
	High  float64 `json:"high"`
	Seed  int64   `json:"seed,omitempty"`
}

// maxFill bounds the points of one gesture; sixteenth is the grid, in ticks, where none is set.
const (
	maxFill   = 20000
	sixteenth = TicksPerQuarter / 4
)

func (c *FillStretch) apply(p *Project, effects Effects) ([]Change, error) {
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	if c.Every == 0 {
		c.Every = sixteenth
	}
	if c.Every < 1 || (w.to-w.from)/c.Every > maxFill {
		return nil, fmt.Errorf("a point every %d ticks is too often for this stretch", c.Every)
	}
	low, high := w.d.Place(w.d.Clamp(c.Low)), w.d.Place(w.d.Clamp(c.High))
	var out []Point
	for t := w.from; t < w.to; t += c.Every {
		part := float64(t-w.from) / float64(max(1, w.to-w.from-c.Every))
		switch c.How {
		case "rise":
		case "chance":
			part = 0.5 + 0.5*dsp.White(uint64(c.Seed), t)
		case "value":
			part = 1
		default:
			return nil, fmt.Errorf("a stretch is not filled by %q: it must be value, rise or chance", c.How)
		}
		out = append(out, Point{Tick: t, Value: w.value(w.d.At(low + (high-low)*max(0, min(1, part)))), Shape: Hold})
	}
	return w.replace(p, effects, out)
}

// ShapeStretch draws a shape from the tempo's grid into a stretch, between two values.
type ShapeStretch struct {
	Stretch
	Kind  string  `json:"kind"` // rise, fall, pulse, tremble, stair
	Every int64   `json:"every"`
	Low   float64 `json:"low"`
	High  float64 `json:"high"`
}

func (c *ShapeStretch) apply(p *Project, effects Effects) ([]Change, error) {
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	low, high := w.value(c.Low), w.value(c.High)
	if c.Every == 0 {
		c.Every = sixteenth
	}
	if c.Every < 2 || (w.to-w.from)/c.Every > maxFill {
		return nil, fmt.Errorf("a step every %d ticks does not fit this stretch", c.Every)
	}
	var out []Point
	put := func(t int64, v float64, shape string) {
		if t < w.to {
			out = append(out, Point{Tick: t, Value: v, Shape: w.shape(shape)})
		}
	}
	switch c.Kind {
	case "rise", "fall":
		a, b := low, high
		if c.Kind == "fall" {
			a, b = high, low
		}
		put(w.from, a, Smooth)
		out = append(out, Point{Tick: w.to, Value: b, Shape: Hold})
	case "pulse":
		for t := w.from; t < w.to; t += c.Every {
			put(t, high, Hold)
			put(t+c.Every/2, low, Hold)
		}
	case "tremble":
		for t := w.from; t < w.to; t += c.Every {
			put(t, high, Smooth)
			put(t+c.Every/2, low, Smooth)
		}
	case "stair":
		n := max(1, (w.to-w.from+c.Every-1)/c.Every)
		for k := range n {
			part := float64(k) / float64(max(1, n-1))
			put(w.from+k*c.Every, w.value(w.d.At(w.d.Place(low)+(w.d.Place(high)-w.d.Place(low))*part)), Hold)
		}
	default:
		return nil, fmt.Errorf("there is no shape called %q", c.Kind)
	}
	return w.replace(p, effects, out)
}

// TurnStretch changes the points of a stretch: reverse turns it round in time, thin leaves out
// what is not needed, scale multiplies by By around the middle of what it spans, and shift moves
// by By of the travel.
type TurnStretch struct {
	Stretch
	How string  `json:"how"`
	By  float64 `json:"by,omitempty"`
}

func (c *TurnStretch) apply(p *Project, effects Effects) ([]Change, error) {
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	i, j := w.line.Inside(w.from, w.to)
	points := slices.Clone(w.line.Points[i:j])
	if len(points) == 0 {
		return nil, fmt.Errorf("there are no points in this stretch")
	}
	switch c.How {
	case "thin":
		if !(c.By >= 0) {
			return nil, fmt.Errorf("thinning leaves out what is at most so far away: %g is no distance", c.By)
		}
		points = thinned(points, w.d, c.By)
	case "reverse":
		reversed(points)
	case "scale", "shift":
		lowest, highest := 1.0, 0.0
		for _, pt := range points {
			lowest, highest = min(lowest, w.d.Place(pt.Value)), max(highest, w.d.Place(pt.Value))
		}
		middle := (lowest + highest) / 2
		for k := range points {
			x := w.d.Place(points[k].Value)
			if c.How == "scale" {
				x = middle + (x-middle)*c.By
			} else {
				x += c.By
			}
			points[k].Value = w.value(w.d.At(max(0, min(1, x))))
		}
	default:
		return nil, fmt.Errorf("a stretch is not turned by %q", c.How)
	}
	return w.edit(p, effects, w.from, w.to, points)
}

// reversed turns points round within the time that they span; the shape between two of them goes
// with the pair.
func reversed(points []Point) {
	first, last := points[0].Tick, points[len(points)-1].Tick
	slices.Reverse(points)
	end := points[0].Shape
	for k := range points {
		points[k].Tick = first + last - points[k].Tick
		if k+1 < len(points) {
			points[k].Shape, points[k].Bend = points[k+1].Shape, -points[k+1].Bend
		} else {
			points[k].Shape, points[k].Bend = end, 0
		}
	}
}
