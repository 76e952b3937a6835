package shelf

import (
	"math"

	"shoal/internal/synth"
)

// drop is a bubble that sounds as it closes: its pitch rises (after van den Doel, Physically Based Models for Liquid
// Sounds, 2005).
func drop(t *synth.Take, at, hz, gain, rise float64) {
	start, phase := int(at*synth.Rate), 0.0
	damp := 0.13*hz/3 + 0.0072*math.Pow(hz/3, 1.5)
	for i := range int(0.25 * synth.Rate) {
		s := float64(i) / synth.Rate
		phase += hz * (1 + rise*damp*s*0.1) / synth.Rate
		t.Add(start+i, gain*math.Sin(2*math.Pi*phase)*math.Exp(-damp*s)*math.Min(1, s/0.0008))
	}
}

// drops are bubbles by chance: so many a second, thinning out or not.
func drops(seed uint64, seconds, every, low, high float64, thin float64) *synth.Take {
	t := synth.NewTake(seconds, false)
	d := synth.Dice{Seed: seed}
	for at := 0.01; at < seconds-0.3; at += d.About(every, 0.8) * (1 + thin*at) {
		drop(t, at, low*math.Pow(high/low, d.Roll()), 0.3+0.7*d.Roll(), d.Roll())
	}
	return t
}

func waters() []sound {
	return []sound{
		{"water-drop", "One drop", "A single drop into still water, about E5, rising.",
			[]string{"water", "drop", "short"}, 0, func() *synth.Take {
				t := synth.NewTake(0.5, false)
				drop(t, 0.01, 640, 1, 1)
				return finish(t, -4)
			}},
		{"water-cave", "Drops in a cave", "Six seconds of drops far apart: give them a hall.",
			[]string{"water", "drop", "place"}, 0, func() *synth.Take { return finish(drops(51, 6, 0.55, 420, 1500, 0), -4) }},
		{"water-bubbles", "Bubbles", "Air that comes up, thick at first, then less and less.",
			[]string{"water", "off"}, 0, func() *synth.Take { return finish(drops(53, 3, 0.035, 260, 900, 1.6), -4) }},
		{"water-splash", "Splash", "Something heavy goes in: noise, then what it throws up.",
			[]string{"water", "begin"}, 0, func() *synth.Take {
				t := wind(55, 1.8, 3800, 500, 0.7, math.Sqrt, func(x float64) float64 { return math.Exp(-7 * x) })
				spray := drops(57, 1.8, 0.03, 500, 2200, 2)
				for i, v := range spray.L {
					t.L[i] += 0.18 * v
					t.R[max(0, i-400)] += 0.16 * v
				}
				return finish(t, -3)
			}},
		{"water-wave", "Wave that breaks", "Five seconds: it draws itself up, breaks, and runs out on the sand.",
			[]string{"water", "slow", "turn"}, 0, func() *synth.Take {
				swell := func(x float64) float64 { return math.Exp(-square((x - 0.42) / 0.2)) }
				return finish(wind(59, 5, 260, 2600, 0.6, swell, func(x float64) float64 {
					if x < 0.4 {
						return 0.1 + 0.9*math.Pow(x/0.4, 3)
					}
					return math.Exp(-4.5 * (x - 0.4))
				}), -5)
			}},
		{"water-lapping", "Lapping", "Eight seconds of small waves against a wall, the same to no ear twice.",
			[]string{"water", "place", "slow"}, 0, func() *synth.Take {
				d := [2]synth.Dice{{Seed: 61}, {Seed: 62}}
				low := [2]*synth.Resonator{synth.NewResonator(300, 0.7), synth.NewResonator(320, 0.7)}
				return finish(shape(8, true, func(side int, x, s float64) float64 {
					lap := drift(uint64(63+side), s, 0.7)
					return low[side].Next(2*d[side].Roll()-1) * (0.15 + square(lap)) * math.Sin(math.Pi*x)
				}), -8)
			}},
	}
}
