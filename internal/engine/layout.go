package engine

import "slices"

// maxSeen is how many treatments are measured at once at most.
const maxSeen = 8

// seenPiece is a strip that runs, whose levels are told beside the plan's.
type seenPiece struct {
	treatment string
	plan      *plan
}

// Plan counts the layouts there were: as long as it stays, so does what Levels holds.
func (e *Engine) Plan() int {
	e.look()
	return e.plansMade + e.stripsTurned
}

// look finds the strips that run: of each treatment the first.
func (e *Engine) look() {
	now := e.lookedAt[:0]
	for _, pl := range e.latest().players {
		for i := range pl.clips {
			t := pl.clips[i].via
			if t == nil || t.plan == nil || len(now) == maxSeen {
				continue
			}
			if !slices.ContainsFunc(now, func(s seenPiece) bool { return s.treatment == t.key.treatment }) {
				t.plan.power = e.power
				now = append(now, seenPiece{t.key.treatment, t.plan})
			}
		}
	}
	e.lookedAt = now
	if !slices.Equal(now, e.seen) {
		e.seen = append(e.seen[:0], now...)
		e.stripsTurned++
	}
}

// Layout says what Levels holds: one Point a pair of peaks. Those of the pieces that run stand behind the plan's.
func (e *Engine) Layout() []Point {
	p := e.latest()
	points, reported := slices.Clone(p.points), p.reported()
	for _, s := range e.seen {
		for _, x := range s.plan.points {
			if x.Owner == pieceRow {
				x.Owner = s.treatment
			}
			if x.Report >= 0 {
				x.Report += reported
			}
			points = append(points, x)
		}
		reported += s.plan.reported()
	}
	return points
}

// reported is how many values a plan's stages report.
func (p *plan) reported() (n int) {
	for _, r := range p.reports {
		n += len(r.report)
	}
	return n
}

// measured calls f for the plan and for the pieces that run, in the order of the layout.
func (e *Engine) measured(f func(p *plan)) {
	f(e.latest())
	for _, s := range e.seen {
		f(s.plan)
	}
}
