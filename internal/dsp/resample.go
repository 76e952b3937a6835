package dsp

import "math"

// Resampler changes the sampling rate by a polyphase windowed sinc: Kaiser
// window of 125 dB, pass band flat within 0.1 dB to 20 kHz at 44.1 kHz, nothing left from half the lower rate on (images
// and aliases below -120 dB), its own delay removed. The length of the result
// is round(frames × to/from).
type Resampler struct {
	up, down int
	half     int         // taps on either side
	phase    [][]float64 // up phases of 2*half taps
	buf      []float64
	first    int64 // index of buf[0] in the input
	out      int64 // next output frame
}

// NewResampler converts one channel from one whole-number rate to another.
func NewResampler(from, to int) *Resampler {
	g := gcd(from, to)
	r := &Resampler{up: to / g, down: from / g}
	low := min(from, to)
	// transition from 20/44.1 to half of the lower rate: nothing folds back
	pass := 20000.0 / 44100
	cut := (0.5 + pass) / 2 * float64(low) / float64(from) // of the input rate
	width := (0.5 - pass) * float64(low) / float64(from)
	const attenuation = 128.0
	beta := 0.1102 * (attenuation - 8.7)
	taps := int(math.Ceil((attenuation-7.95)/(14.36*width))) + 2
	r.half = (taps + 1) / 2
	fc := cut // half gain in the middle of it
	for p := 0; p < r.up; p++ {
		c := make([]float64, 2*r.half)
		sum := 0.0
		for i := range c {
			x := float64(i-r.half+1) - float64(p)/float64(r.up)
			c[i] = 2 * fc * sinc(2*fc*x) * kaiser(x/float64(r.half), beta)
			sum += c[i]
		}
		for i := range c {
			c[i] /= sum
		}
		r.phase = append(r.phase, c)
	}
	r.buf = make([]float64, r.half-1) // silence before the first frame
	r.first = -int64(r.half - 1)
	return r
}

// Feed takes input in and appends what can be computed to dst.
func (r *Resampler) Feed(dst, x []float64) []float64 {
	r.buf = append(r.buf, x...)
	for {
		pos := r.out * int64(r.down)
		at, p := pos/int64(r.up), int(pos%int64(r.up))
		from := at - int64(r.half) + 1 - r.first
		if from+int64(2*r.half) > int64(len(r.buf)) {
			if drop := min(int(from), len(r.buf)); drop > 1<<16 {
				r.buf = append(r.buf[:0], r.buf[drop:]...)
				r.first += int64(drop)
			}
			return dst
		}
		w := r.buf[from : from+int64(2*r.half)]
		s := 0.0
		for i, k := range r.phase[p] {
			s += k * w[i]
		}
		dst = append(dst, s)
		r.out++
	}
}

// Finish appends what is left, so that the whole has round(frames × to/from) frames.
func (r *Resampler) Finish(dst []float64, frames int64) []float64 {
	want := int64(math.Round(float64(frames) * float64(r.up) / float64(r.down)))
	dst = r.Feed(dst, make([]float64, 2*r.half+r.down/r.up+2))
	if over := r.out - want; over > 0 {
		dst = dst[:max(0, int64(len(dst))-over)]
	}
	r.out = want
	return dst
}

func gcd(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}
