package engine

import (
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// source finds which sound a clip plays: its own, what has been worked out for it, or, until that is there, what it
// played before. It brings what is laid into the frames of that sound, and returns the chain that runs live behind it.
func (c *playClip) source(p *project.Project, x *project.Laid, clock *project.Clock, lib *pages.Library) *project.Chain {
	a, _ := p.AudioByHash(x.Clip.Audio)
	w, live := WorkOf(p, x.Clip, clock)
	if w == nil {
		c.plays(lib, pages.Played{Sound: lib.Sound(a.Hash, a.Frames, a.Channels), First: x.Clip.Offset}, x)
		return live
	}
	made := pages.Played{Sound: lib.Sound(w.Key, w.Frames(), w.Channels), First: x.Clip.Offset - w.From + w.Lead}
	if lib.Worked(w.Key) {
		if x.Clip.Rings {
			c.withTails(w, x)
		}
		c.plays(lib, made, x)
		return live
	}
	c.waits = made
	if old, ok := lib.Recall(x.Clip.ID); ok {
		c.sound = old.Sound
		c.bring(old, x)
	}
	return live
}

func (c *playClip) plays(lib *pages.Library, p pages.Played, x *project.Laid) {
	lib.Remember(x.Clip.ID, p)
	c.sound = p.Sound
	c.bring(p, x)
}

// bring counts what is laid in frames of the sound, as far as there are any.
func (c *playClip) bring(p pages.Played, x *project.Laid) {
	c.shift = p.First - x.Clip.Offset
	x.Offset += c.shift
	if x.Offset < 0 {
		x.From, x.Offset = x.From-x.Offset, 0
	}
	if over := x.Offset + x.To - x.From - p.Sound.Frames; over > 0 {
		x.To -= over
	}
	if x.To <= x.From {
		c.sound = nil
	}
}

// withTails lets what lies before and behind the extent be heard where the clip shows its first and its last frame.
func (c *playClip) withTails(w *Work, x *project.Laid) {
	if x.Offset == w.From {
		x.From, x.Offset = x.From-w.Lead, x.Offset-w.Lead
	}
	if x.Offset+x.To-x.From == w.From+w.Body {
		x.To += w.Trail
	}
}

// absent appends the pages of a sound that are not there for frames a to b.
func absent(dst []pages.Missing, s *pages.Sound, a, b int64) []pages.Missing {
	for k := a / pages.Frames; k <= b/pages.Frames; k++ {
		if !s.Need(int(k)) {
			dst = append(dst, pages.Missing{Hash: s.Hash, Page: int(k)})
		}
	}
	return dst
}

// coming appends the pages that works which are there and not yet played need for frames [from, to).
func (p *player) coming(dst []pages.Missing, from, to int64, wanted func(key string) bool) []pages.Missing {
	for i := range p.clips {
		c := &p.clips[i]
		if c.waits.Sound == nil || !wanted(c.waits.Sound.Hash) {
			continue
		}
		start := c.clip.BeginsAt(p.clock)
		if start < to && start+c.clip.Frames > from {
			a := c.waits.First + max(from, start) - start
			dst = absent(dst, c.waits.Sound, a, c.waits.First+min(to, start+c.clip.Frames)-start-1)
		}
	}
	return dst
}

// takeSeconds is how much of a work must be there before it is played.
const takeSeconds = 2

// Worked says which works can be fetched. Each is played, with a cross-fade, once what comes next of it is there.
func (e *Engine) Worked(keys []string) {
	for _, k := range keys {
		e.lib.Announce(k)
	}
}

// takeWorks lets works be played of which the next seconds are there.
func (e *Engine) takeWorks(at int64) {
	to := at + takeSeconds*int64(e.rate)
	taken := map[string]bool{}
	for _, p := range e.plans() {
		for _, pl := range p.players {
			for i := range pl.clips {
				s := pl.clips[i].waits.Sound
				if s == nil || taken[s.Hash] || !e.lib.Announced(s.Hash) {
					continue
				}
				if len(e.coming(nil, at, to, func(k string) bool { return k == s.Hash })) == 0 {
					e.lib.Take(s.Hash)
					taken[s.Hash] = true
				}
			}
		}
	}
	if len(taken) > 0 {
		e.prepared = nil // it would wait for them
		for _, p := range e.plans() {
			p.takeUp(taken)
		}
	}
}

func (e *Engine) coming(dst []pages.Missing, from, to int64, wanted func(key string) bool) []pages.Missing {
	for _, p := range e.plans() {
		for _, pl := range p.players {
			dst = pl.coming(dst, from, to, wanted)
		}
	}
	return dst
}

// takeUp lays out the rows anew on which works are played from now on.
func (p *plan) takeUp(taken map[string]bool) {
	now := treatments(p.doc)
	for at, pl := range p.clips {
		for i := range pl.clips {
			if s := pl.clips[i].waits.Sound; s != nil && taken[s.Hash] {
				ch, _ := p.doc.Channel(at.channel)
				pl.swap(playList(p.doc, ch, at.enters, now, p.clock, p.lib), p.cursor.rolling)
				break
			}
		}
	}
}
