package engine

import (
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// sound finds what a stage uses and reports whether all of it is present. What is
// missing is noted in the plan: playback waits for it, and then the plan is built again.
func (c *compiler) sound(s *project.Stage) (*pages.Sound, bool) {
	if s.Sound == "" {
		return nil, false
	}
	a, ok := c.doc.AudioByHash(s.Sound)
	if !ok {
		return nil, false
	}
	x := c.lib.Sound(a.Hash, a.Frames, a.Channels)
	ready := true
	for i := range x.Count() {
		if x.Page(i) == nil {
			ready = false
			c.plan.wants = append(c.plan.wants, want{x, i})
		}
	}
	return x, ready
}

// want is a page that a plan was built without.
type want struct {
	sound *pages.Sound
	page  int
}

// wanting appends the pages that are still absent.
func (p *plan) wanting(dst []pages.Missing) []pages.Missing {
	for _, w := range p.wants {
		if w.sound.Page(int(w.page)) == nil {
			dst = append(dst, pages.Missing{Hash: w.sound.Hash, Page: w.page})
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
		if w.sound.Page(int(w.page)) == nil {
			return false
		}
	}
	return true
}
