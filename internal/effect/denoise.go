package effect

import (
	"fmt"
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

const noiseBands = 24

// Learner is a processor that can work out parameter values from what it hears.
type Learner interface {
	Learn() map[string]float64
}

// denoise turns down every part of the spectrum that is no louder than the noise
// learnt: a spectral gate over frames of 43 ms with three quarters of overlap (square-root
// Hann windows). The level of a bin, averaged with its three neighbours on either side and over about
// 40 ms, is held against the profile; from the threshold to 6 dB above it the gain goes
// from the asked reduction to full. The profile has 24 bands from 40 Hz to 20 kHz and is kept as
// parameters. Latency one frame: 2048 at 44.1 and 48 kHz, 4096 above.
var denoise = Kind{
	Info: Info{
		ID: "denoise", Version: 1, Name: "Noise reducer", Family: "Repair", Mix: 100, MixLaw: "blend",
		Says:     "Turns down steady noise that it has learnt, between and under the sound.",
		Plumbs:   []Plumb{{Param: "amount"}, {Param: "threshold"}},
		Synonyms: []string{"noise reduction", "hiss", "hum", "denoiser", "clean", "restore", "broadband"},
		Live:     []string{"in", "out", "reduction"},
		Learns:   "Learn the noise from what plays now",
		Params: append([]param.Param{
			{Name: "amount", Label: "Reduction", Unit: "dB", Says: "How far the noise is turned down.",
				Min: 0, Max: 40, Default: 12, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "threshold", Label: "Threshold", Unit: "dB", Says: "How far above the learnt noise a sound must be to pass.",
				Min: -6, Max: 20, Default: 5, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "release", Label: "Release", Unit: "ms", Says: "How slowly it closes behind a sound.",
				Min: 10, Max: 1000, Default: 120, Taper: param.Log, Step: 3, Digits: 0},
		}, noiseParams()...),
	},
	New:     func(rate float64) Processor { return newHush(rate) },
	Latency: func(rate float64, _ []float64) int { return hushSize(rate) },
	Draw:    drawDenoise,
}

func noiseParams() []param.Param {
	var ps []param.Param
	for b := range noiseBands {
		ps = append(ps, param.Param{
			Name:    fmt.Sprint("noise", b+1),
			Group:   "Profile",
			Label:   fmt.Sprintf("%.0f Hz", noiseHz(b)),
			Unit:    "dB",
			Says:    "The level of the learnt noise around this frequency.",
			Min:     -120,
			Max:     0,
			Default: -120,
			Taper:   param.Linear,
			Step:    1,
			Digits:  1,
		})
	}
	return ps
}

// noiseHz is the centre of a band.
func noiseHz(b int) float64 { return 40 * math.Pow(500, float64(b)/(noiseBands-1)) }

func hushSize(rate float64) int {
	if rate > 50000 {
		return 4096
	}
	return 2048
}

type hush struct {
	rate      float64
	size, hop int
	fft       *dsp.FFT
	window    []float64
	in, out   [2][]float64 // rings of one frame
	at        int          // where in the rings
	count     int          // frames until the next transform
	wave      []float64
	spec      [2][]complex128
	power     []float64
	mean      []float64 // over neighbours and time
	smooth    []float64 // what is held against the profile
	sums      []float64 // of the power up to each bin
	turns     int
	gain      []float64
	floor     []float64 // threshold per bin, as a power
	band      []int     // the band below a bin, and how far it is on the way to the next
	part      []float64
	learnt    [noiseBands]float64 // running mean power in each band
	learntN   int
	last      [3 + noiseBands]float64
	fresh     bool
	inTop     float64
	outTop    float64
	least     float64
}

func newHush(rate float64) *hush {
	n := hushSize(rate)
	h := &hush{rate: rate, size: n, hop: n / 4, fft: dsp.NewFFT(n), window: make([]float64, n), wave: make([]float64, n)}
	bins := n/2 + 1
	for i := range h.window {
		h.window[i] = math.Sqrt(0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/float64(n)))
	}
	for side := range h.in {
		h.in[side], h.out[side] = make([]float64, n), make([]float64, n)
		h.spec[side] = make([]complex128, bins)
	}
	h.mean, h.sums = make([]float64, bins), make([]float64, bins+1)
	for _, at := range []*[]float64{&h.power, &h.smooth, &h.gain, &h.floor, &h.part} {
		*at = make([]float64, bins)
	}
	h.band = make([]int, bins)
	for i := range h.band {
		f := max(40, float64(i)*rate/float64(n))
		at := min(math.Log(f/40)/math.Log(500)*(noiseBands-1), noiseBands-1.001)
		h.band[i] = int(at)
		h.part[i] = at - math.Floor(at)
	}
	h.Reset()
	return h
}

func (h *hush) Process(s *Span) {
	for i := range s.L {
		if h.count == 0 {
			var v [3 + noiseBands]float64
			s.read(v[:], i)
			h.turn(v)
			h.count = h.hop
		}
		h.count--
		for side, x := range [2][]float64{s.L, s.R} {
			u := x[i]
			h.inTop = max(h.inTop, math.Abs(u))
			h.in[side][h.at] = u
			x[i] = h.out[side][h.at]
			h.out[side][h.at] = 0
			h.outTop = max(h.outTop, math.Abs(x[i]))
		}
		if h.at++; h.at == h.size {
			h.at = 0
		}
	}
}

// turn treats the newest frame and adds it to what comes out.
func (h *hush) turn(v [3 + noiseBands]float64) {
	if v != h.last {
		h.last = v
		h.threshold(v)
	}
	seconds := float64(h.hop) / h.rate
	h.look(seconds)
	if h.turns++; h.turns%4 == 0 {
		h.learn()
	}
	h.decide(dsp.Gain(-v[0]), dsp.Exp(-seconds/(v[2]/1000)))
	h.fresh = true
	h.sound()
}

// threshold puts the profile, and how far above it the line is drawn, on the bins.
func (h *hush) threshold(v [3 + noiseBands]float64) {
	for i := range h.floor {
		b := 3 + h.band[i]
		db := v[b] + (v[b+1]-v[b])*h.part[i]
		h.floor[i] = 0
		if db > -119 {
			h.floor[i] = dsp.Exp((db + v[1]) * (math.Ln10 / 10))
		}
	}
}

// look takes the spectra of the newest frame and smooths their power over neighbours and time.
func (h *hush) look(seconds float64) {
	n := h.size
	for side := range h.in {
		k := copy(h.wave, h.in[side][h.at:])
		copy(h.wave[k:], h.in[side][:h.at])
		for i, w := range h.window {
			h.wave[i] *= w
		}
		h.fft.Coefficients(h.spec[side], h.wave)
	}
	scale := 4 / float64(n) / float64(n) * 2 // so that a band of noise reads as its level
	keep := dsp.Exp(-seconds / 0.04)
	if !h.fresh {
		keep = 0
	}
	h.sums[0] = 0
	for i := range h.power {
		a, b := h.spec[0][i], h.spec[1][i]
		p := max(real(a)*real(a)+imag(a)*imag(a), real(b)*real(b)+imag(b)*imag(b)) * scale
		h.power[i], h.sums[i+1] = p, h.sums[i]+p
	}
	for i := range h.smooth {
		lo, hi := max(0, i-3), min(len(h.power), i+4)
		now := max(0, h.sums[hi]-h.sums[lo]) / float64(hi-lo)
		h.mean[i] = dsp.Flush(now + (h.mean[i]-now)*keep)
		h.smooth[i] = min(h.mean[i], 2*now) // what has just ended must not keep it open
	}
}

// decide finds each bin's gain: down below the threshold, 1 from 6 dB above it on, let go of slowly.
func (h *hush) decide(down, release float64) {
	sumGain, sumPower := 0.0, 1e-20
	for i := range h.gain {
		g := 1.0
		if f := h.floor[i]; f > 0 {
			switch p := h.smooth[i]; {
			case p <= f:
				g = down
			case p < f*4: // 6 dB above the threshold
				t := math.Log(p/f) / (2 * math.Ln2)
				g = down + (1-down)*t*t*(3-2*t)
			}
		}
		if h.fresh && g < h.gain[i] {
			g += (h.gain[i] - g) * release
		}
		h.gain[i] = g
		sumGain += g * g * h.power[i]
		sumPower += h.power[i]
	}
	h.least = min(h.least, math.Sqrt((sumGain+1e-20)/sumPower))
}

// sound turns the spectra back, each bin with its gain, and adds them to what comes out.
func (h *hush) sound() {
	n := h.size
	norm := 0.5 / float64(n) // four windows squared overlap to 2
	for side := range h.in {
		for i, g := range h.gain {
			h.spec[side][i] *= complex(g, 0)
		}
		h.fft.Sequence(h.wave, h.spec[side])
		out := h.out[side]
		k := n - h.at
		for i, v := range h.wave[:k] {
			out[h.at+i] += v * h.window[i] * norm
		}
		for i, v := range h.wave[k:] {
			out[i] += v * h.window[k+i] * norm
		}
	}
}

// learn keeps the mean of each band over about the last two seconds.
func (h *hush) learn() {
	h.learntN++
	keep := max(1-1/float64(h.learntN), dsp.Exp(-4*float64(h.hop)/h.rate/2))
	var sum, weight [noiseBands]float64
	for i, p := range h.power {
		b, t := h.band[i], h.part[i]
		sum[b] += (1 - t) * p
		weight[b] += 1 - t
		sum[b+1] += t * p
		weight[b+1] += t
	}
	for b := range sum {
		if weight[b] > 0 {
			p := sum[b] / weight[b]
			h.learnt[b] = p + (h.learnt[b]-p)*keep
		}
	}
}

// Learn gives the profile of what was heard over the last two seconds.
func (h *hush) Learn() map[string]float64 {
	m := map[string]float64{}
	last := -120.0
	for b := range noiseBands {
		db := max(-120, min(0, 10*math.Log10(h.learnt[b]+1e-20)))
		if h.learnt[b] == 0 { // a band between two bins
			db = last
		}
		last = db
		m[fmt.Sprint("noise", b+1)] = math.Round(db*10) / 10
	}
	return m
}

// Report gives peak in, peak out and the deepest reduction since the last report, in dB.
func (h *hush) Report(dst []float64) {
	dst[0], dst[1], dst[2] = dsp.Decibels(h.inTop), dsp.Decibels(h.outTop), -dsp.Decibels(h.least)
	h.inTop, h.outTop, h.least = 0, 0, 1
}

func (h *hush) Reset() {
	for side := range h.in {
		clear(h.in[side])
		clear(h.out[side])
	}
	clear(h.mean)
	clear(h.gain)
	h.learnt, h.learntN, h.turns = [noiseBands]float64{}, 0, 0
	h.at, h.count, h.fresh = 0, h.hop, false
	h.inTop, h.outTop, h.least = 0, 0, 1
}

func (h *hush) CopyFrom(o Processor) {
	p := o.(*hush)
	for side := range h.in {
		copy(h.in[side], p.in[side])
		copy(h.out[side], p.out[side])
	}
	copy(h.mean, p.mean)
	copy(h.gain, p.gain)
	copy(h.floor, p.floor)
	h.learnt, h.learntN, h.turns, h.last = p.learnt, p.learntN, p.turns, p.last
	h.at, h.count, h.fresh = p.at, p.count, p.fresh
	h.least = p.least
}

func drawDenoise(_, _ float64, v []float64) Picture {
	y := Axis{Label: "level", Unit: "dB", Min: -120, Max: 0, Ticks: []float64{-100, -80, -60, -40, -20}}
	at := func(f, more float64) float64 {
		x := math.Log(max(f, 40)/40) / math.Log(500) * (noiseBands - 1)
		b := int(min(x, noiseBands-1.001))
		t := min(x, noiseBands-1) - float64(b)
		db := v[3+b] + (v[4+b]-v[3+b])*t
		if db <= -119 {
			return -120
		}
		return max(-120, db+more)
	}
	main := hertz.curve("learnt noise", "main", func(f float64) float64 { return at(f, 0) })
	main.Fill = true
	return Picture{
		Says:     "The learnt noise and, thin, the threshold above it. Play a piece of noise alone and press Learn.",
		X:        hertz,
		Y:        y,
		Spectrum: true,
		Curves:   []Curve{hertz.curve("threshold", "part", func(f float64) float64 { return at(f, v[1]) }), main},
		Live:     &Live{X: 0, Y: 1, Reduction: 2, Hidden: true},
	}
}
