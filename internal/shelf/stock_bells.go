package shelf

import "shoal/internal/synth"

// The partials of a cast bell beside its strike note: hum, prime, tierce, quint, nominal and those above (after
// Rossing, The Acoustics of Bells, 1984).
func cast(ring float64) []synth.Mode {
	return []synth.Mode{
		{0.5, 0.45, ring}, {1, 1, 0.8 * ring}, {1.003, 0.5, 0.8 * ring},
		{1.19, 0.5, 0.6 * ring}, {1.5, 0.3, 0.45 * ring}, {2, 0.6, 0.35 * ring},
		{2.52, 0.2, 0.2 * ring}, {3.01, 0.2, 0.16 * ring}, {4.17, 0.12, 0.08 * ring},
	}
}

// bell strikes a cast bell at some times.
func bell(hz, ring, seconds float64, at ...float64) func() *synth.Take {
	return func() *synth.Take {
		t := synth.NewTake(seconds, false)
		for i, s := range at {
			t.Strike(s, hz, 1-0.2*float64(i%2), cast(ring))
		}
		return finish(t, -3)
	}
}

func bells() []sound {
	d5, a4, d3, e6 := synth.Hz(74), synth.Hz(69), synth.Hz(50), synth.Hz(88)
	return []sound{
		{"bell-ship", "Ship's bell, one stroke", "A clear beginning: one stroke that rings on for four seconds.",
			[]string{"bell", "stroke", "begin"}, d5, bell(d5, 4, 4.6, 0.01)},
		{"bell-ship-two", "Ship's bell, two strokes", "A pair of strokes, as hours are struck on board: for the turn from one part to the next.",
			[]string{"bell", "stroke", "turn"}, d5, bell(d5, 3.6, 4.6, 0.01, 0.42)},
		{"bell-buoy", "Buoy bell in a swell", "Three strokes that never come in time: for places where nothing should be counted.",
			[]string{"bell", "loose", "place"}, a4, bell(a4, 3, 6, 0.02, 1.37, 2.61)},
		{"bell-great", "Great bell", "Low and long: it lies under a silence and carries it.",
			[]string{"bell", "low", "end"}, d3, bell(d3, 8, 9, 0.01)},
		{"bell-hand", "Small handbell", "High and short: a drop of light on a first beat.",
			[]string{"bell", "high", "short"}, e6, bell(e6, 1.2, 1.5, 0.005)},
		{"bell-cracked", "Cracked bell", "Its partials lie wrong and beat against each other: for doubt.",
			[]string{"bell", "rough"}, a4, func() *synth.Take {
				t := synth.NewTake(3, false)
				t.Strike(0.01, a4, 1, []synth.Mode{
					{1, 1, 1.6}, {1.037, 0.6, 1.2}, {1.41, 0.5, 0.9},
					{2.23, 0.5, 0.5}, {2.31, 0.4, 0.5}, {3.6, 0.3, 0.2},
				})
				return finish(t, -3)
			}},
		{"bell-drawn-in", "Bell, drawn in", "A stroke turned round: it grows out of nothing and ends where the next part begins.",
			[]string{"bell", "rise", "into"}, d5, func() *synth.Take {
				t := synth.NewTake(3, false)
				t.Strike(0.004, d5, 1, cast(3.4))
				return finish(backwards(t), -3)
			}},
	}
}
