package shelf

import (
	"math"

	"shoal/internal/synth"
)

// breath is noise through the resonances of a mouth.
func breath(seed uint64, seconds float64, formants [3]float64, loud func(x float64) float64) *synth.Take {
	d := synth.Dice{Seed: seed}
	mouth := [3]*synth.Resonator{}
	for i, f := range formants {
		mouth[i] = synth.NewResonator(f, 3+float64(i))
	}
	return shape(seconds, false, func(_ int, x, _ float64) float64 {
		n, v := 2*d.Roll()-1, 0.02*(2*d.Roll()-1)
		for i, m := range mouth {
			v += m.Next(n) / float64(i+1)
		}
		return v * loud(x)
	})
}

// horn is a reed blown from afar: a saw with few overtones, that takes time to speak.
func horn(seconds, hz float64) *synth.Take {
	var saw synth.Saw
	air := synth.NewSmooth(1 / (2 * math.Pi * 420))
	far := synth.NewSmooth(1 / (2 * math.Pi * 600))
	return shape(seconds, false, func(_ int, x, s float64) float64 {
		blown := math.Min(1, s/0.25) * math.Min(1, (1-x)*6)
		return far.Next(air.Next(saw.Next(hz*(0.994+0.006*math.Min(1, s/0.4))))) * square(blown)
	})
}

func breaths() []sound {
	early := func(x float64) float64 { return square(math.Sin(math.Pi * math.Sqrt(x))) }
	late := func(x float64) float64 { return square(math.Sin(math.Pi * x * x)) }
	d2 := synth.Hz(38)
	return []sound{
		{"breath-in", "Breath in", "Before somebody speaks: it makes the ear wait.",
			[]string{"breath", "into", "short"}, 0, func() *synth.Take { return finish(breath(71, 0.9, [3]float64{900, 2100, 3400}, late), -8) }},
		{"breath-out", "Breath out", "Afterwards: it lets go.",
			[]string{"breath", "off"}, 0, func() *synth.Take { return finish(breath(73, 1.4, [3]float64{600, 1400, 2600}, early), -8) }},
		{"breath-sigh", "Sigh of steam", "A valve that opens and closes slowly: two seconds and a half.",
			[]string{"breath", "noise", "off"}, 0, func() *synth.Take {
				return finish(wind(75, 2.5, 5200, 2400, 0.8, even, func(x float64) float64 { return math.Min(1, x*30) * falling(x) }), -8)
			}},
		{"breath-whisper", "Whispered vowels", "Ah, oh, oo without a voice: from bright to dark.",
			[]string{"breath", "voice"}, 0, func() *synth.Take {
				t := synth.NewTake(2.4, false)
				for i, f := range [][3]float64{{850, 1400, 2600}, {520, 950, 2400}, {320, 780, 2200}} {
					for k, v := range breath(uint64(77+i), 0.8, f, hump).L {
						t.Add(int(0.8*synth.Rate)*i+k, v)
					}
				}
				return finish(t, -8)
			}},
		{"breath-foghorn", "Foghorn far off", "Two seconds on D2 from over the water.",
			[]string{"breath", "low", "tone", "call"}, d2, func() *synth.Take { return finish(horn(2.2, d2), -4) }},
	}
}
