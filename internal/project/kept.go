package project

import (
	"reflect"
	"slices"
)

// keep lets rows and lines that a change has left as they were be the same objects as in the revision before, wherever they now
// stand: whoever asks what differs sees that at once, and there may be very many of them.
func (p *Project) keep(before *Project) {
	type at struct{ owner, name string }
	keepEach(p.Channels, before.Channels, func(c *Channel) string { return c.ID }, (*Channel).same)
	keepEach(p.Lines, before.Lines, func(l *Line) at { return at{l.Owner, l.Name} }, (*Line).Same)
}

// keepEach looks for each at its place first: mostly all are there.
func keepEach[T any, K comparable](now, before []*T, key func(*T) K, same func(a, b *T) bool) {
	var places map[K]*T
	for i, x := range now {
		if i < len(before) && key(x) == key(before[i]) {
			if same(x, before[i]) {
				now[i] = before[i]
			}
			continue
		}
		if places == nil {
			places = make(map[K]*T, len(before))
			for _, o := range before {
				places[key(o)] = o
			}
		}
		if o := places[key(x)]; o != nil && same(x, o) {
			now[i] = o
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
