package effect_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

func TestTapsComeWhereTheyAreDrawn(t *testing.T) {
	k, _ := effect.Find("taps")
	c := set{"unit": 0}
	for n := 1; n <= 4; n++ {
		c["cut"+string(rune('0'+n))] = 20000
	}
	l, r := make([]float64, 96000), make([]float64, 96000)
	l[0], r[0] = 1, 1
	rig := effecttest.New("taps", rate, c)
	rig.Run(l, r, 128)
	heard := 0
	for _, b := range k.Draw(rate, 120, rig.Values).Bars {
		at := int(math.Round(b.X * rate))
		require.InDelta(t, b.Y, dsp.Decibels(math.Max(l[at], r[at])), 0.01)
		heard++
		l[at], r[at] = 0, 0
	}
	require.Equal(t, 4, heard)
	for i := range l {
		require.Zero(t, l[i])
		require.Zero(t, r[i])
	}
}

func TestReverbCharactersDecayAsAsked(t *testing.T) {
	for character := 1.0; character < 4; character++ {
		for _, decay := range []float64{0.3, 1, 3, 10} {
			rig := effecttest.New(
				"reverb",
				rate,
				set{"decay": decay, "character": character, "predelay": 0, "early": -120, "lowcut": 20, "highcut": 20000},
			)
			ways := fourWays(rig, math.Max(1, decay*1.4))
			for _, f := range []float64{125, 250, 500, 1000, 2000, 4000, 8000} {
				require.InEpsilon(
					t,
					askedDecay(rig.Values, f),
					decayTime(ways, f, -5, -35),
					0.10,
					"character %g decay %g at %g Hz",
					character,
					decay,
					f,
				)
			}
		}
	}
}

func TestDelayDucksAndDampsAndPans(t *testing.T) {
	c := set{"sync": 1, "time": 100, "feedback": 50, "lowcut": 20, "highcut": 20000}
	burst := append(tone(9600, 1000, -6), make([]float64, 96000)...)
	plain := run("delay", c, burst)
	c["duck"] = 12
	ducked := run("delay", c, burst)
	require.InDelta(t, -12, level(ducked[5200:9000])-level(plain[5200:9000]), 0.5)    // while the signal is there
	require.InDelta(t, 0, level(ducked[90000:94000])-level(plain[90000:94000]), 0.01) // long after it
	delete(c, "duck")
	c["damping"] = 100
	l, r := impulse(24000)
	effecttest.New("delay", rate, c).Run(l, r, 128)
	require.Equal(t, 1.0, l[4800]) // the first echo is whole
	first, second := response(l[4700:9000], 8000), response(l[9500:14000], 8000)
	require.Less(t, second-first, -12.0)
	delete(c, "damping")
	c["pan"] = 1
	l, r = impulse(9600)
	effecttest.New("delay", rate, c).Run(l, r, 128)
	require.Zero(t, l[4800])
	require.Equal(t, 1.0, r[4800])
}

// switched runs an effect whose switch goes on at one frame and off at another.
func switched(id, name string, c set, on, off int, x []float64, block int) []float64 {
	l, r := append([]float64{}, x...), append([]float64{}, x...)
	rig := effecttest.New(id, rate, c)
	i := rig.Kind.Index(name)
	rig.Run(l[:on], r[:on], block)
	rig.Values[i] = 1
	rig.Run(l[on:off], r[on:off], block)
	rig.Values[i] = 0
	rig.Run(l[off:], r[off:], block)
	return l
}

// frequency is measured between upward zero crossings around a frame.
func frequency(y []float64, at, span int) float64 {
	first, last, n := 0.0, 0.0, 0
	for i := at; i < at+span; i++ {
		if y[i] <= 0 && y[i+1] > 0 {
			x := float64(i) + y[i]/(y[i]-y[i+1])
			if n == 0 {
				first = x
			}
			last = x
			n++
		}
	}
	return float64(n-1) / (last - first) * rate
}

func TestSpinDownFollowsItsCurve(t *testing.T) {
	x := tone(240000, 2000, -12)
	for curve, speed := range []func(u float64) float64{
		func(u float64) float64 { return 1 - u },
		func(u float64) float64 { return (1 - u) * (1 - u) },
		func(u float64) float64 { return math.Cos(math.Pi / 2 * u) },
	} {
		c := set{"sync": 1, "time": 2, "curve": float64(curve), "dull": 0}
		y := switched("spindown", "stop", c, 24000, 168000, x, 128)
		for _, u := range []float64{0.1, 0.3, 0.5, 0.7} {
			at := 24000 + int(u*96000)
			require.InEpsilon(t, 2000*speed(u), frequency(y, at-600, 1200), 0.01, "curve %d at %g", curve, u)
		}
		for i := 24000 + 96000 + 10; i < 168000; i++ { // silent while it is held
			require.Zero(t, y[i])
		}
		for i := 168000 + 1000; i < len(x); i++ { // and then live again, to the bit
			require.Equal(t, x[i], y[i])
		}
		same := switched("spindown", "stop", c, 24000, 168000, x, 61)
		for i := range y {
			require.InDelta(t, y[i], same[i], 1e-12)
		}
		// no step anywhere is larger than the tone's own
		for i := 1; i < len(y); i++ {
			require.Less(t, math.Abs(y[i]-y[i-1]), 0.25*2*math.Pi*2000/rate*1.05)
		}
	}
	y := switched("spindown", "stop", set{"sync": 1, "time": 0.5, "up": 1, "uptime": 1, "dull": 0}, 24000, 96000, x, 128)
	require.InEpsilon(t, 1000, frequency(y, 96000+24000-600, 1200), 0.03) // half way up
	require.Equal(t, x[len(x)-1], y[len(y)-1])
}

func TestRepeatRepeatsWhatItCaught(t *testing.T) {
	x := effecttest.Noise(144000, 4, -12)
	c := set{"note": 5, "fall": 6} // an eighth: 12000 frames
	y := switched("repeat", "hold", c, 20000, 100000, x, 128)
	require.Equal(t, x[:32000], y[:32000]) // the first time through is live
	for i := 1000; i < 11000; i += 13 {
		require.InDelta(t, x[20000+i], y[32000+i], 1e-12)
		require.InDelta(t, x[20000+i]*dsp.Gain(-6), y[44000+i], 1e-12)
		require.InDelta(t, x[20000+i]*dsp.Gain(-12), y[56000+i], 1e-12)
	}
	require.Equal(t, x[101000:], y[101000:])
	require.Equal(t, y, switched("repeat", "hold", c, 20000, 100000, x, 61))
	// seams do not click
	s := tone(144000, 333, -6)
	z := switched("repeat", "hold", set{"note": 2}, 20000, 100000, s, 128)
	for i := 1; i < len(z); i++ {
		require.Less(t, math.Abs(z[i]-z[i-1]), 0.05)
	}
}

func TestReversePlaysPiecesBackwards(t *testing.T) {
	const piece = 24000 // a quarter at 120
	x := effecttest.Noise(6*piece, 4, -12)
	y := run("reverse", set{"soft": 4}, x)
	for k := 1; k < 6; k++ {
		for i := 1000; i < piece-1000; i += 17 {
			require.InDelta(t, x[k*piece-1-i], y[k*piece+i], 1e-12, "piece %d frame %d", k, i)
		}
	}
	s := run("reverse", nil, tone(6*piece, 333, -6))
	for i := 1; i < len(s); i++ {
		require.Less(t, math.Abs(s[i]-s[i-1]), 0.05)
	}
}

func TestConvolverEqualsDirectConvolution(t *testing.T) {
	k, _ := effect.Find("convolver")
	h := make([]float64, 5000)
	energy := 0.0
	for i := range h {
		h[i] = dsp.White(3, int64(i)) * math.Exp(-float64(i)/900)
		energy += h[i] * h[i]
	}
	p := k.New(rate)
	p.(effect.ImpulseTaker).TakeImpulse("test", func() (l, r []float64) { return h, h })
	v := k.Defaults()
	v[0], v[3], v[4], v[6] = k.Params[0].Max, 20, 20000, 0
	p.(effect.Preparer).Prepare(v)
	values := make([]effect.Value, len(v))
	for i := range v {
		values[i] = effect.Value{Now: v[i]}
	}
	x := effecttest.Noise(20480, 5, -12)
	l, r := append([]float64{}, x...), append([]float64{}, x...)
	cut := x // the cuts in front are out at their ends
	for at := 0; at < len(l); at += 128 {
		p.Process(&effect.Span{L: l[at : at+128], R: r[at : at+128], Values: values, Time: effect.Time{Frame: int64(at), Tempo: 120}})
	}
	lag := k.Latency(rate, v)
	g := 1 / math.Sqrt(energy)
	for i := 0; i < len(x)-lag; i += 7 {
		want := 0.0
		for j := 0; j < len(h) && j <= i; j++ {
			want += h[j] * cut[i-j]
		}
		require.InDelta(t, want*g, l[i+lag], math.Pow(10, -110./20)*0.5)
	}
}

func TestNoiseReducerTakesAwayTheNoiseItLearntAndLeavesTheRest(t *testing.T) {
	k, _ := effect.Find("denoise")
	noise := effecttest.Noise(192000, 6, -50)
	rig := effecttest.New("denoise", rate, nil)
	l, r := append([]float64{}, noise...), append([]float64{}, noise...)
	rig.Run(l, r, 128)
	learnt := rig.P.(effect.Learner).Learn()
	require.Len(t, learnt, 24)
	c := set{"amount": 18, "release": 25}
	for name, v := range learnt {
		require.GreaterOrEqual(t, k.Index(name), 0)
		c[name] = v
	}
	y := run("denoise", c, noise)
	require.InDelta(t, -18, level(y[96000:])-level(noise[96000:]), 1)

	// like speech: bursts of a harmonic tone, 25 dB above the noise
	speech := make([]float64, len(noise))
	for i := range speech {
		env := math.Max(0, math.Sin(2*math.Pi*2.5*float64(i)/rate))
		for n := 1; n <= 20; n++ {
			speech[i] += 0.03 * env * math.Sin(2*math.Pi*140*float64(n)*float64(i)/rate) / math.Sqrt(float64(n))
		}
	}
	both := make([]float64, len(noise))
	for i := range both {
		both[i] = speech[i] + noise[i]
	}
	z := run("denoise", c, both)
	lag := rig.Latency()
	require.InDelta(t, level(speech[48000:150000]), level(z[48000+lag:150000+lag]), 1)
	pause := 148800 + 1500 + lag // in the second half of one
	require.Less(t, level(z[pause:pause+1500]), level(noise[:48000])-14)
}
