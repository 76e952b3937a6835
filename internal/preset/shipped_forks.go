package preset

import "shoal/internal/project"

// braid is a shipped chain with a fork in it.
type braid struct {
	name, says, tags string
	nodes            []*project.Node
}

// at is a stage; mix 0 is the effect's own.
func at(effect, name string, mix float64, params set) *project.Node {
	return link{effect, name, mix, params}.node()
}

// wet is a stage of which nothing dry is heard: a path beside it holds that.
func wet(effect, name string, params set) *project.Node {
	n := at(effect, name, 100, params)
	n.Stage.MixLaw = "blend"
	return n
}

// path is a path of a fork, at a level in dB.
func path(name string, level float64, nodes ...*project.Node) *project.Path {
	return project.NewPath(name, nodes...).At(level)
}

// bands is a fork of bands that meet at these crossovers in Hz.
func bands(name string, hz []float64, paths ...*project.Path) *project.Node {
	n := project.Forked(project.Bands, name, paths...)
	n.Fork.Crossovers = hz
	return n
}

// Pan, width or polarity of a path, set in passing.
func panned(p *project.Path, pan float64) *project.Path { p.Pan = pan; return p }
func wide(p *project.Path, width float64) *project.Path { p.Width = width; return p }
func turned(p *project.Path) *project.Path              { p.Invert = true; return p }

var braids = []braid{
	{
		"Crush under the skin",
		"A squeezed copy of a drum below the drum itself, which stays as it was struck.",
		"fork parallel drum",
		[]*project.Node{
			project.Forked(
				project.Copies,
				"Crush below",
				path("Skin", -1.5),
				path(
					"Crush",
					-9,
					at("compressor", "Flatten", 0, set{"threshold": -44, "ratio": 14, "attack": 2, "release": 80, "makeup": 16}),
					at("equaliser", "", 0, set{"on1": 1, "freq1": 45, "gain2": 2, "gain7": 3}),
				),
			),
		},
	},
	{
		"A third strand",
		"The sound, its body held together, and its bright part on a strand of its own.",
		"fork parallel bright",
		[]*project.Node{
			project.Forked(
				project.Copies,
				"Three strands",
				path("As it is", -2),
				path(
					"Body",
					-8,
					at("equaliser", "", 0, set{"on8": 1, "freq8": 1400}),
					at("compressor", "", 0, set{"threshold": -32, "ratio": 4, "attack": 20, "release": 180, "makeup": 9}),
				),
				path(
					"Bright",
					-10,
					at("equaliser", "Only bright", 0, set{"on1": 1, "freq1": 2600, "slope1": 3, "gain7": 4}),
					at("compressor", "", 0, set{"threshold": -38, "ratio": 6, "attack": 1, "release": 60, "makeup": 11}),
				),
			),
		},
	},
	{
		"Echoing mids",
		"Only the middle echoes; lows and highs stay dry, and all of it stands in a short room.",
		"fork bands echo",
		[]*project.Node{
			bands("Echo between", []float64{280, 3200}, path("Lows", 0),
				path("Mids", 0, at("delay", "", 30, set{"note": 7, "feedback": 40, "route": 2})), path("Highs", 0)),
			at("reverb", "Short room", 12, set{"character": 1, "decay": 0.5, "predelay": 5})},
	},
	{
		"Inshore and offing",
		"Near: narrow, short and dark. Far: wide, long and bright. The sound stands between.",
		"fork space depth",
		[]*project.Node{
			project.Forked(
				project.Copies,
				"Depth",
				path("Here", -1),
				wide(
					path("Inshore", -10, wet("reverb", "Dark room", set{"character": 1, "decay": 0.4, "predelay": 2, "highcut": 2600})),
					30,
				),
				wide(
					path(
						"Offing",
						-14,
						wet("reverb", "Bright hall", set{"decay": 4.2, "size": 180, "predelay": 70, "lowcut": 350, "highfactor": 0.7}),
					),
					150,
				),
			),
		},
	},
	{
		"Harmonics only",
		"The sound with what driving it adds, and nothing else of the driven sound: what it was is taken off again.",
		"fork colour exciter",
		[]*project.Node{
			project.Forked(project.Copies, "Harmonics", path("As it is", 0),
				path("Added", -6,
					project.Forked(project.Copies, "What driving adds",
						path("Driven", 0, at("saturation", "", 100, set{"character": 1, "drive": 9, "level": 0})),
						turned(path("Less the sound", 0))),
					at("equaliser", "", 0, set{"on1": 1, "freq1": 900, "slope1": 1})))},
	},
	{
		"Level every band",
		"Four bands, each held to its own level: even from the lowest to the highest.",
		"fork bands dynamics multiband",
		[]*project.Node{
			bands(
				"Every band",
				[]float64{120, 700, 4200},
				path("Low", 0, at("compressor", "", 0, set{"threshold": -30, "ratio": 3, "attack": 30, "release": 260, "makeup": 8.5})),
				path(
					"Low mids",
					0,
					at("compressor", "", 0, set{"threshold": -32, "ratio": 2.5, "attack": 18, "release": 180, "makeup": 7.5}),
				),
				path(
					"High mids",
					0,
					at("compressor", "", 0, set{"threshold": -34, "ratio": 2.5, "attack": 8, "release": 120, "makeup": 7}),
				),
				path("High", 0, at("compressor", "", 0, set{"threshold": -38, "ratio": 3, "attack": 3, "release": 80, "makeup": 8})),
			),
		},
	},
	{
		"A hall with its own hand",
		"A reverb that is equalised and held down by itself, beside the untouched sound.",
		"fork space reverb",
		[]*project.Node{
			project.Forked(project.Copies, "Hall beside", path("Dry", 0),
				path("Hall", -13, wet("reverb", "", set{"decay": 2.8, "size": 140, "predelay": 35}),
					at("equaliser", "Clear", 0, set{"on1": 1, "freq1": 250, "freq4": 900, "gain4": -2, "gain7": -3}),
					at("compressor", "Hold the tail", 0, set{"threshold": -36, "ratio": 3, "attack": 15, "release": 300, "makeup": 6.5})))},
	},
	{"Driven mids, clean lows", "Grit where it is heard, and a foundation that does not growl.", "fork bands colour bass", []*project.Node{
		bands("Clean lows", []float64{180, 3500}, path("Lows", 0),
			path("Mids", -1, at("saturation", "", 70, set{"character": 1, "drive": 14, "level": -4})), path("Highs", 0))}},
	{
		"Four corners of a room",
		"Four late copies, each in a corner, none of them alike.",
		"fork space wide",
		[]*project.Node{
			project.Forked(
				project.Copies,
				"Corners",
				path("Middle", 0),
				panned(path("Near left", -14, wet("delay", "", set{"sync": 1, "time": 17, "feedback": 0, "highcut": 7000})), -0.8),
				panned(path("Near right", -14, wet("delay", "", set{"sync": 1, "time": 23, "feedback": 0, "highcut": 7000})), 0.8),
				panned(
					path(
						"Far left",
						-17,
						wet("delay", "", set{"sync": 1, "time": 53, "feedback": 12, "highcut": 3500}),
						at("reverb", "", 40, set{"character": 1, "decay": 0.7}),
					),
					-1,
				),
				panned(
					path(
						"Far right",
						-17,
						wet("delay", "", set{"sync": 1, "time": 61, "feedback": 12, "highcut": 3500}),
						at("reverb", "", 40, set{"character": 1, "decay": 0.7}),
					),
					1,
				),
			),
		},
	},
	{
		"Firm middle, soft sides",
		"What both sides share is held; their difference sways and shines.",
		"fork mid side width",
		[]*project.Node{
			project.Forked(
				project.MidSide,
				"Middle and sides",
				path("Middle", 0, at("compressor", "", 0, set{"threshold": -26, "ratio": 2.5, "attack": 15, "release": 150, "makeup": 5})),
				path(
					"Sides",
					1,
					at("chorus", "", 30, set{"voices": 2, "depth": 1.2, "rate": 0.3}),
					at("equaliser", "", 0, set{"on1": 1, "freq1": 160, "gain7": 2.5}),
				),
			),
		},
	},
	{"Two shores", "Left and right sweep against each other, and meet in the middle.", "fork left right movement", []*project.Node{
		project.Forked(project.LeftRight, "Two shores",
			path("Port", 0, at("filter", "", 0, set{"freq": 2400, "resonance": 15, "depth": 0.8, "rate": 0.11})),
			path("Starboard", 0, at("filter", "", 0, set{"freq": 2400, "resonance": 15, "depth": 0.8, "rate": 0.13})))}},
	{"Lows to the middle", "Below it is mono, above it is wider than it was.", "fork bands width bass", []*project.Node{
		bands("Keel and sails", []float64{140}, wide(path("Keel", 0), 0), wide(path("Sails", 0), 130))}},
	{
		"Only the sting",
		"The sharp band is caught when it stings; what lies below never hears of it.",
		"fork bands voice de-ess",
		[]*project.Node{
			bands("Sting", []float64{5200}, path("Below", 0),
				path("Sting", 0, at("compressor", "Catch it", 0, set{"threshold": -40, "ratio": 6, "attack": 1, "release": 50, "makeup": 5})))},
	},
	{
		"Turning hall",
		"The sound as it is, and a hall whose brightness turns once a bar; only the hall turns.",
		"fork space movement dry wet equaliser tempo",
		[]*project.Node{
			project.Forked(
				project.Copies,
				"Turning hall",
				path("Dry", 0),
				path(
					"Hall",
					-9,
					wet("reverb", "", set{"decay": 3.2, "size": 130, "predelay": 30}),
					at("filter", "Turns in tempo", 100, set{"freq": 1600, "resonance": 20, "depth": 1.4, "sync": 1, "note": 13, "sides": 40}),
				),
			),
		},
	},
	{
		"Wake",
		"Echoes that dissolve into a room, behind the sound and out of its way.",
		"fork echo space",
		[]*project.Node{
			project.Forked(
				project.Copies,
				"Wake",
				path("Bow", 0),
				path(
					"Wake",
					-9,
					wet("delay", "", set{"note": 10, "feedback": 38, "route": 2, "duck": 12, "highcut": 4200}),
					at("reverb", "", 55, set{"decay": 2.4, "size": 120}),
				),
			),
		},
	},
}
