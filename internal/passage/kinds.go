package passage

import "shoal/internal/project"

// kinds are the kinds that ship, in the order in which they are offered.
var kinds = []*Kind{
	{ID: "stop", Name: "Slow to a stop", Tags: "brake stop turntable halt",
		Says:   "The sound slows down until it stands still, and stays so until the next sound.",
		Tail:   project.TailHold,
		stages: []placed{{effect: "spindown", name: "Brake", idle: true}},
		courses: []moved{
			{"Stop", always, []target{{0, "stop", 0, 1, plain}, {0, "sync", 0, 1, plain}, {0, "time", 0.05, 0.05, length}}},
		}},
	{ID: "close", Name: "Close the filter", Tags: "filter lowpass dark",
		Says:   "The highs go first, then all but the lowest.",
		stages: []placed{{effect: "filter", name: "Closing", params: set{"slope": 1, "freq": 18000}}},
		courses: []moved{
			{"On", always, []target{{0, "bypass", 0, 0, plain}}},
			{"Close", late, []target{{0, "freq", 18000, 110, plain}, {0, "resonance", 12, 34, plain}}},
		}},
	{ID: "rise", Name: "Rise out of the water", Tags: "filter highpass build thin",
		Says:   "The lows go, then the body, until only air is left; what comes next has all of it again.",
		stages: []placed{{effect: "filter", name: "Rising", params: set{"kind": 1, "slope": 1, "freq": 20}}},
		courses: []moved{
			{"On", always, []target{{0, "bypass", 0, 0, plain}}},
			{"Rise", straight, []target{{0, "freq", 20, 2600, plain}, {0, "resonance", 10, 38, plain}}},
		}},
	{ID: "wash", Name: "Wash out into the return", Tags: "reverb send ending space", sends: true,
		Says: "More and more is sent to the return while the sound itself goes down; only the space is left.",
		Tail: project.TailHold,
		courses: []moved{
			{"Into the return", early, []target{{toSend, "level", -120, 3, here}}},
			{"Away", after(4500), []target{{strip, "fader", 0, -120, here}}},
			{
				"No more",
				[]project.Point{{Tick: 0, Value: 0, Shape: project.Hold}, {Tick: 9800, Value: 1, Shape: project.Hold}},
				[]target{{toSend, "mute", 0, 1, plain}},
			},
		}},
	{
		ID:   "thin",
		Name: "Thin to the middle band",
		Tags: "equaliser telephone small narrow",
		Says: "Lows and highs are cut away until a small middle is left.",
		stages: []placed{
			{effect: "equaliser", name: "Thinning", params: set{"on1": 1, "slope1": 3, "freq1": 20, "on8": 1, "slope8": 3, "freq8": 20000}},
		},
		courses: []moved{
			{"On", always, []target{{0, "bypass", 0, 0, plain}}},
			{"Thin", gentle, []target{{0, "freq1", 20, 520, plain}, {0, "freq8", 20000, 2100, plain}}},
		},
	},
	{ID: "stutter", Name: "Stutter to silence", Tags: "repeat glitch roll",
		Says:   "Catches what is there and repeats it, shorter and shorter, until nothing is left of it.",
		Tail:   project.TailHold,
		stages: []placed{{effect: "repeat", name: "Stutter", idle: true}},
		courses: []moved{
			{"Repeat", always, []target{{0, "hold", 0, 1, plain}, {0, "shrink", 0, 1, plain}}},
			{"Away", after(3500), []target{{strip, "fader", 0, -120, here}}},
		}},
	{ID: "swell", Name: "Swell into the downbeat", Tags: "fade in crescendo build",
		Says: "From almost nothing the level rises to where it stands, and arrives with the downbeat.",
		courses: []moved{
			{
				"Swell",
				[]project.Point{
					{Tick: 0, Value: 1, Shape: project.Curve, Bend: 0.2},
					{Tick: project.CourseParts, Value: 0, Shape: project.Hold},
				},
				[]target{{strip, "fader", 0, -46, here}},
			},
		}},
	{ID: "distant", Name: "Drop to a distant room", Tags: "reverb far space behind",
		Says: "Within a moment the sound stands far away, dull and soft in a room of its own; at the end it is back.",
		stages: []placed{
			{effect: "filter", name: "Far air", params: set{"freq": 18000}},
			{effect: "trim", name: "Far", params: set{}},
			{effect: "reverb", name: "Far room", law: "blend", params: set{"character": 1, "decay": 1.6, "predelay": 8}},
		},
		courses: []moved{
			{"On", always, []target{{0, "bypass", 0, 0, plain}, {1, "bypass", 0, 0, plain}, {2, "bypass", 0, 0, plain}}},
			{"Distance", []project.Point{{Tick: 0, Value: 0, Shape: project.Smooth}, {Tick: 2200, Value: 1, Shape: project.Hold}},
				[]target{{0, "freq", 18000, 2300, plain}, {1, "gain", 0, -7, plain}, {2, "mix", 0, 72, plain}}},
		}},
	{ID: "grains", Name: "Fall to grains", Tags: "crush bits digital dirt",
		Says:   "The sound gets coarser, step by step, until only grains of it are left.",
		stages: []placed{{effect: "crush", name: "Grains", params: set{"bits": 16, "rate": 48000}}},
		courses: []moved{
			{"On", always, []target{{0, "bypass", 0, 0, plain}}},
			{"Coarser", straight, []target{{0, "bits", 16, 4, plain}, {0, "rate", 40000, 1300, plain}}},
		}},
	{ID: "point", Name: "Draw in to a point", Tags: "narrow mono width small",
		Says:   "What is wide is drawn in to the middle and a little down; what comes next opens up.",
		stages: []placed{{effect: "width", name: "Drawn in", params: set{"width": 0, "low": 0}}},
		courses: []moved{
			{"On", always, []target{{0, "bypass", 0, 0, plain}}},
			{"Draw in", gentle, []target{{0, "width", 0, -60, plain}, {0, "low", 0, -60, plain}, {strip, "fader", 0, -14, here}}},
		}},
	{ID: "shake", Name: "Shake apart", Tags: "tremolo chop pulse",
		Says:   "A shaking gets deeper and faster until the sound falls apart, and is cut.",
		Tail:   project.TailCut,
		stages: []placed{{effect: "tremolo", name: "Shaking", params: set{"depth": 0, "wave": 1, "rate": 2}}},
		courses: []moved{
			{"On", always, []target{{0, "bypass", 0, 0, plain}}},
			{"Shake", straight, []target{{0, "depth", 0, 100, plain}, {0, "rate", 2, 17, plain}}},
		}},
	{ID: "sink", Name: "Sink under", Tags: "vibrato underwater drown filter",
		Says: "The pitch begins to sway, the highs go, and the sound sinks away under the surface.",
		Tail: project.TailFade,
		stages: []placed{
			{effect: "vibrato", name: "Swaying", params: set{"depth": 0, "wave": 1, "rate": 0.9}},
			{effect: "filter", name: "Under water", params: set{"slope": 1, "freq": 18000}},
		},
		courses: []moved{
			{"On", always, []target{{0, "bypass", 0, 0, plain}, {1, "bypass", 0, 0, plain}}},
			{"Sink", gentle, []target{{0, "depth", 0, 110, plain}, {1, "freq", 18000, 420, plain}, {strip, "fader", 0, -16, here}}},
		}},
	{ID: "empty", Name: "Empty", Tags: "own nothing",
		Says: "Nothing moves yet: choose what does."},
}

// Courses that kinds are made of.
var (
	always   = []project.Point{{Tick: 0, Value: 1, Shape: project.Hold}}
	straight = []project.Point{{Tick: 0, Value: 0, Shape: project.Ramp}, {Tick: project.CourseParts, Value: 1, Shape: project.Hold}}
	late     = []project.Point{
		{Tick: 0, Value: 0, Shape: project.Curve, Bend: 0.25},
		{Tick: project.CourseParts, Value: 1, Shape: project.Hold},
	}
	gentle = []project.Point{{Tick: 0, Value: 0, Shape: project.Smooth}, {Tick: project.CourseParts, Value: 1, Shape: project.Hold}}
	early  = []project.Point{{Tick: 0, Value: 0, Shape: project.Smooth}, {Tick: 6000, Value: 1, Shape: project.Hold}}
)

// after is a course that begins at a part of the length.
func after(part int64) []project.Point {
	return []project.Point{
		{Tick: 0, Value: 0, Shape: project.Hold},
		{Tick: part, Value: 0, Shape: project.Smooth},
		{Tick: project.CourseParts, Value: 1, Shape: project.Hold},
	}
}
