package onset

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
)

const rate = 48000

// strokes are bursts of noise that die away, at these frames, over a floor of noise 60 dB below.
func strokes(n int, at ...int) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = 0.001 * dsp.White(1, int64(i))
	}
	for k, begin := range at {
		for i := 0; i < 9600 && begin+i < n; i++ {
			x[begin+i] += 0.5 * math.Exp(-float64(i)/1500) * dsp.White(uint64(9+k), int64(i))
		}
	}
	return x
}

func TestStrokesAreFoundToAFewMilliseconds(t *testing.T) {
	at := []int{4800, 14400, 24111, 36037, 43333}
	got := Find([][]float64{strokes(rate, at...)}, rate)
	require.Len(t, got, len(at))
	for i, o := range got {
		require.InDelta(t, at[i], o.Frame, 0.003*rate)
		require.Greater(t, o.Strength, 0.5)
	}
}

func TestSoftStrokesAreFoundToo(t *testing.T) {
	loud, soft := strokes(rate, 9600), strokes(rate, 28800)
	for i := range loud {
		loud[i] += 0.1 * soft[i]
	}
	got := Find([][]float64{loud, loud}, rate)
	require.Len(t, got, 2)
	require.InDelta(t, 28800, got[1].Frame, 0.005*rate)
	require.Less(t, got[1].Strength, got[0].Strength)
}

// A tone with vibrato begins once, however far its spectrum wavers.
func TestAWaveringToneBeginsOnce(t *testing.T) {
	x, phase := make([]float64, 2*rate), 0.0
	for i := range x {
		hz := 440 * (1 + 0.02*math.Sin(2*math.Pi*5.5*float64(i)/rate))
		phase += hz / rate
		for k := 1.; k <= 6; k++ {
			x[i] += 0.2 / k * math.Sin(2*math.Pi*k*phase) * math.Min(1, math.Max(0, float64(i-4800)/480))
		}
	}
	n := 0
	for _, o := range Find([][]float64{x}, rate) {
		if o.Strength >= Usual {
			n++
			require.InDelta(t, 4800, o.Frame, 0.020*rate, "it rises slowly")
		}
	}
	require.Equal(t, 1, n)
}

func TestSilenceAndASingleFrameHaveNone(t *testing.T) {
	require.Empty(t, Find(nil, rate))
	require.Empty(t, Find([][]float64{{}}, rate))
	require.Empty(t, Find([][]float64{make([]float64, rate)}, rate))
	require.Empty(t, Find([][]float64{{0}}, rate))
	require.NotPanics(t, func() { Find([][]float64{{1}}, rate) })
}
