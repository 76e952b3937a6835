package project

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// Routing gestures: each is several simple changes in one.

// Audible is the level in dB at which a new send stands: it can be heard.
const Audible = -12

// each applies changes one after another and gathers what undoes them.
func (p *Project) each(effects Effects, list ...Change) (undo []Change, err error) {
	for _, c := range list {
		u, err := c.apply(p, effects)
		if err != nil {
			return nil, err
		}
		undo = slices.Concat(u, undo)
	}
	return undo, nil
}

func decibels(gain float64) float64 {
	if gain <= 1e-6 {
		return -120
	}
	return 20 * math.Log10(gain)
}

func gainOf(db float64) float64 {
	if db <= -120 {
		return 0
	}
	return math.Pow(10, db/20)
}

// Unused returns the name, or with a number when another row has it.
func (p *Project) Unused(name string) string {
	if slices.ContainsFunc(p.Channels, func(c *Channel) bool { return c.Name == name }) {
		return p.freeName(name)
	}
	return name
}

// newReturn adds a return above the main output.
func (p *Project) newReturn(id, name string, nodes []*Node, effects Effects) (*Channel, []Change, error) {
	main := p.MainChannel()
	ch := NewChannel(Return, p.Unused(name), main.ID)
	if id != "" {
		ch.ID = id
	}
	ch.Chain.Nodes = nodes
	undo, err := (&AddChannel{Channel: ch, Index: slices.Index(p.Channels, main)}).apply(p, effects)
	if err != nil {
		return nil, nil, err
	}
	ch, _ = p.Channel(ch.ID)
	return ch, undo, nil
}

// MakeReturn makes a return with an effect on it, fully wet, and a send to it from each
// of the channels, at a level that can be heard. Without an effect the return is empty.
type MakeReturn struct {
	ID       string   `json:"id,omitempty"` // of the new return
	Name     string   `json:"name"`         // empty: the effect's
	Effect   string   `json:"effect,omitempty"`
	Stage    string   `json:"stage,omitempty"` // id of the new stage
	Channels []string `json:"channels"`
	Sending
}

func (c *MakeReturn) apply(p *Project, effects Effects) ([]Change, error) {
	name, nodes := strings.TrimSpace(c.Name), []*Node{}
	if c.Effect != "" {
		info, ok := effects(c.Effect, 0)
		if !ok {
			return nil, fmt.Errorf("there is no effect %q", c.Effect)
		}
		s := NewStage(c.Effect, info.Version, 100, "blend")
		if c.Stage != "" {
			s.ID = c.Stage
		}
		nodes = append(nodes, &Node{Stage: s})
		if name == "" {
			name = info.Name
		}
	}
	if name == "" {
		name = "Return"
	}
	ret, undo, err := p.newReturn(c.ID, name, nodes, effects)
	if err != nil {
		return nil, err
	}
	u, err := (&SendRows{ret.ID, c.Channels, c.Sending}).apply(p, effects)
	return slices.Concat(u, undo), err
}

// Sending is how new sends of several rows stand.
type Sending struct {
	Level *float64 `json:"level,omitempty"` // in dB; none: one that can be heard
	// Apart pans them from the first on the left to the last on the right.
	Apart bool `json:"apart,omitempty"`
}

// send is that of row i of n.
func (s Sending) send(to string, i, n int) *Send {
	x := &Send{To: to, Level: Audible}
	if s.Level != nil {
		x.Level = *s.Level
	}
	if s.Apart && n > 1 {
		x.Pan = 2*float64(i)/float64(n-1) - 1
	}
	return x
}

// SendRows sends channels to a return that is there. One that sends there already is left as it is.
type SendRows struct {
	To       string   `json:"to"`
	Channels []string `json:"channels"`
	Sending
}

func (c *SendRows) apply(p *Project, effects Effects) ([]Change, error) {
	var list []Change
	for i, id := range c.Channels {
		from, ok := p.Channel(id)
		if !ok {
			return nil, Gone("the row to send from")
		}
		if from.ID == c.To || slices.ContainsFunc(from.Sends, func(s *Send) bool { return s.To == c.To }) {
			continue
		}
		list = append(list, &AddSend{from.ID, len(from.Sends), c.send(c.To, i, len(c.Channels))})
	}
	return p.each(effects, list...)
}

// StageToSend moves a stage from a channel's chain onto a return of its own. The balance
// that was heard stays: the stage goes to 100 % wet, its mix becomes the send's level,
// and what blending took from the dry signal the fader takes now. A stage without dry
// signal leaves the channel to live through its send.
type StageToSend struct {
	Stage  string `json:"stage"`
	Return string `json:"return,omitempty"` // id of the new return
}

func (c *StageToSend) apply(p *Project, effects Effects) ([]Change, error) {
	at, ok := p.findNode(c.Stage)
	if !ok || at.node.Stage == nil {
		return nil, Gone("the stage")
	}
	ch, s := at.channel, at.node.Stage
	if ch.Kind == TreatmentKind {
		return nil, errTreatment("a send")
	}
	if at.owner != ch.ID {
		return nil, fmt.Errorf("a stage of a fork or a trial cannot become a send: move it into the chain of %s first", ch.Name)
	}
	if ch.Kind == Main {
		return nil, fmt.Errorf("the main output has no sends")
	}
	info, _ := effects(s.Effect, s.Version)
	name := s.Name
	if name == "" {
		name = info.Name
	}
	wet := s.Mix / 100
	dry := 1.0
	if s.MixLaw == "blend" {
		dry = 1 - wet
	}
	list := []Change{&RemoveNode{s.ID}}
	send := &Send{Level: math.Round(min(decibels(wet/max(dry, 1e-9)), 12)*100) / 100}
	switch {
	case dry < 1e-6: // all of it was wet
		none := ""
		send.Level = 0
		list = append(list, &SetChannel{ID: ch.ID, Output: &none})
	case dry < 1 && !p.hasLine(ch.ID, "fader"):
		list = append(list, &SetParam{Owner: ch.ID, Name: "fader", Value: max(-120, math.Round((ch.Fader+decibels(dry))*100)/100)})
	}
	moved := Clone(s)
	moved.ID, moved.Mix, moved.MixLaw = NewID(), 100, "blend"
	if moved.Key != nil && moved.Key.Node == s.ID {
		moved.Key = nil
	}
	undo, err := p.each(effects, list...)
	if err != nil {
		return nil, err
	}
	ret, u, err := p.newReturn(c.Return, name, []*Node{{Stage: moved}}, effects)
	if err != nil {
		return nil, err
	}
	undo = slices.Concat(u, undo)
	send.To = ret.ID
	u, err = p.each(effects, &AddSend{ch.ID, len(ch.Sends), send})
	return slices.Concat(u, undo), err
}

func (p *Project) hasLine(owner, name string) bool {
	return slices.ContainsFunc(p.Lines, func(l *Line) bool { return l.Owner == owner && l.Name == name && len(l.Points) > 0 })
}

// SendToStage brings what a send leads to back onto the channel: the return's one stage
// with the send's level as its mix (added, the dry signal stays), or its whole chain as the
// second path of a fork. A return that nobody else feeds goes.
type SendToStage struct {
	Send string `json:"send"`
}

func (c *SendToStage) apply(p *Project, effects Effects) ([]Change, error) {
	ch, i, ok := p.findSend(c.Send)
	if !ok {
		return nil, Gone("the send")
	}
	send := ch.Sends[i]
	ret, ok := p.Channel(send.To)
	if !ok {
		return nil, Gone("the return")
	}
	if len(ret.Chain.Nodes) == 0 {
		return nil, fmt.Errorf("%s has nothing on it to bring back", ret.Name)
	}
	nodes, fresh, err := p.freshNodes(ch.ID, ret.Chain.Nodes, effects)
	if err != nil {
		return nil, err
	}
	gain := gainOf(send.Level) * gainOf(ret.Fader)
	var node *Node
	list := []Change{&RemoveSend{send.ID}}
	if s := nodes[0].Stage; len(nodes) == 1 && s != nil && s.Mix == 100 && !p.moved(ret.Chain.Nodes[0].ID(), "mix") {
		if s.Name == "" && ret.Name != "" {
			s.Name = ret.Name
		}
		s.MixLaw, s.Mix = "add", math.Round(gain*1000)/10
		if gain > 1 { // more wet than dry: blended, and the fader makes up for it
			s.MixLaw, s.Mix = "blend", math.Round(gain/(1+gain)*1000)/10
			if !p.hasLine(ch.ID, "fader") {
				list = append(list, &SetParam{Owner: ch.ID, Name: "fader", Value: min(12, math.Round((ch.Fader+decibels(1+gain))*100)/100)})
			}
		}
		node = nodes[0]
	} else {
		f, _ := NewFork(Copies, 0)
		f.Name, f.Paths[1] = ret.Name, NewPath(ret.Name, nodes...)
		f.Paths[1].Level = max(-120, min(12, math.Round(decibels(gain)*100)/100))
		node = &Node{Fork: f}
	}
	others := 0
	for _, x := range p.Channels {
		for _, s := range x.Sends {
			if s.To == ret.ID && s.ID != send.ID {
				others++
			}
		}
	}
	undo, err := p.each(effects, append(list, &AddNode{Owner: ch.ID, Index: len(ch.Chain.Nodes), Node: node})...)
	if err != nil {
		return nil, err
	}
	p.moveCopies(fresh)
	if others > 0 {
		return undo, nil
	}
	Gone, err := p.each(effects, &RemoveChannel{ret.ID})
	return append(Gone, undo...), err
}

// CopySend gives other channels the same send, at the same level or silent. A channel that
// sends there already keeps its send and takes over the level, unless silent.
type CopySend struct {
	Send     string   `json:"send"`
	Channels []string `json:"channels"`
	Silent   bool     `json:"silent,omitempty"`
}

func (c *CopySend) apply(p *Project, effects Effects) ([]Change, error) {
	from, i, ok := p.findSend(c.Send)
	if !ok {
		return nil, Gone("the send")
	}
	send := from.Sends[i]
	var list []Change
	for _, id := range c.Channels {
		ch, ok := p.Channel(id)
		if !ok {
			return nil, Gone("the row to copy the send to")
		}
		if ch == from || ch.ID == send.To || ch.Kind == Main {
			continue
		}
		level := send.Level
		if c.Silent {
			level = -120
		}
		if k := slices.IndexFunc(ch.Sends, func(s *Send) bool { return s.To == send.To }); k >= 0 {
			if !c.Silent {
				list = append(list, &SetParam{Owner: ch.Sends[k].ID, Name: "level", Value: level})
			}
			continue
		}
		list = append(list, &AddSend{ch.ID, len(ch.Sends), &Send{To: send.To, Pre: send.Pre, Level: level, Pan: send.Pan, Mute: send.Mute}})
	}
	return p.each(effects, list...)
}

// MakeGroup gathers channels in a new group, which stands above the first of them and
// goes where they went.
type MakeGroup struct {
	ID       string   `json:"id,omitempty"`
	Name     string   `json:"name"`
	Channels []string `json:"channels"`
}

func (c *MakeGroup) apply(p *Project, effects Effects) ([]Change, error) {
	if len(c.Channels) == 0 {
		return nil, fmt.Errorf("select the rows that are to be a group")
	}
	first := len(p.Channels)
	output := ""
	for k, id := range c.Channels {
		i := slices.IndexFunc(p.Channels, func(x *Channel) bool { return x.ID == id })
		if i < 0 {
			return nil, Gone("a row of the group")
		}
		ch := p.Channels[i]
		if ch.Kind == Main {
			return nil, fmt.Errorf("the main output cannot be in a group")
		}
		first = min(first, i)
		if k == 0 {
			output = ch.Output
		} else if ch.Output != output {
			output = p.MainChannel().ID
		}
	}
	if output == "" {
		output = p.MainChannel().ID
	}
	name := strings.TrimSpace(c.Name)
	if name == "" {
		name = "Group"
	}
	g := NewChannel(Group, p.Unused(name), output)
	if c.ID != "" {
		g.ID = c.ID
	}
	list := []Change{&AddChannel{Channel: g, Index: first}}
	for _, id := range c.Channels {
		list = append(list, &SetChannel{ID: id, Output: &g.ID})
	}
	return p.each(effects, list...)
}

// DissolveGroup removes a group; its members go where it went.
type DissolveGroup struct {
	ID string `json:"id"`
}

func (c *DissolveGroup) apply(p *Project, effects Effects) ([]Change, error) {
	g, ok := p.Channel(c.ID)
	if !ok {
		return nil, Gone("the group")
	}
	if g.Kind != Group {
		return nil, fmt.Errorf("%s is not a group", g.Name)
	}
	var list []Change
	for _, ch := range p.Channels {
		if ch.Output == g.ID {
			list = append(list, &SetChannel{ID: ch.ID, Output: &g.Output})
		}
	}
	return p.each(effects, append(list, &RemoveChannel{g.ID})...)
}

// SetMeant says of a sounding that it is meant, or takes that back.
type SetMeant struct {
	Rule  string `json:"rule"`
	At    string `json:"at"`
	By    string `json:"by,omitempty"` // Shoal's own server fills it in, whatever was sent
	Meant bool   `json:"meant"`
}

func (c *SetMeant) spoken(by Speaker, _ string) { c.By = by.Name }

func (c *SetMeant) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Meant, func(m Meant) bool { return m.Rule == c.Rule && m.At == c.At })
	switch {
	case c.Meant && i < 0:
		if strings.TrimSpace(c.Rule) == "" || len(p.Meant) >= 10000 {
			return nil, fmt.Errorf("a sounding needs a name")
		}
		p.Meant = append(p.Meant, Meant{c.Rule, c.At, c.By})
		return []Change{&SetMeant{c.Rule, c.At, c.By, false}}, nil
	case !c.Meant && i >= 0:
		by := p.Meant[i].By
		p.Meant = dropped(p.Meant, i)
		return []Change{&SetMeant{c.Rule, c.At, by, true}}, nil
	}
	return nil, nil
}
