package engine

// meeting measures what becomes of several signals where they are added up.
type meeting struct {
	id     string // the channel or fork
	names  []string
	summed *summed
	held   []pair // what came in, while that is measured
	turned bool
}

// meeting adds one to the plan's survey; nil where fewer than two signals meet. What
// comes without a delay stays where it is and need not be kept.
func (p *plan) meeting(id string, names []string, in []inflow) *meeting {
	if len(names) < 2 {
		return nil
	}
	m := &meeting{id: id, names: names, summed: newSummed(len(names)), held: make([]pair, len(names))}
	for k := range m.held {
		if k < len(in) && in[k].shift.l.Frames() == 0 {
			m.held[k] = in[k].from
		} else {
			m.held[k] = newPair()
		}
	}
	p.meetings = append(p.meetings, m)
	return m
}

// due reports whether this block is measured.
func (m *meeting) due(c *cursor) bool {
	return m != nil && c.rolling && (c.frame/Block)%surveyEvery == 0
}

func (m *meeting) hold(k int, l, r []float64) {
	if &m.held[k].l[0] != &l[0] {
		copy(m.held[k].l, l)
		copy(m.held[k].r, r)
	}
	m.summed.take(k, l, r)
}

func (m *meeting) done(l, r []float64) {
	m.summed.done(l, r, func(k int) (a, b []float64) { return m.held[k].l[:len(l)], m.held[k].r[:len(l)] })
}

func (m *meeting) figure() (SumFigure, bool) {
	return m.summed.figure(m.id, func(k int) string { return m.names[k] })
}

// turn begins a new window; meetings keep two.
func (m *meeting) turn() {
	if m.turned = !m.turned; m.turned {
		*m.summed = *newSummed(len(m.names))
	}
}
