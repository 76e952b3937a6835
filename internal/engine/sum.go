package engine

import "shoal/internal/dsp"

// sum is a channel's input: its clips and everything that comes in.
type sum struct {
	id     string
	out    pair
	in     []inflow
	clips  *player // nil where there are none
	clipIn shift2  // clips wait for what arrives late
	tmp    pair
	met    *meeting  // nil where only one signal comes
	live   *live     // what arrives at an input; nil: none
	open   dsp.Glide // how loud that is heard
	leaves bool      // it goes once that has closed
	// inject, where it is given, adds a test signal.
	inject func(l, r []float64)
}

// measured prepares a sum to which several signals come for the survey: the inflows in their
// order, then the clips.
func (s *sum) measured(p *plan) {
	var names []string
	for _, f := range s.in {
		names = append(names, f.name)
	}
	if s.clips != nil {
		names = append(names, s.id)
	}
	s.met = p.meeting(s.id, names, s.in)
}

func (s *sum) run(c *cursor, n int) {
	if s.clips != nil || s.live != nil || len(s.in) == 0 {
		clear(s.out.l[:n])
		clear(s.out.r[:n])
	}
	measuring := s.met.due(c)
	if s.clips != nil {
		s.clips.run(c, n, s.out)
	}
	if s.live != nil {
		s.comes(c, n)
	}
	if s.clips != nil || s.live != nil {
		s.clipIn.process(s.out, n)
		if measuring {
			s.met.hold(len(s.in), s.out.l[:n], s.out.r[:n])
		}
	}
	for i := range s.in {
		f := &s.in[i]
		l, r := f.arrived(s.tmp, n)
		if measuring {
			s.met.hold(i, l, r)
		}
		if i == 0 && s.clips == nil && s.live == nil { // the first of them clears what was there
			copy(s.out.l, l)
			copy(s.out.r, r)
			continue
		}
		dsp.AddScaled(s.out.l[:n], l, 1)
		dsp.AddScaled(s.out.r[:n], r, 1)
	}
	if s.inject != nil {
		s.inject(s.out.l[:n], s.out.r[:n])
	}
	if measuring {
		s.met.done(s.out.l[:n], s.out.r[:n])
	}
}

func (s *sum) key() string { return "sum " + s.id }

func (s *sum) reset() {
	if s.clips != nil {
		s.clips.reset()
	}
	s.clipIn.clear()
	for _, f := range s.in {
		f.shift.clear()
	}
}

func (s *sum) copyFrom(o twin) {
	old := o.(*sum)
	s.clipIn.copyFrom(old.clipIn)
	s.live, s.open, s.leaves = old.live, old.open, old.leaves
	if s.clips != nil && old.clips != nil {
		s.clips.roll = old.clips.roll
	}
	for _, f := range s.in {
		for _, g := range old.in {
			if f.name == g.name {
				f.shift.copyFrom(g.shift)
			}
		}
	}
}
