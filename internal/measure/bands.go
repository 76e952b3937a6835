package measure

import (
	"math"

	"shoal/internal/dsp"
)

// BandCount is the number of third-octave bands from 20 Hz to 20 kHz.
const BandCount = 31

const bandSize = 8192

// BandHz is the exact centre of a band (IEC 61260: powers of 10^0.1).
func BandHz(b int) float64 { return 1000 * math.Pow(10, float64(b-17)/10) }

// Bands gathers the mean level of each third of an octave, left and right together.
type Bands struct {
	fft    *dsp.FFT
	rate   float64
	window []float64
	buf    [2][]float64
	at     int
	wave   []float64
	bins   []complex128
	power  [BandCount]float64
	frames int
}

// NewBands measures sound of a rate.
func NewBands(rate float64) *Bands {
	b := &Bands{
		fft:    dsp.NewFFT(bandSize),
		rate:   rate,
		window: make([]float64, bandSize),
		wave:   make([]float64, bandSize),
		bins:   make([]complex128, bandSize/2+1),
	}
	sum := 0.0
	for i := range b.window {
		b.window[i] = 0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/bandSize)
		sum += b.window[i] * b.window[i]
	}
	for i := range b.window { // so that the bins' powers add up to the signal's
		b.window[i] *= math.Sqrt(2 / sum / bandSize)
	}
	for side := range b.buf {
		b.buf[side] = make([]float64, bandSize)
	}
	return b
}

// Write takes a block in: two slices.
func (b *Bands) Write(src [][]float64) error {
	l, r := src[0], src[len(src)-1]
	for i := range l {
		b.buf[0][b.at], b.buf[1][b.at] = l[i], r[i]
		if b.at++; b.at == bandSize {
			b.turn()
		}
	}
	return nil
}

func (b *Bands) turn() {
	for side := range b.buf {
		for i, v := range b.buf[side] {
			b.wave[i] = v * b.window[i]
		}
		b.fft.Coefficients(b.bins, b.wave)
		for i, c := range b.bins {
			f := float64(i) * b.rate / bandSize
			k := int(math.Round(10*math.Log10(max(f, 1)/1000))) + 17
			if k >= 0 && k < BandCount {
				b.power[k] += real(c)*real(c) + imag(c)*imag(c)
			}
		}
		copy(b.buf[side], b.buf[side][bandSize/2:])
	}
	b.at = bandSize / 2
	b.frames++
}

// Levels gives the mean level of each band in dB. What has come in since the last whole
// stretch is padded with silence.
func (b *Bands) Levels() []float64 {
	if b.frames == 0 {
		for side := range b.buf {
			clear(b.buf[side][b.at:])
		}
		b.turn()
	}
	out := make([]float64, BandCount)
	for k, p := range b.power {
		out[k] = max(dsp.Off, 10*math.Log10(p/float64(b.frames)/2+1e-20))
	}
	return out
}
