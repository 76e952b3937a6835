package project

import (
	"fmt"
	"maps"
	"slices"
)

// AddChannel adds a row. Missing ids and lists are filled in.
type AddChannel struct {
	Channel *Channel `json:"channel"`
	Index   int      `json:"index"`
}

func (c *AddChannel) apply(p *Project, _ Effects) ([]Change, error) {
	if c.Channel == nil {
		return nil, fmt.Errorf("there is no channel to add")
	}
	ch := Clone(c.Channel)
	if ch.ID == "" {
		ch.ID = NewID()
	}
	if ch.Chain.Nodes == nil {
		ch.Chain.Nodes = []*Node{}
	}
	if ch.Trials == nil {
		ch.Trials = []*Trial{}
	}
	if ch.Letter == "" {
		ch.Letter = "A"
	}
	if ch.Sends == nil {
		ch.Sends = []*Send{}
	}
	if ch.Clips == nil {
		ch.Clips = []*Clip{}
	}
	if ch.Output != "" {
		if _, ok := p.Channel(ch.Output); !ok {
			return nil, Gone("the output of " + ch.Name)
		}
	}
	p.Channels = insert(p.Channels, c.Index, ch)
	return []Change{&RemoveChannel{ID: ch.ID}}, nil
}

// RemoveChannel removes a row, and in the same change what refers to it: sends
// and outputs that lead there, keys that listen to it, lines on it.
type RemoveChannel struct {
	ID string `json:"id"`
}

func (c *RemoveChannel) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Channels, func(x *Channel) bool { return x.ID == c.ID })
	if i < 0 {
		return nil, Gone("the row")
	}
	ch := p.Channels[i]
	if ch.Kind == Main {
		return nil, fmt.Errorf("the main output cannot be removed")
	}
	p.Channels = slices.Delete(p.Channels, i, i+1) // its own taps need no care
	undo := []Change{&AddChannel{Channel: ch, Index: i}}
	Gone := channelIDs(ch)
	for _, other := range p.Channels {
		if other.Output == ch.ID {
			undo = append(undo, &SetChannel{ID: other.ID, Output: swap(&other.Output, &ch.Output)})
		}
		for k := len(other.Sends) - 1; k >= 0; k-- {
			if s := other.Sends[k]; s.To == ch.ID {
				undo = append(undo, &AddSend{Channel: other.ID, Index: k, Send: s})
				Gone[s.ID] = true
				other.Sends = slices.Delete(other.Sends, k, k+1)
			}
		}
	}
	undo = append(undo, p.retap(func(t *Tap) bool { return t.Channel == ch.ID }, func(Tap) *Tap { return nil })...)
	// sends were noted from the last to the first: put them back from the first on
	slices.SortStableFunc(undo[1:], func(a, b Change) int {
		x, xs := a.(*AddSend)
		y, ys := b.(*AddSend)
		if xs && ys && x.Channel == y.Channel {
			return x.Index - y.Index
		}
		return 0
	})
	return append(undo, p.dropLines(Gone)...), nil
}

// ThingsOf are the ids of a row and of all that is on it; of one that is gone only its own.
func (p *Project) ThingsOf(row string) []string {
	ids := map[string]bool{row: true}
	if c, ok := p.Channel(row); ok {
		ids = channelIDs(c)
		for _, x := range c.Clips {
			ids[x.ID] = true
		}
	}
	return slices.Sorted(maps.Keys(ids))
}

// channelIDs lists the ids on a channel that can own parameters.
func channelIDs(c *Channel) map[string]bool {
	m := map[string]bool{c.ID: true}
	for _, t := range c.Trials {
		m[t.ID] = true
	}
	for _, s := range c.Sends {
		m[s.ID] = true
	}
	c.Walk(func(_ *Chain, _ int, n *Node) bool { nodeIDs(n, m); return true })
	return m
}

func nodeIDs(n *Node, m map[string]bool) {
	m[n.ID()] = true
	if n.Fork != nil {
		for _, path := range n.Fork.Paths {
			m[path.ID] = true
			for _, inner := range path.Chain.Nodes {
				nodeIDs(inner, m)
			}
		}
	}
}

// MoveChannel puts a row in another place.
type MoveChannel struct {
	ID    string `json:"id"`
	Index int    `json:"index"`
}

func (c *MoveChannel) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Channels, func(x *Channel) bool { return x.ID == c.ID })
	if i < 0 {
		return nil, Gone("the row")
	}
	ch := p.Channels[i]
	p.Channels = insert(slices.Delete(p.Channels, i, i+1), c.Index, ch)
	return []Change{&MoveChannel{c.ID, i}}, nil
}

// SetChannel sets what is given of a row's properties.
type SetChannel struct {
	ID        string  `json:"id"`
	Name      *string `json:"name,omitempty"`
	Tint      *int    `json:"tint,omitempty"`
	Stereo    *bool   `json:"stereo,omitempty"`
	Hidden    *bool   `json:"hidden,omitempty"`
	Mute      *bool   `json:"mute,omitempty"`
	MutePre   *bool   `json:"mutePre,omitempty"`
	SoloSafe  *bool   `json:"soloSafe,omitempty"`
	Output    *string `json:"output,omitempty"`
	Waterline *string `json:"waterline,omitempty"`
	Overlaps  *string `json:"overlaps,omitempty"`
	Records   *string `json:"records,omitempty"`
	WayIn     *string `json:"wayIn,omitempty"`
	// PrintWhenAsked is of what stands before the line.
	PrintWhenAsked *bool `json:"printWhenAsked,omitempty"`
}

func (c *SetChannel) apply(p *Project, _ Effects) ([]Change, error) {
	ch, ok := p.Channel(c.ID)
	if !ok {
		return nil, Gone("the row")
	}
	return []Change{&SetChannel{
		ID: c.ID, Name: swap(&ch.Name, c.Name), Tint: swap(&ch.Tint, c.Tint), Stereo: swap(&ch.Stereo, c.Stereo),
		Hidden: swap(&ch.Hidden, c.Hidden), Mute: swap(&ch.Mute, c.Mute), MutePre: swap(&ch.MutePre, c.MutePre),
		SoloSafe: swap(&ch.SoloSafe, c.SoloSafe), Output: swap(&ch.Output, c.Output), Waterline: swap(&ch.Waterline, c.Waterline),
		Overlaps: swap(&ch.Overlaps, c.Overlaps), PrintWhenAsked: swap(&ch.PrintWhenAsked, c.PrintWhenAsked),
		Records: swap(&ch.Records, c.Records), WayIn: swap(&ch.WayIn, c.WayIn),
	}}, nil
}

// DuplicateChannel puts a copy of a row, with everything on it, below it.
type DuplicateChannel struct {
	ID string `json:"id"`
	// As is the id of the copy; empty: any. Bare leaves the clips.
	As   string `json:"as,omitempty"`
	Bare bool   `json:"bare,omitempty"`
}

func (c *DuplicateChannel) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Channels, func(x *Channel) bool { return x.ID == c.ID })
	if i < 0 {
		return nil, Gone("the row")
	}
	if p.Channels[i].Kind == Main {
		return nil, fmt.Errorf("there is only one main output")
	}
	copied := Clone(p.Channels[i])
	if c.Bare {
		copied.Clips = []*Clip{}
	}
	own := c.As
	if own == "" {
		own = NewID()
	}
	fresh := freshIDsAs(copied, own)
	copied.Name = p.freeName(copied.Name)
	p.Channels = insert(p.Channels, i+1, copied)
	p.moveCopies(fresh)
	return []Change{&RemoveChannel{ID: copied.ID}}, nil
}

// freeName returns the name with a number that no other row has.
func (p *Project) freeName(name string) string {
	for n := 2; ; n++ {
		try := fmt.Sprintf("%s %d", name, n)
		if !slices.ContainsFunc(p.Channels, func(c *Channel) bool { return c.Name == try }) {
			return try
		}
	}
}
