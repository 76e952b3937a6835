package soundtest

import (
	"math"

	"shoal/internal/effect/effecttest"
)

// ofDynamics is what is claimed of effects that turn a signal down by its level.
func ofDynamics() []Claim {
	return []Claim{
		{
			Effect: "compressor", Unit: "dB", Aim: 0.2,
			Says: "tones from 50 Hz to 5 kHz off the drawn curve, attack and release 10/120 and 50/200 ms",
			Measure: func(s Subject) float64 {
				return worst([]float64{50, 60, 100, 440, 1000, 5000}, func(hz float64) float64 {
					return worst([]float64{-20, -12, -3}, func(level float64) float64 {
						a := s.offCurve(hz, level, Set{"attack": 10, "release": 120})
						return math.Max(a, s.offCurve(hz, level, Set{"attack": 50, "release": 200}))
					})
				})
			}},
		{
			Effect: "compressor", Unit: "%", Aim: 5,
			Says: "attack of 10 and 30 ms off what is said, a tone of 1 kHz",
			Measure: func(s Subject) float64 {
				return worst([]float64{10, 30}, func(ms float64) float64 { return 100 * math.Abs(s.steps(ms, 120, true)/ms-1) })
			}},
		{
			Effect: "compressor", Unit: "%", Aim: 5,
			Says: "release of 50, 120 and 500 ms off what is said",
			Measure: func(s Subject) float64 {
				return worst([]float64{50, 120, 500}, func(ms float64) float64 { return 100 * math.Abs(s.steps(10, ms, false)/ms-1) })
			}},
		{
			Effect: "compressor", Unit: "%", Aim: 0.2,
			Says: "distortion of a tone of 60 Hz as it begins, 10 dB over the threshold",
			Measure: func(s Subject) float64 {
				return distortion(s.alone(Rate, nil, sine(int(4*Rate), 60, math.Pow(10, -14.0/20), Rate)), 60)
			}},
		{
			Effect: "limiter", Unit: "%", Aim: 0.3,
			Says: "distortion of a tone of 60 Hz at 7 dB of reduction",
			Measure: func(s Subject) float64 {
				return distortion(s.alone(Rate, Set{"ceiling": -10}, sine(int(6*Rate), 60, math.Pow(10, -3.0/20), Rate)), 60)
			}},
		{
			Effect: "limiter", Unit: "ms", Aim: 160,
			Says:    "pumping: how long a soft tone stays 1 dB down after a single peak of 7 dB over the ceiling",
			Measure: pumps},
		{
			Effect: "limiter", Unit: "dB", Aim: 0.02,
			Says:    "a ceiling that moves: true peak over it, by 512 taps",
			Measure: func(s Subject) float64 { return s.overMoving() }},
		{
			Effect: "limiter", Unit: "dB", Aim: 0.1,
			Says: "white noise: true peak over the ceiling, by 512 taps",
			Measure: func(s Subject) float64 {
				y := s.alone(Rate, Set{"peaks": 1, "input": 9, "ceiling": -6}, noise(int(Rate), 12, 1))
				return truePeak(y[4800:]) + 6
			}},
		{
			Effect: "deesser", Unit: "dB", Aim: 0.01,
			Says: "all above: highest gain of any tone, ranges of 3 to 24 dB",
			Measure: func(s Subject) float64 {
				return worst([]float64{-3, -9, -12, -24}, func(reach float64) float64 {
					return worst([]float64{200, 1000, 2000, 3000, 4000, 4800, 5500, 6800, 9000, 12000, 16000}, func(hz float64) float64 {
						x := sine(int(Rate), hz, 0.5, Rate)
						y := s.alone(Rate, Set{"kind": 1, "range": reach, "threshold": -60}, x)
						return power(y[int(Rate/2):]) - power(x[int(Rate/2):])
					})
				})
			}},
		{
			Effect: "deesser", Unit: "dB", Aim: 1.5,
			Says:    "all above: hiss from 7 to 11 kHz less turned down than the range of 12 dB",
			Measure: func(s Subject) float64 { return hissLeft(s, 1) }},
		{
			Effect: "deesser", Unit: "dB", Aim: 1.5,
			Says:    "a band: hiss around 6.8 kHz less turned down than the range of 12 dB",
			Measure: func(s Subject) float64 { return hissLeft(s, 0) }},
	}
}

// hissLeft is how far from turned down by 12 dB a hiss is that is loud enough for all of it.
func hissLeft(s Subject, kind float64) float64 {
	low, high := 7000.0, 11000.0
	if kind == 0 {
		low, high = 6500, 7100
	}
	x := band(noise(int(2*Rate), 9, 1), low, high, Rate)
	y := s.alone(Rate, Set{"kind": kind, "range": -12, "threshold": -60, "release": 500}, x)
	return 12 - math.Abs(power(y[int(Rate/2):])-power(x[int(Rate/2):]))
}

// offCurve is how far a tone comes out from where the static curve says: soft knee, as drawn (Giannoulis et al. 2012).
func (s Subject) offCurve(hz, level float64, set Set) float64 {
	v := s.kind.Defaults()
	threshold, ratio, knee, makeup := v[0], v[1], v[2], v[5]
	over := level - threshold
	want := 0.0
	switch {
	case 2*over >= knee:
		want = over * (1 - 1/ratio)
	case 2*over > -knee:
		want = (1 - 1/ratio) * (over + knee/2) * (over + knee/2) / (2 * knee)
	}
	y := s.alone(Rate, set, sine(int(3*Rate), hz, math.Pow(10, level/20), Rate))
	got := 10*math.Log10(2) + power(y[int(2*Rate):])
	return math.Abs(got - (level - want + makeup))
}

// steps is after how many ms 63 % of the reduction is reached, or let go, where a tone of 1 kHz comes or gets softer.
func (s Subject) steps(attack, release float64, comes bool) float64 {
	const at = 2 * 48000
	x := sine(2*at, 1000, 1, Rate)
	for i := range x {
		if (i < at) == comes {
			x[i] *= math.Pow(10, -40.0/20)
		} else {
			x[i] *= math.Pow(10, -6.0/20)
		}
	}
	y := s.alone(Rate, Set{"attack": attack, "release": release, "knee": 0}, x)
	gain := func(i int) float64 { // where the tone is not near zero
		sum, n := 0.0, 0.0
		for k := i; k < i+24; k++ {
			if math.Abs(x[k]) > 1e-4 {
				sum, n = sum+db(y[k]/x[k]), n+1
			}
		}
		return sum / n
	}
	from, to := gain(at-100), gain(2*at-100)
	for i := at; i < 2*at-24; i++ {
		if (gain(i)-from)/(to-from) > 1-1/math.E {
			return float64(i-at+12) / Rate * 1000
		}
	}
	return math.Inf(1)
}

// distortion is what of a tone's second half is not the tone, in percent.
func distortion(y []float64, hz float64) float64 {
	n := int(Rate / hz * 60)
	y = y[len(y)-n:]
	all := 0.0
	var re, im float64
	for i, v := range y {
		all += v * v
		s, c := math.Sincos(2 * math.Pi * hz * float64(i) / Rate)
		re, im = re+v*c, im+v*s
	}
	tone := 2 * (re*re + im*im) / float64(n)
	return 100 * math.Sqrt(math.Max(0, all-tone)/tone)
}

// pumps lets one peak come over a soft tone, and waits until that is less than 1 dB down.
func pumps(s Subject) float64 {
	x := sine(int(2*Rate), 2000, 0.05, Rate)
	at := int(Rate)
	for i := range 24 {
		x[at+i] = math.Pow(10, 6.0/20) * math.Sin(math.Pi*float64(i)/24)
	}
	y := s.alone(Rate, nil, x)
	usual := power(y[at-4800 : at-480])
	for i := at + 480; i+240 < len(y); i += 24 {
		if power(y[i:i+240]) > usual-1 {
			return float64(i-at) / Rate * 1000
		}
	}
	return math.Inf(1)
}

// overMoving is by how much a true peak comes out above a ceiling that moves slowly, judged between frames.
func (s Subject) overMoving() float64 {
	n := int(Rate)
	x := band(noise(n, 12, 1), 30, 18000, Rate)
	l, r := append([]float64(nil), x...), append([]float64(nil), x...)
	rig := effecttest.Of(s.kind, Rate, Set{"peaks": 1, "input": 6})
	ceiling := make([]float64, n)
	for i := range ceiling {
		ceiling[i] = -6 + 0.001*float64(i)/float64(n)
	}
	rig.RunMoving(l, r, "ceiling", ceiling)
	return truePeak(l[4800:]) + 6
}
