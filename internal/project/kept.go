package project

import (
	"reflect"
	"slices"
)

// keep lets rows and lines that a change has left as they were be the same objects as in the revision before: whoever asks
// what differs sees that at once, and there may be very many of them.
func (p *Project) keep(before *Project) {
	for i, c := range p.Channels {
		if i < len(before.Channels) && c.same(before.Channels[i]) {
			p.Channels[i] = before.Channels[i]
		}
	}
	for i, l := range p.Lines {
		if i < len(before.Lines) && l.Same(before.Lines[i]) {
			p.Lines[i] = before.Lines[i]
		}
	}
}

// stands reports whether all that a row or line may refer to outside itself is as in the revision before, which is valid: then
// those that were kept are valid still.
func (p *Project) stands(before *Project) bool {
	if before == nil || len(p.Channels) != len(before.Channels) {
		return false
	}
	for i, c := range p.Channels {
		if c != before.Channels[i] && !c.standsAs(before.Channels[i]) {
			return false
		}
	}
	a, b := *p, *before
	a.Channels, a.Lines, b.Channels, b.Lines = nil, nil, nil, nil
	return reflect.DeepEqual(a, b)
}

// standsAs reports whether others may refer to a row and to what is in it as to the one that it was.
func (c *Channel) standsAs(o *Channel) bool {
	return c.ID == o.ID && c.Kind == o.Kind && reflect.DeepEqual(c.Trials, o.Trials) &&
		slices.EqualFunc(c.Sends, o.Sends, func(a, b *Send) bool { return a.ID == b.ID && a.To == b.To }) &&
		slices.EqualFunc(c.Chain.Nodes, o.Chain.Nodes, func(a, b *Node) bool {
			if a.Stage == nil || b.Stage == nil {
				return reflect.DeepEqual(a, b)
			}
			return a.Stage.ID == b.Stage.ID && a.Stage.Effect == b.Stage.Effect && a.Stage.Version == b.Stage.Version
		})
}
