package project

import "shoal/internal/project/songtime"

// Musical time is worked out in package songtime.
type (
	// Clock turns ticks into frames and bars for one project. It is a copy: it stays valid when the document changes.
	Clock = songtime.Clock
	// Tempo holds from a tick on, in quarter notes a minute.
	Tempo = songtime.Tempo
	// Meter holds from a tick on, which must begin a bar.
	Meter = songtime.Meter
)

// TicksPerQuarter is the resolution of musical time.
const TicksPerQuarter = songtime.TicksPerQuarter

// Clock builds the project's clock.
func (p *Project) Clock() *Clock { return songtime.New(p.SampleRate, p.Tempo, p.Meter) }

// BeginsAt returns the frame at which a clip begins.
func (x *Clip) BeginsAt(c *Clock) int64 {
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
			end = max(end, x.BeginsAt(c)+x.Frames)
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
