package project

import "math"

// Clock turns ticks into frames and bars for one project. It is a copy: it
// stays valid when the document changes.
type Clock struct {
	rate     float64
	tempo    []Tempo
	starts   []float64 // frame at which each tempo begins
	meter    []Meter
	barStart []int // number of the first bar of each meter, from 0
}

// Clock builds the project's clock.
func (p *Project) Clock() *Clock {
	c := &Clock{rate: float64(p.SampleRate), tempo: append([]Tempo(nil), p.Tempo...), meter: append([]Meter(nil), p.Meter...)}
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

// tempoAt returns the quarter notes a minute at a tick, and whether it is on its way to the next tempo.
func (c *Clock) tempoAt(tick int64) (bpm float64, ramp bool) {
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

// ClipStart returns the frame at which a clip begins.
func (c *Clock) ClipStart(x *Clip) int64 {
	if x.Follows {
		return c.Frame(x.Start)
	}
	return x.Start
}

// End returns the frame at which the last clip ends, and at least one bar.
func (p *Project) End() int64 {
	c := p.Clock()
	end := c.Frame(c.Bar(1))
	for _, ch := range p.Channels {
		for _, x := range ch.Clips {
			end = max(end, c.ClipStart(x)+x.Frames)
		}
	}
	return end
}

// SectionRange returns the frames of a section: to the next one, or to the
// end of the song.
func (p *Project) SectionRange(id string) (from, to int64, ok bool) {
	c := p.Clock()
	for i, s := range p.Sections {
		if s.ID != id {
			continue
		}
		to = p.End()
		if i+1 < len(p.Sections) {
			to = c.Frame(p.Sections[i+1].Tick)
		}
		from = c.Frame(s.Tick)
		return from, max(to, from+1), true
	}
	return 0, 0, false
}
