package shelf

import (
	"math"

	"shoal/internal/synth"
)

// knock is a blow on something: a short grain of noise and the partials of what is struck.
func knock(t *synth.Take, seed uint64, at, hz, grain float64, modes []synth.Mode) {
	t.Strike(at, hz, 1, modes)
	d := synth.Dice{Seed: seed}
	low := synth.NewSmooth(0.0002)
	start := int(at * synth.Rate)
	for i := range int(0.02 * synth.Rate) {
		t.Add(start+i, grain*low.Next(2*d.Roll()-1)*math.Exp(-float64(i)/(0.0025*synth.Rate)))
	}
}

// wood, crate, iron and shell are what is struck.
var (
	wood = []synth.Mode{{1, 1, 0.28}, {1.72, 0.6, 0.16}, {2.64, 0.4, 0.1},
		{4.3, 0.2, 0.06}}
	crate = []synth.Mode{{1, 1, 0.14}, {2.31, 0.7, 0.07}, {3.9, 0.3, 0.04}}
	iron  = []synth.Mode{{1, 1, 1.5}, {1.59, 0.7, 1.1}, {2.14, 0.6, 0.9},
		{2.92, 0.5, 0.6}, {4.71, 0.3, 0.4}, {7.3, 0.2, 0.2}}
	shell = []synth.Mode{{1, 1, 0.05}, {1.83, 0.5, 0.03}}
)

// blows are knocks at some times.
func blows(seed uint64, hz, grain, seconds float64, modes []synth.Mode, at ...float64) func() *synth.Take {
	return func() *synth.Take {
		t := synth.NewTake(seconds, false)
		for i, s := range at {
			knock(t, seed+uint64(i), s, hz*(1-0.01*float64(i%3)), grain, modes)
		}
		return finish(t, -2)
	}
}

func knocks() []sound {
	return []sound{
		{"knock-hull", "Knock on a hull", "One dull blow on a boat's side.",
			[]string{"knock", "wood", "low"}, 131, blows(31, 131, 0.5, 0.8, wood, 0.005)},
		{"knock-crate", "Knock on a crate", "Dry and near: it can stand in for a drum.",
			[]string{"knock", "wood", "dry"}, 262, blows(33, 262, 0.8, 0.4, crate, 0.004)},
		{"knock-three", "Three knocks", "Somebody is at the door: the last a little softer.",
			[]string{"knock", "wood", "call"}, 196, blows(35, 196, 0.6, 1.3, wood, 0.005, 0.27, 0.56)},
		{"knock-iron", "Iron door", "A blow on plate that rings for a second and a half.",
			[]string{"knock", "iron", "end"}, synth.Hz(53), blows(37, synth.Hz(53), 0.7, 2, iron, 0.005)},
		{"knock-chain", "Chain let go", "Twelve links that run out ever faster.",
			[]string{"knock", "iron", "fall"}, 0,
			blows(39, 880, 0.5, 1.8, iron[2:], 0.01, 0.21, 0.39, 0.54, 0.66, 0.76, 0.84, 0.905, 0.955, 0.995, 1.03, 1.06)},
		{"knock-shell", "Tick of a shell", "The smallest click that still has a place: for a pulse.",
			[]string{"knock", "tick", "high", "short"}, 1760, blows(41, 1760, 0.4, 0.12, shell, 0.003)},
		{"knock-thud", "Deep thud", "A low blow that falls in pitch: under a first beat.",
			[]string{"knock", "low", "begin"}, 0, func() *synth.Take {
				phase := 0.0
				return finish(shape(0.9, false, func(_ int, _, s float64) float64 {
					phase += (42 + 90*math.Exp(-s/0.035)) / synth.Rate
					return math.Sin(2*math.Pi*phase) * math.Exp(-s/0.2)
				}), -2)
			}},
	}
}
