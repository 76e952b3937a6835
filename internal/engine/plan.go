package engine

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/param"
	"shoal/internal/project"
)

// plan is a compiled document: steps in order, on buffers of their own.
type plan struct {
	doc         *project.Project
	clock       *project.Clock
	shape       string            // equal shapes differ in values only
	how         map[string]uint64 // what leads to each stage and how, as a digest
	steps       []step
	lanes       []*lane // the same steps by lane, where they can run at the same time
	given       []*wire // what comes out of lanes for whoever renders
	twins       map[string]twin
	slots       map[address]*slot
	time        lineTime // of lines
	lined       []linedSlot
	moved       []*slot // those with movers or on a handle
	handles     []*slot // a handle's value, once for each parameter that hangs on it
	players     []*player
	clips       map[entry]*player
	lib         *pages.Library
	water       map[string]string // the key of each row's line
	printed     map[string]*printed
	awaited     []awaited
	strips      map[string]*strip
	flows       map[string]*outflow
	sends       map[string]*sendStep
	stages      map[string]*stageStep
	trials      map[string]*trialStep
	joins       map[string]*joinStep
	paths       map[string]*pathStep
	points      []Point
	meters      []*meter
	reports     []*stageStep
	out         pair     // what is heard, or captured
	ends        []rowEnd // of the rows that were asked for
	passageEnds []*endStep
	end         int64      // the song frame where its last clip ends; 0: there is none
	latency     int        // how late out is
	late        []*gnode   // the nodes that make it so late
	meetings    []*meeting // where several signals meet
	cursor      cursor
	missing     []pages.Missing
	wants       []want // pages of impulse responses that were absent when it was built
	probe       probe
	power       bool // meters keep RMS as well
}

type address struct{ owner, name string }

// rowEnd is a row's signal behind its fader, and how late it is.
type rowEnd struct {
	buf pair
	lag int
}

type linedSlot struct {
	slot *slot
	lag  int
}

// Point says what a meter measures. Kind is in (a channel's input), after (a
// stage or fork), post (a channel's output) or send.
type Point struct {
	Kind  string `json:"kind"`
	Owner string `json:"owner"`
	// Report is where the owner's live figures begin among Levels.Reports, or -1.
	Report int `json:"report"`
}

// meter measures the peak of a signal since it was last read.
type meter struct {
	buf         pair
	l, r        uint64 // bit patterns, see dsp.PeakBits
	now, before uint64 // highest of this window of the survey and of the one before
	ever        uint64 // and of all before those
	power       *bool  // whether RMS is asked for as well
	sl, sr      float64
	count       int
}

func (m *meter) run(_ *cursor, n int) {
	m.take(dsp.PeakBits(m.buf.l[:n], m.buf.r[:n]))
	if *m.power {
		m.square(m.buf.l[:n], m.buf.r[:n])
	}
}

// square adds a block to the mean power.
func (m *meter) square(l, r []float64) {
	a, b := 0.0, 0.0
	for i, v := range l {
		a += v * v
		b += r[i] * r[i]
	}
	m.sl, m.sr, m.count = m.sl+a, m.sr+b, m.count+len(l)
}

// rms reads the mean levels in dB and starts anew.
func (m *meter) rms() (l, r float64) {
	n := float64(max(1, m.count))
	l, r = dsp.Decibels(math.Sqrt(m.sl/n)), dsp.Decibels(math.Sqrt(m.sr/n))
	m.sl, m.sr, m.count = 0, 0, 0
	return l, r
}

func (m *meter) take(l, r uint64) { m.l, m.r = max(m.l, l), max(m.r, r) }

// db reads the peaks in dB and starts anew.
func (m *meter) db() (l, r float64) {
	l, r = dsp.Decibels(math.Float64frombits(m.l)), dsp.Decibels(math.Float64frombits(m.r))
	m.now = max(m.now, m.l, m.r)
	m.l, m.r = 0, 0
	return l, r
}

// infinite is the bit pattern from which on a magnitude is no number.
const infinite = 0x7ff << 52

// check returns the pages needed for the next n frames that are absent.
func (p *plan) check(n int) []pages.Missing {
	p.missing = p.missing[:0]
	if !p.cursor.rolling {
		return nil
	}
	p.missing = p.wanting(p.missing)
	for _, pl := range p.players {
		p.missing = pl.missing(p.missing, p.cursor.frame, p.cursor.frame+int64(n))
	}
	return p.missing
}

// room cuts a block where the loop ends, at the song's grid and where a line jumps.
func (p *plan) room(n int) int {
	n = p.cursor.room(n)
	if p.cursor.rolling {
		for i := range p.lined {
			s := &p.lined[i]
			n = int(min(int64(n), s.slot.next(p.cursor.songFrame(s.lag, 0))))
		}
	}
	return n
}

func (p *plan) run(n int) {
	at := p.probe.turn()
	for i, s := range p.steps {
		if i == at {
			p.probe.measure(s, &p.cursor, n)
			continue
		}
		s.run(&p.cursor, n)
	}
	p.cursor.advance(n)
}

// reset empties all state, as after a seek.
func (p *plan) reset() {
	for _, t := range p.twins {
		t.reset()
	}
	p.cursor.wrapped = false
}

// adopt takes over the state of what is in both plans.
func (p *plan) adopt(old *plan) {
	if len(old.players) > 0 {
		for _, pl := range p.players { // those that are new begin in the middle of the song
			pl.roll = old.players[0].roll
		}
	}
	for k, t := range p.twins {
		if o, ok := old.twins[k]; ok {
			t.copyFrom(o)
		}
	}
	for i, h := range p.handles { // the same parameters hang on the same handles: else they begin where they are
		if i < len(old.handles) && old.handles[i].owner == h.owner {
			want := h.base()
			h.hand, h.taken = old.handles[i].hand, old.handles[i].taken
			h.aim(want, gateFrames)
		}
	}
	for a, s := range p.slots {
		if o, ok := old.slots[a]; ok && s.desc.Taper == o.desc.Taper && s.rank == o.rank {
			s.goOn(o)
		}
	}
}

// goOn takes over where another plan's slot stands.
func (s *slot) goOn(o *slot) {
	want := s.base()
	s.hand, s.taken = o.hand, o.taken
	if s.taken {
		want = o.want
	}
	if s.hand.Moving() && s.track == nil {
		s.track = make([]float64, Block)
	}
	s.aim(want, gateFrames)
}

// update takes over the values of a document of the same shape.
func (p *plan) update(doc *project.Project, smooth int) {
	p.reclips(doc)
	for _, h := range doc.Handles {
		p.aim(h.ID, handleName, h.Value, smooth)
	}
	for _, ch := range doc.Channels {
		p.aim(ch.ID, "fader", ch.Fader, smooth)
		p.aim(ch.ID, "pan", ch.Pan, smooth)
		if s := p.strips[ch.ID]; s != nil {
			s.open.hand(!ch.Mute)
		}
		for _, s := range ch.Sends {
			p.aim(s.ID, "level", s.Level, smooth)
			p.aim(s.ID, "pan", s.Pan, smooth)
			if t := p.sends[s.ID]; t != nil {
				t.open.hand(project.SendOpen(ch, s))
			}
		}
		p.updateChain(&ch.Chain, ch.Chain.Bypass, smooth)
		for _, t := range ch.Trials {
			p.updateChain(&t.Chain, t.Chain.Bypass, smooth)
		}
	}
}

func (p *plan) updateChain(c *project.Chain, bypassed bool, smooth int) {
	for _, n := range c.Nodes {
		if s := n.Stage; s != nil {
			t := p.stages[s.ID]
			if t == nil {
				continue
			}
			for i := range t.kind.Params {
				d := &t.kind.Params[i]
				p.aim(s.ID, d.Name, valueOf(s, d), smooth)
			}
			p.aim(s.ID, "mix", s.Mix, smooth)
			t.add, t.ringOut = s.MixLaw == "add", s.RingOut
			t.heard.hand(!s.Bypass && !bypassed)
			continue
		}
		f := n.Fork
		p.aim(f.ID, "mix", f.Mix, smooth)
		p.aim(f.ID, "trim", f.Trim, smooth)
		for i, hz := range f.Crossovers {
			p.aim(f.ID, param.CrossoverName(i+1), hz, smooth)
		}
		if j := p.joins[f.ID]; j != nil {
			j.add = f.MixLaw == "add"
			j.heard.hand(!f.Bypass && !bypassed)
		}
		for _, path := range f.Paths {
			p.aim(path.ID, "level", path.Level, smooth)
			p.aim(path.ID, "pan", path.Pan, smooth)
			p.aim(path.ID, "width", path.Width, smooth)
			if s := p.paths[path.ID]; s != nil {
				s.open.hand(!path.Mute)
			}
			p.updateChain(&path.Chain, path.Chain.Bypass, smooth)
		}
	}
}

func (p *plan) aim(owner, name string, v float64, frames int) bool {
	s, ok := p.slots[address{owner, name}]
	if ok {
		s.aim(v, frames)
	}
	for _, h := range p.handles {
		if h.owner == owner && name == handleName {
			h.aim(v, frames)
			ok = true
		}
	}
	return ok
}

// handleParam is a handle's value as a parameter, and handleName its name.
var (
	handleParam = param.Handle
	handleName  = param.Handle.Name
)

func boolGain(b bool) float64 {
	if b {
		return 1
	}
	return 0
}
