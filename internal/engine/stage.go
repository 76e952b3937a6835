package engine

import (
	"fmt"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/project"
)

// stageStep runs one effect: its input, its key, its moving parameters and its
// own time in; mix, bypass and what it acts on around it.
type stageStep struct {
	id       string
	kind     *effect.Kind
	proc     effect.Processor
	buf      pair
	keyBuf   pair // l is nil where its own signal drives it
	lag      int
	clock    *project.Clock
	slots    []*slot
	stirred  bool  // a parameter has just been moved
	moving   []int // the parameters that move by themselves
	unseen   bool  // parameters were filled that the effect has not had yet
	mix      *slot
	add      bool
	actsOn   string
	heard    gate // bypass
	dry      shift2
	dryBuf   pair
	span     effect.Span
	report   []float64
	meter    *meter // of its output
	idle     bool   // fully bypassed: nothing is computed
	broken   bool   // it made something that is no number
	reporter effect.Reporter
	ringOut  bool // bypassed, it lets what is in it die away
	tail     int  // frames that takes at most
	left     int  // of it
	listened bool // somebody listens to what it changes: input is kept
	input    pair
	watch    *watch
	cost     *spent
	rest     rest
	values   []float64
	rate     float64
	lead     *stageStep // the one of the plan before, which still runs its processor
	kept     pair       // what it gave in the last block, where one will take it over
}

// tailFrames is how long an effect sounds on after its input has ended.
func tailFrames(k *effect.Kind, values []float64, tempo, rate float64) int {
	if k.Tail == nil {
		return 0
	}
	return int(min(60, k.Tail(values, tempo)) * rate)
}

func (s *stageStep) work(c *cursor, n int) {
	l, r := s.buf.l[:n], s.buf.r[:n]
	s.heard.follow(c)
	if s.watch != nil {
		s.watch.in.write(l, r)
		defer s.watch.out.write(l, r)
	}
	if s.rests(c, l, r) {
		return
	}
	if s.stirred || c.jumped {
		s.fill(c, n)
	} else if len(s.moving) > 0 {
		s.fillMoving(c, n)
	}
	mix := s.mix.fill(c, s.lag, n)
	off := !s.heard.Moving() && s.heard.Now() == 0
	if s.ringOut && s.actsOn == "both" && !s.broken && s.rings(off, n) {
		s.ring(c, l, r, n, &mix)
		return
	}
	if off && !s.idle {
		s.proc.Reset()
		s.idle = true
	}
	if !off {
		s.idle = false
	}
	full := !s.add && mix.Track == nil && mix.Now == 100 && !s.heard.Moving() && !off && s.actsOn == "both" && !s.listened
	if full && !s.broken {
		s.dry.feed(l, r)
		s.process(c, l, r, n)
		if s.finite(l, r) {
			return
		}
		clear(l)
		clear(r)
		return
	}
	dl, dr := s.keepDry(l, r, n)
	if !off && !s.broken {
		s.divide(l, r)
		s.process(c, l, r, n)
		if !s.broken {
			s.unite(l, r, dl, dr)
			// the wet signal stands in buf, the dry one in dryBuf: mix there and bring it back
			mixIn(s.dryBuf, pair{l, r}, n, &mix, s.add, &s.heard.Glide)
		}
	}
	if !s.finite(dl, dr) {
		clear(dl)
		clear(dr)
	}
	copy(l, dl)
	copy(r, dr)
}

// keepDry puts the untreated signal aside, as late as the effect will be.
func (s *stageStep) keepDry(l, r []float64, n int) (dl, dr []float64) {
	dl, dr = s.dryBuf.l[:n], s.dryBuf.r[:n]
	copy(dl, l)
	copy(dr, r)
	s.dry.process(s.dryBuf, n)
	if s.listened {
		copy(s.input.l, dl)
		copy(s.input.r, dr)
	}
	return dl, dr
}

// rings reports whether what is in a bypassed stage is still dying away.
func (s *stageStep) rings(off bool, n int) bool {
	if s.heard.Moving() {
		s.left = s.tail
		return s.heard.Target() == 0
	}
	if !off || s.left <= 0 {
		return false
	}
	s.left -= n
	return true
}

// ring runs a stage that is being bypassed, or has been: its input fades out, the
// dry signal comes forward, and what it still holds is heard.
func (s *stageStep) ring(c *cursor, l, r []float64, n int, mix *effect.Value) {
	dl, dr := s.keepDry(l, r, n)
	for i := range l {
		h := s.heard.Next()
		l[i] *= h
		r[i] *= h
		if !s.add {
			k := 1 - mix.At(i)*0.01*h
			dl[i] *= k
			dr[i] *= k
		}
	}
	s.idle = false
	s.process(c, l, r, n)
	for i := range l {
		m := mix.At(i) * 0.01
		l[i], r[i] = dl[i]+m*l[i], dr[i]+m*r[i]
	}
	if !s.finite(l, r) {
		clear(l)
		clear(r)
	}
}

// fill takes all parameters for the next n frames, and notes which will have to be taken again.
func (s *stageStep) fill(c *cursor, n int) {
	s.stirred, s.moving = false, s.moving[:0]
	for i := range s.slots {
		s.moving = append(s.moving, i)
	}
	s.fillMoving(c, n)
	s.stirred = c.jumped // for what jumped must not seem to jump again
}

// fillMoving takes those that moved in the block before.
func (s *stageStep) fillMoving(c *cursor, n int) {
	s.unseen = true
	still := 0
	for k, i := range s.moving {
		p := s.slots[i]
		v := &s.span.Values[i]
		*v = p.fill(c, s.lag, n)
		if v.Track == nil && !v.Step && !p.moves() {
			still++
			continue
		}
		s.moving[k-still] = i
	}
	s.moving = s.moving[:len(s.moving)-still]
}

func (s *stageStep) process(c *cursor, l, r []float64, n int) {
	s.span.L, s.span.R = l, r
	s.span.Still, s.unseen = !s.unseen, false
	if s.keyBuf.l != nil {
		s.span.KeyL, s.span.KeyR = s.keyBuf.l[:n], s.keyBuf.r[:n]
	}
	s.span.Frame = c.songFrame(s.lag, 0)
	s.span.Rolling, s.span.Jumped = c.rolling, c.jumped
	at := s.span.Frame
	if !c.rolling {
		at = c.hold
	}
	s.span.Tempo = s.clock.Tempo(at)
	s.span.Quarter = s.clock.Tick(s.span.Frame) / project.TicksPerQuarter
	s.proc.Process(&s.span)
}

// divide gives the effect the part of the signal that it acts on, on both sides.
func (s *stageStep) divide(l, r []float64) {
	switch s.actsOn {
	case "left":
		copy(r, l)
	case "right":
		copy(l, r)
	case "mid":
		for i, x := range l {
			m := (x + r[i]) * 0.5
			l[i], r[i] = m, m
		}
	case "side":
		for i, x := range l {
			d := (x - r[i]) * 0.5
			l[i], r[i] = d, d
		}
	}
}

// unite puts the treated part back among the untreated rest.
func (s *stageStep) unite(l, r, dl, dr []float64) {
	switch s.actsOn {
	case "left":
		copy(r, dr)
		if s.add {
			clear(r)
		}
	case "right":
		copy(l, dl)
		if s.add {
			clear(l)
		}
	case "mid":
		for i, x := range l {
			m, d := (x+r[i])*0.5, (dl[i]-dr[i])*0.5
			if s.add {
				d = 0
			}
			l[i], r[i] = m+d, m-d
		}
	case "side":
		for i, x := range l {
			m, d := (dl[i]+dr[i])*0.5, (x+r[i])*0.5
			if s.add {
				m = 0
			}
			l[i], r[i] = m+d, m-d
		}
	}
}

// finite measures the output. A stage that makes something that is no number is
// silenced, so that the rest plays on.
func (s *stageStep) finite(l, r []float64) bool {
	a, b := dsp.PeakBits(l, r)
	if a >= infinite || b >= infinite {
		s.broken = true
		s.proc.Reset()
		s.dry.clear()
		return false
	}
	if s.rest.in {
		s.rest.out(max(a, b), len(l))
	}
	s.meter.take(a, b)
	if *s.meter.power {
		s.meter.square(l, r)
	}
	return true
}

func (s *stageStep) key() string {
	return fmt.Sprint("stage ", s.id, " ", s.kind.ID, " ", s.kind.Version)
}

func (s *stageStep) reset() {
	s.proc.Reset()
	s.dry.clear()
	s.broken, s.left, s.rest = false, 0, rest{silent: forever}
}

func (s *stageStep) copyFrom(o twin) {
	old := o.(*stageStep)
	if s.lead == nil {
		s.proc.CopyFrom(old.proc)
		s.dry.copyFrom(old.dry)
	}
	s.goOn(old)
}

// goOn takes over how a stage stands that is the same, beside what is in its processor.
func (s *stageStep) goOn(old *stageStep) {
	s.heard.goOn(&old.heard)
	s.idle, s.left, s.rest = old.idle, old.left, old.rest
}
