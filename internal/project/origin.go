package project

import (
	"fmt"
	"slices"
)

// Origin says what a printed channel was made from.
type Origin struct {
	Print   string `json:"print" required:"true"` // id of the print job
	Channel string `json:"channel" required:"true"`
	Name    string `json:"name" required:"true"`
	// Tap is where the row was printed, and Share whether it was what comes back of it from returns; neither: behind its chain.
	Tap   *Tap `json:"tap,omitempty"`
	Share bool `json:"share,omitempty"`
	// To is the song frame as far as which it was printed, and Key that of its makings; empty: nobody knows.
	To  int64  `json:"to,omitempty"`
	Key string `json:"key,omitempty"`
}

// takesIn is the id of the row that takes in what is printed of another one.
const takesIn = "probe"

// Makings is what it would be made from now; false: that has left the song.
func (o Origin) Makings(p *Project) (Makings, bool) {
	switch {
	case o.Tap != nil:
		return p.MakingsUntil(*o.Tap, o.To)
	case !o.Share:
		return p.MakingsOfRow(o.Channel, o.To)
	}
	q, err := p.OnlySendsOf(o.Channel, takesIn)
	if err != nil {
		return Makings{}, false
	}
	return q.MakingsOfRow(takesIn, o.To)
}

// OnlySendsOf is a project in which nobody but one row sends to returns, and a group of an id takes in all that these give.
func (p *Project) OnlySendsOf(row, group string) (*Project, error) {
	ch, ok := p.Channel(row)
	if !ok {
		return nil, Gone("the row")
	}
	if len(ch.Sends) == 0 {
		return nil, fmt.Errorf("%s sends to no return: nothing comes back of it", ch.Name)
	}
	q := *p
	all := NewChannel(Group, group, p.MainChannel().ID)
	all.ID = group
	q.Channels = nil
	for _, c := range p.Channels {
		n := *c
		switch {
		case c.Kind == Return:
			n.Output = group
		case c.ID != row:
			n.Sends = nil
		}
		q.Channels = append(q.Channels, &n)
	}
	main := slices.IndexFunc(q.Channels, func(c *Channel) bool { return c.Kind == Main })
	q.Channels = slices.Insert(q.Channels, main, all)
	return &q, nil
}
