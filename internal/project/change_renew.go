package project

// RenewStage gives a stage the newest sound of its effect: a stage keeps the one that it was made with until
// somebody says so.
type RenewStage struct {
	ID string `json:"id"`
}

func (c *RenewStage) apply(p *Project, effects Effects) ([]Change, error) {
	at, ok := p.findNode(c.ID)
	if !ok || at.node.Stage == nil {
		return nil, Gone("the stage")
	}
	s := at.node.Stage
	info, ok := effects(s.Effect, 0)
	if !ok {
		return nil, noEffect(s.Effect)
	}
	next := Clone(s)
	next.Version = info.Newest
	return p.each(effects, &ReplaceStage{ID: c.ID, Stage: next})
}
