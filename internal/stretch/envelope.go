package stretch

import (
	"math"

	"shoal/internal/dsp"
)

const (
	envelopeSteps = 12             // at most
	envelopeNear  = 0.23           // neper, 2 dB: near enough
	envelopeFloor = -20.0          // neper below which nothing has an envelope
	envelopeMost  = 24 / 8.6858896 // neper by which it lifts or lowers at most
)

// envelope brings the formants of a window to where the pitch that moves afterwards will leave them as they were. It
// is the true envelope (Röbel and Rodet, "Efficient spectral envelope estimation", DAFx 2005): the spectrum smoothed by
// its first cepstral coefficients, again and again with what stood below filled up.
type envelope struct {
	ratio  float64
	order  int
	fft    *dsp.FFT
	level  []float64 // of the spectrum, then filled up
	smooth []float64 // in neper
	bins   []complex128
	time   []float64
	gain   []float64
	out    []complex128
}

func newEnvelope(size int, ratio float64, order int) *envelope {
	n := size/2 + 1
	return &envelope{ratio: ratio, order: order, fft: dsp.NewFFT(size), level: make([]float64, n), smooth: make([]float64, n),
		bins: make([]complex128, n), time: make([]float64, size), gain: make([]float64, n), out: make([]complex128, n)}
}

// find finds the envelope of a window, of all sides together, and what must be done to it.
func (e *envelope) find(sides [][]complex128) {
	for b := range e.level {
		sum := 0.0
		for c := range sides {
			sum += power(sides[c][b])
		}
		e.level[b] = max(envelopeFloor, 0.5*math.Log(sum+1e-40))
		e.smooth[b] = math.Inf(-1)
	}
	for range envelopeSteps {
		most := 0.0
		for b, l := range e.level {
			most = max(most, l-e.smooth[b])
			e.level[b] = max(l, e.smooth[b])
		}
		if most < envelopeNear {
			break
		}
		e.smoothen()
	}
	last := len(e.gain) - 1
	for b := range e.gain {
		x := min(float64(b)*e.ratio, float64(last))
		k := min(int(x), last-1)
		there := e.smooth[k] + (x-float64(k))*(e.smooth[k+1]-e.smooth[k])
		e.gain[b] = math.Exp(min(envelopeMost, max(-envelopeMost, there-e.smooth[b])))
	}
}

// smoothen leaves the first cepstral coefficients of the level, the last third of them softly.
func (e *envelope) smoothen() {
	for b, l := range e.level {
		e.bins[b] = complex(l, 0)
	}
	n := len(e.time)
	e.fft.Sequence(e.time, e.bins)
	for i := range e.time {
		q := min(i, n-i)
		w := 0.0
		if soft := float64(q)/float64(e.order+1) - 0.7; soft < 0.3 {
			w = 0.5 + 0.5*math.Cos(math.Pi*max(0, soft)/0.3)
		}
		e.time[i] *= w / float64(n)
	}
	e.fft.Coefficients(e.bins, e.time)
	for b, x := range e.bins {
		e.smooth[b] = real(x)
	}
}

// shaped is a spectrum with the gain of find.
func (e *envelope) shaped(x []complex128) []complex128 {
	for b, z := range x {
		e.out[b] = z * complex(e.gain[b], 0)
	}
	return e.out
}
