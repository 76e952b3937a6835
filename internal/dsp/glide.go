package dsp

import "math"

// Glide moves a value to a target along a raised cosine, so that a control
// moved by hand makes no click. A new target starts from the present value.
type Glide struct {
	from, to float64
	n, len   int
}

// Set jumps to v at once.
func (g *Glide) Set(v float64) { g.from, g.to, g.n, g.len = v, v, 0, 0 }

// Aim starts a move to v over the given frames.
func (g *Glide) Aim(v float64, frames int) {
	if v == g.to {
		return
	}
	g.from, g.to, g.n, g.len = g.Now(), v, 0, frames
}

// Moving reports whether the target is not yet reached.
func (g *Glide) Moving() bool { return g.n < g.len }

// Target returns where the value is going.
func (g *Glide) Target() float64 { return g.to }

// Now returns the present value.
func (g *Glide) Now() float64 {
	if g.n >= g.len {
		return g.to
	}
	return g.from + (g.to-g.from)*(0.5-0.5*math.Cos(math.Pi*float64(g.n)/float64(g.len)))
}

// Next moves one frame on and returns the value there.
func (g *Glide) Next() float64 {
	if g.n < g.len {
		g.n++
	}
	return g.Now()
}

// Skip moves n frames on.
func (g *Glide) Skip(n int) { g.n = min(g.n+n, g.len) }
