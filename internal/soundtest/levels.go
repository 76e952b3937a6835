package soundtest

import (
	"math"

	"shoal/internal/input"
	"shoal/internal/project"
)

// ofLevels is what is claimed of how loud effects are as they begin.
func ofLevels() []Claim {
	var list []Claim
	for _, x := range []struct {
		effect string
		wet    bool // by itself, not mixed in
	}{{"amplifier", false}, {"compressor", false}, {"wah", false}, {"convolver", true}, {"reverb", true}} {
		says := "as it begins, a drum, a voice and chords come out louder or softer"
		if x.wet {
			says = "by itself, " + says
		}
		list = append(list, Claim{
			Effect: x.effect, Unit: "LU", Aim: 1.5, Long: true,
			Says: says,
			Measure: func(s Subject) float64 {
				most := 0.0
				for _, id := range []string{"hand-drum", "reader", "marimba"} {
					most = math.Max(most, math.Abs(s.louder(id, x.wet)))
				}
				return most
			}})
	}
	return list
}

// louder is by how many LU a stand-in comes out of it louder than it went in, at -20 LUFS.
func (s Subject) louder(id string, wet bool) float64 {
	kind, _ := input.Find(id)
	x := make([]float64, int(20*Rate))
	y := make([]float64, len(x))
	kind.New(input.SettingOf(project.New("", int(Rate), 100, 4, 4))).Read(x, y, 0)
	gain := math.Pow(10, (-20-loudness(x, y))/20)
	for i := range x {
		x[i] *= gain
		y[i] *= gain
	}
	before := loudness(x, y)
	l, r := append([]float64(nil), x...), append([]float64(nil), y...)
	s.run(Rate, nil, l, r)
	if !wet {
		mix := s.kind.Mix / 100
		for i := range l {
			if s.kind.MixLaw == "add" {
				l[i], r[i] = x[i]+mix*l[i], y[i]+mix*r[i]
			} else {
				l[i], r[i] = x[i]+mix*(l[i]-x[i]), y[i]+mix*(r[i]-y[i])
			}
		}
	}
	return loudness(l, r) - before
}

// loudness is the integrated loudness of ITU-R BS.1770-5 at 48 kHz, in LUFS, by the coefficients that are printed there.
func loudness(l, r []float64) float64 {
	weighed := func(x []float64) []float64 {
		y := twoPole(x, [3]float64{1.53512485958697, -2.69169618940638, 1.19839281085285}, [2]float64{-1.69065929318241, 0.73248077421585})
		return twoPole(y, [3]float64{1, -2, 1}, [2]float64{-1.99004745483398, 0.99007225036621})
	}
	a, b := weighed(l), weighed(r)
	var blocks []float64
	for at := 0; at+19200 <= len(a); at += 4800 {
		sum := 0.0
		for i := at; i < at+19200; i++ {
			sum += a[i]*a[i] + b[i]*b[i]
		}
		blocks = append(blocks, sum/19200)
	}
	over := func(gate float64) float64 {
		sum, n := 0.0, 0.0
		for _, v := range blocks {
			if -0.691+10*math.Log10(v+1e-30) > gate {
				sum, n = sum+v, n+1
			}
		}
		return -0.691 + 10*math.Log10(sum/n+1e-30)
	}
	return over(math.Max(-70, over(-70)-10))
}

// twoPole filters by the difference equation itself.
func twoPole(x []float64, b [3]float64, a [2]float64) []float64 {
	y := make([]float64, len(x))
	at := func(v []float64, i int) float64 {
		if i < 0 {
			return 0
		}
		return v[i]
	}
	for i := range x {
		y[i] = b[0]*x[i] + b[1]*at(x, i-1) + b[2]*at(x, i-2) - a[0]*at(y, i-1) - a[1]*at(y, i-2)
	}
	return y
}
