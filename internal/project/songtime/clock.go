// Package songtime is musical time: ticks, tempo and meter, and the frames and places that they come to.
package songtime

import (
	"math"
	"slices"
)

// TicksPerQuarter is the resolution of musical time.
const TicksPerQuarter = 960

// Tempo holds from a tick on, in quarter notes a minute. With Ramp it goes to the next one's, evenly over
// the ticks between.
type Tempo struct {
	Tick int64   `json:"tick" required:"true"`
	BPM  float64 `json:"bpm" required:"true"`
	Ramp bool    `json:"ramp,omitempty"`
}

// Meter holds from a tick on, which must begin a bar.
type Meter struct {
	Tick  int64 `json:"tick" required:"true"`
	Beats int   `json:"beats" required:"true"`
	Unit  int   `json:"unit" required:"true"`
}

// Clock turns ticks into frames and bars. It is a copy: it stays valid when the document changes.
type Clock struct {
	rate     float64
	tempo    []Tempo
	starts   []float64 // frame at which each tempo begins
	meter    []Meter
	barStart []int // number of the first bar of each meter, from 0
}

// New builds a clock. Both lists begin at tick 0 and go up.
func New(rate int, tempo []Tempo, meter []Meter) *Clock {
	c := &Clock{rate: float64(rate), tempo: slices.Clone(tempo), meter: slices.Clone(meter)}
	frame := 0.0
	for i, t := range c.tempo {
		if i > 0 {
			frame += c.framesIn(i-1, float64(t.Tick-c.tempo[i-1].Tick))
		}
		c.starts = append(c.starts, frame)
	}
	bar := 0
	for i, m := range c.meter {
		if i > 0 {
			bar += int((m.Tick - c.meter[i-1].Tick) / c.meter[i-1].BarTicks())
		}
		c.barStart = append(c.barStart, bar)
	}
	return c
}

// BarTicks is the length of a bar.
func (m Meter) BarTicks() int64 { return int64(m.Beats) * TicksPerQuarter * 4 / int64(m.Unit) }

// slope is by how much a tempo changes in each tick until the next one.
func (c *Clock) slope(i int) float64 {
	if !c.tempo[i].Ramp || i+1 == len(c.tempo) {
		return 0
	}
	return (c.tempo[i+1].BPM - c.tempo[i].BPM) / float64(c.tempo[i+1].Tick-c.tempo[i].Tick)
}

// framesIn is how many frames the first ticks of a tempo take. While the tempo b goes up or down by s in
// each tick, that is the integral of k/b, k ln(1 + s ticks / b0) / s, with k = 60 rate / ticks a quarter.
func (c *Clock) framesIn(i int, ticks float64) float64 {
	k, b, s := 60*c.rate/TicksPerQuarter, c.tempo[i].BPM, c.slope(i)
	if s == 0 {
		return ticks * k / b
	}
	return k * math.Log1p(s*ticks/b) / s
}

// ticksIn is how many ticks pass in the first frames of a tempo.
func (c *Clock) ticksIn(i int, frames float64) float64 {
	k, b, s := 60*c.rate/TicksPerQuarter, c.tempo[i].BPM, c.slope(i)
	if s == 0 {
		return frames * b / k
	}
	return b * math.Expm1(s*frames/k) / s
}

// Frame returns the frame nearest to a tick: that is the only rounding.
func (c *Clock) Frame(tick int64) int64 {
	i := len(c.tempo) - 1
	for i > 0 && c.tempo[i].Tick > tick {
		i--
	}
	return int64(math.Round(c.starts[i] + c.framesIn(i, float64(tick-c.tempo[i].Tick))))
}

// Tick returns the musical time of a frame, in ticks and parts of ticks.
func (c *Clock) Tick(frame int64) float64 {
	i := c.at(frame)
	return float64(c.tempo[i].Tick) + c.ticksIn(i, float64(frame)-c.starts[i])
}

// Tempo returns the quarter notes a minute at a frame.
func (c *Clock) Tempo(frame int64) float64 {
	i := c.at(frame)
	return c.tempo[i].BPM + c.slope(i)*c.ticksIn(i, float64(frame)-c.starts[i])
}

// TempoAt returns the quarter notes a minute at a tick, and whether it is on its way to the next tempo.
func (c *Clock) TempoAt(tick int64) (bpm float64, ramp bool) {
	i := len(c.tempo) - 1
	for i > 0 && c.tempo[i].Tick > tick {
		i--
	}
	return c.tempo[i].BPM + c.slope(i)*float64(tick-c.tempo[i].Tick), c.slope(i) != 0
}

func (c *Clock) at(frame int64) int {
	i := len(c.tempo) - 1
	for i > 0 && c.starts[i] > float64(frame) {
		i--
	}
	return i
}

// Bar returns the tick at which a bar begins; bars count from 0.
func (c *Clock) Bar(bar int) int64 {
	i := len(c.meter) - 1
	for i > 0 && c.barStart[i] > bar {
		i--
	}
	return c.meter[i].Tick + int64(bar-c.barStart[i])*c.meter[i].BarTicks()
}

// Snapped is the tick of a frame, on a grid of so many ticks; 0: none.
func (c *Clock) Snapped(frame, grid int64) int64 {
	t := c.Tick(max(frame, 0))
	if grid > 0 {
		return int64(math.Round(t/float64(grid))) * grid
	}
	return int64(math.Round(t))
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

// sixteenth is the step in which a ramp is told to those who know none.
const sixteenth = TicksPerQuarter / 4

// PlainTempo is the tempo map without ramps, for those who know none: they become steps of a sixteenth,
// each as long as the ramp takes for it.
func (c *Clock) PlainTempo() []Tempo {
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
