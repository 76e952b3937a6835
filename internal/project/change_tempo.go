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
	tempo = append(tempo, Tempo{tick, c.BPM, c.Ramp})
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
		return nil, gone("the tempo")
	}
	return p.each(effects, &SetTime{slices.Delete(slices.Clone(p.Tempo), i, i+1), p.Meter})
}

func (c *Clock) meterIndex(tick int64) int {
	i := len(c.meter) - 1
	for i > 0 && c.meter[i].Tick > tick {
		i--
	}
	return i
}

// MeterAt is the meter at a tick.
func (c *Clock) MeterAt(tick int64) Meter {
	return c.meter[c.meterIndex(tick)]
}

// PlainTempo is the tempo map without ramps, for those who know none: they become steps of a sixteenth,
// each as long as the ramp takes for it.
func (p *Project) PlainTempo() []Tempo {
	c := p.Clock()
	var out []Tempo
	for i, t := range c.tempo {
		if c.slope(i) == 0 {
			out = append(out, Tempo{Tick: t.Tick, BPM: t.BPM})
			continue
		}
		for at := t.Tick; at < c.tempo[i+1].Tick; at += sixteenth {
			to := min(at+sixteenth, c.tempo[i+1].Tick)
			frames := c.framesIn(i, float64(to-t.Tick)) - c.framesIn(i, float64(at-t.Tick))
			out = append(out, Tempo{Tick: at, BPM: 60 * c.rate * float64(to-at) / (TicksPerQuarter * frames)})
		}
	}
	return out
}
