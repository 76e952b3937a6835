package dsp

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
)

const rate48 = 48000.0

// analogue prototypes, as squared magnitudes
func lpPower(f0, q, f float64) float64 { x := f / f0; return 1 / (sq(1-x*x) + sq(x/q)) }
func hpPower(f0, q, f float64) float64 { x := f / f0; return x * x * x * x * lpPower(f0, q, f) }
func bpPower(f0, q, f float64) float64 { x := f / f0; return sq(x/q) * lpPower(f0, q, f) }
func notchPower(f0, q, f float64) float64 {
	x := f / f0
	return sq(1-x*x) / (sq(1-x*x) + sq(x/q))
}
func bellPower(f0, gain, q, f float64) float64 {
	a, x := Gain(gain/2), f/f0
	return (sq(1-x*x) + sq(x*a/q)) / (sq(1-x*x) + sq(x/(a*q)))
}

func TestSectionsFollowTheAnaloguePrototype(t *testing.T) {
	shapes := map[string]struct {
		make  func(f0, g, q float64) Section
		power func(f0, g, q, f float64) float64
	}{
		"low pass": {
			func(f0, _, q float64) Section { return LowPass(f0, q, rate48) },
			func(f0, _, q, f float64) float64 { return lpPower(f0, q, f) },
		},
		"high pass": {
			func(f0, _, q float64) Section { return HighPass(f0, q, rate48) },
			func(f0, _, q, f float64) float64 { return hpPower(f0, q, f) },
		},
		"band pass": {
			func(f0, _, q float64) Section { return BandPass(f0, q, rate48) },
			func(f0, _, q, f float64) float64 { return bpPower(f0, q, f) },
		},
		"bell": {func(f0, g, q float64) Section { return Bell(f0, g, q, rate48) }, bellPower},
		"low shelf": {
			func(f0, g, q float64) Section { return Shelf(false, f0, g, q, rate48) },
			func(f0, g, q, f float64) float64 { return ShelfPower(false, f0, g, q, f) },
		},
		"high shelf": {
			func(f0, g, q float64) Section { return Shelf(true, f0, g, q, rate48) },
			func(f0, g, q, f float64) float64 { return ShelfPower(true, f0, g, q, f) },
		},
	}
	for name, s := range shapes {
		t.Run(name, func(t *testing.T) {
			worst, where := 0.0, ""
			for _, f0 := range []float64{20, 50, 120, 400, 1000, 3000, 6000, 10000, 12000, 14000, 16000} {
				for _, q := range []float64{0.5, 0.7071, 1, 2, 4, 12} {
					if q > 1.01 && (name == "low shelf" || name == "high shelf") {
						continue // shelves stop at Q 1
					}
					if q > 2 && name == "high pass" {
						continue // low cuts stop at Q 2
					}
					for _, g := range []float64{-24, -12, -3, 1, 6, 12, 18, 24} {
						sec := s.make(f0, g, q)
						for f := 15.0; f < 20000; f *= 1.07 {
							want := 10 * math.Log10(s.power(f0, g, q, f))
							if want < -40 {
								continue
							}
							got := 10 * math.Log10(sec.Power(f, rate48))
							if d := math.Abs(got - want); d > worst {
								worst, where = d, fmt.Sprintf("f0 %.0f g %g q %g at %.0f: %.2f for %.2f", f0, g, q, f, got, want)
							}
						}
					}
				}
			}
			t.Logf("%s: worst %.3f dB, %s", name, worst, where)
			require.LessOrEqual(t, worst, 0.5, where)
		})
	}
}

func TestNotchHoldsItsWidthAndIsDeep(t *testing.T) {
	for _, f0 := range []float64{50, 1000, 8000} {
		s := Notch(f0, 5, rate48)
		require.Less(t, s.Power(f0, rate48), 1e-12)
		require.InDelta(t, 0, 10*math.Log10(s.Power(f0/8, rate48)), 0.3)
		require.InDelta(t, 10*math.Log10(notchPower(f0, 5, f0*0.9)), 10*math.Log10(s.Power(f0*0.9, rate48)), 0.5)
	}
}

func TestCutsAreReciprocalsOfBoosts(t *testing.T) {
	for _, f := range []float64{30, 1000, 15000} {
		for _, g := range []float64{1, 9, 24} {
			for x := 20.0; x < 20000; x *= 1.3 {
				require.InDelta(t, 1, Bell(f, g, 1, rate48).Power(x, rate48)*Bell(f, -g, 1, rate48).Power(x, rate48), 1e-9)
				require.InDelta(
					t,
					1,
					Shelf(true, f, g, 0.7, rate48).Power(x, rate48)*Shelf(true, f, -g, 0.7, rate48).Power(x, rate48),
					1e-9,
				)
			}
		}
	}
}

func TestButterworthIsThreeDecibelsDownAtItsCorner(t *testing.T) {
	var s [4]Section
	for order := 1; order <= 8; order++ {
		for _, high := range []bool{false, true} {
			n := Butterworth(s[:], high, order, 1000, math.Sqrt2/2, rate48)
			require.Equal(t, (order+1)/2, n)
			at := func(f float64) float64 {
				p := 1.0
				for i := 0; i < n; i++ {
					p *= s[i].Power(f, rate48)
				}
				return 10 * math.Log10(p)
			}
			require.InDelta(t, -3.01, at(1000), 0.1, "order %d high %v", order, high)
			octave := at(250)
			if !high {
				octave = at(4000)
			}
			require.InDelta(t, -12.04*float64(order), octave, 0.6, "order %d high %v", order, high)
		}
	}
}

// What is not judged has to be good: wherever the matched section is taken as it is, it is within 0.05 dB.
func TestWhatIsTakenUnseenFits(t *testing.T) {
	tried := 0
	for _, rate := range []float64{44100, 48000, 88200, 96000} {
		for _, q := range []float64{0.3, 0.35, 0.4, 0.5, 0.6, 0.7071, 0.75, 0.85, 1, 1.5, 2, 2.8, 3.5, 5, 9, 20} {
			for _, gain := range []float64{0.05, 0.5, 1, 2, 3, 4, 6, 8, 11, 14, 16, 19, 21, 24} {
				for freq := 16.0; freq < 7000; freq *= 1.04 {
					for _, p := range []prototype{bell(freq, gain, q), shelf(false, freq, gain, min(q, 1)), shelf(true, freq, gain, min(q, 1))} {
						if p.tame(rate) {
							tried++
							require.Less(t, p.worst(p.matched(rate), rate), 0.05, "%g Hz, %g dB, q %g at %g", freq, gain, q, rate)
						}
					}
				}
			}
		}
	}
	require.Greater(t, tried, 10000)
}

// The quick judgement is that of the exact one.
func TestFitsIsWorstWithoutLogarithms(t *testing.T) {
	near := 0
	for _, rate := range []float64{44100, 96000} {
		for _, q := range []float64{0.3, 0.7071, 2, 8} {
			for freq := 20.0; freq < 16000; freq *= 1.05 {
				for _, p := range []prototype{bell(freq, 9, q), shelf(true, freq, 6, min(q, 1))} {
					s := p.matched(rate)
					w := p.worst(s, rate)
					if math.Abs(w-0.05) < 1e-6 {
						near++
						continue
					}
					require.Equal(t, w < 0.05, p.fits(s, rate), "%g Hz q %g at %g: %g dB", freq, q, rate, w)
				}
			}
		}
	}
	require.Less(t, near, 10)
}
