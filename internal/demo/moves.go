package demo

import (
	"slices"

	"shoal/internal/project"
)

// move adds what moves, but for what a hand plays in: a boost that is on for one phrase, a
// stereo movement of two movers against each other, and three handles on the choir's fork.
func move(p *project.Project) {
	row := func(name string) *project.Channel {
		return p.Channels[slices.IndexFunc(p.Channels, func(c *project.Channel) bool { return c.Name == name })]
	}
	clock := p.Clock()
	line := func(owner, name string, points ...project.Point) {
		p.Lines = append(p.Lines, &project.Line{Owner: owner, Name: name, Points: points})
	}
	at := func(bar int, value float64, shape string) project.Point {
		return project.Point{Tick: clock.Bar(bar), Value: value, Shape: shape}
	}

	marimba := row("Marimba").Chain.Nodes[0].ID()
	line(marimba, "gain4", at(0, 0, project.Hold), at(34, 3.5, project.Hold), at(38, 0, project.Hold))

	afar := row("Choir afar")
	left, right := stage(
		"filter",
		"Left of the wind",
		0,
		set{"freq": 2400, "resonance": 10},
	), stage(
		"filter",
		"Right of the wind",
		0,
		set{"freq": 2400, "resonance": 10},
	)
	left.Stage.ActsOn, right.Stage.ActsOn = "left", "right"
	afar.Chain.Nodes = append(afar.Chain.Nodes, left, right)
	p.Movers = []*project.Mover{
		{ID: project.NewID(), Name: "Wind", Shape: "wander", Rate: 0.2, Quarters: 16, Seed: 5, Targets: []project.MoverTarget{
			{Owner: left.ID(), Name: "freq", Depth: 0.14}, {Owner: right.ID(), Name: "freq", Depth: -0.14}}},
	}

	choir := row("Choir")
	f := choir.Chain.Nodes[slices.IndexFunc(choir.Chain.Nodes, func(n *project.Node) bool { return n.Fork != nil })].Fork
	near, far := f.Paths[0], f.Paths[1]
	handle := func(name string, value float64, targets ...project.HandleTarget) {
		p.Handles = append(
			p.Handles,
			&project.Handle{ID: project.NewID(), Name: name, Value: value, Targets: targets, Home: f.ID, Shown: name == "Offing"},
		)
	}
	handle("Inshore", 60, project.HandleTarget{Owner: near.ID, Name: "level", From: -10, To: 3.5})
	handle(
		"Offing",
		45,
		project.HandleTarget{Owner: far.ID, Name: "level", From: -6, To: 9},
		project.HandleTarget{Owner: far.Chain.Nodes[0].ID(), Name: "mix", From: 5, To: 50, Bend: 0.2},
	)
	handle(
		"Narrows",
		0,
		project.HandleTarget{Owner: near.ID, Name: "width", From: 100, To: 0},
		project.HandleTarget{Owner: far.ID, Name: "width", From: 100, To: 10},
	)
	line(
		p.Handles[1].ID,
		"value",
		at(0, 45, project.Hold),
		at(50, 45, project.Smooth),
		at(58, 80, project.Smooth),
		at(66, 30, project.Hold),
	)
}
