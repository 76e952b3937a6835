package soundtest

import (
	"math"

	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

// ofTransitions is what is claimed of effects that are switched while they sound.
func ofTransitions() []Claim {
	return []Claim{
		{
			Effect: "repeat", Aim: 0.02,
			Says: "jump of a sine of 0.5 at 100 Hz where the piece is halved, beyond its own steepest step",
			Measure: func(s Subject) float64 {
				y := s.switched(Set{"note": 5, "shrink": 1}, "hold", []int{9600}, sine(int(8*Rate), 101.7, 0.5, Rate))
				return jump(y) - 0.5*2*math.Pi*101.7/Rate
			}},
		{Effect: "repeat", Says: "jump where it falls by 6 dB each time", Aim: 0.02, Measure: func(s Subject) float64 {
			y := s.switched(Set{"note": 5, "fall": 6}, "hold", []int{9600}, sine(int(4*Rate), 101.7, 0.5, Rate))
			return jump(y) - 0.5*2*math.Pi*101.7/Rate
		}},
		{Effect: "spindown", Says: "jump where it is stopped again while it comes back", Aim: 0.02, Measure: func(s Subject) float64 {
			return worst([]float64{128, 256, 384, 512, 640}, func(later float64) float64 {
				y := s.switched(Set{"sync": 1, "time": 1}, "stop", []int{19200, 43136, 43136 + int(later)}, sine(int(3*Rate), 330, 0.5, Rate))
				return jump(y) - 0.5*2*math.Pi*330/Rate
			})
		}},
		{Effect: "spindown", Says: "jump where it is stopped again while it spins up", Aim: 0.02, Measure: func(s Subject) float64 {
			return worst([]float64{640, 1280, 6400}, func(later float64) float64 {
				set := Set{"sync": 1, "time": 0.3, "up": 1, "uptime": 1}
				y := s.switched(set, "stop", []int{19200, 43136, 43136 + int(later)}, sine(int(3*Rate), 330, 0.5, Rate))
				return jump(y) - 0.5*2*math.Pi*330/Rate
			})
		}},
	}
}

// switched turns a switch over at some frames, whole blocks each.
func (s Subject) switched(set Set, name string, at []int, x []float64) []float64 {
	l, r := append([]float64(nil), x...), append([]float64(nil), x...)
	rig := effecttest.Of(s.kind, Rate, set)
	i := s.kind.Index(name)
	from := 0
	for _, to := range append(at, len(x)) {
		rig.Run(l[from:to], r[from:to], effect.MaxFrames)
		rig.Values[i] = 1 - rig.Values[i]
		from = to
	}
	return l
}

// jump is the largest step from a frame to the next.
func jump(y []float64) float64 {
	most := 0.0
	for i := 1; i < len(y); i++ {
		most = math.Max(most, math.Abs(y[i]-y[i-1]))
	}
	return most
}
