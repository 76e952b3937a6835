package demo

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/synth"
)

// harbour is the water against the quay, in stereo, with gulls now and then.
func harbour(s stretch) *take {
	t := synth.NewTake(s.seconds(), true)
	for side, out := range [][]float64{t.L, t.R} {
		d := dice{Seed: 0x4a + uint64(side)}
		low, high := synth.NewResonator(240, 0.6), synth.NewResonator(1500, 0.5)
		for i := range out {
			x := float64(i) / rate
			// two swells that do not quite agree, a little apart on the sides
			swell := 0.5 + 0.5*dsp.Drift(7, x/3.1+0.12*float64(side))
			lap := math.Max(0, dsp.Drift(19+uint64(side), x/0.6))
			n := 2*d.Roll() - 1
			out[i] = 0.5*(0.3+swell)*low.Next(n) + 0.22*swell*swell*high.Next(n) + 0.25*lap*lap*high.Next(n)*swell
		}
	}
	d := dice{Seed: 0x6011}
	for at := 3.0; at < s.seconds()-4; at += 7 + 13*d.Roll() {
		gull(t, &d, at, d.Roll())
	}
	t.Level(-12)
	return t
}

// gull calls a few times: a falling cry with strong overtones.
func gull(t *take, d *dice, at, pan float64) {
	gain := d.About(0.16, 0.5)
	calls := 2 + int(d.Roll()*4)
	base := d.About(980, 0.2)
	for range calls {
		n := int(d.About(0.34, 0.3) * rate)
		start := int(at * rate)
		phase := 0.0
		for i := range n {
			x := float64(i) / float64(n)
			f := base * (1.25 - 0.5*x*x + 0.25*math.Exp(-x*14))
			phase += f / rate
			env := math.Sin(math.Pi*math.Min(1, x*3)/2) * math.Pow(1-x, 0.7)
			tone := math.Sin(2*math.Pi*phase) + 0.6*math.Sin(4*math.Pi*phase) + 0.35*math.Sin(6*math.Pi*phase)
			v := gain * env * tone * (1 + 0.3*math.Sin(2*math.Pi*31*x))
			if k := start + i; k < len(t.L) {
				t.L[k] += v * math.Sqrt(1-pan)
				t.R[k] += v * math.Sqrt(pan)
			}
		}
		at += d.About(0.46, 0.25)
	}
}
