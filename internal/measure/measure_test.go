package measure

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
)

func tone(n int, f, db float64) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = dsp.Gain(db) * math.Sin(2*math.Pi*f*float64(i)/48000)
	}
	return x
}

func TestAReportSaysWhatASoundIs(t *testing.T) {
	m := NewMeter(48000, 2)
	x := tone(480000, 1000, -20)
	require.NoError(t, m.Write([][]float64{x, x}))
	r := m.Report()
	require.InDelta(t, -20, r.Peak, 0.01)
	require.InDelta(t, -20, r.TruePeak, 0.2)
	require.InDelta(t, -23.01, r.RMS, 0.01)
	require.InDelta(t, 3.01, r.Crest, 0.01)
	require.InDelta(t, -20, r.Integrated, 0.1) // a stereo sine at 1 kHz reads as its peak (BS.1770)
	require.InDelta(t, 0, r.Range, 0.1)
	require.InDelta(t, 10, r.Seconds, 1e-9)
	require.InDelta(t, 0, r.DC, 1e-6)
	// the same on one channel is 3 dB softer
	m = NewMeter(48000, 1)
	require.NoError(t, m.Write([][]float64{x}))
	require.InDelta(t, -23.01, m.Report().Integrated, 0.1)
}

func TestBandsAddUpToTheSignal(t *testing.T) {
	b := NewBands(48000)
	var l, r []float64
	for i := range int64(480000) {
		l, r = append(l, 0.1*dsp.White(1, i)), append(r, 0.1*dsp.White(2, i))
	}
	for at := 0; at < len(l); at += 1000 { // in any pieces
		require.NoError(t, b.Write([][]float64{l[at : at+1000], r[at : at+1000]}))
	}
	levels := b.Levels()
	sum, power := 0.0, 0.0
	for k, db := range levels {
		sum += math.Pow(10, db/10)
		if k > 10 && k < BandCount-1 { // white noise: 1 dB more a band
			require.InDelta(t, 1, levels[k+1]-db, 0.5)
		}
	}
	for _, v := range l {
		power += v * v
	}
	// the bands reach to 22.4 kHz, and white noise to 24 kHz
	require.InDelta(t, 10*math.Log10(power/float64(len(l))*22.387/24), 10*math.Log10(sum), 0.2)
}

func TestATonesBandIsItsOwn(t *testing.T) {
	for _, k := range []int{8, 17, 25} {
		b := NewBands(48000)
		x := tone(96000, BandHz(k), -12)
		require.NoError(t, b.Write([][]float64{x, x}))
		levels := b.Levels()
		require.InDelta(t, -15.01, levels[k], 0.1)
		for i, db := range levels {
			if i < k-1 || i > k+1 {
				require.Less(t, db, -50.0, "%d beside %d", i, k)
			}
		}
	}
	require.InDelta(t, dsp.Off, NewBands(48000).Levels()[10], 1e-9)
}
