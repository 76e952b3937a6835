package shelf

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/synth"
)

// wind is noise through a moving band: its centre goes from one frequency to another in Hz along a curve, its level by
// another.
func wind(seed uint64, seconds, from, to, q float64, along, loud func(x float64) float64) *synth.Take {
	var low, band [2]float64
	d := [2]synth.Dice{{Seed: seed}, {Seed: seed + 1}}
	return shape(seconds, true, func(side int, x, _ float64) float64 {
		// a state-variable filter whose centre may move at every sample (Simper, trapezoidal)
		f := from * math.Pow(to/from, along(x))
		g := math.Tan(math.Pi * math.Min(f, 20000) / synth.Rate)
		k := 1 / q
		in := 2*d[side].Roll() - 1
		a := 1 / (1 + g*(g+k))
		v1 := a * (band[side] + g*(in-low[side]))
		v2 := low[side] + g*v1
		band[side], low[side] = 2*v1-band[side], 2*v2-low[side]
		return k * v1 * loud(x)
	})
}

func square(x float64) float64  { return x * x }
func falling(x float64) float64 { return square(1 - x) }
func hump(x float64) float64    { return square(math.Sin(math.Pi * x)) }
func even(x float64) float64    { return x }

// glide is tones together whose frequency goes from one place to another.
func glide(seconds, from, to float64, partials []float64, along, loud func(x float64) float64) *synth.Take {
	phases := [2][]float64{make([]float64, len(partials)), make([]float64, len(partials))}
	return shape(seconds, true, func(side int, x, s float64) float64 {
		f := from * math.Pow(to/from, along(x))
		v := 0.0
		for i, p := range partials {
			detune := 1 + 0.002*float64(side)*float64(1-2*(i%2))
			phases[side][i] += f * p * detune / synth.Rate
			v += math.Sin(2*math.Pi*phases[side][i]) / float64(i+1)
		}
		return v * loud(x)
	})
}

func sweeps() []sound {
	return []sound{
		{"sweep-wind-up", "Wind rising", "Four seconds of wind that rises and stops at once: into a first beat.",
			[]string{"sweep", "rise", "into", "noise"}, 0, func() *synth.Take { return finish(wind(11, 4, 180, 7000, 2.5, square, square), -6) }},
		{"sweep-wind-down", "Wind falling", "The same wind going away: off a last beat.",
			[]string{"sweep", "fall", "off", "noise"}, 0, func() *synth.Take { return finish(wind(13, 4, 7000, 160, 2.5, even, falling), -6) }},
		{"sweep-swell", "Long swell", "Eight seconds: it comes and goes like one large wave, bright in its middle.",
			[]string{"sweep", "slow", "noise"}, 0, func() *synth.Take { return finish(wind(17, 8, 220, 3200, 1.2, hump, hump), -6) }},
		{"sweep-gust", "Gust", "A second of air that brushes past.",
			[]string{"sweep", "short", "noise"}, 0, func() *synth.Take { return finish(wind(19, 1, 500, 4200, 3, hump, hump), -6) }},
		{"sweep-glass", "Rising glass", "Thin tones that climb two octaves to D6, ever louder.",
			[]string{"sweep", "rise", "into", "tone"}, synth.Hz(86), func() *synth.Take {
				swells := func(x float64) float64 { return math.Min(1, square(x)*1.05) }
				return finish(glide(3, synth.Hz(62), synth.Hz(86), []float64{1, 1.5, 2.01}, swells, even), -6)
			}},
		{"sweep-undertow", "Undertow", "A low tone that sinks from D3 to D1: the floor goes.",
			[]string{"sweep", "fall", "off", "low"}, 0, func() *synth.Take {
				return finish(glide(3, synth.Hz(50), synth.Hz(26), []float64{1, 2, 3}, math.Sqrt, falling), -4)
			}},
		{"sweep-rope", "Whirling rope", "Strokes of air that come ever faster until they are one tone.",
			[]string{"sweep", "rise", "into"}, 0, func() *synth.Take {
				d := synth.Dice{Seed: 23}
				phase := 0.0
				air := synth.NewResonator(900, 1.4)
				return finish(shape(3.2, false, func(_ int, x, _ float64) float64 {
					phase += (2 + 34*x*x*x) / synth.Rate
					return air.Next(2*d.Roll()-1) * math.Pow(0.5+0.5*math.Sin(2*math.Pi*phase), 4) * (0.2 + 0.8*x)
				}), -5)
			}},
	}
}

// drift is slow noise between 0 and 1 that is the same every time.
func drift(seed uint64, s, every float64) float64 { return 0.5 + 0.5*dsp.Drift(seed, s/every) }
