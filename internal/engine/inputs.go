package engine

import (
	"fmt"
	"math"
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
	return nil
}

// retime lets stand-ins play to the time of another revision.
func (e *Engine) retime(doc *project.Project) {
	old := e.latest().doc
	if len(e.inputs) == 0 || slices.Equal(old.Tempo, doc.Tempo) && slices.Equal(old.Meter, doc.Meter) && slices.Equal(old.Sections, doc.Sections) {
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

// taken is what has been recorded of an input and not fetched yet.
type taken struct {
	Row  string        `json:"row"`
	Runs []project.Run `json:"runs"` // all there are so far
	// At is the frame of the input at which what has not been fetched begins, and Frames how many there are of it.
	At     int64 `json:"at"`
	Frames int64 `json:"frames"`
	// Gone says that the input was unplugged.
	Gone bool `json:"gone,omitempty"`

	ends int64 // song frame at which it is unplugged; 0: never
	next int64 // song frame that follows
	// joins: the plan has turned and has not come to that frame yet, or is beyond it.
	joins bool
	data  []float32
}

// recorder takes down what arrives while the song rolls.
type recorder struct {
	on   bool
	plan *plan // of which the last block was
	from int64 // song frame since which the song has rolled without a break
}

// keptSeconds is for how long before somebody says so what arrived is recorded too: the edges of a take can be drawn out there.
const keptSeconds = 10

// Record begins to take down what arrives at the rows that are ready, or ends it. Where the song rolls already, the last
// seconds are taken too.
func (e *Engine) Record(on bool) {
	e.recording.on, e.recording.plan = on, e.now
	c := &e.now.cursor
	for _, x := range e.inputs {
		if x.taken = nil; !on || x.kind == project.OwnInput { // that comes by a ring of its own
			continue
		}
		x.taken = &taken{Row: x.Row, next: math.MinInt64}
		if !c.rolling || e.seek != nil {
			continue
		}
		for at := max(e.recording.from, c.frame-keptSeconds*int64(e.rate)); at < c.frame && !x.taken.Gone; at += Block {
			x.take(at, int(min(Block, c.frame-at)))
		}
	}
}

// record takes down what arrives while the frames of a block are heard. A plan that takes the place of another may be
// earlier or later in the song: then what is missing is taken besides, and what is there already is not taken again.
func (e *Engine) record(c *cursor, n int) {
	if c.jumped || c.frame < e.recording.from {
		e.recording.from = c.frame
	}
	if !e.recording.on || !c.rolling {
		return
	}
	turned := e.recording.plan != nil && e.recording.plan != e.now
	e.recording.plan = e.now
	for _, x := range e.inputs {
		t := x.taken
		if t == nil || t.Gone {
			continue
		}
		from, to := c.frame, c.frame+int64(n)
		near := t.next > from-int64(e.rate) && t.next < from+int64(e.rate)
		if t.joins = (t.joins || turned) && near && !c.jumped; t.joins {
			from, t.joins = t.next, t.next >= to
		}
		for from < to && !t.Gone {
			k := min(to-from, Block)
			x.take(from, int(k))
			from += k
		}
	}
}

// take takes down some frames.
func (x *live) take(from int64, n int) {
	t := x.taken
	if len(t.Runs) == 0 || t.next != from {
		t.Runs = append(t.Runs, project.Run{Input: t.At + t.Frames, Song: from})
		if len(t.Runs) == 1 && x.gone > 0 {
			t.ends = from + int64(x.gone*x.rate)
		}
	}
	if t.ends > 0 && from+int64(n) >= t.ends {
		n, t.Gone = int(max(0, t.ends-from)), true
	}
	l, r := x.l[:n], x.r[:n]
	x.source.Read(l, r, from)
	for i := range l {
		t.data = append(t.data, float32(l[i]), float32(r[i]))
	}
	t.Frames += int64(n)
	t.Runs[len(t.Runs)-1].Frames += int64(n)
	t.next = from + int64(n)
}

// Taken is what has been recorded on a row since it was asked for last: its frames in pairs, and where they belong; false:
// nothing is being recorded there. What it gives is valid until the next block.
func (e *Engine) Taken(row string) (*taken, []float32, bool) {
	x := e.inputs[row]
	if x == nil || x.taken == nil {
		return nil, nil, false
	}
	t := *x.taken
	data := x.taken.data
	x.taken.At, x.taken.Frames, x.taken.data = t.At+t.Frames, 0, data[:0]
	return &t, data, true
}

// Feed gives an input of a window's own what has arrived there, in pairs.
func (e *Engine) Feed(frames []float32) {
	for _, x := range e.inputs {
		if fed, ok := x.source.(*input.Fed); ok {
			fed.Put(frames)
		}
	}
}
