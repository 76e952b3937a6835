package engine

// probe measures what each stage costs. One block is near the resolution of a
// browser's clock, so a single stage is timed in each block, in turn, and the times are added up
// until they are read.
type probe struct {
	clock func() int64 // nanoseconds; nil: nothing is measured
	steps []int        // the plan's stages
	next  int
	spent map[*stageStep]*spent
}

type spent struct {
	nanos  int64
	frames int
}

// Cost is what a stage takes of the engine's time.
type Cost struct {
	Stage string  `json:"stage" required:"true"`
	Nanos float64 `json:"nanos" required:"true"` // a frame
}

func (p *probe) begin(steps []step, clock func() int64) {
	p.clock, p.spent, p.steps, p.next = clock, map[*stageStep]*spent{}, nil, 0
	for i, s := range steps {
		if t, ok := s.(*stageStep); ok {
			p.steps = append(p.steps, i)
			t.cost = &spent{}
			p.spent[t] = t.cost
		}
	}
}

// turn says which step is timed in this block.
func (p *probe) turn() int {
	if p.clock == nil || len(p.steps) == 0 {
		return -1
	}
	p.next++
	if p.next >= len(p.steps) {
		p.next = 0
	}
	return p.steps[p.next]
}

func (p *probe) measure(s step, c *cursor, n int) {
	t := s.(*stageStep)
	x := t.cost
	begun := p.clock()
	t.run(c, n)
	x.nanos += p.clock() - begun
	x.frames += n
}

// Costs gives what every stage has cost since it was last asked, for those that were measured.
func (e *Engine) Costs() []Cost {
	out := []Cost{}
	for t, x := range e.latest().probe.spent {
		if x.frames > 0 {
			out = append(out, Cost{t.id, float64(x.nanos) / float64(x.frames)})
		}
		*x = spent{}
	}
	return out
}
