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

// endStep measures a row behind its fader where a passage ends.
type endStep struct {
	passage, row      string
	buf               pair
	lag               int
	begin, end, until int64 // song frames
	atEnd, left       float64
	heard             bool // it has been played as far as what is left
}

// endSeconds is for how long after the end at most what is left is measured.
const endSeconds = 4

// endOf is where to measure a row of a passage.
func endOf(doc *project.Project, clock *project.Clock, x *project.Passage, row string) endStep {
	end, rate := clock.Frame(x.To), int64(doc.SampleRate)
	until := end + endSeconds*rate
	if f, ok := doc.NextSound(row, end, clock); ok {
		until = min(until, f)
	}
	return endStep{passage: x.ID, row: row, begin: end - rate/50, end: end, until: until}
}

func (s *endStep) run(c *cursor, n int) {
	if !c.rolling {
		return
	}
	switch f := c.songFrame(s.lag, 0); {
	case f >= s.begin && f < s.end:
		s.atEnd = max(s.atEnd, dsp.Peak(s.buf.l[:n], s.buf.r[:n]))
	case f >= s.end+gateFrames && f < s.until: // what is switched off is gone by then
		s.left, s.heard = max(s.left, dsp.Peak(s.buf.l[:n], s.buf.r[:n])), true
	}
}

// passageEnds are the steps that measure a row where passages end.
func (c *compiler) passageEnds(row string, buf pair, lag int) (steps []step) {
	for _, x := range c.doc.Passages {
		for _, id := range x.Rows {
			if id == row && !x.Off {
				s := endOf(c.doc, c.clock, x, row)
				s.buf, s.lag = buf, lag
				c.plan.passageEnds = append(c.plan.passageEnds, &s)
				steps = append(steps, &s)
			}
		}
	}
	return steps
}

func (p *plan) tails() []TailFigure {
	out := []TailFigure{}
	for _, s := range p.passageEnds {
		if s.heard {
			out = append(out, TailFigure{s.passage, s.row, dsp.Decibels(s.atEnd), dsp.Decibels(s.left)})
		}
	}
	return out
}
