package project

import "slices"

// MakingsOfRow is what a print of a row behind its chain is made from, as far as a frame of the song.
func (p *Project) MakingsOfRow(row string, to int64) (Makings, bool) {
	return p.MakingsUntil(Tap{Channel: row, Point: "pre"}, to)
}

// MakingsUntil is what the signal at a point is made from as far as a frame of the song: what begins later has no part in
// it.
func (p *Project) MakingsUntil(at Tap, to int64) (Makings, bool) {
	clock := p.Clock()
	q := *p
	q.Channels = make([]*Channel, len(p.Channels))
	for i, c := range p.Channels {
		d := *c
		d.Clips = slices.DeleteFunc(slices.Clone(c.Clips), func(x *Clip) bool { return x.BeginsAt(clock) >= to })
		q.Channels[i] = &d
	}
	return q.MakingsOf(at)
}

// Remade is what a print in place would be made from now: the clips that it was made from as they were, through their
// row as it is.
func (p *Project) Remade(row string, made *Made) (Makings, bool) {
	q, ok := p.WithClipsOf(row, made)
	if !ok {
		return Makings{}, false
	}
	return q.MakingsOf(Tap{Channel: row, Point: "pre"})
}

// WithClipsOf is a project in which a row holds the clips that something was made from, as they were, and nothing else:
// neither other clips nor what else feeds it. false: the row has gone.
func (p *Project) WithClipsOf(row string, made *Made) (*Project, bool) {
	q := *p
	q.Channels = slices.Clone(p.Channels)
	i := slices.IndexFunc(q.Channels, func(c *Channel) bool { return c.ID == row })
	if i < 0 {
		return nil, false
	}
	bare := *q.Channels[i]
	bare.Input, bare.Clips = nil, nil
	for k := range made.Clips {
		bare.Clips = append(bare.Clips, &made.Clips[k])
	}
	q.Channels[i] = &bare
	then := map[string]bool{}
	for _, t := range made.Treatments {
		then[t.ID] = true
		for id := range Owners(t.Chain.Nodes) {
			then[id] = true
		}
	}
	q.Treatments = slices.Concat(made.Treatments, slices.DeleteFunc(slices.Clone(p.Treatments), func(t *Treatment) bool { return then[t.ID] }))
	q.Lines = slices.Concat(made.Lines, slices.DeleteFunc(slices.Clone(p.Lines), func(l *Line) bool { return then[l.Owner] }))
	return &q, true
}
