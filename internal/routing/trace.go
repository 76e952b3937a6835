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
	At      string  `json:"at" required:"true"` // what it is set on: a channel, send, path, stage or fork; empty: nothing
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
	var walk func(c *project.Channel, steps []Step)
	walk = func(c *project.Channel, steps []Step) {
		if len(t.Ways) >= maxWays {
			return
		}
		if c == b {
			t.add(slices.Concat(steps, whole(c), fader(c)))
			return
		}
		pre := slices.Concat(steps, whole(c))
		post := slices.Concat(pre, fader(c))
		if next, ok := p.Channel(c.Output); ok && c.Output != "" {
			walk(next, append(slices.Clone(post), Step{next.ID, "", "Output to " + next.Name, 0, false}))
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
				inner, name, _ := upTo(c, &c.Chain, s.After, false)
				way, where = slices.Concat(steps, inner), "after "+name
			case s.Pre:
				way = slices.Clone(pre)
			default:
				way, where = slices.Clone(post), "after the fader"
			}
			gain := s.Level
			if s.Mute || c.Mute && (s.Pre || s.After != "") && c.MutePre {
				gain = off
			}
			walk(next, append(way, Step{next.ID, s.ID, fmt.Sprintf("Send to %s, %s", next.Name, where), gain, false}))
		}
		for _, x := range p.Channels { // tracks that take this one in
			if x.Input == nil || x.Input.Channel != c.ID {
				continue
			}
			way := slices.Clone(post)
			switch x.Input.Point {
			case "input":
				way = slices.Clone(steps)
			case "pre":
				way = slices.Clone(pre)
			case "before", "after", "path":
				inner, _, _ := upTo(c, &c.Chain, x.Input.Node, x.Input.Point == "before")
				way = slices.Concat(steps, inner)
			}
			walk(x, append(way, Step{x.ID, "", "Taken in by " + x.Name, 0, false}))
		}
	}
	walk(a, nil)
	t.sum(a, b)
	return t, nil
}

func nodeName(n *project.Node) string {
	if n.Fork != nil {
		return n.Fork.Title()
	}
	return StageName(n.Stage)
}

// StageName is a stage's own name, or its effect's.
func StageName(s *project.Stage) string {
	if s.Name != "" {
		return s.Name
	}
	if k, ok := effect.Of(s.Effect, s.Version); ok {
		return k.Name
	}
	return s.Effect
}

// whole lists what a channel's chain does.
func whole(c *project.Channel) []Step { return along(c, c.Chain.Nodes, c.Chain.Bypass) }

// fader lists what a channel does behind its chain.
func fader(c *project.Channel) []Step {
	gain, says := c.Fader, "Fader of "+c.Name
	if c.Mute {
		gain, says = off, c.Name+" is muted"
	}
	out := []Step{{c.ID, c.ID, says, gain, false}}
	if !c.Stereo && c.Pan == 0 {
		out = append(out, Step{c.ID, "", "Mono, in the middle", -3.01, false})
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
