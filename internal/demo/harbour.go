package demo

import (
	"math"

	"shoal/internal/dsp"
)

// harbour is the water against the quay, in stereo, with gulls now and then.
func harbour(s stretch) *take {
	t := newTake(s.seconds(), true)
	for side, out := range [][]float64{t.l, t.r} {
		d := dice{seed: 0x4a + uint64(side)}
		low, high := newResonator(240, 0.6), newResonator(1500, 0.5)
		for i := range out {
			x := float64(i) / rate
			// two swells that do not quite agree, a little apart on the sides
			swell := 0.5 + 0.5*dsp.Drift(7, x/3.1+0.12*float64(side))
			lap := math.Max(0, dsp.Drift(19+uint64(side), x/0.6))
			n := 2*d.roll() - 1
			out[i] = 0.5*(0.3+swell)*low.next(n) + 0.22*swell*swell*high.next(n) + 0.25*lap*lap*high.next(n)*swell
		}
	}
	d := dice{seed: 0x6011}
	for at := 3.0; at < s.seconds()-4; at += 7 + 13*d.roll() {
		gull(t, &d, at, d.roll())
	}
	t.level(-12)
	return t
}

// gull calls a few times: a falling cry with strong overtones.
func gull(t *take, d *dice, at, pan float64) {
	gain := d.about(0.16, 0.5)
	calls := 2 + int(d.roll()*4)
	base := d.about(980, 0.2)
	for range calls {
		n := int(d.about(0.34, 0.3) * rate)
		start := int(at * rate)
		phase := 0.0
		for i := range n {
			x := float64(i) / float64(n)
			f := base * (1.25 - 0.5*x*x + 0.25*math.Exp(-x*14))
			phase += f / rate
			env := math.Sin(math.Pi*math.Min(1, x*3)/2) * math.Pow(1-x, 0.7)
			v := gain * env * (math.Sin(2*math.Pi*phase) + 0.6*math.Sin(4*math.Pi*phase) + 0.35*math.Sin(6*math.Pi*phase)) * (1 + 0.3*math.Sin(2*math.Pi*31*x))
			if k := start + i; k < len(t.l) {
				t.l[k] += v * math.Sqrt(1-pan)
				t.r[k] += v * math.Sqrt(pan)
			}
		}
		at += d.about(0.46, 0.25)
	}
}
