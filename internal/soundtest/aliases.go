package soundtest

import (
	"fmt"
	"math"
)

// ofAliases is what is claimed of what is bent: what is no harmonic of a tone is an alias.
func ofAliases() []Claim {
	var list []Claim
	for _, x := range []struct {
		effect, says string
		set          Set
	}{
		{"saturation", "tape-like", Set{"character": 0, "compensate": 0, "level": 0}},
		{"saturation", "tube-like", Set{"character": 1, "compensate": 0, "level": 0}},
		{"saturation", "hard clip", Set{"character": 2, "compensate": 0, "level": 0}},
		{"saturation", "fold", Set{"character": 3, "compensate": 0, "level": 0}},
		{"amplifier", "no cabinet", Set{"cabinet": 0, "level": 0}},
	} {
		x.set["drive"] = 24
		list = append(list, Claim{
			Effect: x.effect, Unit: "dBFS", Aim: -80,
			Says: fmt.Sprintf("%s, driven by 24 dB: loudest alias of tones of 5.03 and 9.7 kHz below 0.45 of the rate, 44.1 to 96 kHz", x.says),
			Measure: func(s Subject) float64 {
				return worst([]float64{44100, 48000, 88200, 96000}, func(rate float64) float64 {
					return math.Max(s.alias(rate, 5030, x.set), s.alias(rate, 9700, x.set))
				})
			}})
	}
	return list
}

// alias is the loudest line, in dBFS, of what is no harmonic of a tone at full scale.
func (s Subject) alias(rate, hz float64, set Set) float64 {
	const n = 1 << 16
	y := s.alone(rate, set, sine(n+20000, hz, 1, rate))[20000:]
	p := spectrum(y, blackmanHarris)
	most := math.Inf(-1)
	for i, v := range p {
		f := float64(i) * rate / n
		if f < 25 || f > 0.45*rate || math.Abs(f-math.Round(f/hz)*hz) < 12 {
			continue
		}
		most = math.Max(most, 10*math.Log10(v+1e-30)-20*math.Log10(0.35875*n/2))
	}
	return most
}

// blackmanHarris is a window whose sides lie 92 dB down (Harris 1978).
func blackmanHarris(u float64) float64 {
	a := 2 * math.Pi * u
	return 0.35875 - 0.48829*math.Cos(a) + 0.14128*math.Cos(2*a) - 0.01168*math.Cos(3*a)
}
