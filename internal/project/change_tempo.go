package project

import (
	"fmt"
	"math"
	"slices"
)

// PutTempo sets the tempo from a beat on, or changes the one that is there.
type PutTempo struct {
	At   int64   `json:"at,omitempty"`   // song frame; the nearest beat is taken
	Tick *int64  `json:"tick,omitempty"` // of one that is there, in place of At
	BPM  float64 `json:"bpm"`
	Ramp bool    `json:"ramp,omitempty"`
}

func (c *PutTempo) apply(p *Project, effects Effects) ([]Change, error) {
	tick := int64(0)
	if c.Tick != nil {
		tick = *c.Tick
	} else {
		clock := p.Clock()
		m := clock.MeterAt(int64(clock.Tick(max(c.At, 0))))
		beat := m.BarTicks() / int64(m.Beats)
		tick = m.Tick + int64(math.Round((clock.Tick(max(c.At, 0))-float64(m.Tick))/float64(beat)))*beat
	}
	tempo := slices.DeleteFunc(slices.Clone(p.Tempo), func(t Tempo) bool { return t.Tick == tick })
	tempo = append(tempo, Tempo{Tick: tick, BPM: c.BPM, Ramp: c.Ramp})
	slices.SortFunc(tempo, func(a, b Tempo) int { return int(a.Tick - b.Tick) })
	return p.each(effects, &SetTime{tempo, p.Meter})
}

// RemoveTempo takes a tempo away: the one before it goes on.
type RemoveTempo struct {
	Tick int64 `json:"tick"`
}

func (c *RemoveTempo) apply(p *Project, effects Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Tempo, func(t Tempo) bool { return t.Tick == c.Tick })
	switch {
	case c.Tick == 0:
		return nil, fmt.Errorf("the first tempo cannot be removed: change it instead")
	case i < 0:
		return nil, Gone("the tempo")
	}
	return p.each(effects, &SetTime{slices.Delete(slices.Clone(p.Tempo), i, i+1), p.Meter})
}
