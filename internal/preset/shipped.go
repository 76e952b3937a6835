package preset

import (
	"strings"
	"sync"

	"shoal/internal/effect"
	"shoal/internal/project"
)

type set = map[string]float64

// setting is a shipped preset of a stage. mix 0 means the effect's own mix.
type setting struct {
	name, says, tags string
	mix              float64
	params           set
}

// Shipped lists the presets that come with Shoal. They cannot be changed, only
// copied.
var Shipped = sync.OnceValue(func() []Preset {
	var list []Preset
	for _, k := range effect.Kinds() {
		for _, s := range settings[k.ID] {
			mix := s.mix
			if mix == 0 {
				mix = k.Mix
			}
			list = append(
				list,
				Preset{
					Version:       Version,
					ID:            slug(k.ID, s.name),
					Kind:          Stage,
					Effect:        k.ID,
					EffectVersion: k.Version,
					Name:          s.name,
					Says:          s.says,
					Tags:          strings.Fields(s.tags),
					Shipped:       true,
					Unknown:       []string{},
					Body:          Body{Params: s.params, Mix: mix, MixLaw: k.MixLaw},
				},
			)
		}
	}
	for _, c := range chains {
		p := Preset{
			Version: Version,
			ID:      slug("chain", c.name),
			Kind:    Chain,
			Name:    c.name,
			Says:    c.says,
			Tags:    strings.Fields(c.tags),
			Shipped: true,
			Unknown: []string{},
		}
		for _, l := range c.stages {
			p.Body.Nodes = append(p.Body.Nodes, l.node())
		}
		list = append(list, p)
	}
	for _, b := range braids {
		list = append(
			list,
			Preset{
				Version: Version,
				ID:      slug("chain", b.name),
				Kind:    Chain,
				Name:    b.name,
				Says:    b.says,
				Tags:    strings.Fields(b.tags),
				Shipped: true,
				Unknown: []string{},
				Body:    Body{Nodes: b.nodes},
			},
		)
	}
	return list
})

func slug(a, b string) string {
	return "shoal-" + a + "-" + strings.ReplaceAll(strings.ToLower(b), " ", "-")
}

// link is a stage of a shipped chain.
type link struct {
	effect string
	name   string
	mix    float64 // 0: the effect's own
	params set
}

func (l link) node() *project.Node {
	k, ok := effect.Find(l.effect)
	if !ok {
		panic("preset: no effect " + l.effect)
	}
	s := project.NewStage(k.ID, k.Version, k.Mix, k.MixLaw)
	s.Name = l.name
	if l.mix > 0 {
		s.Mix = l.mix
	}
	for n, v := range l.params {
		s.Params[n] = v
	}
	return &project.Node{Stage: s}
}

var settings = map[string][]setting{
	"trim": {
		{"Down six", "Makes room before a stage that would be driven too hard.", "level headroom", 0, set{"gain": -6}},
		{"Flipped", "Turns the signal upside down, to see whether two microphones fight.", "polarity", 0, set{"polarity": 3}},
		{"One ear", "Sums both sides, to hear what survives on a small radio.", "mono check", 0, set{"sides": 2}},
	},
	"equaliser": {
		{
			"Clear speech",
			"Takes the rumble and the boxy middle out of a voice and opens its consonants.",
			"voice speech clear",
			0,
			set{"on1": 1, "freq1": 90, "slope1": 3, "freq4": 420, "gain4": -3, "on6": 1, "freq6": 3400, "gain6": 3, "gain7": 1.5},
		},
		{
			"Wooden bars",
			"Lets mallets sing: less mud at the resonators, more stick.",
			"mallets marimba",
			0,
			set{"on1": 1, "freq1": 60, "freq3": 350, "gain3": -3, "freq5": 2800, "gain5": 3, "q5": 0.9},
		},
		{
			"Behind glass",
			"Dull and thin, as from the next room.",
			"filtered distant",
			0,
			set{"on1": 1, "freq1": 240, "slope1": 3, "on8": 1, "freq8": 2600, "slope8": 3, "freq5": 1200, "gain5": 2},
		},
		{
			"Skin and frame",
			"Weight for a hand drum, less cardboard, more finger.",
			"drum frame",
			0,
			set{"on1": 1, "freq1": 35, "freq2": 95, "gain2": 3, "freq3": 340, "gain3": -4.5, "freq5": 3600, "gain5": 3.5},
		},
	},
	"filter": {
		{
			"Closing hatch",
			"A steep low pass, ready to be pulled down into a transition.",
			"transition dark",
			0,
			set{"slope": 1, "freq": 9000, "resonance": 30},
		},
		{
			"Slow swell",
			"Opens and closes over four bars.",
			"movement slow",
			0,
			set{"freq": 1400, "resonance": 35, "depth": 1.8, "sync": 1, "note": 15, "sides": 30},
		},
		{
			"Gull window",
			"Only a narrow band of the middle, wandering.",
			"band movement",
			0,
			set{"kind": 2, "freq": 1600, "resonance": 70, "depth": 0.8, "wave": 5, "rate": 0.4},
		},
		{
			"Parting ways",
			"Moves one way on the left and the other way on the right, once a bar.",
			"movement stereo wide",
			0,
			set{"freq": 1100, "resonance": 30, "depth": 1.6, "sync": 1, "note": 13, "sides": 180},
		},
	},
	"compressor": {
		{
			"Even reading",
			"Keeps a spoken text at one distance.",
			"voice speech",
			0,
			set{"threshold": -30, "ratio": 3.5, "attack": 5, "release": 120, "makeup": 9, "keylow": 120},
		},
		{
			"Let the stick through",
			"Slow to close, so that each stroke keeps its edge.",
			"mallets drum punch",
			0,
			set{"threshold": -26, "ratio": 3, "attack": 28, "release": 150, "makeup": 6.5},
		},
		{
			"Rope tight",
			"Hard and fast: everything at one level.",
			"squash loud",
			0,
			set{"threshold": -38, "ratio": 12, "attack": 1, "release": 60, "makeup": 15.5, "knee": 3, "ahead": 1},
		},
		{
			"Together",
			"A light hand over a whole mix.",
			"mix gentle",
			0,
			set{"threshold": -20, "ratio": 1.6, "attack": 30, "release": 220, "makeup": 1.5, "detector": 1, "keylow": 90},
		},
	},
	"gate": {
		{
			"Between words",
			"Quiets a room between the sentences, without cutting their ends.",
			"voice speech room",
			0,
			set{"threshold": -46, "range": -18, "ratio": 3, "hold": 120, "release": 260},
		},
		{
			"Drum alone",
			"Shuts out what spills into a drum's microphone.",
			"drum spill",
			0,
			set{"threshold": -34, "range": -50, "hold": 40, "release": 90, "attack": 0.5},
		},
		{
			"Hum out",
			"Closes only when nothing but hum is left.",
			"hum noise",
			0,
			set{"threshold": -60, "range": -30, "hold": 300, "release": 500, "keylow": 150},
		},
	},
	"limiter": {
		{"Quay wall", "A last stop at −1 dB true peak.", "master safe", 0, set{"ceiling": -1, "peaks": 1, "ahead": 1}},
		{"Pushed up", "Six decibels louder against the ceiling.", "loud", 0, set{"input": 6, "ceiling": -1, "release": 120}},
		{
			"Catch the strokes",
			"Short and quick: only the tips of percussion.",
			"drum percussion",
			0,
			set{"ceiling": -6, "release": 25, "ahead": 0},
		},
	},
	"deesser": {
		{"Soft s", "For a voice close to the microphone.", "voice speech", 0, set{"freq": 7000, "threshold": -34, "range": -8}},
		{
			"Sharp bow",
			"Takes the scrape off strings and bells.",
			"strings bells harsh",
			0,
			set{"freq": 4200, "q": 0.9, "threshold": -30, "range": -6, "release": 80},
		},
		{
			"All the air",
			"Holds down everything above 8 kHz when it splashes.",
			"cymbals bright",
			0,
			set{"kind": 1, "freq": 8000, "threshold": -36, "range": -10},
		},
	},
	"transient": {
		{"Finger forward", "Brings the attack of a hand drum to the front.", "drum punch", 0, set{"attack": 7, "sustain": -2}},
		{"Felt mallets", "Rounds hard beginnings off.", "mallets soft", 0, set{"attack": -7, "speed": 35}},
		{"Long room", "Raises what rings after the stroke.", "sustain room", 0, set{"attack": 0, "sustain": 7, "length": 500}},
	},
	"saturation": {
		{"Warm hull", "A little roundness for a whole group.", "warm gentle", 0, set{"character": 0, "drive": 6, "level": -1}},
		{
			"Brass breath",
			"Even harmonics that make a low horn speak.",
			"horn brass warm",
			0,
			set{"character": 1, "drive": 12, "tilt": 3, "level": -3},
		},
		{"Broken megaphone", "Cut off hard.", "dirt harsh", 0, set{"character": 2, "drive": 24, "tilt": 4, "level": -8}},
		{"Folded paper", "Folds back on itself: for single notes.", "fold strange", 60, set{"character": 3, "drive": 15, "level": -5}},
	},
	"amplifier": {
		{"Small and honest", "A small box, barely driven.", "clean box", 0, set{"drive": 4, "cabinet": 1, "level": 0}},
		{"Engine room", "A large box, well driven.", "drive heavy", 0, set{"drive": 26, "cabinet": 2, "low": 2, "mid": -2, "tight": 140}},
		{
			"Hailer on the quay",
			"A tin horn calling across the water.",
			"radio horn announce",
			0,
			set{"drive": 16, "cabinet": 3, "tight": 300, "mid": 3},
		},
	},
	"crush": {
		{"Old answering machine", "Eight bits at 8 kHz, filtered.", "telephone lo-fi", 0, set{"bits": 8, "rate": 8000, "filter": 1}},
		{"Gravel", "Few bits, for percussion.", "grit drum", 50, set{"bits": 5, "rate": 22000}},
		{"Wet wire", "An unsteady slow clock.", "glitch noise", 60, set{"bits": 12, "rate": 3200, "jitter": 60}},
	},
	"delay": {
		{
			"Dotted steps",
			"A dotted eighth from side to side.",
			"rhythm echo",
			18,
			set{"note": 7, "feedback": 32, "route": 2, "highcut": 4500},
		},
		{
			"Over the basin",
			"Long, dull, far.",
			"distant long",
			22,
			set{"note": 10, "feedback": 48, "route": 1, "highcut": 2600, "lowcut": 250, "damping": 45},
		},
		{
			"Out of the way",
			"Echoes that wait until the voice is done.",
			"voice duck",
			28,
			set{"note": 8, "feedback": 38, "duck": 14, "duckrelease": 320},
		},
		{"Wall slap", "One short answer.", "short slap", 20, set{"sync": 1, "time": 105, "feedback": 4, "highcut": 5000}},
	},
	"taps": {
		{"Stepping stones", "Four echoes that fall across the picture.", "rhythm pan", 0, set{}},
		{
			"Pebbles",
			"Eight quick ones, getting duller.",
			"cluster rhythm",
			45,
			set{
				"on5":   1,
				"on6":   1,
				"on7":   1,
				"on8":   1,
				"time1": 1,
				"time2": 1.5,
				"time3": 2,
				"time4": 2.75,
				"time5": 3.5,
				"time6": 4.5,
				"time7": 6,
				"time8": 7.5,
				"cut5":  4000,
				"cut6":  3000,
				"cut7":  2200,
				"cut8":  1600,
				"pan5":  -0.8,
				"pan6":  0.8,
				"pan7":  -0.4,
				"pan8":  0.4,
			},
		},
		{
			"Rock faces",
			"First reflections of a cove, in milliseconds.",
			"early space",
			40,
			set{
				"unit":   1,
				"time1":  0.36,
				"time2":  0.62,
				"time3":  0.98,
				"time4":  1.4,
				"blur1":  30,
				"blur2":  40,
				"blur3":  55,
				"blur4":  70,
				"level1": -8,
				"level2": -10,
				"level3": -13,
				"level4": -16,
			},
		},
	},
	"reverb": {
		{
			"Mill floor",
			"A wooden room with people in it.",
			"room short",
			18,
			set{"character": 1, "decay": 0.7, "size": 90, "predelay": 8, "highfactor": 0.55},
		},
		{
			"Stone hall",
			"Three seconds of stone and water.",
			"hall long choir",
			25,
			set{"decay": 3.1, "size": 130, "predelay": 28, "lowfactor": 0.85, "highfactor": 0.4},
		},
		{
			"Bright sheet",
			"Dense at once, for voices and bells.",
			"plate bright",
			22,
			set{"character": 2, "decay": 1.7, "predelay": 18, "highfactor": 0.8, "lowcut": 220},
		},
		{
			"Cistern",
			"Dark, round and near.",
			"chamber dark",
			24,
			set{"character": 3, "decay": 2.2, "size": 110, "lowfactor": 1.3, "highfactor": 0.3, "highcut": 6500},
		},
	},
	"convolver": {
		{"On the stair", "A stone stair with its first steps close.", "space stone", 22, set{"space": 2}},
		{"In the boiler", "Rings like a vessel.", "metal strange", 40, set{"space": 1, "highcut": 9000}},
		{"Net loft", "A soft, short wooden room.", "room wood short", 25, set{"space": 0, "predelay": 6}},
	},
	"chorus": {
		{"Two more voices", "Makes a choir of a few.", "choir wide", 50, set{"voices": 3, "depth": 1.6, "rate": 0.35}},
		{"Shimmer", "Bright and slow.", "bright slow", 45, set{"voices": 4, "delay": 9, "depth": 2.8, "rate": 0.18, "lowcut": 400}},
		{"Seasick", "Deep and quick.", "deep strange", 70, set{"voices": 2, "depth": 6, "delay": 18, "rate": 1.4}},
	},
	"flanger": {
		{"Passing ship", "One slow pass in four bars.", "slow movement", 0, set{"sync": 1, "note": 15, "depth": 4, "feedback": 45}},
		{"Tin tube", "Nearly still, ringing.", "metal ring", 60, set{"depth": 0.4, "delay": 2.2, "feedback": 75, "rate": 0.08}},
		{"Hollow", "Upside down, without a body.", "hollow", 0, set{"feedback": -55, "depth": 3, "rate": 0.25}},
	},
	"phaser": {
		{"Slow water", "Six filters that take eight seconds.", "slow soft", 0, set{"stages": 2, "rate": 0.12, "feedback": 25}},
		{
			"Vowels",
			"Twelve filters and feedback.",
			"vocal deep",
			0,
			set{"stages": 4, "feedback": 60, "freq": 900, "depth": 1.2, "rate": 0.4},
		},
		{"Bell halo", "High and gentle over handbells.", "bells bright", 50, set{"stages": 1, "freq": 3200, "depth": 1, "rate": 0.7}},
	},
	"tremolo": {
		{"Lamp", "A gentle swing in eighths.", "rhythm gentle", 0, set{"sync": 1, "note": 5, "depth": 40}},
		{"Side to side", "Wanders across in two bars.", "pan wide", 0, set{"sync": 1, "note": 14, "depth": 60, "sides": 180}},
		{"Shutter", "Chops into sixteenths.", "rhythm chop", 0, set{"sync": 1, "note": 2, "depth": 95, "wave": 4}},
	},
	"vibrato": {
		{"Singer", "As a throat does it.", "voice", 0, set{"depth": 16, "rate": 5.4}},
		{"Worn belt", "Slow and uneven, like an old machine.", "tape wow", 0, set{"depth": 22, "wave": 1, "rate": 0.7}},
		{"Under the surface", "Deep and slow.", "deep strange", 0, set{"depth": 70, "rate": 0.6, "sides": 90}},
	},
	"wah": {
		{"Answers the hand", "Opens with every stroke.", "touch level", 0, set{"mode": 2, "sense": -18, "amount": 85}},
		{"Rowing", "In quarters with the song.", "rhythm", 0, set{"mode": 1, "sync": 1, "note": 8, "amount": 70}},
		{"Half open", "Stands still: a nasal colour.", "fixed colour", 70, set{"mode": 0, "place": 45, "q": 1.6}},
	},
	"doubler": {
		{"Second reader", "One more take, a little behind.", "voice", 40, set{"voices": 1, "late": 26, "tune": 4}},
		{"Left and right", "Two takes, far apart.", "wide", 55, set{"voices": 2, "late": 18, "tune": 8, "spread": 100}},
		{"A crew", "Four takes, none together.", "group choir", 65, set{"voices": 4, "late": 30, "wander": 7, "tune": 12}},
	},
	"detune": {
		{"Wide by cents", "A few cents either way.", "wide", 0, set{"left": -7, "right": 7}},
		{"Out of true", "Half a semitone lower on one side.", "strange", 50, set{"left": -50, "right": 0}},
		{"Sagging", "Both a little flat.", "tape low", 0, set{"left": -18, "right": -22, "window": 2}},
	},
	"width": {
		{"Inshore", "Narrow and near.", "narrow", 0, set{"width": -9, "low": -12}},
		{"Offing", "Wide, with the lows in the middle.", "wide", 0, set{"width": 5, "low": -12, "edge": 300}},
		{"Bass to the keel", "Mono below 120 Hz, the rest as it was.", "mono bass master", 0, set{"width": 0, "low": 0, "mono": 120}},
	},
	"spindown": {
		{"Wheel stops", "The mill wheel: down in one bar.", "transition stop", 0, set{"note": 13}},
		{"Plug pulled", "Quick, sudden at first.", "transition quick", 0, set{"sync": 1, "time": 0.6, "curve": 1}},
		{"Stops and starts", "Down in half a bar, and up again.", "transition up", 0, set{"note": 11, "up": 1, "uptime": 0.5}},
	},
	"repeat": {
		{"Caught eighth", "Repeats an eighth as it is.", "stutter rhythm", 0, set{"note": 5}},
		{"Falling away", "Softer and duller each time.", "stutter fade", 0, set{"note": 5, "fall": 3, "dull": 25}},
		{"Faster and faster", "Halves after every fourth time.", "stutter build", 0, set{"note": 8, "shrink": 1, "fall": 0.5}},
	},
	"reverse": {
		{"Quarter backwards", "A quarter at a time.", "backwards rhythm", 0, set{}},
		{"Undertow", "Half a bar under the live sound.", "backwards under", 35, set{"note": 11, "soft": 60}},
		{"Whispers", "Short soft pieces.", "backwards short", 60, set{"sync": 1, "time": 180, "soft": 80}},
	},
	"denoise": {
		{"Gentle", "Eight decibels, slow: for a good recording.", "clean gentle", 0, set{"amount": 8, "release": 250}},
		{
			"Voice in a room",
			"Fourteen decibels, quick enough for words.",
			"voice speech",
			0,
			set{"amount": 14, "threshold": 6, "release": 90},
		},
		{"Deep clean", "All it can, with a price.", "strong repair", 0, set{"amount": 28, "threshold": 8, "release": 160}},
	},
}
