package sounding

import (
	"fmt"
	"math"

	"shoal/internal/project"
)

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
		at, ok := s.Doc.Channel(f.Channel)
		if !ok {
			continue
		}
		x := Sounding{Weight: Caution, Channel: at.ID, At: at.ID}
		a, b := s.source(f.Loudest), s.source(f.Second)
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
			how = fmt.Sprintf("one is upside down, and %s arrives %.2f ms later", late.Name, ms)
		default:
			how = fmt.Sprintf("%s arrives %.2f ms later", late.Name, ms)
		}
		if f.Turned {
			flip := project.NewStage("trim", 1, 100, "blend")
			flip.ID, flip.Name, flip.Params = "", "Polarity", map[string]float64{"polarity": 3}
			x.Fixes = append(x.Fixes, fix("Turn the polarity of "+b.Name, &project.AddNode{Owner: b.ID, Index: len(b.Chain.Nodes), Node: &project.Node{Stage: flip}}))
		}
		if f.Lag != 0 && ms >= 1 {
			wait := project.NewStage("delay", 1, 100, "blend")
			wait.ID, wait.Name = "", "Alignment"
			wait.Params = map[string]float64{"sync": 1, "time": math.Round(ms*100) / 100, "feedback": 0, "lowcut": 20, "highcut": 20000}
			x.Fixes = append(x.Fixes, fix(fmt.Sprintf("Delay %s by %.2f ms", early.Name, ms), &project.AddNode{Owner: early.ID, Index: len(early.Chain.Nodes), Node: &project.Node{Stage: wait}}))
		}
		x.Says = fmt.Sprintf("At the input of %s, %s and %s cancel: together they are %.1f dB below the louder of them; %s.", at.Name, a.Name, b.Name, f.Part-f.Sum, how)
		say(x)
	}
}

// source is the channel that something arrives from: its own id, or a send's.
func (s *Survey) source(id string) *project.Channel {
	for _, c := range s.Doc.Channels {
		if c.ID == id {
			return c
		}
		for _, x := range c.Sends {
			if x.ID == id {
				return c
			}
		}
	}
	return nil
}
