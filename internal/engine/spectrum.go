package engine

import (
	"math"

	"shoal/internal/dsp"
)

const (
	spectrumSize = 4096
	// SpectrumPoints is how many figures a spectrum has, spread evenly over 20 Hz to 20 kHz in
	// the logarithm.
	SpectrumPoints = 96
)

// watch keeps what went into a stage and came out of it, for a spectrum.
type watch struct {
	stage   string
	in, out tape
	fft     *dsp.FFT
	window  []float64
	wave    []float64
	bins    []complex128
	edges   [SpectrumPoints + 1]float64 // in bins
}

// tape is the newest stretch of a signal, left and right together.
type tape struct {
	buf []float64
	at  int
}

func (t *tape) write(l, r []float64) {
	for i, v := range l {
		t.buf[t.at] = (v + r[i]) * 0.5
		if t.at++; t.at == len(t.buf) {
			t.at = 0
		}
	}
}

func newWatch(stage string, rate float64) *watch {
	w := &watch{
		stage:  stage,
		fft:    dsp.NewFFT(spectrumSize),
		window: make([]float64, spectrumSize),
		wave:   make([]float64, spectrumSize),
		bins:   make([]complex128, spectrumSize/2+1),
	}
	w.in.buf, w.out.buf = make([]float64, spectrumSize), make([]float64, spectrumSize)
	sum := 0.0
	for i := range w.window {
		w.window[i] = 0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/spectrumSize)
		sum += w.window[i]
	}
	for i := range w.window { // a sine reads as its level
		w.window[i] *= 2 / sum
	}
	for i := range w.edges {
		w.edges[i] = 20 * math.Pow(1000, (float64(i)-0.5)/(SpectrumPoints-1)) / rate * spectrumSize
	}
	return w
}

// read writes the level at each point in dB.
func (w *watch) read(t *tape, dst []float32) {
	for i := range w.wave {
		w.wave[i] = t.buf[(t.at+i)%spectrumSize] * w.window[i]
	}
	w.fft.Coefficients(w.bins, w.wave)
	power := func(i int) float64 {
		i = min(max(i, 0), len(w.bins)-1)
		b := w.bins[i]
		return real(b)*real(b) + imag(b)*imag(b)
	}
	for k := range dst {
		a, b := w.edges[k], w.edges[k+1]
		p := 0.0
		if b-a < 1.5 { // between bins: a straight line
			mid := (a + b) / 2
			i := math.Floor(mid)
			p = power(int(i)) + (power(int(i)+1)-power(int(i)))*(mid-i)
		} else {
			for i := int(math.Ceil(a)); float64(i) < b; i++ {
				p = max(p, power(i))
			}
		}
		dst[k] = float32(max(-120, 10*math.Log10(p+1e-14)))
	}
}

// Watch keeps the spectrum of a stage or fork; empty is none.
func (e *Engine) Watch(stage string) {
	e.watch = nil
	if stage != "" {
		e.watch = newWatch(stage, e.rate)
	}
	for _, p := range e.plans() {
		p.setWatch(e.watch)
	}
}

func (p *plan) setWatch(w *watch) {
	for id, s := range p.stages {
		s.watch = nil
		if w != nil && id == w.stage {
			s.watch = w
		}
	}
	for id, s := range p.joins {
		s.watch = nil
		if w != nil && id == w.stage {
			s.watch = w
		}
	}
}

// Spectrum writes the spectrum before and after the watched stage to dst, which has
// room for twice SpectrumPoints, and reports whether there is one.
func (e *Engine) Spectrum(dst []float32) bool {
	if e.watch == nil {
		return false
	}
	e.watch.read(&e.watch.in, dst[:SpectrumPoints])
	e.watch.read(&e.watch.out, dst[SpectrumPoints:2*SpectrumPoints])
	return true
}
