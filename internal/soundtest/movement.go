package soundtest

import (
	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

// ofMovement is what is claimed of lines that are read while their length moves.
func ofMovement() []Claim {
	var list []Claim
	air := func(effect string, set Set) {
		list = append(list, Claim{
			Effect: effect, Unit: "dB", Aim: 0.2,
			Says: "loss at 10, 15 and 16 kHz against 1 kHz",
			Measure: func(s Subject) float64 {
				return worst([]float64{10000, 15000, 16000}, func(hz float64) float64 { return loss(s, set, hz) })
			}})
	}
	air("vibrato", nil)
	air("chorus", Set{"voices": 1, "spread": 0, "lowcut": 20, "highcut": 20000})
	list = append(list, Claim{
		Effect: "vibrato", Unit: "dB", Aim: 0.3,
		Says: "a tone of 15 kHz flutters in level",
		Measure: func(s Subject) float64 {
			return falls(s.alone(Rate, nil, sine(int(4*Rate), 15000, 0.3, Rate)), 5)
		}})
	out := func(effect string, aim float64, set Set) {
		list = append(list, Claim{
			Effect: effect, Unit: "dB", Aim: aim,
			Says: "cuts at their ends are out: loss at 20 Hz and 20 kHz",
			Measure: func(s Subject) float64 {
				return worst([]float64{20, 20000}, func(hz float64) float64 { return bandLoss(s, set, hz) })
			}})
	}
	out("chorus", 0.3, Set{"depth": 0, "voices": 1, "spread": 0})
	out("doubler", 1, Set{"wander": 0, "tune": 0, "voices": 1, "spread": 0})
	out("convolver", 0.3, Set{"space": 7})
	return list
}

// bandLoss is how much less of a noise comes through around a frequency than around 1 kHz, with cuts at their ends.
func bandLoss(s Subject, set Set, hz float64) float64 {
	more := Set{"lowcut": 20, "highcut": 20000}
	for k, v := range set {
		more[k] = v
	}
	x := noise(int(20*Rate), 3, 0.5)
	l, r := append([]float64(nil), x...), append([]float64(nil), x...)
	rig := effecttest.Of(s.kind, Rate, more)
	if p, ok := rig.P.(effect.ImpulseTaker); ok { // what it plays in is nothing at all
		p.TakeImpulse("one", func() (l, r []float64) { return []float64{1}, []float64{1} })
		rig.P.(effect.Preparer).Prepare(rig.Values)
	}
	rig.Run(l, r, effect.MaxFrames)
	passed := func(hz float64) float64 {
		return power(band(l, hz/1.06, hz*1.06, Rate)[int(Rate):]) - power(band(x, hz/1.06, hz*1.06, Rate)[int(Rate):])
	}
	return passed(1000) - passed(hz)
}
