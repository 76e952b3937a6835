package soundtest

import (
	"math"
	"math/cmplx"
)

// ofPitch is what is claimed of effects that put a sound out of tune.
func ofPitch() []Claim {
	return []Claim{
		{
			Effect: "detune", Unit: "dB", Aim: 0.5,
			Says: "tones from 110 Hz to 5 kHz fall in level, over 20 s",
			Measure: func(s Subject) float64 {
				return worst([]float64{110, 220, 420, 1000, 1234.5, 3210, 5000}, func(hz float64) float64 {
					return falls(s.alone(Rate, Set{"left": 8, "right": 8}, sine(int(20*Rate), hz, 0.3, Rate)), 20)
				})
			}},
		{
			Effect: "detune", Unit: "dB", Aim: 1.5,
			Says: "a harmonic tone of 147 Hz swings in level",
			Measure: func(s Subject) float64 {
				x := make([]float64, int(20*Rate))
				for k := 1; k < 12; k++ {
					for i, v := range sine(len(x), 147*float64(k), 0.3/float64(k), Rate) {
						x[i] += v
					}
				}
				return falls(s.alone(Rate, Set{"left": -8, "right": -8}, x), 20)
			}},
		{
			Effect: "detune", Unit: "cents", Aim: 0.1,
			Says: "cents off what is asked, tones from 110 Hz to 5 kHz",
			Measure: func(s Subject) float64 {
				return worst([]float64{110, 220, 420, 1000, 5000}, func(hz float64) float64 {
					y := s.alone(Rate, Set{"left": 25, "right": 25}, sine(int(12*Rate), hz, 0.3, Rate))
					return math.Abs(1200*math.Log2(frequencyOf(y[int(2*Rate):], hz*math.Exp2(25.0/1200))/hz) - 25)
				})
			}},
		{
			Effect: "doubler", Unit: "dB", Aim: 1,
			Says: "a tone of 220 Hz swings, one take without wander",
			Measure: func(s Subject) float64 {
				return falls(s.alone(Rate, Set{"voices": 1, "wander": 0, "lowcut": 20}, sine(int(20*Rate), 220, 0.3, Rate)), 20)
			}},
		{
			Effect: "doubler", Unit: "dB", Aim: 0.2,
			Says: "loss at 15 kHz with the cut open, one take",
			Measure: func(s Subject) float64 {
				return loss(s, Set{"voices": 1, "spread": 0, "lowcut": 20, "highcut": 20000}, 15000)
			}},
	}
}

// falls is by how much a tone falls below its usual level, in windows of so many ms.
func falls(y []float64, ms float64) float64 {
	n := int(ms / 1000 * Rate)
	usual, least := power(y[int(Rate):]), math.Inf(1)
	for at := int(Rate); at+n < len(y); at += n / 2 {
		least = math.Min(least, power(y[at:at+n]))
	}
	return usual - least
}

// frequencyOf is the frequency of a tone that is known roughly, by how its phase goes on between the two halves of a stretch.
func frequencyOf(y []float64, about float64) float64 {
	n := len(y) / 2
	a, b := partial(y[:n], about, Rate), partial(y[n:2*n], about, Rate)
	turn := cmplx.Phase(b/a) - 2*math.Pi*about*float64(n)/Rate
	turn -= 2 * math.Pi * math.Round(turn/(2*math.Pi))
	return about + turn*Rate/(2*math.Pi*float64(n))
}

// loss is how much softer a tone comes out than one of 1 kHz does.
func loss(s Subject, set Set, hz float64) float64 {
	level := func(hz float64) float64 {
		y := s.alone(Rate, set, sine(int(4*Rate), hz, 0.3, Rate))
		return power(y[int(Rate):])
	}
	return level(1000) - level(hz)
}
