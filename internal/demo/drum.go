package demo

import (
	"math"

	"shoal/internal/synth"
)

// frameDrum plays low strokes, rim strokes and finger taps on a goatskin.
func frameDrum(s stretch) *take {
	t := synth.NewTake(s.seconds(), false)
	d := dice{Seed: 0xd40}
	grooves := []string{"D--T-t", "D-tT-t", "D--DTt", "D-tT-T"}
	for b := s.from; b < s.to; b++ {
		g := grooves[(b-s.from)%4]
		if (b-s.from)%8 == 7 {
			g = "DtTDtT"
		}
		for i, c := range g {
			at := float64(b-s.from)*bar + float64(i)*eighth + 0.006*d.Roll()
			switch c {
			case 'D':
				skin(t, &d, at, 74, d.About(1, 0.1), 0.55)
			case 'T':
				skin(t, &d, at, 148, d.About(0.5, 0.2), 0.16)
				rim(t, &d, at, d.About(0.5, 0.2))
			case 't':
				rim(t, &d, at, d.About(0.22, 0.4))
			}
		}
	}
	t.Level(-7)
	return t
}

func skin(t *take, d *dice, at, f, gain, ring float64) {
	t.Struck = append(t.Struck, at)
	start, n := int(at*rate), int(ring*2*rate)
	phase, second := 0.0, 0.0
	for i := range n {
		x := float64(i) / rate
		pitch := f * (1 + 0.55*math.Exp(-x/0.022))
		phase += pitch / rate
		second += pitch * 1.593 / rate // second mode of a round membrane
		env := math.Exp(-x*6.9/ring) * math.Min(1, x/0.0015)
		t.Add(start+i, gain*(env*math.Sin(2*math.Pi*phase)+0.35*env*math.Exp(-x/0.05)*math.Sin(2*math.Pi*second)))
	}
	knock := synth.NewSmooth(0.0002)
	for i := range 900 {
		k := 1 - float64(i)/900
		t.Add(start+i, 0.3*gain*k*k*k*knock.Next(2*d.Roll()-1))
	}
}

func rim(t *take, d *dice, at, gain float64) {
	t.Struck = append(t.Struck, at)
	start := int(at * rate)
	a, b := synth.NewResonator(1650, 4), synth.NewResonator(3900, 3)
	for i := range 3600 {
		x := float64(i) / rate
		v := (2*d.Roll() - 1) * math.Exp(-x/0.012)
		t.Add(start+i, gain*(1.3*a.Next(v)+0.9*b.Next(v)))
	}
}
