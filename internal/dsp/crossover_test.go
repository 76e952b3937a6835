package dsp

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
)

var crossings = [][]float64{{1000}, {100, 4000}, {60, 300, 2500}, {30, 38, 5000, 16000}, {500, 630, 800, 1010}, {200, 252, 12000, 16000}}

// bandsOf divides x and returns the bands.
func bandsOf(process func(left, right [][]float64), count int, x []float64) [][]float64 {
	out := make([][]float64, count+1)
	for at := 0; at < len(x); at += 128 {
		n := min(128, len(x)-at)
		part, other := make([][]float64, count+1), make([][]float64, count+1)
		for b := range part {
			part[b], other[b] = make([]float64, n), make([]float64, n)
		}
		copy(part[count], x[at:at+n])
		process(part, other)
		for b := range part {
			out[b] = append(out[b], part[b]...)
		}
	}
	return out
}

func total(bands [][]float64) []float64 {
	sum := make([]float64, len(bands[0]))
	for _, b := range bands {
		AddScaled(sum, b, 1)
	}
	return sum
}

// The sum of 2 to 5 bands is flat within 0.01 dB from 10 Hz to 0.49 of the rate, at every rate
// and slope. The magnitude is that of the whole response to an impulse.
func TestBandsSumFlat(t *testing.T) {
	for _, rate := range []float64{44100, 48000, 88200, 96000} {
		for _, steep := range []bool{false, true} {
			for _, hz := range crossings {
				s := NewSplitter(rate, len(hz), steep, 128)
				for i, f := range hz {
					s.Set(i, f)
				}
				const size = 1 << 15
				x := make([]float64, size)
				x[0] = 1
				sum := total(bandsOf(s.Process, len(hz), x))
				bins := make([]complex128, size/2+1)
				NewFFT(size).Coefficients(bins, sum)
				worst, at := 0.0, 0.0
				for i, c := range bins {
					f := float64(i) * rate / size
					if f < 10 || f > 0.49*rate {
						continue
					}
					if db := math.Abs(20 * math.Log10(math.Hypot(real(c), imag(c)))); db > worst {
						worst, at = db, f
					}
				}
				require.Less(t, worst, 0.01, "rate %g, steep %v, crossovers %v: at %g Hz", rate, steep, hz, at)
			}
		}
	}
}

// Each band has the magnitude that the analogue crossover has, on the bent axis: the crossover is
// 6 dB down on both sides, and the slope is what was asked for.
func TestBandsAreWhatTheyShouldBe(t *testing.T) {
	const rate, size = 48000.0, 1 << 16
	hz := []float64{200, 3000}
	for _, steep := range []bool{false, true} {
		s := NewSplitter(rate, 2, steep, 128)
		for i, f := range hz {
			s.Set(i, f)
		}
		x := make([]float64, size)
		x[0] = 1
		for b, band := range bandsOf(s.Process, 2, x) {
			bins := make([]complex128, size/2+1)
			NewFFT(size).Coefficients(bins, band)
			for _, f := range []float64{50, 100, 200, 400, 800, 1500, 3000, 6000, 12000} {
				i := int(math.Round(f / rate * size))
				got := 20 * math.Log10(math.Hypot(real(bins[i]), imag(bins[i])))
				want := 10 * math.Log10(BandPower(float64(i)*rate/size, rate, hz, b, steep))
				if want > -110 {
					require.InDelta(t, want, got, 0.05, "steep %v, band %d at %g Hz", steep, b, f)
				}
			}
		}
		slope := 10 * math.Log10(BandPower(20, rate, hz, 1, steep)/BandPower(10, rate, hz, 1, steep))
		require.InDelta(t, map[bool]float64{false: 24.08, true: 48.16}[steep], slope, 0.01)
		require.InDelta(t, -6.02, 10*math.Log10(BandPower(200, rate, hz, 0, steep)), 0.01)
	}
}

// The bands in linear phase add up to the signal itself, late; each is symmetric in time, and
// has the magnitude of the crossover.
func TestLinearBands(t *testing.T) {
	for _, rate := range []float64{44100, 48000, 88200, 96000} {
		for _, steep := range []bool{false, true} {
			hz := []float64{LowestLinear, 500, 4000}
			s := NewLinearSplitter(rate, hz, steep, 128)
			late := LinearLatency(rate)
			x := make([]float64, 2*late+2048)
			x[0] = 1
			bands := bandsOf(s.Process, 3, x)
			sum := total(bands)
			for i, v := range sum {
				want := 0.0
				if i == late {
					want = 1
				}
				require.InDelta(t, want, v, 1e-12, "rate %g at %d", rate, i)
			}
			for i := 1; i < late; i++ {
				require.InDelta(t, bands[0][late-i], bands[0][late+i], 1e-12)
			}
			size := 1 << 16
			bins := make([]complex128, size/2+1)
			wave := make([]float64, size)
			copy(wave, bands[0])
			NewFFT(size).Coefficients(bins, wave)
			for _, f := range []float64{20, 60, 120, 240} {
				i := int(math.Round(f / rate * float64(size)))
				w := math.Pow(float64(i)*rate/float64(size)/hz[0], map[bool]float64{false: 4, true: 8}[steep])
				require.InDelta(
					t,
					20*math.Log10(1/(1+w)),
					20*math.Log10(math.Hypot(real(bins[i]), imag(bins[i]))),
					0.2,
					fmt.Sprint(rate, steep, f),
				)
			}
		}
	}
}

// A crossover that moves leaves the sum an all-pass in energy: nothing bursts, and what is not
// there does not appear. Below, a sine far from the crossovers stays a sine.
func TestMovingCrossoverDoesNotBurst(t *testing.T) {
	const rate, frames = 48000.0, 48000
	for _, steep := range []bool{false, true} {
		s := NewSplitter(rate, 1, steep, 128)
		var x []float64
		for i := range frames {
			x = append(x, math.Sin(2*math.Pi*1000*float64(i)/rate))
		}
		var low, sum []float64
		for at := 0; at < frames; at += 128 {
			hz := make([]float64, 128)
			for i := range hz { // from 100 Hz to 8 kHz and back, ten times a second
				hz[i] = 100 * math.Pow(80, 0.5-0.5*math.Cos(2*math.Pi*10*float64(at+i)/rate))
			}
			s.Track(0, hz)
			part := [][]float64{make([]float64, 128), append([]float64{}, x[at:at+128]...)}
			s.Process(part, [][]float64{make([]float64, 128), make([]float64, 128)})
			low, sum = append(low, part[0]...), append(sum, total(part)...)
		}
		require.Less(t, Peak(sum, sum), 1.5)
		require.Less(t, Peak(low, low), 1.5)
		for i := 1; i < frames; i++ { // no step is larger than a sine of that height makes
			require.Less(t, math.Abs(sum[i]-sum[i-1]), 1.5*2*math.Pi*1000/rate*1.6)
		}
	}
}

func TestKeepApart(t *testing.T) {
	third := math.Cbrt(2)
	for _, c := range []struct{ in, want []float64 }{
		{[]float64{100, 1000}, []float64{100, 1000}},
		{[]float64{1000, 100}, []float64{1000, 1000 * third}},
		{[]float64{10, 20}, []float64{30, 30 * third}},
		{[]float64{17000, 17000, 17000}, []float64{18000 / third / third, 18000 / third, 18000}},
	} {
		KeepApart(c.in, 30, 18000)
		for i := range c.want {
			require.InDelta(t, c.want[i], c.in[i], 1e-9)
		}
	}
}
