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
			frame += float64(t.Tick-c.tempo[i-1].Tick) * c.perTick(i-1)
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

func (c *Clock) perTick(i int) float64 {
	return 60 * c.rate / (c.tempo[i].BPM * TicksPerQuarter)
}

// Frame returns the frame nearest to a tick.
func (c *Clock) Frame(tick int64) int64 {
	i := len(c.tempo) - 1
	for i > 0 && c.tempo[i].Tick > tick {
		i--
	}
	return int64(math.Round(c.starts[i] + float64(tick-c.tempo[i].Tick)*c.perTick(i)))
}

// Tick returns the musical time of a frame, in ticks and parts of ticks.
func (c *Clock) Tick(frame int64) float64 {
	i := c.at(frame)
	return float64(c.tempo[i].Tick) + (float64(frame)-c.starts[i])/c.perTick(i)
}

// Tempo returns the quarter notes a minute at a frame.
func (c *Clock) Tempo(frame int64) float64 { return c.tempo[c.at(frame)].BPM }

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
