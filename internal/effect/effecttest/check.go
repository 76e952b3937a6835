package effecttest

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/param"
)

// Rates are the sampling rates that a project can have.
var Rates = []float64{44100, 48000, 88200, 96000}

// Check puts an effect through what every effect must pass.
func Check(t *testing.T, k *effect.Kind) {
	t.Run("description", func(t *testing.T) { description(t, k) })
	t.Run("silence stays silence", func(t *testing.T) { silence(t, k) })
	t.Run("block size does not matter", func(t *testing.T) { blocks(t, k) })
	t.Run("reset empties", func(t *testing.T) { reset(t, k) })
	t.Run("a twin goes on", func(t *testing.T) { twin(t, k) })
	t.Run("an heir that is emptied is as good as new", func(t *testing.T) { heir(t, k) })
	t.Run("latency is the truth", func(t *testing.T) { latency(t, k) })
	t.Run("extremes stay bounded", func(t *testing.T) { extremes(t, k) })
	t.Run("no allocation", func(t *testing.T) { allocation(t, k) })
	t.Run("after its rest as good as new", func(t *testing.T) { rest(t, k) })
	t.Run("picture", func(t *testing.T) { picture(t, k) })
}

func description(t *testing.T, k *effect.Kind) {
	require.NotEmpty(t, k.Says)
	require.NotEmpty(t, k.Synonyms)
	require.Positive(t, k.Version)
	_, reports := k.New(48000).(effect.Reporter)
	require.Equal(t, len(k.Live) > 0, reports, "what is shown live is reported")
	seen := map[string]bool{}
	for _, p := range k.Params {
		require.False(t, seen[p.Name], "twice: "+p.Name)
		seen[p.Name] = true
		require.NotEmpty(t, p.Says, p.Name)
		require.NoError(t, p.Check(p.Default))
		if p.Taper == param.Choice {
			require.Len(t, p.Choices, int(p.Max)+1, p.Name)
		}
		if p.Taper == param.Log {
			require.Positive(t, p.Min, p.Name)
		}
		for _, v := range []float64{p.Min, p.Default, p.Max} {
			require.InDelta(t, v, p.At(p.Place(v)), 1e-9*(1+math.Abs(v)), p.Name)
		}
	}
}

func stereo(n int) (l, r []float64) { return Noise(n, 1, -12), Noise(n, 2, -12) }

func silence(t *testing.T, k *effect.Kind) {
	rig := Of(k, 48000, nil)
	l, r := make([]float64, 9600), make([]float64, 9600)
	rig.Run(l, r, 128)
	for i := range l {
		require.Zero(t, l[i])
		require.Zero(t, r[i])
	}
}

func blocks(t *testing.T, k *effect.Kind) {
	wantL, wantR := stereo(24000)
	Of(k, 48000, nil).Run(wantL, wantR, 128)
	for _, n := range []int{1, 7, 16, 61, 127} {
		l, r := stereo(24000)
		Of(k, 48000, nil).Run(l, r, n)
		require.Equal(t, wantL, l, "blocks of %d", n)
		require.Equal(t, wantR, r, "blocks of %d", n)
	}
}

func reset(t *testing.T, k *effect.Kind) {
	wantL, wantR := stereo(9600)
	Of(k, 48000, nil).Run(wantL, wantR, 128)
	rig := Of(k, 48000, nil)
	l, r := stereo(9600)
	rig.Run(l, r, 128)
	rig.P.Reset()
	rig.frame = 0
	l, r = stereo(9600)
	rig.Run(l, r, 128)
	require.Equal(t, wantL, l)
	require.Equal(t, wantR, r)
}

func twin(t *testing.T, k *effect.Kind) {
	wantL, wantR := stereo(19200)
	Of(k, 48000, nil).Run(wantL, wantR, 128)
	rig := Of(k, 48000, nil)
	l, r := stereo(19200)
	rig.Run(l[:9605], r[:9605], 128) // off the grid
	old := rig.P
	rig.P = rig.Make()
	rig.P.CopyFrom(old)
	rig.Run(l[9605:], r[9605:], 128)
	require.Equal(t, wantL, l)
	require.Equal(t, wantR, r)
}

// heir takes over the state of a processor that was prepared for other structural values, which has run and may have
// been emptied, and is emptied itself: nothing of the other may be left in how it sounds.
func heir(t *testing.T, k *effect.Kind) {
	for _, p := range k.Params {
		if !p.Structural {
			continue
		}
		for _, v := range []float64{p.Min, p.Max} {
			set := map[string]float64{p.Name: v}
			wantL, wantR := stereo(19200)
			Of(k, 48000, set).Run(wantL, wantR, 128)
			for _, emptied := range []bool{true, false} {
				old := Of(k, 48000, nil)
				l, r := stereo(9600)
				old.Run(l, r, 128)
				if emptied {
					old.P.Reset()
				}
				rig := Of(k, 48000, set)
				rig.P.CopyFrom(old.P)
				rig.P.Reset()
				l, r = stereo(19200)
				rig.Run(l, r, 128)
				require.Equal(t, wantL, l, "%s %g, emptied before: %v", p.Name, v, emptied)
				require.Equal(t, wantR, r, "%s %g, emptied before: %v", p.Name, v, emptied)
			}
		}
	}
}

// passing are settings at which an effect lets an impulse through without a delay
// of its own making, where its defaults do not.
var passing = map[string]map[string]float64{
	"amplifier": {"cabinet": 0, "drive": -6, "tight": 20},
}

// A convolver's loudest frame is its response's: its latency is held where it is
// compared with direct convolution.
const convolves = "convolver"

// latency sends an impulse through settings at which the effect should pass it,
// and looks for the first sound.
func latency(t *testing.T, k *effect.Kind) {
	if k.ID == convolves {
		return
	}
	for _, rate := range Rates {
		rig := Of(k, rate, passing[k.ID])
		if k.Latency == nil {
			require.Zero(t, rig.Latency())
			continue
		}
		l, r := make([]float64, 8192), make([]float64, 8192)
		l[100], r[100] = 0.1, 0.1
		rig.Run(l, r, 128)
		at := 0
		for i := range l {
			if math.Abs(l[i]) > math.Abs(l[at]) {
				at = i
			}
		}
		require.Equal(t, 100+rig.Latency(), at, "at %g Hz", rate)
	}
}

func extremes(t *testing.T, k *effect.Kind) {
	for _, rate := range Rates {
		for round := 0; round < 24; round++ {
			set := map[string]float64{}
			for i, p := range k.Params {
				h := dsp.Hash(uint64(round*131 + i))
				switch {
				case round == 0:
					set[p.Name] = p.Min
				case round == 1:
					set[p.Name] = p.Max
				case p.Stepped():
					set[p.Name] = float64(h % uint64(p.Max+1))
				default:
					set[p.Name] = []float64{p.Min, p.Max, p.At(float64(h%1000) / 999)}[h%3]
				}
			}
			rig := Of(k, rate, set)
			l, r := Noise(12000, 3, 0), Noise(12000, 4, 0)
			for i := 6000; i < len(l); i++ {
				l[i], r[i] = 0, 0
			}
			rig.Run(l, r, 128)
			for i := range l {
				if !dsp.Finite(l[i]) || !dsp.Finite(r[i]) || math.Abs(l[i]) > 1e9 {
					assert.Fail(t, fmt.Sprintf("at %g Hz frame %d: %g %g with %v", rate, i, l[i], r[i], set))
					return
				}
			}
		}
	}
}

func allocation(t *testing.T, k *effect.Kind) {
	rig := Of(k, 48000, nil)
	l, r := stereo(128)
	require.Zero(t, testing.AllocsPerRun(50, func() { rig.Span(l, r) }))
}

// rest plays noise, then silence for as long as the effect says that it needs, then noise again: a
// processor that was never used must answer the second noise alike.
func rest(t *testing.T, k *effect.Kind) {
	if k.Rests == nil {
		return
	}
	for round := range 4 {
		set := map[string]float64{}
		for i, p := range k.Params {
			h := dsp.Hash(uint64(round*977 + i))
			switch {
			case round == 0 || p.Structural && round < 3:
			case p.Stepped():
				set[p.Name] = float64(h % uint64(p.Max+1))
			default: // the middle half of the travel: the ends take minutes
				set[p.Name] = p.At(0.25 + float64(h%1000)/1998)
			}
		}
		rig := Of(k, 48000, set)
		seconds := k.Rests(rig.Values, rig.Tempo)
		require.Positive(t, seconds)
		if seconds > 40 {
			continue
		}
		l, r := stereo(19200)
		rig.Run(l, r, 128)
		for quiet := 0.0; quiet < seconds; { // what comes out has to be silence, too
			l, r = make([]float64, 9600), make([]float64, 9600)
			rig.Run(l, r, 128)
			if quiet += 0.2; dsp.Peak(l, r) > 1e-9 {
				quiet = 0
			}
			require.Less(t, rig.frame, int64(48000*200), "it never falls silent: %v", set)
		}
		fresh := Of(k, 48000, set)
		fresh.frame = rig.frame
		wantL, wantR := stereo(19200)
		fresh.Run(wantL, wantR, 128)
		l, r = stereo(19200)
		rig.Run(l, r, 128)
		for i := range l {
			if math.Abs(l[i]-wantL[i]) > 1e-6 || math.Abs(r[i]-wantR[i]) > 1e-6 {
				assert.Fail(t, fmt.Sprintf("frame %d: %g and %g, but new %g and %g, with %v", i, l[i], r[i], wantL[i], wantR[i], set))
				break
			}
		}
	}
}

func picture(t *testing.T, k *effect.Kind) {
	require.NotNil(t, k.Draw)
	p := k.Draw(48000, 120, k.Defaults())
	require.NotEmpty(t, p.Says)
	require.NotNil(t, p.Curves)
	require.True(t, len(p.Curves)+len(p.Bars) > 0)
	for _, c := range p.Curves {
		require.Len(t, c.Y, len(c.X))
		for _, y := range c.Y {
			require.True(t, dsp.Finite(y), c.Name)
		}
	}
	for _, h := range p.Handles {
		for _, n := range []string{h.ParamX, h.ParamY, h.ParamZ} {
			require.True(t, n == "" || k.Index(n) >= 0, n)
		}
	}
}
