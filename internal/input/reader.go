package input

import (
	"shoal/internal/dsp"
	"shoal/internal/synth"
)

// lineSeconds is how long the reader takes for a line, with the breath behind it.
const lineSeconds = 3

// reader reads a line of the tide table in every page.
type reader struct {
	frames int
	gain   float64
}

func newReader(s Setting) voice { return &reader{int(lineSeconds * s.Rate), 0.34} }

func (v *reader) size() int { return v.frames }

func (v *reader) page(k int64, l, r []float64) {
	t := synth.NewTake(lineSeconds, false)
	d := synth.Dice{Seed: dsp.Hash(uint64(k) + 0x71de)}
	t.ReadLine(&d, 0.1+0.1*d.Roll())
	for i := range min(len(l), len(t.L)) { // at another rate the voice is higher or lower, and no worse for it
		l[i] = v.gain * t.L[i]
	}
	copy(r, l)
}

// hot is the reader through an input that is open too far.
type hot struct{ *reader }

func newHot(s Setting) voice { return hot{&reader{int(lineSeconds * s.Rate), 3.4}} }

func (v hot) page(k int64, l, r []float64) {
	v.reader.page(k, l, r)
	for i, x := range l {
		l[i] = min(1, max(-1, x))
	}
	copy(r, l)
}
