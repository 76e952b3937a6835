package effect_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/dsp/fourier"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

// lines returns the spectrum in dB of the last n frames (Blackman-Harris); a sine reads as its amplitude.
func lines(x []float64, n int) []float64 {
	w := make([]float64, n)
	for i := range w {
		a := 2 * math.Pi * float64(i) / float64(n)
		w[i] = x[len(x)-n+i] * (0.35875 - 0.48829*math.Cos(a) + 0.14128*math.Cos(2*a) - 0.01168*math.Cos(3*a)) / 0.35875 * 2 / float64(n)
	}
	c := fourier.NewFFT(n).Coefficients(nil, w)
	out := make([]float64, len(c))
	for i, v := range c {
		out[i] = 20 * math.Log10(math.Hypot(real(v), imag(v))+1e-20)
	}
	return out
}

// A sine of 5.03 kHz driven by 24 dB: what is not a harmonic is an alias. Above 20 kHz
// lies the transition of the half-band filters.
func TestSaturationKeepsAliasesDown(t *testing.T) {
	const n, f = 65536, 5030.0
	for character := range 5 {
		x := tone(n+20000, f, 0)
		id, c := "saturation", set{"character": float64(character), "drive": 24, "compensate": 0, "level": 0}
		if character == 4 {
			id, c = "amplifier", set{"cabinet": 0, "drive": 24, "level": 0}
		}
		s := lines(run(id, c, x), n)
		for i, db := range s {
			hz := float64(i) * rate / n
			nearest := math.Round(hz/f) * f
			if math.Abs(hz-nearest) < 12 || hz < 25 || hz > 20000 {
				continue
			}
			require.Less(t, db, -80.0, "character %d: %.1f dB at %.0f Hz", character, db, hz)
		}
	}
}

func TestSaturationFollowsItsCurve(t *testing.T) {
	k, _ := effect.Find("saturation")
	for character := range 4 {
		c := set{"character": float64(character), "drive": 9}
		rig := effecttest.New("saturation", rate, c)
		p := k.Draw(rate, 120, rig.Values)
		main := p.Curves[2]
		x := tone(48000, 300, -1) // neither the constant-offset filter nor the averaging matters here
		y := run("saturation", c, x)
		if character == 1 {
			continue // its constant offset is taken away, so it stands elsewhere
		}
		for i := 20000; i < 21200; i += 7 {
			in := x[i]
			at := (in + 1) / 2 * float64(len(main.X)-1)
			a := int(at)
			want := main.Y[a] + (main.Y[a+1]-main.Y[a])*(at-float64(a))
			require.InDelta(t, want, y[i+rig.Latency()], 0.03, "character %d at %.2f", character, in)
		}
	}
}

func TestTubeMakesEvenHarmonicsAndTapeDoesNot(t *testing.T) {
	second := func(character float64) float64 {
		y := run("saturation", set{"character": character, "drive": 12}, tone(96000, 1000, -6))
		return response(y[48000:], 2000) - response(y[48000:], 1000)
	}
	require.Less(t, second(0), -90.0)
	require.Greater(t, second(1), -40.0)
}

func TestAmplifierPlaysThroughWhatItDraws(t *testing.T) {
	k, _ := effect.Find("amplifier")
	for cabinet := range 4 {
		c := set{"cabinet": float64(cabinet), "drive": -6, "low": 3, "mid": -4, "high": 2, "level": 0}
		rig := effecttest.New("amplifier", rate, c)
		h, r := impulse(32768)
		h[0], r[0] = 1e-3, 1e-3 // far below where it bends
		rig.Run(h, r, 128)
		p := k.Draw(rate, 120, rig.Values)
		at := response(h, 1000)
		var ref float64
		for i, f := range p.Curves[0].X {
			if f > 990 {
				ref = p.Curves[0].Y[i]
				at = response(h, f)
				break
			}
		}
		for i, f := range p.Curves[0].X {
			if f > 60 && f < 16000 && p.Curves[0].Y[i] > -40 {
				require.InDelta(t, p.Curves[0].Y[i]-ref, response(h, f)-at, 0.3, "cabinet %d at %.0f Hz", cabinet, f)
			}
		}
	}
}

func TestCrushHoldsAndRounds(t *testing.T) {
	x := tone(4800, 700, -1)
	y := run("crush", set{"bits": 3, "rate": 6000}, x)
	values := map[float64]bool{}
	for i, v := range y[:4792] {
		values[v] = true
		if i >= 8 {
			require.Equal(t, y[i-i%8], v, "frame %d", i) // held for eight frames
		}
	}
	require.LessOrEqual(t, len(values), 9) // three bits
}

func TestFilterIsWhatItDraws(t *testing.T) {
	k, _ := effect.Find("filter")
	for kind := range 4 {
		for slope := range 2 {
			for _, res := range []float64{0, 40, 80} {
				c := set{"kind": float64(kind), "slope": float64(slope), "resonance": res, "freq": 1200}
				rig := effecttest.New("filter", rate, c)
				h, r := impulse(65536)
				rig.Run(h, r, 128)
				main := k.Draw(rate, 120, rig.Values).Curves[0]
				for i := 0; i < len(main.X); i += 5 {
					if main.Y[i] > -50 {
						require.InDelta(
							t,
							main.Y[i],
							response(h, main.X[i]),
							0.1,
							"kind %d slope %d resonance %g at %.0f Hz",
							kind,
							slope,
							res,
							main.X[i],
						)
					}
				}
			}
		}
	}
}

// Moved at audio rate between its ends, at full resonance, it neither grows nor breaks.
func TestFilterStaysStableUnderModulationAtAudioRate(t *testing.T) {
	k, _ := effect.Find("filter")
	for kind := range 4 {
		p := k.New(rate)
		values := make([]effect.Value, len(k.Params))
		track := make([]float64, 128)
		top := 0.0
		for block := range 1500 {
			l, r := effecttest.Noise(128, uint64(block), -6), effecttest.Noise(128, uint64(block)+9999, -6)
			for i := range values {
				values[i] = effect.Value{Now: k.Params[i].Default}
			}
			for i := range track {
				track[i] = 20 * math.Pow(1000, 0.5+0.5*math.Sin(2*math.Pi*1733*float64(block*128+i)/rate))
			}
			values[0].Now, values[1].Now = float64(kind), 1
			values[2].Track, values[2].Now = track, track[0]
			values[3].Now = 100
			p.Process(&effect.Span{L: l, R: r, Values: values, Time: effect.Time{Frame: int64(block * 128), Tempo: 120, Rolling: true}})
			for i := range l {
				require.True(t, dsp.Finite(l[i]))
				top = max(top, math.Abs(l[i]))
			}
		}
		require.Less(t, top, 40.0)
	}
	// rings by itself at full resonance, and no louder than it says
	y := run("filter", set{"resonance": 100, "freq": 800}, append(effecttest.Noise(4800, 1, 0), make([]float64, 96000)...))
	require.Less(t, dsp.Decibels(y[len(y)-1]), 18.1)
	require.Less(t, level(y[90000:]), 18.1)
}

func TestWidthNeverTouchesTheMid(t *testing.T) {
	for _, c := range []set{{"width": 9, "low": -24}, {"width": -120}, {"width": 3, "mono": 200, "edge": 800, "low": 6}} {
		x, y := effecttest.Noise(20000, 1, -12), effecttest.Noise(20000, 2, -12)
		l, r := append([]float64{}, x...), append([]float64{}, y...)
		effecttest.New("width", rate, c).Run(l, r, 128)
		for i := range l {
			require.InDelta(t, (x[i]+y[i])/2, (l[i]+r[i])/2, 1e-15)
		}
	}
	// and the side is what is drawn
	k, _ := effect.Find("width")
	rig := effecttest.New("width", rate, set{"width": 4, "low": -9, "edge": 500, "mono": 60})
	h, r := impulse(65536)
	r[0] = -1
	rig.Run(h, r, 128)
	main := k.Draw(rate, 120, rig.Values).Curves[1]
	for i := 0; i < len(main.X); i += 7 {
		if main.Y[i] > -50 {
			require.InDelta(t, main.Y[i], response(h, main.X[i]), 0.1)
		}
	}
}
