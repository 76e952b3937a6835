// Package effecttest puts effects through one examination (Check) and runs
// them over signals for tests of their own.
package effecttest

import (
	"shoal/internal/dsp"
	"shoal/internal/effect"
)

// Rig runs one processor as the engine would.
type Rig struct {
	Kind   *effect.Kind
	Rate   float64
	Tempo  float64
	Values []float64
	P      effect.Processor
	frame  int64
	first  bool
	moving int       // which parameter moves, while there is a track
	track  []float64 // what is left of it
	vals   []effect.Value
	span   effect.Span
}

// New makes a rig with the effect's defaults, changed by name.
func New(id string, rate float64, set map[string]float64) *Rig {
	k, ok := effect.Find(id)
	if !ok {
		panic("no effect " + id)
	}
	return Of(k, rate, set)
}

// Of makes a rig of a kind, with its defaults, changed by name.
func Of(k *effect.Kind, rate float64, set map[string]float64) *Rig {
	r := &Rig{Kind: k, Rate: rate, Tempo: 120, Values: k.Defaults(), first: true}
	for name, v := range set {
		i := k.Index(name)
		if i < 0 {
			panic("no parameter " + name)
		}
		r.Values[i] = v
	}
	r.vals = make([]effect.Value, len(r.Values))
	r.P = r.Make()
	return r
}

// Make makes another processor with the rig's values.
func (r *Rig) Make() effect.Processor {
	p := r.Kind.New(r.Rate)
	if q, ok := p.(effect.Preparer); ok {
		q.Prepare(r.Values)
	}
	return p
}

// Latency is what the effect declares for the rig's values.
func (r *Rig) Latency() int {
	if r.Kind.Latency == nil {
		return 0
	}
	return r.Kind.Latency(r.Rate, r.Values)
}

// Run processes in place, in blocks of the given size.
func (r *Rig) Run(left, right []float64, block int) {
	for at := 0; at < len(left); {
		n := min(block, len(left)-at)
		r.Span(left[at:at+n], right[at:at+n])
		at += n
	}
}

// RunMoving is Run with a parameter that moves from frame to frame.
func (r *Rig) RunMoving(left, right []float64, name string, track []float64) {
	r.moving, r.track = r.Kind.Index(name), track
	r.Run(left, right, effect.MaxFrames)
	r.track = nil
}

// Span processes one block of at most MaxFrames.
func (r *Rig) Span(left, right []float64) {
	for i := range r.vals {
		r.vals[i] = effect.Value{Now: r.Values[i]}
	}
	if r.track != nil {
		r.vals[r.moving] = effect.Value{Now: r.track[0], Track: r.track[:len(left)]}
		r.track = r.track[len(left):]
	}
	r.span = effect.Span{
		L:      left,
		R:      right,
		Values: r.vals,
		Still:  !r.first && r.track == nil,
		Time: effect.Time{
			Frame:   r.frame,
			Quarter: float64(r.frame) / r.Rate * r.Tempo / 60,
			Tempo:   r.Tempo,
			Rolling: true,
			Jumped:  r.first,
		},
	}
	r.P.Process(&r.span)
	r.first = false
	r.frame += int64(len(left))
}

// Noise is seeded white noise at a level in dB.
func Noise(n int, seed uint64, db float64) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = dsp.Gain(db) * dsp.White(seed, int64(i))
	}
	return x
}
