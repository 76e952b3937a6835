package engine

import (
	"hash/fnv"
	"maps"
	"reflect"
	"slices"
	"strconv"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

// While one plan fades into another, a stage that stands in both, and into which the same comes in both, is neither made nor
// run twice: its processor is handed over. Until the fade has ended the old plan, which runs first, runs it, and the new one
// takes what came out. What a change leaves alone so costs nothing, where the echoes and halls of a whole session would have
// to be made and copied between two blocks.

// alike finds out of which nodes comes what comes out of them in the old plan: where all is fixed as it was (how is a digest of
// a node and of all that leads to it) and no row on the way has changed.
func (c *compiler) alike(nodes []*gnode) {
	c.plan.how = map[string]uint64{}
	share := c.old != nil && c.captured.lag == c.old.latency && sameAround(c.old.doc, c.doc) && maps.Equal(c.old.water, c.plan.water)
	var kept map[string]bool
	if share {
		kept = keptRows(c.old.doc, c.doc)
	}
	var b []byte
	for _, n := range nodes {
		b = append(b[:0], n.fixed...)
		for _, v := range []int{n.latency, n.lagIn, n.lag} {
			b = strconv.AppendInt(append(b, ' '), int64(v), 10)
		}
		n.same = share && (n.row == "" || kept[n.row])
		for _, m := range n.after {
			b = strconv.AppendUint(append(b, ' '), m.how, 16)
			n.same = n.same && m.same
		}
		h := fnv.New64a()
		_, _ = h.Write(b)
		n.how = h.Sum64()
	}
}

// keptRows are the rows that a change has left alone: they are the same objects then (project.Apply).
func keptRows(was, is *project.Project) map[string]bool {
	before := map[*project.Channel]bool{}
	for _, ch := range was.Channels {
		before[ch] = true
	}
	kept := map[string]bool{}
	for _, ch := range is.Channels {
		kept[ch.ID] = before[ch]
	}
	return kept
}

// sameAround reports whether two documents differ in their rows only.
func sameAround(a, b *project.Project) bool {
	sameLine := func(l, m *project.Line) bool { return l == m || l.Same(m) }
	return slices.EqualFunc(a.Lines, b.Lines, sameLine) && reflect.DeepEqual(a.Treatments, b.Treatments) &&
		reflect.DeepEqual(a.Passages, b.Passages) && reflect.DeepEqual(a.Movers, b.Movers) &&
		reflect.DeepEqual(a.Handles, b.Handles) && reflect.DeepEqual(a.Tempo, b.Tempo) && reflect.DeepEqual(a.Meter, b.Meter)
}

// lead is the stage of the old plan that hands its processor over to the one that is about to be made; nil, where a new one is needed.
func (c *compiler) lead(n *gnode, stage string) *stageStep {
	c.plan.how[stage] = n.how
	if !n.same || c.old.how[stage] != n.how || stage == c.point.Node {
		return nil
	}
	s := c.old.stages[stage]
	if s == nil || s.lead != nil || s.listened || s.broken || s.steered() {
		return nil
	}
	return s
}

// steered reports whether something moves a stage that remembers where it was: a passage, a handle or a mover.
func (s *stageStep) steered() bool {
	by := func(x *slot) bool { return x != nil && (x.pulled() || x.hold != nil || len(x.spans) > 0) }
	return by(s.mix) || by(s.heard.line) || slices.ContainsFunc(s.slots, by)
}

// handOver lets a stage go on in another plan, which runs after its own until it is taken over.
func (s *stageStep) handOver(to *stageStep) {
	to.proc, to.dry, to.lead = s.proc, s.dry, s
	s.kept = newPair()
}

// run runs the stage, or takes what the one gave that it will take over from.
func (s *stageStep) run(c *cursor, n int) {
	if s.lead != nil {
		s.follow(n)
		return
	}
	s.work(c, n)
	if s.kept.l != nil {
		copy(s.kept.l, s.buf.l[:n])
		copy(s.kept.r, s.buf.r[:n])
	}
}

func (s *stageStep) follow(n int) {
	l, r := s.buf.l[:n], s.buf.r[:n]
	copy(l, s.lead.kept.l)
	copy(r, s.lead.kept.r)
	s.meter.take(dsp.PeakBits(l, r))
	if *s.meter.power {
		s.meter.square(l, r)
	}
}

// takeOver ends what is between two plans: the new one's stages run themselves from here on.
func (p *plan) takeOver() {
	for _, s := range p.stages {
		old := s.lead
		if old == nil {
			continue
		}
		s.lead = nil
		s.goOn(old)
		s.broken, s.stirred = old.broken, true
		s.mix.goOn(old.mix)
		for i, x := range s.slots {
			x.goOn(old.slots[i])
		}
	}
}
