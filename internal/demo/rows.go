package demo

import (
	"shoal/internal/effect"
	"shoal/internal/project"
)

// voice is one track: how it is played, where, and what stands on it.
type voice struct {
	name  string
	play  func(stretch) *take
	where []stretch
	tint  int
	fader float64
	pan   float64
	chain []*project.Node
	send  float64 // to the hall, dB
	pre   bool
	order []int // the same stages in another order, kept as a trial
}

func stage(id, name string, mix float64, params map[string]float64) *project.Node {
	k, ok := effect.Find(id)
	if !ok {
		panic("demo: no effect " + id)
	}
	s := project.NewStage(id, k.Version, k.Mix, k.MixLaw)
	s.Name = name
	if mix > 0 {
		s.Mix = mix
	}
	for n, v := range params {
		s.Params[n] = v
	}
	return &project.Node{Stage: s}
}

type set = map[string]float64

// voices are those of the song, from the top.
func voices() []voice { return append(players(), shore()...) }

// players are what is played and sung.
func players() []voice {
	return []voice{
		{
			name:  "Marimba",
			play:  marimba,
			where: []stretch{{0, 16, 2}, {18, 30, 2}, {30, 50, 2}, {50, 66, 3}},
			tint:  1,
			fader: -4,
			pan:   -0.18,
			send:  -16,
			chain: []*project.Node{
				stage(
					"equaliser",
					"",
					0,
					set{"on1": 1, "freq1": 70, "freq3": 380, "gain3": -2.5, "freq5": 2600, "gain5": 2.5, "gain7": 1.5},
				),
				stage("compressor", "", 0, set{"threshold": -34, "ratio": 4, "attack": 12, "release": 260, "makeup": 9.5}),
				stage("delay", "Dotted echo", 26, set{"note": 7, "feedback": 45, "route": 2, "highcut": 4200}),
			},
			order: []int{0, 2, 1},
		}, // does the compressor hold the echoes down too?
		{
			name:  "Handbells",
			play:  handbells,
			where: []stretch{{16, 30, 4}, {42, 68, 4}},
			tint:  2,
			fader: -9,
			pan:   0.32,
			send:  -7,
			chain: []*project.Node{
				stage("equaliser", "", 0, set{"on1": 1, "freq1": 220, "freq4": 1100, "gain4": -2, "gain7": -2}),
				stage("deesser", "Sting", 0, set{"freq": 4200, "q": 0.9, "threshold": -30, "range": -6, "release": 80}),
				stage("phaser", "Halo", 28, set{"stages": 1, "freq": 3200, "depth": 1, "rate": 0.5}),
				stage("delay", "", 22, set{"note": 10, "feedback": 42, "route": 1, "damping": 25}),
			},
		},
		{
			name:  "Low horn",
			play:  lowHorn,
			where: []stretch{{8, 16, 1}, {30, 50, 1}, {50, 66, 1}},
			tint:  3,
			fader: -7,
			pan:   0.08,
			send:  -13,
			chain: []*project.Node{
				stage("compressor", "", 0, set{"threshold": -28, "ratio": 3, "attack": 30, "release": 250, "makeup": 3, "detector": 1}),
				hull(),
				stage("equaliser", "", 0, set{"freq3": 240, "gain3": -2, "freq5": 1500, "gain5": 2}),
			},
		},
		{
			name:  "Frame drum",
			play:  frameDrum,
			where: []stretch{{12, 16, 1}, {30, 49, 1}, {50, 64, 1}},
			tint:  4,
			fader: -5,
			send:  -19,
			chain: []*project.Node{
				stage("gate", "", 0, set{"threshold": -46, "range": -24, "hold": 70, "release": 160}),
				stage("equaliser", "", 0, set{"on1": 1, "freq1": 38, "gain2": 2.5, "freq3": 340, "gain3": -4, "freq5": 3200, "gain5": 3}),
				stage("transient", "Fingers", 0, set{"attack": 4, "sustain": -1}),
				crush(),
			},
		},
		{
			name:  "Choir",
			play:  choir,
			where: []stretch{{20, 30, 2}, {42, 50, 2}, {50, 66, 3}},
			tint:  5,
			fader: -7,
			send:  -6,
			chain: []*project.Node{
				stage("equaliser", "", 0, set{"on1": 1, "freq1": 120, "freq4": 900, "gain4": -1.5, "gain7": 3}),
				stage("chorus", "Two more voices", 30, set{"voices": 3, "depth": 1.5, "rate": 0.3}),
				offing(),
			},
		},
	}
}

// shore is what is heard of the harbour.
func shore() []voice {
	return []voice{
		{name: "Harbour", play: harbour, where: []stretch{{0, 34, 0}, {60, 68, 0}}, tint: 6, fader: -12, send: -120, chain: []*project.Node{
			stage("equaliser", "", 0, set{"on1": 1, "freq1": 90, "gain7": -3}),
			stage("filter", "Slow water", 0, set{"freq": 5200, "resonance": 20, "depth": 0.9, "rate": 0.07, "wave": 5, "sides": 60}),
		}},
		{
			name:  "Bell buoy",
			play:  buoy,
			where: []stretch{{0, 14, 0}, {16, 30, 0}, {60, 68, 0}},
			tint:  7,
			fader: -13,
			pan:   -0.5,
			send:  -9,
			pre:   true,
			chain: []*project.Node{
				stage("equaliser", "", 0, set{"on8": 1, "freq8": 5200}),
				stage("convolver", "Under the pier", 30, set{"space": 3, "highcut": 7000}),
			},
		},
		{
			name:  "Tide table",
			play:  tideTable,
			where: []stretch{{4, 11, 0}, {20, 27, 0}, {36, 42, 0}, {58, 64, 0}},
			tint:  8,
			fader: -8,
			pan:   -0.1,
			send:  -17,
			chain: []*project.Node{
				stage("gate", "Between words", 0, set{"threshold": -50, "range": -14, "ratio": 3, "hold": 120, "release": 260}),
				stage(
					"equaliser",
					"",
					0,
					set{"on1": 1, "freq1": 110, "slope1": 3, "freq4": 480, "gain4": -3, "freq6": 3600, "on6": 1, "gain6": 3},
				),
				stage("compressor", "Even out", 0, set{"threshold": -30, "ratio": 4, "attack": 4, "release": 110, "makeup": 9}),
				stage("deesser", "", 0, set{"freq": 6200, "threshold": -32, "range": -7}),
				stage("limiter", "", 0, set{"ceiling": -6}),
			},
		},
	}
}
