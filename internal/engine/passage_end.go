package engine

import (
	"shoal/internal/dsp"
	"shoal/internal/project"
)

// TailFigure is what was heard of a row at the end of a passage, and after it.
type TailFigure struct {
	Passage string `json:"passage" required:"true"`
	Row     string `json:"row" required:"true"`
	// End is the peak in dB over its last 20 ms, Left that from the end to the next sound,
	// for four seconds at most.
	End  float64 `json:"end" required:"true"`
	Left float64 `json:"left" required:"true"`
}

// TailMeter measures what is left of a row where a passage ends.
type TailMeter struct {
	Begin, End, Until int64   // song frames: what is measured before the end, and as far as what after it
	AtEnd, Left       float64 // peaks, as factors
	Heard             bool    // the row has been played as far as what is left
}

// endSeconds is for how long after the end at most what is left is measured.
const endSeconds = 4

// NewTailMeter is for a row of a passage.
func NewTailMeter(doc *project.Project, clock *project.Clock, x *project.Passage, row string) TailMeter {
	end, rate := clock.Frame(x.To), int64(doc.SampleRate)
	until := end + endSeconds*rate
	if f, ok := doc.NextSound(row, end, clock); ok {
		until = min(until, f)
	}
	return TailMeter{Begin: end - rate/50, End: end, Until: until}
}

// Hear takes what the row gives from a song frame on.
func (m *TailMeter) Hear(frame int64, l, r []float64) {
	switch {
	case frame >= m.Begin && frame < m.End:
		m.AtEnd = max(m.AtEnd, dsp.Peak(l, r))
	case frame >= m.End+gateFrames && frame < m.Until: // what is switched off is gone by then
		m.Left, m.Heard = max(m.Left, dsp.Peak(l, r)), true
	}
}

// endStep measures a row behind its fader where a passage ends.
type endStep struct {
	TailMeter
	passage, row string
	buf          pair
	lag          int
}

func (s *endStep) run(c *cursor, n int) {
	if c.rolling {
		s.Hear(c.songFrame(s.lag, 0), s.buf.l[:n], s.buf.r[:n])
	}
}

// passageEnds are the steps that measure a row where passages end.
func (c *compiler) passageEnds(row string, buf pair, lag int) (steps []step) {
	for _, x := range c.doc.Passages {
		for _, id := range x.Rows {
			if id == row && !x.Off {
				s := &endStep{NewTailMeter(c.doc, c.clock, x, row), x.ID, row, buf, lag}
				c.plan.passageEnds = append(c.plan.passageEnds, s)
				steps = append(steps, s)
			}
		}
	}
	return steps
}

func (p *plan) tails() []TailFigure {
	out := []TailFigure{}
	for _, s := range p.passageEnds {
		if s.Heard {
			out = append(out, TailFigure{s.passage, s.row, dsp.Decibels(s.AtEnd), dsp.Decibels(s.Left)})
		}
	}
	return out
}
