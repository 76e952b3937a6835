package project

import (
	"math"
	"slices"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// Shapes of a line from one point to the next.
const (
	Ramp   = "ramp"   // straight along the parameter's taper
	Hold   = "step"   // stays until the next point
	Curve  = "curve"  // bent: late for a bend above 0, early below
	Smooth = "smooth" // leaves and arrives gently
)

// Line moves one parameter along the song.
type Line struct {
	Owner  string  `json:"owner" required:"true"`
	Name   string  `json:"name" required:"true"`
	Points []Point `json:"points" required:"true"`
}

// Point is a value at a tick, and how it goes on from there.
type Point struct {
	Tick  int64   `json:"tick" required:"true"`
	Value float64 `json:"value" required:"true"`
	Shape string  `json:"shape" required:"true" enum:"ramp,step,curve,smooth"`
	Bend  float64 `json:"bend,omitempty"` // of a curve, -1 to 1
}

// Bent is how far a shape has come, 0 to 1, when the part t of its time has passed.
func Bent(shape string, bend, t float64) float64 {
	switch shape {
	case Hold:
		return 0
	case Smooth:
		return t * t * (3 - 2*t)
	case Curve:
		if k := 6 * bend; math.Abs(k) > 1e-6 {
			return (dsp.Exp(k*t) - 1) / (dsp.Exp(k) - 1)
		}
	}
	return t
}

// At is the line's value at a tick, for its parameter; standard where it has no points.
func (l *Line) At(tick float64, d param.Param, standard float64) float64 {
	if len(l.Points) == 0 {
		return standard
	}
	i, _ := slices.BinarySearchFunc(l.Points, tick, func(p Point, t float64) int {
		if float64(p.Tick) <= t {
			return -1
		}
		return 1
	})
	i-- // the last point at or before
	switch {
	case i < 0:
		return l.Points[0].Value
	case i+1 == len(l.Points):
		return l.Points[i].Value
	}
	return between(l.Points[i], l.Points[i+1], tick, d)
}

// between is the value at a tick between two points that follow one another.
func between(a, b Point, tick float64, d param.Param) float64 {
	if d.Stepped() || b.Tick == a.Tick {
		return a.Value
	}
	t := Bent(a.Shape, a.Bend, (tick-float64(a.Tick))/float64(b.Tick-a.Tick))
	if t == 0 {
		return a.Value
	}
	x, y := d.Place(a.Value), d.Place(b.Value)
	return d.Clamp(d.At(x + (y-x)*t))
}

// Inside returns which points lie within ticks, both ends included: from i up to j.
func (l *Line) Inside(from, to int64) (i, j int) {
	i, _ = slices.BinarySearchFunc(l.Points, from, func(p Point, t int64) int {
		if p.Tick < t {
			return -1
		}
		return 1
	})
	j = i
	for j < len(l.Points) && l.Points[j].Tick <= to {
		j++
	}
	return i, j
}

// thinned is the fewest points, of those given, from which a ramp between neighbours stays within so much
// of all that are left out, in the parameter's unit; for 0, within a small part of the travel, or some
// tenths of a decibel where the unit is that. It goes
// as far as it can from each point (the method of Reumann and Witkam, with exact bounds).
func thinned(points []Point, d param.Param, within float64) []Point {
	if len(points) < 3 {
		return points
	}
	off := func(p Point, at float64) bool {
		v := d.At(at)
		if within > 0 {
			return math.Abs(v-p.Value) > within
		}
		if d.Unit == "dB" && p.Value > -60 && v > -60 {
			return math.Abs(v-p.Value) > ThinDecibels
		}
		return math.Abs(at-d.Place(p.Value)) > ThinPart
	}
	fits := func(a, b int) bool {
		for i := a + 1; i < b; i++ { // only what goes on as a does can be left out
			if points[i].Shape != points[a].Shape {
				return false
			}
		}
		switch points[a].Shape {
		case Ramp:
		case Hold:
			for i := a + 1; i < b; i++ {
				if off(points[i], d.Place(points[a].Value)) {
					return false
				}
			}
			return true
		default:
			return false
		}
		x, y := d.Place(points[a].Value), d.Place(points[b].Value)
		for i := a + 1; i < b; i++ {
			t := 0.0
			if points[b].Tick > points[a].Tick {
				t = float64(points[i].Tick-points[a].Tick) / float64(points[b].Tick-points[a].Tick)
			}
			if off(points[i], x+(y-x)*t) {
				return false
			}
		}
		return true
	}
	out := []Point{points[0]}
	for a := 0; a < len(points)-1; {
		b, step := a+1, 1
		for ; a+2*step < len(points) && fits(a, a+2*step); step *= 2 { // ever further, then nearer by halves
			b = a + 2*step
		}
		for ; step > 0; step /= 2 {
			if b+step < len(points) && fits(a, b+step) {
				b += step
			}
		}
		out = append(out, points[b])
		a = b
	}
	return out
}

// What thinning may leave out: changes of less than so many decibels, or of such a part of the
// parameter's travel.
const (
	ThinDecibels = 0.1
	ThinPart     = 0.002
)

// SamePoints reports whether two lines share their points: then nothing has changed them. Without points
// both must have none.
func (l *Line) SamePoints(o *Line) bool {
	return len(l.Points) == len(o.Points) && (len(l.Points) == 0 || &l.Points[0] == &o.Points[0])
}

// Same reports whether two lines move the same parameter by the same points.
func (l *Line) Same(o *Line) bool { return l.Owner == o.Owner && l.Name == o.Name && l.SamePoints(o) }
