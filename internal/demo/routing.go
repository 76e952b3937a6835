package demo

import (
	"slices"

	"shoal/internal/project"
)

// route adds what rows share: a second return that the first one feeds, a group that makes
// room for the voice, and a side track. Three things in it are worth sounding, and are left so.
func route(p *project.Project, hall *project.Channel) {
	main := p.MainChannel()
	row := func(name string) *project.Channel {
		return p.Channels[slices.IndexFunc(p.Channels, func(c *project.Channel) bool { return c.Name == name })]
	}
	put := func(c *project.Channel, before *project.Channel) {
		p.Channels = slices.Insert(p.Channels, slices.Index(p.Channels, before), c)
	}
	send := func(from, to *project.Channel, level float64) {
		from.Sends = append(from.Sends, &project.Send{ID: project.NewID(), To: to.ID, Level: level})
	}

	far := project.NewChannel(project.Return, "Far echo", main.ID)
	far.Fader = -6
	far.Chain.Nodes = []*project.Node{
		// not fully wet: the dry bells come back with their echoes
		stage("delay", "", 60, set{"note": 8, "feedback": 38, "route": 2, "lowcut": 300, "highcut": 3200, "damping": 35}),
	}
	put(far, main)
	send(row("Handbells"), far, -16)
	send(row("Choir"), far, -20)
	send(hall, far, -22)

	// taken out of the choir's chain behind its voices, and far away
	afar := project.NewChannel(project.Track, "Choir afar", main.ID)
	afar.Tint, afar.Fader, afar.Pan = 5, -19, 0.6
	choir := row("Choir")
	afar.Input = &project.Tap{Channel: choir.ID, Point: "after", Node: choir.Chain.Nodes[1].ID()}
	afar.Chain.Nodes = []*project.Node{
		stage("equaliser", "", 0, set{"on1": 1, "freq1": 300, "on8": 1, "freq8": 2600}),
		stage("detune", "", 0, nil),
	}
	put(afar, row("Harbour"))

	shore := project.NewChannel(project.Group, "Shore", main.ID)
	shore.Tint = 6
	duck := stage("compressor", "Room for the voice", 0, set{"threshold": -36, "ratio": 2.5, "attack": 25, "release": 420, "makeup": 2})
	duck.Stage.Key = &project.Tap{Channel: row("Tide table").ID, Point: "post"}
	shore.Chain.Nodes = []*project.Node{duck}
	put(shore, row("Harbour"))
	for _, name := range []string{"Harbour", "Bell buoy"} {
		row(name).Output = shore.ID
	}
}
