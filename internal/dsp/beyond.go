package dsp

import (
	"math"
	"sync"
)

const (
	beyondTaps   = 256 // of the place in the middle between two samples
	beyondNear   = 16  // of the others, between samples and middles
	beyondPlaces = 7
)

// BeyondLag is how many frames after a sample Beyond knows the peak around it.
const BeyondLag = beyondTaps/2 + beyondNear/4

type beyondData struct {
	middle    [beyondTaps]float64
	near      [beyondPlaces][beyondNear]float64
	far, both float64 // the most by which a middle, and by which anything, can exceed the samples
	reach     float64 // the most by which what is near can exceed samples and middles
}

// beyondTable holds the taps of both steps (Kaiser windows).
var beyondTable = sync.OnceValue(func() *beyondData {
	t := &beyondData{}
	taps := func(c []float64, place, beta float64) (reach float64) {
		sum := 0.0
		for i := range c {
			x := float64(i-len(c)/2+1) - place
			c[i] = sinc(x) * kaiser(x/float64(len(c)/2), beta)
			sum += c[i]
		}
		for i := range c {
			c[i] /= sum
			reach += math.Abs(c[i])
		}
		return reach
	}
	t.far = taps(t.middle[:], 0.5, 6)
	for p := range t.near {
		t.reach = max(t.reach, taps(t.near[p][:], float64(p+1)/(beyondPlaces+1), 7))
	}
	t.both = t.far * t.reach
	return t
})

// Beyond finds the peaks of a stereo signal between its samples, of all that lies below 0.49 of the rate: what lies in the
// middle between two samples first, by many taps, and then seven places on either side of it by few.
type Beyond struct{ l, r beyondSide }

// beyondAgain is how many middles of the block before are worked out again: it may have been too soft for that.
const beyondAgain = beyondNear / 2

type beyondSide struct {
	x [beyondAgain + beyondTaps - 1 + betweenBlock]float64 // samples
	d [2*beyondAgain + 2*betweenBlock]float64              // samples and the middles behind them
}

// NewBeyond makes one with silence before.
func NewBeyond() *Beyond {
	beyondTable()
	return &Beyond{}
}

// Clear empties it.
func (b *Beyond) Clear() { *b = Beyond{} }

// Peaks writes for each frame the largest magnitude of the sample BeyondLag before and of what lies between it and the next.
// What cannot reach floor may be left out. At most 128 frames.
func (b *Beyond) Peaks(dst, l, r []float64, floor float64) {
	clear(dst)
	b.l.peaks(dst, l, floor)
	b.r.peaks(dst, r, floor)
}

func (s *beyondSide) peaks(dst, x []float64, floor float64) {
	t := beyondTable()
	n := len(x)
	copy(s.x[beyondAgain+beyondTaps-1:], x)
	low := Highest(s.x[:beyondAgain+beyondTaps-1+n])*t.both < floor
	for i := range beyondAgain + n {
		w := (*[beyondTaps]float64)(s.x[i:])
		s.d[2*i] = w[beyondTaps/2-1]
		if !low {
			s.d[2*i+1] = t.mid(w)
		}
	}
	for i := range dst {
		at := 2*(i+1) + beyondNear/2 - 1 // the sample, with as much on either side of it
		a := math.Abs(s.d[at-1])
		if !low {
			a = max(a, t.peak((*[beyondNear]float64)(s.d[at-beyondNear/2:]), floor), t.peak((*[beyondNear]float64)(s.d[at+1-beyondNear/2:]), floor))
		}
		dst[i] = max(dst[i], a)
	}
	copy(s.x[:beyondAgain+beyondTaps-1], s.x[n:])
}

func (t *beyondData) mid(w *[beyondTaps]float64) float64 {
	var s0, s1, s2, s3 float64
	for k := 0; k < beyondTaps/2; k += 4 { // the taps are the same from both ends
		s0 += t.middle[k] * (w[k] + w[beyondTaps-1-k])
		s1 += t.middle[k+1] * (w[k+1] + w[beyondTaps-2-k])
		s2 += t.middle[k+2] * (w[k+2] + w[beyondTaps-3-k])
		s3 += t.middle[k+3] * (w[k+3] + w[beyondTaps-4-k])
	}
	return (s0 + s1) + (s2 + s3)
}

// peak is the highest between the two in the middle of a window, and of the first of them.
func (t *beyondData) peak(w *[beyondNear]float64, floor float64) float64 {
	top := Highest(w[:])
	peak := math.Abs(w[beyondNear/2-1])
	if top*t.reach < floor {
		return peak
	}
	for p := range t.near {
		c := &t.near[p]
		var a, b float64
		for k := 0; k < beyondNear; k += 2 {
			a += c[k] * w[k]
			b += c[k+1] * w[k+1]
		}
		peak = max(peak, math.Abs(a+b))
	}
	return peak
}
