package routing

import (
	"fmt"
	"math"
	"slices"

	"shoal/internal/effect"
	"shoal/internal/project"
)

// Step is something that happens to a signal on its way.
type Step struct {
	Channel string  `json:"channel" required:"true"`
	Says    string  `json:"says" required:"true"`
	Gain    float64 `json:"gain" required:"true"`    // dB; -120: nothing comes through
	Changes bool    `json:"changes" required:"true"` // an effect: its gain is in the meters, not in the settings
}

// Way is one route from a channel to another.
type Way struct {
	Steps []Step  `json:"steps" required:"true"`
	Total float64 `json:"total" required:"true"` // dB of the gains that are set, without the effects
}

// Trace is every route between two channels.
type Trace struct {
	From string  `json:"from" required:"true"`
	To   string  `json:"to" required:"true"`
	Ways []Way   `json:"ways" required:"true"`
	Sum  float64 `json:"sum" required:"true"` // dB, if all ways arrive alike
	Says string  `json:"says" required:"true"`
}

// off is the level in dB at which nothing comes through.
const off = -120

// maxWays bounds what is listed; more than anybody reads.
const maxWays = 64

// From traces a signal from behind one channel's input to another's output, through outputs
// and sends. Keys are no ways: they steer and are not heard.
func From(p *project.Project, from, to string) (Trace, error) {
	a, ok := p.Channel(from)
	b, ok2 := p.Channel(to)
	if !ok || !ok2 {
		return Trace{}, fmt.Errorf("the row is no longer there: somebody has removed it")
	}
	t := Trace{From: from, To: to, Ways: []Way{}}
	var walk func(c *project.Channel, steps []Step, entry int)
	walk = func(c *project.Channel, steps []Step, entry int) {
		if len(t.Ways) >= maxWays {
			return
		}
		if c == b {
			t.add(append(slices.Clone(steps), through(p, c, entry, len(c.Chain.Nodes), true)...))
			return
		}
		post := append(slices.Clone(steps), through(p, c, entry, len(c.Chain.Nodes), true)...)
		if next, ok := p.Channel(c.Output); ok && c.Output != "" {
			walk(next, append(slices.Clone(post), Step{next.ID, "Output to " + next.Name, 0, false}), 0)
		}
		for _, s := range c.Sends {
			next, ok := p.Channel(s.To)
			if !ok {
				continue
			}
			way := slices.Clone(steps)
			where := "before the fader"
			switch {
			case s.After == "input":
				where = "from the input"
			case s.After != "":
				i := slices.IndexFunc(c.Chain.Nodes, func(n *project.Node) bool { return n.ID() == s.After })
				way = append(way, through(p, c, entry, i+1, false)...)
				where = "after " + nodeName(c.Chain.Nodes, i)
			case s.Pre:
				way = append(way, through(p, c, entry, len(c.Chain.Nodes), false)...)
			default:
				way, where = slices.Clone(post), "after the fader"
			}
			gain := s.Level
			if s.Mute || c.Mute && (s.Pre || s.After != "") && c.MutePre {
				gain = off
			}
			walk(next, append(way, Step{next.ID, fmt.Sprintf("Send to %s, %s", next.Name, where), gain, false}), 0)
		}
		for _, x := range p.Channels { // tracks that take this one in
			if x.Input == nil || x.Input.Channel != c.ID {
				continue
			}
			way, until := slices.Clone(steps), len(c.Chain.Nodes)
			switch x.Input.Point {
			case "input":
				until = 0
			case "before", "after":
				until = slices.IndexFunc(c.Chain.Nodes, func(n *project.Node) bool { return n.ID() == x.Input.Node })
				if x.Input.Point == "after" {
					until++
				}
			}
			way = append(way, through(p, c, entry, max(until, 0), x.Input.Point == "post")...)
			walk(x, append(way, Step{x.ID, "Taken in by " + x.Name, 0, false}), 0)
		}
	}
	walk(a, nil, 0)
	t.sum(a, b)
	return t, nil
}

func nodeName(nodes []*project.Node, i int) string {
	if i < 0 || i >= len(nodes) {
		return "a path"
	}
	if f := nodes[i].Fork; f != nil {
		return "the fork " + f.Name
	}
	return StageName(nodes[i].Stage)
}

// StageName is a stage's own name, or its effect's.
func StageName(s *project.Stage) string {
	if s.Name != "" {
		return s.Name
	}
	if k, ok := effect.Find(s.Effect); ok {
		return k.Name
	}
	return s.Effect
}

// through lists what a channel does from one node to another, and at its fader.
func through(p *project.Project, c *project.Channel, from, to int, fader bool) []Step {
	var out []Step
	for i := from; i < to; i++ {
		n := c.Chain.Nodes[i]
		switch {
		case c.Chain.Bypass || n.Stage != nil && n.Stage.Bypass || n.Fork != nil && n.Fork.Bypass:
		case n.Stage != nil && n.Stage.Effect == "trim":
			out = append(out, Step{c.ID, nodeName(c.Chain.Nodes, i), n.Stage.Params["gain"], false})
		case len(out) > 0 && out[len(out)-1].Changes: // effects behind one another share a line
			out[len(out)-1].Says += ", " + nodeName(c.Chain.Nodes, i)
		default:
			out = append(out, Step{c.ID, nodeName(c.Chain.Nodes, i), 0, true})
		}
	}
	if !fader {
		return out
	}
	gain, says := c.Fader, "Fader of "+c.Name
	if c.Mute {
		gain, says = off, c.Name+" is muted"
	}
	out = append(out, Step{c.ID, says, gain, false})
	if !c.Stereo && c.Pan == 0 {
		out = append(out, Step{c.ID, "Mono, in the middle", -3.01, false})
	}
	return out
}

func (t *Trace) add(steps []Step) {
	w := Way{Steps: steps}
	for _, s := range steps {
		if s.Gain <= off {
			w.Total = off
			break
		}
		w.Total += s.Gain
	}
	w.Total = math.Round(w.Total*100) / 100
	t.Ways = append(t.Ways, w)
}

func (t *Trace) sum(a, b *project.Channel) {
	g := 0.0
	for _, w := range t.Ways {
		if w.Total > off {
			g += math.Pow(10, w.Total/20)
		}
	}
	t.Sum = off
	if g > 1e-6 {
		t.Sum = math.Round(2000*math.Log10(g)) / 100
	}
	switch {
	case len(t.Ways) == 0:
		t.Says = fmt.Sprintf("Nothing leads from %s to %s.", a.Name, b.Name)
	case g <= 1e-6:
		t.Says = fmt.Sprintf("There is a way from %s to %s, but nothing comes through.", a.Name, b.Name)
	case len(t.Ways) == 1:
		t.Says = fmt.Sprintf("One way leads from %s to %s.", a.Name, b.Name)
	default:
		t.Says = fmt.Sprintf("%d ways lead from %s to %s; if they arrive alike they add up.", len(t.Ways), a.Name, b.Name)
	}
}
