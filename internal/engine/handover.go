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

// kept is what a stage gave in the last block, for the one that takes over from it.
type kept struct {
	out pair
	n   int // frames; 0 where it was not run
}

// alike notes what of the old plan comes out of every node of the new one as it did: how is a digest of what is fixed about
// a node and about all that leads to it, by stage.
func (c *compiler) alike(nodes []*gnode) {
	c.plan.how = make(map[string]uint64, len(c.plan.how))
	share := c.old != nil && c.captured.lag == c.old.latency && sameAround(c.old.doc, c.doc) && maps.Equal(c.old.water, c.plan.water)
	var b []byte
	for _, n := range nodes {
		b = append(b[:0], n.fixed...)
		for _, v := range []int{n.latency, n.lagIn, n.lag} {
			b = strconv.AppendInt(append(b, ' '), int64(v), 10)
		}
		n.same = share && c.sameRow(n.row)
		for _, m := range n.after {
			b = strconv.AppendUint(append(b, ' '), m.how, 16)
			n.same = n.same && m.same
		}
		h := fnv.New64a()
		_, _ = h.Write(b)
		n.how = h.Sum64()
	}
}

// sameRow reports whether a change has left a row alone: it is the same object then (project.Apply).
func (c *compiler) sameRow(id string) bool {
	if id == "" {
		return true
	}
	was, _ := c.old.doc.Channel(id)
	is, ok := c.doc.Channel(id)
	return ok && was == is
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
	s.kept = &kept{out: newPair()}
}

// run runs the stage, or takes what the one gave that it will take over from.
func (s *stageStep) run(c *cursor, n int) {
	if s.lead != nil {
		s.follow(n)
		return
	}
	s.work(c, n)
	if k := s.kept; k != nil {
		k.n = n
		copy(k.out.l, s.buf.l[:n])
		copy(k.out.r, s.buf.r[:n])
	}
}

func (s *stageStep) follow(n int) {
	k := s.lead.kept
	l, r := s.buf.l[:n], s.buf.r[:n]
	copy(l, k.out.l)
	copy(r, k.out.r)
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
