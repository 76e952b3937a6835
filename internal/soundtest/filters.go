package soundtest

import (
	"fmt"
	"math"
)

// ofFilters is what is claimed of filters and of where echoes go.
func ofFilters() []Claim {
	var list []Claim
	for i, order := range []int{1, 2, 3, 4} {
		for shape := 3; shape <= 4; shape++ {
			name := []string{"low", "high"}[shape-3]
			list = append(list, Claim{Effect: "equaliser", Unit: "dB", Aim: 0.5,
				Says: fmt.Sprintf("%s cut of %d dB an octave off the analogue one, 100 Hz to 16 kHz", name, 6*order),
				Measure: func(s Subject) float64 {
					return worst([]float64{100, 1000, 5000, 10000, 16000}, func(hz float64) float64 {
						return s.offAnalogue(Set{"on3": 1, "shape3": float64(shape), "slope3": float64(i), "freq3": hz, "q3": math.Sqrt2 / 2},
							func(f float64) float64 {
								x := math.Pow(f/hz, float64(2*order))
								if shape == 3 {
									return x / (1 + x)
								}
								return 1 / (1 + x)
							})
					})
				}})
		}
	}
	list = append(list, Claim{
		Effect: "equaliser", Unit: "dB", Aim: 0.5,
		Says: "notches off the analogue one, 1 to 16 kHz, Q from 0.5 to 4",
		Measure: func(s Subject) float64 {
			return worst([]float64{1000, 5000, 10000, 16000}, func(hz float64) float64 {
				return worst([]float64{0.5, 1, 4}, func(q float64) float64 {
					return s.offAnalogue(Set{"on3": 1, "shape3": 5, "freq3": hz, "q3": q}, func(f float64) float64 {
						x := f * f / hz / hz
						return (1 - x) * (1 - x) / ((1-x)*(1-x) + x/q/q)
					})
				})
			})
		}})
	return append(list, Claim{Effect: "delay", Unit: "dB", Aim: 0.1,
		Says: "side to side: the input's pan makes the echoes of what stands in the middle softer or louder",
		Measure: func(s Subject) float64 {
			of := func(pan float64) float64 {
				l := append(noise(24000, 1, 0.2), make([]float64, 72000)...)
				r := append([]float64(nil), l...)
				s.run(Rate, Set{"route": 2, "pan": pan, "sync": 1, "time": 300, "feedback": 0}, l, r)
				return power(append(l, r...))
			}
			return worst([]float64{-1, -0.5, 1}, func(pan float64) float64 { return math.Abs(of(pan) - of(0)) })
		}})
}

// offAnalogue is how far a response is from a prototype's power where that is above -40 dB, up to 20 kHz.
func (s Subject) offAnalogue(set Set, want func(hz float64) float64) float64 {
	h := make([]float64, int(Rate))
	h[0] = 1
	p := spectrum(s.alone(Rate, set, h), func(float64) float64 { return 1 })
	most := 0.0
	for hz := 20; hz < 20000; hz += 20 {
		if w := want(float64(hz)); w > 1e-4 {
			most = math.Max(most, math.Abs(10*math.Log10(p[hz]/w)))
		}
	}
	return most
}
