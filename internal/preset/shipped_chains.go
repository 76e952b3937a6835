package preset

// chain is a shipped chain for a task.
type chain struct {
	name, says, tags string
	stages           []link
}

var chains = []chain{
	{"Spoken voice", "A reader close to the microphone: clean, even, without sharp edges.", "voice speech", []link{
		{"gate", "Between words", 0, set{"threshold": -48, "range": -15, "ratio": 3, "hold": 120, "release": 260}},
		{"equaliser", "", 0, set{"on1": 1, "freq1": 85, "slope1": 3, "freq4": 420, "gain4": -3, "on6": 1, "freq6": 3500, "gain6": 2.5}},
		{"compressor", "Even out", 0, set{"threshold": -30, "ratio": 3.5, "attack": 5, "release": 120, "makeup": 8, "keylow": 120}},
		{"deesser", "", 0, set{"freq": 7000, "threshold": -32, "range": -7}},
	}},
	{"Mallets", "Wooden bars that keep their stick and lose their mud.", "mallets marimba", []link{
		{"equaliser", "", 0, set{"on1": 1, "freq1": 60, "freq3": 350, "gain3": -3, "freq5": 2800, "gain5": 2.5}},
		{"transient", "", 0, set{"attack": 3}},
		{"compressor", "", 0, set{"threshold": -24, "ratio": 2.5, "attack": 25, "release": 140, "makeup": 5}},
		{"width", "", 0, set{"width": 2}},
	}},
	{"Hand drum", "Weight below, fingers above, no spill.", "drum frame", []link{
		{"gate", "", 0, set{"threshold": -38, "range": -30, "hold": 60, "release": 120}},
		{"equaliser", "", 0, set{"on1": 1, "freq1": 35, "gain2": 3, "freq2": 95, "freq3": 340, "gain3": -4, "freq5": 3600, "gain5": 3}},
		{"transient", "", 0, set{"attack": 5, "sustain": -2}},
		{"limiter", "", 0, set{"ceiling": -4, "release": 60}},
	}},
	{"Low brass", "A horn with breath, held together.", "horn brass", []link{
		{"compressor", "", 0, set{"threshold": -28, "ratio": 3, "attack": 30, "release": 250, "makeup": 3, "detector": 1}},
		{"saturation", "Breath", 60, set{"character": 1, "drive": 9, "tilt": 2}},
		{"equaliser", "", 0, set{"freq3": 240, "gain3": -2.5, "freq5": 1500, "gain5": 2}},
	}},
	{"Choir", "Many mouths, one room, air above.", "choir voices", []link{
		{"equaliser", "", 0, set{"on1": 1, "freq1": 110, "freq4": 900, "gain4": -1.5, "gain7": 3}},
		{"compressor", "", 0, set{"threshold": -24, "ratio": 2, "attack": 20, "release": 300, "makeup": 1.5, "detector": 1}},
		{"chorus", "", 30, set{"voices": 3, "depth": 1.4, "rate": 0.3}},
		{"reverb", "", 18, set{"decay": 2.6, "size": 120, "predelay": 22}},
	}},
	{"Atmosphere", "A place behind the music: wide, soft, out of the way.", "atmosphere field", []link{
		{"denoise", "", 0, set{"amount": 6, "release": 300}},
		{"equaliser", "", 0, set{"on1": 1, "freq1": 120, "gain7": -3, "freq5": 2500, "gain5": -2}},
		{"width", "", 0, set{"width": 4, "low": -12}},
	}},
	{"Radio on the sill", "Small, narrow, a little broken.", "radio lo-fi", []link{
		{"equaliser", "", 0, set{"on1": 1, "freq1": 320, "slope1": 3, "on8": 1, "freq8": 3200, "slope8": 3}},
		{"compressor", "", 0, set{"threshold": -34, "ratio": 8, "attack": 2, "release": 80, "makeup": 11.5}},
		{"saturation", "", 0, set{"character": 0, "drive": 12, "level": -6}},
		{"trim", "One ear", 0, set{"sides": 2}},
	}},
	{"Under water", "Dull, slow, swaying.", "water filtered", []link{
		{"filter", "", 0, set{"slope": 1, "freq": 620, "resonance": 25, "depth": 0.5, "rate": 0.14, "sides": 60}},
		{"vibrato", "", 0, set{"depth": 28, "wave": 1, "rate": 0.5, "sides": 90}},
		{"reverb", "", 40, set{"character": 3, "decay": 2.8, "highcut": 2500}},
	}},
	{"Far away", "Across the bay: thin, late and mostly room.", "distant", []link{
		{"equaliser", "", 0, set{"on1": 1, "freq1": 260, "on8": 1, "freq8": 4200}},
		{"width", "", 0, set{"width": -8}},
		{"reverb", "", 90, set{"decay": 3.6, "size": 160, "predelay": 60, "highfactor": 0.3}},
	}},
	{"Handbells", "Clear strokes, no sting, a halo.", "bells", []link{
		{"equaliser", "", 0, set{"on1": 1, "freq1": 200, "freq4": 1100, "gain4": -2, "gain7": -1.5}},
		{"deesser", "Sting", 0, set{"freq": 4200, "q": 0.9, "threshold": -28, "range": -6}},
		{"phaser", "Halo", 30, set{"stages": 1, "freq": 3200, "depth": 1, "rate": 0.5}},
	}},
	{"Announcement", "A horn loudspeaker over the quay.", "radio horn announce", []link{
		{"compressor", "", 0, set{"threshold": -34, "ratio": 6, "attack": 3, "release": 90, "makeup": 10.5}},
		{"amplifier", "", 0, set{"drive": 16, "cabinet": 3, "tight": 300, "mid": 3}},
		{"delay", "From the sheds", 22, set{"sync": 1, "time": 260, "feedback": 22, "highcut": 2400}},
	}},
	{"Whole mix", "A careful end: lows to the middle, a light hand, a safe ceiling.", "mix master", []link{
		{"equaliser", "", 0, set{"on1": 1, "freq1": 28, "gain7": 0.5}},
		{"compressor", "Together", 0, set{"threshold": -20, "ratio": 1.6, "attack": 30, "release": 220, "makeup": 1.5, "detector": 1}},
		{"width", "", 0, set{"width": 0, "low": 0, "mono": 110}},
		{"limiter", "", 0, set{"ceiling": -1, "peaks": 1}},
	}},
	{"Slow stop", "Ready for a transition: closes, then stops.", "transition stop", []link{
		{"filter", "Hatch", 0, set{"slope": 1, "freq": 20000, "resonance": 20}},
		{"spindown", "", 0, set{"note": 13}},
	}},
	{"Room to move", "A short room and a wide echo that waits its turn.", "space depth", []link{
		{"reverb", "Near", 14, set{"character": 1, "decay": 0.6, "predelay": 6}},
		{"delay", "Far", 20, set{"note": 10, "feedback": 36, "route": 2, "duck": 10, "highcut": 4000}},
	}},
	{"Noisy find", "An old recording made fit to use.", "repair old", []link{
		{"denoise", "", 0, set{"amount": 14, "threshold": 6}},
		{"equaliser", "", 0, set{"on1": 1, "freq1": 70, "slope1": 3, "freq3": 300, "gain3": -2, "on8": 1, "freq8": 9000}},
		{"compressor", "", 0, set{"threshold": -28, "ratio": 2.5, "makeup": 7, "release": 200}},
		{"reverb", "A little air", 8, set{"character": 1, "decay": 0.5}},
	}},
	{"Broken machine", "Uneven, gritty, alive.", "lo-fi strange", []link{
		{"crush", "", 0, set{"bits": 9, "rate": 11000, "filter": 1}},
		{"vibrato", "Worn belt", 0, set{"depth": 20, "wave": 1, "rate": 0.8}},
		{"saturation", "", 0, set{"character": 1, "drive": 10, "level": -4}},
		{"tremolo", "", 0, set{"depth": 25, "wave": 5, "rate": 3}},
	}},
}
