package engine

import (
	"shoal/internal/dsp"
	"shoal/internal/effect"
)

// pathStep is the end of a path of a fork, before the paths meet.
type pathStep struct {
	id                string
	buf               pair
	ear               pair // what a listener to the path hears, muted or not; l is nil where nobody listens
	lag               int
	level, pan, width *slot
	open              gate // mute
	invert            bool
}

func (s *pathStep) run(c *cursor, n int) {
	w := s.width.fill(c, s.lag, n)
	widen(s.buf, n, &w)
	v, p := s.level.fill(c, s.lag, n), s.pan.fill(c, s.lag, n)
	applyGain(s.buf, s.buf, n, &v, &p, panStereo, &ungated, &ungated)
	l, r := s.buf.l[:n], s.buf.r[:n]
	if s.invert {
		for i := range l {
			l[i], r[i] = -l[i], -r[i]
		}
	}
	if s.ear.l != nil {
		copy(s.ear.l, l)
		copy(s.ear.r, r)
	}
	s.open.follow(c)
	scale(l, r, &s.open.Glide)
}

// widen multiplies what differs between the sides by a width in percent.
func widen(b pair, n int, width *effect.Value) {
	if width.Track == nil && width.Now == 100 {
		return
	}
	for i, l := range b.l[:n] {
		r := b.r[i]
		m, d := (l+r)*0.5, (l-r)*0.005*width.At(i)
		b.l[i], b.r[i] = m+d, m-d
	}
}

func (s *pathStep) key() string { return "path " + s.id }
func (s *pathStep) reset()      {}
func (s *pathStep) copyFrom(o twin) {
	s.open.goOn(&o.(*pathStep).open)
}

// splitStep gives a path its part of the signal at a fork.
type splitStep struct {
	from, to pair
	kind     string // copies, left, right, mid, side
}

func (s *splitStep) run(_ *cursor, n int) {
	l, r := s.to.l[:n], s.to.r[:n]
	copy(l, s.from.l)
	copy(r, s.from.r)
	switch s.kind {
	case "left":
		clear(r)
	case "right":
		clear(l)
	case "mid":
		for i, x := range l {
			m := (x + r[i]) * 0.5
			l[i], r[i] = m, m
		}
	case "side":
		for i, x := range l {
			d := (x - r[i]) * 0.5
			l[i], r[i] = d, -d
		}
	}
}

// joinStep replaces a signal by the sum of its paths, mixed with the signal itself.
type joinStep struct {
	id        string
	buf       pair
	dry       shift2
	paths     []inflow
	lag       int
	mix, trim *slot
	add       bool
	heard     gate // bypass
	wet       pair
	tmp       pair
	met       *meeting
	watch     *watch
}

func (s *joinStep) run(c *cursor, n int) {
	wl, wr := s.wet.l[:n], s.wet.r[:n]
	measuring := s.met.due(c)
	for k := range s.paths {
		f := &s.paths[k]
		l, r := f.arrived(s.tmp, n)
		if measuring {
			s.met.hold(k, l, r)
		}
		if k == 0 {
			copy(wl, l)
			copy(wr, r)
			continue
		}
		dsp.AddScaled(wl, l, 1)
		dsp.AddScaled(wr, r, 1)
	}
	if measuring {
		s.met.done(wl, wr)
	}
	t := s.trim.fill(c, s.lag, n)
	applyGain(s.wet, s.wet, n, &t, &centre, panStereo, &ungated, &ungated)
	s.dry.process(s.buf, n)
	if s.watch != nil {
		s.watch.in.write(s.buf.l[:n], s.buf.r[:n])
	}
	mix := s.mix.fill(c, s.lag, n)
	s.heard.follow(c)
	mixIn(s.buf, s.wet, n, &mix, s.add, &s.heard.Glide)
	if s.watch != nil {
		s.watch.out.write(s.buf.l[:n], s.buf.r[:n])
	}
}

// centre is a pan that moves nothing.
var centre effect.Value

func (s *joinStep) key() string { return "join " + s.id }
func (s *joinStep) reset() {
	s.dry.clear()
	for _, f := range s.paths {
		f.shift.clear()
	}
}

func (s *joinStep) copyFrom(o twin) {
	old := o.(*joinStep)
	s.dry.copyFrom(old.dry)
	s.heard.goOn(&old.heard)
	for _, f := range s.paths {
		for _, g := range old.paths {
			if f.name == g.name {
				f.shift.copyFrom(g.shift)
			}
		}
	}
}
