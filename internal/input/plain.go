package input

import (
	"math"

	"shoal/internal/dsp"
)

// plainPage is how many frames of what has no notes are made at once.
const plainPage = 4096

// plain is a voice of which every frame can be worked out by itself.
type plain func(frame int64) (l, r float64)

func (plain) size() int { return plainPage }

func (f plain) page(k int64, l, r []float64) {
	for i := range l {
		l[i], r[i] = f(k*plainPage + int64(i))
	}
}

// newTone is 1 kHz at -18 dBFS, as a sine of that peak.
func newTone(s Setting) voice {
	peak := dsp.Gain(-18)
	return plain(func(n int64) (float64, float64) {
		v := peak * turn(1000, n, s.Rate)
		return v, v
	})
}

func newHum(s Setting) voice {
	return plain(func(n int64) (float64, float64) {
		v := 0.05*turn(50, n, s.Rate) + 0.02*turn(150, n, s.Rate) + 0.01*turn(250, n, s.Rate) + 0.004*turn(350, n, s.Rate)
		return v, v
	})
}

// newRoom is noise of three frames' mean, with its own on each side.
func newRoom(Setting) voice {
	level := dsp.Gain(-62)
	side := func(seed uint64, n int64) float64 {
		return level * (dsp.White(seed, n) + dsp.White(seed, n-1) + dsp.White(seed, n-2)) / 3
	}
	return plain(func(n int64) (float64, float64) { return side(0x400, n), side(0x401, n) })
}

// turn is a sine of whole Hz at a frame: whole turns are taken off first, so that it is as exact after an hour.
func turn(hz, n int64, rate float64) float64 {
	return math.Sin(2 * math.Pi * float64(hz*n%int64(rate)) / rate)
}
