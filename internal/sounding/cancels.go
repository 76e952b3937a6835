package sounding

import (
	"fmt"
	"math"

	"shoal/internal/project"
)

// party is one of two signals that meet: what it is called, the chain on which it can be treated,
// and how its polarity is turned there.
type party struct {
	name  string
	owner string
	end   int // of the chain
	turn  project.Change
}

// cancels: where two signals meet, less than the louder one is left. The sum of what meets
// is more than 3 dB below its louder part.
func cancels(s *Survey, say func(Sounding)) {
	if s.Figures == nil {
		return
	}
	for _, f := range s.Figures.Sums {
		if f.Sum > f.Part-3 || f.Alike < 0.5 {
			continue
		}
		x := Sounding{Weight: Caution, At: f.Channel}
		where := ""
		var a, b *party
		if at, ok := s.Doc.Channel(f.Channel); ok {
			x.Channel, where = at.ID, "At the input of "+at.Name
			a, b = s.source(f.Loudest), s.source(f.Second)
		} else if fork, ch, ok := s.Doc.ForkByID(f.Channel); ok {
			x.Channel, where = ch.ID, fmt.Sprintf("Where %s on %s joins", fork.Title(), ch.Name)
			a, b = pathOf(fork, f.Loudest), pathOf(fork, f.Second)
		}
		if a == nil || b == nil {
			continue
		}
		ms := math.Abs(float64(f.Lag)) / float64(s.Doc.SampleRate) * 1000
		late, early := b, a
		if f.Lag < 0 {
			late, early = a, b
		}
		how := ""
		switch {
		case f.Turned && f.Lag == 0:
			how = "one is the other upside down"
		case f.Turned:
			how = fmt.Sprintf("one is upside down, and %s arrives %.2f ms later", late.name, ms)
		default:
			how = fmt.Sprintf("%s arrives %.2f ms later", late.name, ms)
		}
		if f.Turned {
			x.Fixes = append(x.Fixes, fix("Turn the polarity of "+b.name, b.turn))
		}
		if f.Lag != 0 && ms >= 1 {
			wait := project.NewStage("delay", 1, 100, "blend")
			wait.ID, wait.Name = "", "Alignment"
			wait.Params = map[string]float64{"sync": 1, "time": math.Round(ms*100) / 100, "feedback": 0, "lowcut": 20, "highcut": 20000}
			x.Fixes = append(
				x.Fixes,
				fix(
					fmt.Sprintf("Delay %s by %.2f ms", early.name, ms),
					&project.AddNode{Owner: early.owner, Index: early.end, Node: &project.Node{Stage: wait}},
				),
			)
		}
		x.Says = fmt.Sprintf(
			"%s, %s and %s cancel: together they are %.1f dB below the louder of them; %s.",
			where,
			a.name,
			b.name,
			f.Part-f.Sum,
			how,
		)
		say(x)
	}
}

// source is the channel that something arrives from: its own id, or a send's.
func (s *Survey) source(id string) *party {
	for _, c := range s.Doc.Channels {
		from := c.ID == id
		for _, x := range c.Sends {
			from = from || x.ID == id
		}
		if !from {
			continue
		}
		flip := project.NewStage("trim", 1, 100, "blend")
		flip.ID, flip.Name, flip.Params = "", "Polarity", map[string]float64{"polarity": 3}
		end := len(c.Chain.Nodes)
		return &party{c.Name, c.ID, end, &project.AddNode{Owner: c.ID, Index: end, Node: &project.Node{Stage: flip}}}
	}
	return nil
}

func pathOf(f *project.Fork, id string) *party {
	for _, p := range f.Paths {
		if p.ID == id {
			return &party{p.Name, p.ID, len(p.Chain.Nodes), &project.SetPath{ID: p.ID, Invert: ptr(!p.Invert)}}
		}
	}
	return nil
}
