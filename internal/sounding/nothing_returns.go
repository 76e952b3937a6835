package sounding

import (
	"fmt"

	"shoal/internal/project"
)

// nothingReturns: a send is up, but its return is muted, down, empty, bypassed or not routed on.
func nothingReturns(s *Survey, say func(Sounding)) {
	for _, r := range s.Doc.Channels {
		if r.Kind != project.Return {
			continue
		}
		from, first := feeding(s.Doc, r.ID)
		if first == nil {
			continue
		}
		why, mend := deafReturn(s.Doc, r)
		if why == "" {
			continue
		}
		say(Sounding{Weight: Broken, Channel: r.ID, At: r.ID, Fixes: []Fix{mend},
			Says: fmt.Sprintf("%s sends to %s, but %s: what is sent there is not heard.", from, r.Name, why)})
	}
}

// feeding names the channels that send to a return, and gives the first of the sends.
func feeding(p *project.Project, id string) (names string, first *project.Send) {
	count := 0
	for _, c := range p.Channels {
		for _, x := range c.Sends {
			if x.To == id && project.SendFlows(c, x) {
				if first == nil {
					first, names = x, c.Name
				}
				count++
			}
		}
	}
	if count > 1 {
		names = fmt.Sprintf("%s and %d more", names, count-1)
	}
	return names, first
}

// deafReturn says why nothing comes back from a return, and how to mend it.
func deafReturn(p *project.Project, r *project.Channel) (string, Fix) {
	off := 0
	for _, n := range r.Chain.Nodes {
		if n.Stage != nil && n.Stage.Bypass || n.Fork != nil && n.Fork.Bypass {
			off++
		}
	}
	leads := r.Output != ""
	for _, x := range r.Sends {
		leads = leads || project.SendFlows(r, x)
	}
	for _, c := range p.Channels {
		leads = leads || c.Input != nil && c.Input.Channel == r.ID
	}
	switch {
	case r.Mute:
		return "it is muted", fix("Unmute "+r.Name, &project.SetChannel{ID: r.ID, Mute: ptr(false)})
	case r.Fader <= -60:
		return "its fader is down", fix("Bring its fader to 0 dB", &project.SetParam{Owner: r.ID, Name: "fader", Value: 0})
	case !leads:
		return "it has no output", fix("Send it to the main output", &project.SetChannel{ID: r.ID, Output: ptr(p.MainChannel().ID)})
	case len(r.Chain.Nodes) == 0:
		return "there is no effect on it, so it only makes the dry signal louder", fix("Put a reverb on it",
			&project.AddNode{Owner: r.ID, Node: &project.Node{Stage: project.NewStage("reverb", 1, 100, "blend")}})
	case r.Chain.Bypass:
		return "its chain is bypassed", fix("Switch its chain on", &project.SetChain{Owner: r.ID, Bypass: ptr(false)})
	case off == len(r.Chain.Nodes):
		var list []project.Change
		for _, n := range r.Chain.Nodes {
			list = append(list, &project.SetNode{ID: n.ID(), Bypass: ptr(false)})
		}
		return "everything on it is bypassed", fix("Switch its stages on", list...)
	}
	return "", Fix{}
}
