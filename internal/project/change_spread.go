package project

import (
	"fmt"
	"slices"
)

// SpreadPaths gives every path of a fork a row of its own, fed by a tap behind the path, so that
// each is faded like a tone control. The rows go into a new group, which takes over what
// stands behind the fork, the row's fader, pan, output and sends: the mix stays as it was. The row
// itself lives through its taps from now on.
type SpreadPaths struct {
	Fork  string `json:"fork"`
	Group string `json:"group,omitempty"` // id of the new group
}

func (c *SpreadPaths) apply(p *Project, effects Effects) ([]Change, error) {
	at, ok := p.findNode(c.Fork)
	if !ok || at.node.Fork == nil {
		return nil, Gone("the fork")
	}
	f, ch := at.node.Fork, at.channel
	switch {
	case ch.Kind == TreatmentKind:
		return nil, errTreatment("rows for its paths")
	case at.owner != ch.ID:
		return nil, fmt.Errorf("%s stands inside another fork or a trial: only a fork of the row's own chain can be spread", f.Title())
	case ch.Kind == Main || ch.Output == "":
		return nil, fmt.Errorf("%s goes to no other row, so its paths have nowhere to go", ch.Name)
	case f.Bypass || ch.Chain.Bypass:
		return nil, fmt.Errorf("%s is bypassed: switch it on first", f.Title())
	case f.Mix != 100 || f.MixLaw != "blend":
		return nil, fmt.Errorf(
			"%s stands at a mix of %.0f %%: the dry signal has no path of its own; set the mix to 100 %%, blended, first",
			f.Title(),
			f.Mix,
		)
	case p.hasLine(f.ID, "mix") || p.hasLine(f.ID, "trim"):
		return nil, fmt.Errorf("the mix or output of %s is automated: take that line away first", f.Title())
	case ch.Waterline != "":
		return nil, fmt.Errorf("part of the chain of %s is printed: take the waterline away first", ch.Name)
	}
	place := slices.Index(p.Channels, ch) + 1
	group := NewChannel(Group, p.Unused(ch.Name+" paths"), ch.Output)
	if c.Group != "" {
		group.ID = c.Group
	}
	group.Tint, group.Fader, group.Pan, group.Stereo, group.Mute, group.MutePre = ch.Tint, ch.Fader, ch.Pan, ch.Stereo, ch.Mute, ch.MutePre
	list := []Change{&AddChannel{Channel: group, Index: place}}
	for i, path := range f.Paths {
		row := NewChannel(Track, p.Unused(ch.Name+", "+path.Name), group.ID)
		row.Tint, row.Fader = ch.Tint, f.Trim
		row.Input = &Tap{Channel: ch.ID, Point: "path", Node: path.ID}
		list = append(list, &AddChannel{Channel: row, Index: place + 1 + i})
	}
	for i, n := range ch.Chain.Nodes[at.index+1:] {
		list = append(list, &MoveNode{n.ID(), group.ID, i})
	}
	for _, s := range ch.Sends {
		if s.After != "" {
			continue
		}
		list = append(list, &RemoveSend{s.ID}, &AddSend{group.ID, len(ch.Sends), s})
		list = append(list, p.linesOf(s.ID, s.ID)...) // they go with the send that is removed
	}
	list = append(list, p.linesOf(ch.ID, group.ID)...)
	for _, l := range p.Lines {
		if l.Owner == ch.ID {
			list = append(list, &SetLine{Owner: ch.ID, Name: l.Name})
		}
	}
	none, heard := "", false
	list = append(list, &SetChannel{ID: ch.ID, Output: &none, Mute: &heard})
	return p.each(effects, list...)
}

// linesOf lists the changes that put the lines of one owner down for another.
func (p *Project) linesOf(owner, to string) (list []Change) {
	for _, l := range p.Lines {
		if l.Owner == owner {
			list = append(list, &SetLine{Owner: to, Name: l.Name, Points: l.Points})
		}
	}
	return list
}
