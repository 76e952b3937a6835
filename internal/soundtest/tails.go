package soundtest

import "math"

// ofTails is what is claimed of how long effects say that they sound on.
func ofTails() []Claim {
	var list []Claim
	for _, x := range []struct {
		effect, what string
		set          Set
	}{
		{"equaliser", "a bell of 24 dB at 50 Hz, Q 20", Set{"freq3": 50, "q3": 20, "gain3": 24}},
		{"equaliser", "a notch at 30 Hz, Q 20", Set{"shape3": 5, "freq3": 30, "q3": 20}},
		{"phaser", "twelve filters at 60 Hz, feedback 95 %", Set{"stages": 4, "freq": 60, "feedback": 95, "depth": 0}},
		{"reverb", "a hall of 4 s", Set{"decay": 4}},
		{"flanger", "feedback 95 %", Set{"feedback": 95}},
	} {
		list = append(list, Claim{Effect: x.effect, Says: x.what + ": what is left behind its tail, against its loudest", Unit: "dB", Aim: -90,
			Measure: func(s Subject) float64 { return s.leftBehind(x.set) }})
	}
	return list
}

// leftBehind is how loud what comes after the tail is, where a burst of noise has ended.
func (s Subject) leftBehind(set Set) float64 {
	v := s.kind.Defaults()
	for name, x := range set {
		v[s.kind.Index(name)] = x
	}
	tail := int(s.kind.Tail(v, 120) * Rate)
	const burst = 24000
	x := append(noise(burst, 4, 0.5), make([]float64, tail+4800)...)
	y := s.alone(Rate, set, x)
	most, left := 0.0, 0.0
	for i, a := range y {
		if i < burst {
			most = math.Max(most, math.Abs(a))
		} else if i >= burst+tail {
			left = math.Max(left, math.Abs(a))
		}
	}
	return db(left / most)
}
