package engine

import "shoal/internal/project"

// sides gives the whole sound as left and right. Every page must be present.
func (s *Sound) sides() (l, r []float64) {
	for _, p := range s.pages {
		for _, v := range p[0] {
			l = append(l, float64(v))
		}
		for _, v := range p[len(p)-1] {
			r = append(r, float64(v))
		}
	}
	return l, r
}

// sound finds what a stage uses and reports whether all of it is present. What is
// missing is noted in the plan: playback waits for it, and then the plan is built again.
func (c *compiler) sound(s *project.Stage) (*Sound, bool) {
	if s.Sound == "" {
		return nil, false
	}
	a, ok := c.doc.AudioByHash(s.Sound)
	if !ok {
		return nil, false
	}
	x := c.lib.Sound(a.Hash, a.Frames, a.Channels)
	ready := true
	for i, p := range x.pages {
		if p == nil {
			ready = false
			c.plan.wants = append(c.plan.wants, want{x, i})
		}
	}
	return x, ready
}

// want is a page that a plan was built without.
type want struct {
	sound *Sound
	page  int
}

// wanting appends the pages that are still absent.
func (p *plan) wanting(dst []Missing) []Missing {
	for _, w := range p.wants {
		if w.sound.pages[w.page] == nil {
			dst = append(dst, Missing{w.sound.Hash, w.page})
		}
	}
	return dst
}

// stale reports whether what the plan was built without has come.
func (p *plan) stale() bool {
	if len(p.wants) == 0 {
		return false
	}
	for _, w := range p.wants {
		if w.sound.pages[w.page] == nil {
			return false
		}
	}
	return true
}
