package dsp

import (
	"math"
	"sync"
)

const (
	betweenTaps   = 48
	betweenPhases = 16
	betweenBlock  = 128
)

// BetweenLag is how many frames after a sample the peak around it is known.
const BetweenLag = betweenTaps / 2

type betweenData struct {
	c     [betweenPhases - 1][betweenTaps]float64
	bound float64
}

// betweenTable holds the taps of fifteen places between two samples (Kaiser
// window, 48 taps) and the most by which they can exceed the samples.
var betweenTable = sync.OnceValue(func() *betweenData {
	t := &betweenData{}
	for p := range t.c {
		sum, reach := 0.0, 0.0
		for i := range t.c[p] {
			x := float64(i-betweenTaps/2+1) - float64(p+1)/betweenPhases
			t.c[p][i] = sinc(x) * kaiser(x/(betweenTaps/2), 8)
			sum += t.c[p][i]
		}
		for i := range t.c[p] {
			t.c[p][i] /= sum
			reach += math.Abs(t.c[p][i])
		}
		t.bound = max(t.bound, reach)
	}
	return t
})

// Between finds the peaks of a stereo signal between its samples, by interpolating
// sixteen times.
type Between struct {
	l, r [betweenTaps - 1 + betweenBlock]float64
}

// NewBetween makes one with silence before.
func NewBetween() *Between {
	betweenTable()
	return &Between{}
}

// Clear empties it.
func (b *Between) Clear() { *b = Between{} }

// Peaks writes for each frame the largest magnitude of the sample BetweenLag
// before and of what lies between it and the next. Where that cannot reach floor,
// whatever lies between, only the samples count. At most 128 frames.
func (b *Between) Peaks(dst, l, r []float64, floor float64) {
	t := betweenTable()
	const keep = betweenTaps - 1
	copy(b.l[keep:], l)
	copy(b.r[keep:], r)
	for i := range dst {
		wl, wr := (*[betweenTaps]float64)(b.l[i:]), (*[betweenTaps]float64)(b.r[i:])
		top := math.Abs(wl[betweenTaps/2-1])
		for _, v := range [3]float64{math.Abs(wr[betweenTaps/2-1]), t.peak(wl, floor), t.peak(wr, floor)} {
			if v > top {
				top = v
			}
		}
		dst[i] = top
	}
	copy(b.l[:keep], b.l[len(l):])
	copy(b.r[:keep], b.r[len(r):])
}

func (t *betweenData) peak(w *[betweenTaps]float64, floor float64) float64 {
	// the two samples next to the gap weigh most; the rest is bounded by the window's reach
	top := 0.0
	for _, v := range w {
		if v = math.Abs(v); v > top {
			top = v
		}
	}
	if top*t.bound < floor {
		return 0
	}
	peak := 0.0
	for p := range t.c {
		c := &t.c[p]
		var a, b float64
		for k := 0; k < betweenTaps; k += 2 {
			a += c[k] * w[k]
			b += c[k+1] * w[k+1]
		}
		if a = math.Abs(a + b); a > peak {
			peak = a
		}
	}
	return peak
}
