package engine

import "shoal/internal/dsp"

// Arrival is how loud what arrives at an input is, before the chain, whether it is heard or not.
type Arrival struct {
	Peak float64 `json:"peak" required:"true"` // dB, since it was asked for last
	Held float64 `json:"held" required:"true"` // dB, the highest of the last while
	// State says what is wrong with it: hot where it clips, silent where nothing has come for a while.
	State string `json:"state,omitempty" enum:"hot,silent"`
}

// hotFrom is the level from which on an input is too hot, and nothingBelow the one under which nothing comes in, in dB.
const (
	hotFrom      = -0.2
	nothingBelow = -80
)

// holdSeconds is for how long a peak is held, and nothingSeconds after how long without sound nothing comes in.
const (
	holdSeconds    = 1.5
	nothingSeconds = 4
)

// arrival follows an input's level.
type arrival struct {
	peak, held    float64
	since, silent int // frames since the held peak, and without sound
}

func (a *arrival) follow(l, r []float64, rate float64) {
	now := dsp.Peak(l, r)
	a.peak = max(a.peak, now)
	if a.since += len(l); now >= a.held || a.since > int(holdSeconds*rate) {
		a.held, a.since = now, 0
	}
	if a.silent += len(l); dsp.Decibels(now) > nothingBelow {
		a.silent = 0
	}
}

// Arriving is what arrives at the rows that are ready, by row.
func (e *Engine) Arriving() map[string]Arrival {
	out := make(map[string]Arrival, len(e.inputs))
	for row, x := range e.inputs {
		a := Arrival{Peak: dsp.Decibels(x.level.peak), Held: dsp.Decibels(x.level.held)}
		switch {
		case a.Held >= hotFrom:
			a.State = "hot"
		case x.level.silent > int(nothingSeconds*e.rate):
			a.State = "silent"
		}
		x.level.peak = 0
		out[row] = a
	}
	return out
}
