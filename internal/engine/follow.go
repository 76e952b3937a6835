package engine

import (
	"math"
	"strings"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

// followKept is how many frames of a level are kept for those that hear it later; a power of two.
const followKept = 1 << 15

// followStep measures the level of a signal, for movers that follow it.
type followStep struct {
	id       string
	buf      pair
	lag      int
	up, down float64 // what is left of a difference after a frame
	low      float64 // dB
	per      float64 // 1 over the range in dB
	env      float64
	count    int64 // frames that it has run
	kept     []float32
}

func newFollow(id string, f *project.Follow, rate float64) *followStep {
	return &followStep{
		id:   id,
		low:  f.Low,
		per:  1 / (f.High - f.Low),
		up:   dsp.Decay(f.Attack/1000, rate),
		down: dsp.Decay(f.Release/1000, rate),
		kept: make([]float32, followKept),
	}
}

func (s *followStep) run(_ *cursor, n int) {
	l, r := s.buf.l[:n], s.buf.r[:n]
	for i, x := range l {
		v := math.Max(math.Abs(x), math.Abs(r[i]))
		left := s.down
		if v > s.env {
			left = s.up
		}
		s.env = v + (s.env-v)*left
		at := s.count + int64(i) - int64(s.lag)
		s.kept[at&(followKept-1)] = float32(max(0, min(1, (dsp.Decibels(s.env)-s.low)*s.per)))
	}
	s.env = dsp.Flush(s.env)
	s.count += int64(n)
}

// at is the level at frame i of a block of n for somebody so late, 0 to 1. Who is earlier than the signal
// itself has what is known by then.
func (s *followStep) at(lag, i, n int) float64 {
	t := s.count - int64(n) + int64(i) - int64(lag)
	return float64(s.kept[min(t, s.count-1-int64(s.lag))&(followKept-1)])
}

func (s *followStep) now() float64 { return float64(s.kept[(s.count-1-int64(s.lag))&(followKept-1)]) }

func (s *followStep) key() string { return "follow " + s.id }
func (s *followStep) reset() {
	s.env = 0
	clear(s.kept)
}
func (s *followStep) copyFrom(o twin) {
	p := o.(*followStep)
	s.env = p.env
	if s.lag == p.lag {
		s.count = p.count
		copy(s.kept, p.kept)
	}
}

// followed is a level that moves a parameter.
type followed struct {
	*followStep
	depth  float64
	oneWay bool
}

func (f *followed) by(v float64) float64 {
	if !f.oneWay {
		v = 2*v - 1
	}
	return f.depth * v
}

// crossovers marks those of a fork among what waits: they are needed where it begins, all else of it where
// it ends.
const crossovers = " crossovers"

// collectFollowers lets every level that is followed be measured where it is.
func (c *compiler) collectFollowers() {
	for _, m := range c.doc.Movers {
		if !m.Follows() {
			continue
		}
		t := c.tap("followed by", m.ID, m.Follow.Tap)
		s := newFollow(m.ID, m.Follow, float64(c.doc.SampleRate))
		s.buf = t.buf
		n := c.g.add("level for", m.ID, "the level that "+m.Name+" follows", t.node)
		n.emit = func(n *gnode) []step {
			s.lag = n.lagIn
			return []step{s}
		}
		c.followers[m.ID] = s
		c.levels[m.ID] = n
		for _, x := range m.Targets {
			at := x.Owner
			if _, _, fork := c.doc.ForkByID(x.Owner); fork && strings.HasPrefix(x.Name, "x") {
				at += crossovers
			}
			c.waitFor[at] = append(c.waitFor[at], n)
		}
	}
}
