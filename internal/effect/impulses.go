package effect

import (
	"fmt"
	"math"
	"sync"

	"shoal/internal/dsp"
)

// impulse describes a synthesised impulse response: noise that dies away at its own
// speed in three bands, first reflections, and resonances. All are made by the
// code below from a fixed seed.
type impulse struct {
	name            string
	seconds         float64    // decay of the middle (T60)
	low, high       float64    // decay of lows and highs, times that
	rise            float64    // seconds until it is dense
	early           []float64  // ms
	ring            [3]float64 // Hz of resonances; 0 none
	ringGain        float64
	bright, muffled float64 // first-order cuts, Hz
}

var impulses = []impulse{
	{"net loft", 0.7, 0.8, 0.8, 0.004, []float64{4, 7.5, 11, 16, 23}, [3]float64{}, 0, 14000, 60},
	{"boiler", 1.6, 1.3, 0.35, 0.002, []float64{2, 3.1, 5.3}, [3]float64{147, 311, 523}, 0.5, 6500, 70},
	{"stone stair", 2.4, 0.9, 0.6, 0.03, []float64{9, 14, 21, 26, 37, 49}, [3]float64{}, 0, 11000, 110},
	{"under the pier", 1.1, 1.4, 0.5, 0.012, []float64{6, 13, 18, 31}, [3]float64{96, 0, 0}, 0.3, 8000, 50},
	{"long pipe", 3.2, 0.7, 0.45, 0.001, []float64{12, 24, 36, 48, 60, 72}, [3]float64{83, 166, 249}, 0.6, 5000, 90},
	{"bright sheet", 1.9, 0.6, 1.1, 0.001, nil, [3]float64{}, 0, 18000, 180},
	{"hatch", 0.25, 1.2, 0.6, 0.001, []float64{1.2, 2.2, 3.4}, [3]float64{233, 377, 0}, 0.25, 9000, 90},
}

func impulseNames() []string {
	var n []string
	for _, x := range impulses {
		n = append(n, x.name)
	}
	return append(n, "from a file")
}

// make synthesises the responses of both sides, which die away alike.
func (p *impulse) make(rate float64) (sides [2][]float64) {
	n := int((p.seconds*max(1, p.low, p.high)*1.1 + 0.05) * rate)
	sides = [2][]float64{make([]float64, n), make([]float64, n)}
	p.dieAway(&sides, rate)
	top, bottom := dsp.LowPass1(min(p.bright, rate*0.45), rate), dsp.HighPass1(p.muffled, rate)
	for side, h := range sides {
		for k, ms := range p.early {
			at := int(ms * (1 + 0.03*float64(side)) * rate / 1000)
			if at < n {
				h[at] += 0.9 * math.Pow(0.78, float64(k)) * (1 - 2*float64((k+side)%2))
			}
		}
	}
	p.resound(&sides, rate)
	for _, h := range sides {
		var zt, zb dsp.Biquad
		zt.Run(&top, h)
		zb.Run(&bottom, h)
		level(h)
	}
	return sides
}

// fallen is what is left at a time of what falls by 60 dB in another.
func fallen(t, t60 float64) float64 { return dsp.Exp(-6.9078 * t / t60) }

// dieAway fills both sides with noise of their own in three bands.
func (p *impulse) dieAway(sides *[2][]float64, rate float64) {
	lowEdge, highEdge := dsp.LowPass1(260, rate), dsp.LowPass1(3200, rate)
	var zl, zh [2]dsp.Biquad
	rise := max(p.rise, 1e-4)
	for i := range sides[0] {
		t := float64(i) / rate
		dense := 1.0
		if t < 40*rise { // what is missing later is less than a number can hold
			dense = 1 - dsp.Exp(-t/rise)
		}
		lows, mids, highs := fallen(t, p.seconds*p.low), fallen(t, p.seconds), fallen(t, p.seconds*p.high)
		for side, h := range sides {
			x := dsp.White(uint64(1000+side*77), int64(i))
			low := zl[side].Next(&lowEdge, x)
			under := zh[side].Next(&highEdge, x)
			h[i] = dense * 0.25 * (2.2*low*lows + (under-low)*mids + (x-under)*highs)
		}
	}
}

// resound adds the resonances.
func (p *impulse) resound(sides *[2][]float64, rate float64) {
	if p.ring == [3]float64{} {
		return
	}
	for i := range sides[0] {
		t := float64(i) / rate
		left := fallen(t, p.seconds*0.8)
		for k, hz := range p.ring {
			if hz == 0 {
				continue
			}
			for side, h := range sides {
				h[i] += p.ringGain * 0.02 / float64(k+1) * math.Sin(2*math.Pi*hz*(1+0.002*float64(side))*t) * left
			}
		}
	}
}

// level scales a response so that noise through it comes out about as loud as it went in.
func level(h []float64) {
	e := 0.0
	for _, v := range h {
		e += v * v
	}
	if e <= 0 {
		return
	}
	g := 1 / math.Sqrt(e)
	for i := range h {
		h[i] *= g
	}
}

// levelBoth scales both sides of a response alike, so that they are as loud as level makes one of them, on average.
func levelBoth(l, r []float64) {
	e := 0.0
	for _, side := range [][]float64{l, r} {
		for _, v := range side {
			e += v * v
		}
	}
	if e <= 0 {
		return
	}
	g := math.Sqrt(2 / e)
	dsp.Scale(l, g)
	dsp.Scale(r, g)
}

// response is what a convolver needs of an impulse response.
type response struct {
	l, r   *dsp.Spectrum
	frames int
	energy []float64 // dB over time, for the picture
	step   float64   // seconds between its values
}

// responses keeps the transformed responses that were used last: plans are built
// anew at every change of structure, and this work must not be.
var responses struct {
	sync.Mutex
	byKey map[string]*response
	order []string
}

const responsesKept = 12

// keptResponse returns the response with a key, making it with f if need be.
func keptResponse(key string, f func() (l, r []float64, rate float64)) *response {
	responses.Lock()
	defer responses.Unlock()
	if r, ok := responses.byKey[key]; ok {
		return r
	}
	l, r, rate := f()
	x := &response{l: dsp.NewSpectrum(l), r: dsp.NewSpectrum(r), frames: max(len(l), len(r)), step: float64(len(l)) / rate / 120}
	for k := range 120 {
		e := 1e-12
		a, b := len(l)*k/120, len(l)*(k+1)/120
		for _, v := range l[a:b] {
			e += v * v
		}
		x.energy = append(x.energy, 10*math.Log10(e/float64(max(1, b-a))))
	}
	if responses.byKey == nil {
		responses.byKey = map[string]*response{}
	}
	if len(responses.order) >= responsesKept {
		delete(responses.byKey, responses.order[0])
		responses.order = responses.order[1:]
	}
	responses.byKey[key] = x
	responses.order = append(responses.order, key)
	return x
}

// shorten cuts a response to a part of its length, with a fade over the last fifth of it.
func shorten(h []float64, percent float64) []float64 {
	n := max(1, int(float64(len(h))*percent/100))
	if n >= len(h) {
		return h
	}
	out := append([]float64{}, h[:n]...)
	fade := n / 5
	for i := range fade {
		out[n-1-i] *= 0.5 - 0.5*math.Cos(math.Pi*float64(i)/float64(fade))
	}
	return out
}

func shippedResponse(choice int, percent, rate float64) *response {
	return keptResponse(fmt.Sprintf("shipped %d %g %g", choice, percent, rate), func() ([]float64, []float64, float64) {
		sides := impulses[choice].make(rate)
		return shorten(sides[0], percent), shorten(sides[1], percent), rate
	})
}
