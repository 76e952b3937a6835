package demo

import "shoal/internal/project"

// path is a path of a fork, at a level in dB.
func path(name string, level float64, nodes ...*project.Node) *project.Path {
	return project.NewPath(name, nodes...).At(level)
}

// crush lays a squeezed copy of the drum under the untouched one. The copy divides once
// more: its body as it comes, and its bright part, driven.
func crush() *project.Node {
	return project.Forked(project.Copies, "Crush below",
		path("Skin", -1.5),
		path("Crush", -4,
			stage("compressor", "Flatten", 0, set{"threshold": -42, "ratio": 12, "attack": 3, "release": 90, "makeup": 13}),
			project.Forked(
				project.Copies,
				"Body and nails",
				path("Body", 0, stage("equaliser", "", 0, set{"gain2": 2, "freq7": 2500, "gain7": -9})),
				path(
					"Nails",
					-6,
					stage("equaliser", "Only bright", 0, set{"on1": 1, "freq1": 1800}),
					stage("saturation", "", 0, set{"character": 0, "drive": 9, "level": -4}),
				),
			)))
}

// hull drives the horn's mids and leaves its lows clean.
func hull() *project.Node {
	n := project.Forked(project.Bands, "Hull and breath",
		path("Hull", 0),
		path("Breath", -0.5, stage("saturation", "Breath", 45, set{"character": 1, "drive": 10, "tilt": 2, "level": 0})),
		path("Spray", 1, stage("chorus", "Spray", 25, set{"voices": 2, "depth": 1.2, "rate": 0.4})))
	n.Fork.Crossovers = []float64{190, 2400}
	return n
}

// offing keeps what the choir's sides share near and dark, and lets their difference go far out.
func offing() *project.Node {
	n := project.Forked(project.MidSide, "Inshore and offing",
		path("Inshore", -1, stage("equaliser", "", 0, set{"freq7": 5000, "gain7": -2.5})),
		path("Offing", 2.5,
			stage("delay", "Wide blur", 24, set{"sync": 1, "time": 38, "feedback": 18, "route": 1, "highcut": 6500}),
			stage("equaliser", "Air", 0, set{"on1": 1, "freq1": 180, "freq7": 7000, "gain7": 3})))
	return n
}
