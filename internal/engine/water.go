package engine

import (
	"slices"
	"strings"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// What stands before a row's line is not run where its print is there: the print comes in at the line in its place.

// printed is a row that plays its print.
type printed struct {
	*Waterline
	clips *player
	under *player // what it was made from, which may be needed at once
}

// awaited is a print that is not played yet.
type awaited struct {
	key   string
	clips []playClip
}

// lineStep puts a row's print in the place of what stands before its line.
type lineStep struct {
	id    string
	buf   pair
	clips *player
}

func (s *lineStep) run(c *cursor, n int) {
	clear(s.buf.l[:n])
	clear(s.buf.r[:n])
	s.clips.run(c, n, s.buf)
}

func (s *lineStep) key() string     { return "line " + s.id }
func (s *lineStep) reset()          {}
func (s *lineStep) copyFrom(o twin) { s.clips.roll = o.(*lineStep).clips.roll }

// aboveWater builds a row's chain as far as its line. Where its print is played, nothing of it runs but what somebody
// listens to, and the rest of the row goes on in a buffer of its own.
func (c *compiler) aboveWater(ch *project.Channel, at *gnode, buf pair, wait []*gnode) (*gnode, pair, []*gnode) {
	w := c.waterline(ch)
	if w == nil {
		at, wait = c.chain(ch, &ch.Chain, ch.Chain.Bypass, at, buf, wait)
		return at, buf, wait
	}
	line := slices.IndexFunc(ch.Chain.Nodes, func(n *project.Node) bool { return n.ID() == w.Node })
	first := len(c.g.nodes)
	c.chain(ch, &project.Chain{Nodes: ch.Chain.Nodes[:line+1]}, ch.Chain.Bypass, at, buf, wait)
	c.spare(ch.Chain.Nodes[:line+1], c.g.nodes[first:])
	c.input[ch.ID].spare = true

	over := newPair()
	c.bufs[ch.ID] = over
	n := c.g.add("line", ch.ID, "the line of "+ch.Name)
	n.says("prints", w.Key)
	x := &printed{Waterline: w, under: c.plan.clips[entry{ch.ID, "", ""}]}
	x.clips = &player{clock: c.clock, clips: w.playList(c.lib), frames: int(fadeSeconds * float64(c.doc.SampleRate))}
	c.plan.printed[ch.ID] = x
	n.emit = func(*gnode) []step {
		c.plan.players = append(c.plan.players, x.clips)
		return []step{&lineStep{id: ch.ID, buf: over, clips: x.clips}}
	}
	at, wait = c.chain(ch, &project.Chain{Nodes: ch.Chain.Nodes[line+1:]}, ch.Chain.Bypass, n, over, nil)
	return at, over, wait
}

// waterline is what is played in the place of what stands before a row's line; nil: that runs. Prints, and whatever else
// is rendered, are made from what stands there.
func (c *compiler) waterline(ch *project.Channel) *Waterline {
	if c.only != nil {
		return nil
	}
	w := WaterlineOf(c.doc, ch)
	if w == nil {
		return nil
	}
	c.plan.water[ch.ID] = w.Key
	if slices.Contains(c.point.live, ch.ID) {
		return nil // somebody is heard there
	}
	if c.lib.Prints(w.Key) {
		return w
	}
	c.plan.awaited = append(c.plan.awaited, awaited{w.Key, w.playList(c.lib)})
	return nil
}

// spare lets nodes run only where somebody needs what comes out of them; what they are keyed by and what their movers
// follow goes with them.
func (c *compiler) spare(nodes []*project.Node, built []*gnode) {
	owners := project.Owners(nodes)
	for _, n := range built {
		kind := string(n.fixed)
		n.spare = strings.HasPrefix(kind, "stage ") || strings.HasPrefix(kind, "join ") || strings.HasPrefix(kind, "bands ") ||
			strings.HasPrefix(kind, "path ") || strings.HasPrefix(kind, project.EntersWayIn+" ") || strings.HasPrefix(kind, "the ")
	}
	for id := range owners {
		if k := c.points["key "+id]; k != nil {
			k.spare = true
		}
	}
	for _, m := range c.doc.Movers {
		if m.Follows() && !slices.ContainsFunc(m.Targets, func(t project.MoverTarget) bool { return !owners[t.Owner] }) {
			c.levels[m.ID].spare = true
			for _, n := range c.levels[m.ID].after {
				n.spare = true
			}
		}
	}
}

// playList is the print as a row plays it.
func (w *Waterline) playList(lib *pages.Library) []playClip {
	sound := lib.Sound(w.Key, w.Frames(), 2)
	list, at := make([]playClip, 0, len(w.Stretches)), int64(0)
	for _, s := range w.Stretches {
		list = append(list, playClip{sound: sound, start: s.From, end: s.To, offset: at, gain: 1, clip: &project.Clip{}})
		at += s.To - s.From
	}
	return list
}

// sameWater reports whether the rows of a document have the prints that a plan was made with.
func (p *plan) sameWater(doc *project.Project) bool {
	count := 0
	for _, ch := range doc.Channels {
		if w := WaterlineOf(doc, ch); w != nil {
			if count++; p.water[ch.ID] != w.Key {
				return false
			}
		}
	}
	return count == len(p.water)
}

// takePrints lets prints be played of which the next seconds are there. It reports whether there was any.
func (e *Engine) takePrints(at int64) (taken bool) {
	for _, x := range e.latest().awaited {
		if e.lib.Awaits(x.key) && len(missing(nil, x.clips, at, at+takeSeconds*int64(e.rate))) == 0 {
			e.lib.Take(x.key)
			taken = true
		}
	}
	return taken
}

// touched lets a row run that plays its print, before a hand moves what that was made from.
func (e *Engine) touched(owner string) {
	for _, x := range e.latest().printed {
		if x.Made.Owners[owner] && e.lib.Prints(x.Key) {
			e.lib.Hold(x.Key)
			e.turned = true
		}
	}
	if e.turned {
		_ = e.SetDocument(e.Document()) // it was valid when it was given
	}
}

// underWater appends the pages of what prints were made from: it may have to run at once.
func (p *plan) underWater(dst []pages.Missing, from, to int64) []pages.Missing {
	for _, x := range p.printed {
		if x.under == nil {
			continue
		}
		for i := range x.under.clips {
			if c := &x.under.clips[i]; c.via == nil {
				dst = missing(dst, x.under.clips[i:i+1], from, to)
			}
		}
	}
	return dst
}

// past lets rows that begin to run have heard what was before: their stages are run up to where the song is, from a
// second before, as far as its pages are there. Else they begin as after a seek.
func (e *Engine) past(p *plan) {
	for id, x := range e.now.printed {
		if p.printed[id] != nil || !p.cursor.rolling {
			continue
		}
		if ch, ok := p.doc.Channel(id); !ok || !slices.ContainsFunc(ch.Chain.Nodes, func(n *project.Node) bool { return n.ID() == x.Node }) {
			continue
		}
		q, err := compile(p.doc, e.lib, &capture{taps: []project.Tap{x.Point()}}, Listening{})
		if err != nil {
			continue
		}
		to := p.cursor.frame
		q.cursor = p.cursor
		q.cursor.frame, q.cursor.jumped = max(0, to-int64(e.rate)), true
		for _, pl := range q.players {
			pl.roll.Set(1)
		}
		for q.cursor.frame < to {
			n := q.room(int(min(Block, to-q.cursor.frame)))
			if len(q.check(n)) > 0 {
				break
			}
			q.run(n)
		}
		if q.cursor.frame < to {
			continue
		}
		for k, t := range p.twins {
			if o, ok := q.twins[k]; ok && e.now.twins[k] == nil {
				t.copyFrom(o)
			}
		}
	}
}
