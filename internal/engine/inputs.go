package engine

import (
	"fmt"
	"slices"

	"shoal/internal/dsp"
	"shoal/internal/input"
	"shoal/internal/project"
)

// Ready is a row that a window has made ready to be recorded: it hears what arrives, and nobody else does.
type Ready struct {
	Row string `json:"row"`
	// Hear is how loud what arrives comes into the row, in dB; at -60 and below it is not heard.
	Hear float64 `json:"hear"`
	// Returns lets of the row only be heard what it sends: the input itself comes straight to the ears by another way.
	Returns bool `json:"returns,omitempty"`
}

// live is an input that comes into a row while the song rolls.
type live struct {
	Ready
	kind   string
	source input.Source
	gone   float64 // after how many seconds of recording it is unplugged; 0: never
	taken  *taken  // nil while nothing is recorded
	level  arrival
	rate   float64
	l, r   []float64
}

// hearOff is from where on downwards an input is not heard.
const hearOff = -60

// Ready makes rows ready to be recorded, and those that are not named no longer.
func (e *Engine) Ready(rows []Ready) error {
	next := map[string]*live{}
	for _, x := range rows {
		ch, ok := e.Document().Channel(x.Row)
		if !ok || ch.Records == "" {
			return fmt.Errorf("this row is recorded from nothing: choose its input first")
		}
		if old := e.inputs[x.Row]; old != nil && old.kind == ch.Records {
			old.Ready = x
			next[x.Row] = old
			continue
		}
		in := &live{Ready: x, kind: ch.Records, rate: e.rate, l: make([]float64, Block), r: make([]float64, Block)}
		if kind, ok := input.Find(ch.Records); ok {
			in.source, in.gone = kind.New(input.SettingOf(e.Document())), kind.Gone
		} else if ch.Records == project.OwnInput {
			in.source = &input.Fed{}
		} else {
			return fmt.Errorf("there is no input %q", ch.Records)
		}
		next[x.Row] = in
	}
	e.inputs = next
	if !slices.Equal(e.liveRows(e.Document()), e.point.live) {
		_ = e.SetDocument(e.Document()) // it was valid when it was given
	}
	for _, p := range e.plans() {
		p.connect(next)
	}
	e.Hear(e.hearing)
	return nil
}

// retime lets stand-ins play to the time of another revision.
func (e *Engine) retime(doc *project.Project) {
	old := e.latest().doc
	same := slices.Equal(old.Tempo, doc.Tempo) && slices.Equal(old.Meter, doc.Meter) && slices.Equal(old.Sections, doc.Sections)
	if len(e.inputs) == 0 || same {
		return
	}
	for _, x := range e.inputs {
		if kind, ok := input.Find(x.kind); ok {
			x.source = kind.New(input.SettingOf(doc))
		}
	}
}

// liveRows are the rows that are ready and have a line: what arrives there is in no print, so all stages run.
func (e *Engine) liveRows(doc *project.Project) (rows []string) {
	for _, ch := range doc.Channels {
		if ch.Waterline != "" && e.inputs[ch.ID] != nil {
			rows = append(rows, ch.ID)
		}
	}
	return rows
}

// connect lets inputs come into their rows.
func (p *plan) connect(inputs map[string]*live) {
	for _, ch := range p.doc.Channels {
		if s, ok := p.twins["sum "+ch.ID].(*sum); ok {
			if s.live != nil && inputs[ch.ID] == nil {
				s.open.Aim(0, gateFrames)
				s.leaves = true
				continue
			}
			s.live, s.leaves = inputs[ch.ID], false
			if s.live != nil {
				gain := 0.0
				if s.live.Hear > hearOff {
					gain = dsp.Gain(s.live.Hear)
				}
				s.open.Aim(gain, gateFrames)
			}
		}
	}
}

// comes adds what arrives at an input to what comes into a row.
func (s *sum) comes(c *cursor, n int) {
	if s.leaves && (!c.rolling || !s.open.Moving()) {
		s.live = nil
		return
	}
	if !c.rolling {
		return
	}
	l, r := s.tmp.l[:n], s.tmp.r[:n]
	s.live.source.Read(l, r, c.frame)
	if s.live.endsBefore(c.frame) {
		return
	}
	s.live.level.follow(l, r, s.live.rate)
	for i := range l {
		g := s.open.Next()
		s.out.l[i] += g * l[i]
		s.out.r[i] += g * r[i]
	}
}

// endsBefore reports whether an input has been unplugged before a frame.
func (x *live) endsBefore(frame int64) bool {
	return x.taken != nil && x.taken.ends > 0 && frame >= x.taken.ends
}

// Feed gives an input of a window's own what has arrived there, in pairs.
func (e *Engine) Feed(frames []float32) {
	for _, x := range e.inputs {
		if fed, ok := x.source.(*input.Fed); ok {
			fed.Put(frames)
		}
	}
}
