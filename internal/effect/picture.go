package effect

import (
	"math"

	"shoal/internal/dsp"
)

// Picture is what an effect looks like: plain data in the units of its axes,
// computed by the code that makes the sound and drawn by the interface.
type Picture struct {
	Says    string   `json:"says" required:"true"`
	X       Axis     `json:"x" required:"true"`
	Y       Axis     `json:"y" required:"true"`
	Curves  []Curve  `json:"curves" required:"true"`
	Bars    []Bar    `json:"bars,omitempty"`
	Handles []Handle `json:"handles,omitempty"`
	Live    *Live    `json:"live,omitempty"`
	// Plumbs are what hangs under the stage.
	Plumbs []Plumb `json:"plumbs,omitempty"`
	// Spectrum asks for the live spectrum before and after the stage behind the curves.
	Spectrum bool `json:"spectrum,omitempty"`
}

// Axis is one direction of a picture.
type Axis struct {
	Label string    `json:"label" required:"true"`
	Unit  string    `json:"unit" required:"true"`
	Min   float64   `json:"min" required:"true"`
	Max   float64   `json:"max" required:"true"`
	Log   bool      `json:"log,omitempty"`
	Ticks []float64 `json:"ticks" required:"true"`
}

// Curve is a line through points. Role is main, part or ghost.
type Curve struct {
	Name string    `json:"name" required:"true"`
	Role string    `json:"role" required:"true"`
	Fill bool      `json:"fill,omitempty"`
	X    []float64 `json:"x" required:"true"`
	Y    []float64 `json:"y" required:"true"`
}

// Bar is an upright from the floor of the picture: an echo. Side is -1 for
// left, 1 for right, 0 for both.
type Bar struct {
	X    float64 `json:"x" required:"true"`
	Y    float64 `json:"y" required:"true"`
	Side int     `json:"side" required:"true"`
}

// Handle is a point that can be dragged: across for one parameter, up and down
// for another; Z is moved by the wheel.
type Handle struct {
	Label  string  `json:"label" required:"true"`
	X      float64 `json:"x" required:"true"`
	Y      float64 `json:"y" required:"true"`
	ParamX string  `json:"paramX,omitempty"`
	ParamY string  `json:"paramY,omitempty"`
	ParamZ string  `json:"paramZ,omitempty"`
	Quiet  bool    `json:"quiet,omitempty"` // belongs to something that is switched off
	// MinX and MaxX bound X where it cannot go all along the axis; both 0: they do not.
	MinX float64 `json:"minX,omitempty"`
	MaxX float64 `json:"maxX,omitempty"`
	// ScaleX is how much of the axis one unit of ParamX is; 0 means that they are the same.
	ScaleX float64 `json:"scaleX,omitempty"`
}

// Live names the reported figures that move a point on the picture and the
// one that is kept as a history of reduction.
type Live struct {
	X         int `json:"x" required:"true"`
	Y         int `json:"y" required:"true"`
	Reduction int `json:"reduction" required:"true"`
	// Hidden says that X and Y are no place on the picture; only the history counts.
	Hidden bool `json:"hidden,omitempty"`
}

const pictureSteps = 180

var hertz = Axis{
	Label: "frequency",
	Unit:  "Hz",
	Min:   20,
	Max:   20000,
	Log:   true,
	Ticks: []float64{50, 100, 200, 500, 1000, 2000, 5000, 10000},
}

// along returns places spread evenly over the axis.
func (a Axis) along(n int) []float64 {
	x := make([]float64, n)
	for i := range x {
		t := float64(i) / float64(n-1)
		if a.Log {
			x[i] = a.Min * dsp.Exp(t*math.Log(a.Max/a.Min))
		} else {
			x[i] = a.Min + t*(a.Max-a.Min)
		}
	}
	return x
}

// curve samples f over the axis.
func (a Axis) curve(name, role string, f func(x float64) float64) Curve {
	c := Curve{Name: name, Role: role, X: a.along(pictureSteps)}
	for _, x := range c.X {
		c.Y = append(c.Y, f(x))
	}
	return c
}
