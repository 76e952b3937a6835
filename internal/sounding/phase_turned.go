package sounding

import (
	"fmt"
	"math"
	"math/cmplx"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

// phaseTurned: a fork of bands on one path turns the phase at its crossovers, and the paths beside it no longer add up with it.
func phaseTurned(s *Survey, say func(Sounding)) {
	for _, c := range s.Doc.Channels {
		forks(c, func(f *project.Fork, _ *project.Chain, _ int) {
			if f.Kind != project.Copies && f.Kind != project.Bands {
				return // left and right, middle and side do not meet
			}
			depth, hz := dip(f)
			if depth > -3 {
				return
			}
			x := Sounding{Weight: Caution, Channel: c.ID, At: f.ID}
			inner := ""
			for _, p := range f.Paths {
				for _, g := range turning(p) {
					x.Fixes = append(x.Fixes, fix("Give "+g.Title()+" linear phase", &project.SetFork{ID: g.ID, Linear: ptr(true)}))
					inner = fmt.Sprintf("%s on its path %s", g.Title(), p.Name)
				}
			}
			x.Says = fmt.Sprintf("Where the paths of %s on %s join, %.1f dB are missing at %.0f Hz: %s turns the phase at its crossovers.",
				f.Title(), c.Name, -depth, hz, inner)
			say(x)
		})
	}
}

// turning are the forks of a path's chain that turn its phase.
func turning(p *project.Path) (list []*project.Fork) {
	if !heard(p) || p.Chain.Bypass {
		return nil
	}
	for _, n := range p.Chain.Nodes {
		if g := n.Fork; g != nil && g.Kind == project.Bands && !g.Linear && !g.Bypass && g.Mix > 0 {
			list = append(list, g)
		}
	}
	return list
}

// dip is the most that the sum of a fork's paths loses by phases turned on some of them, in dB, and where, in Hz: from 20 Hz
// to 20 kHz in steps of a 24th of an octave, by the analogue filters.
func dip(f *project.Fork) (depth, hz float64) {
	for k := range 240 {
		at := 20 * math.Exp2(float64(k)/24)
		var sum, straight complex128
		for i, p := range f.Paths {
			if !heard(p) {
				continue
			}
			gain := complex(dsp.Gain(p.Level), 0)
			if p.Invert {
				gain = -gain
			}
			part := gain * bandAt(f, i, at)
			straight += part
			for _, g := range turning(p) {
				for _, x := range g.Crossovers {
					part *= crossAt(at/x, g.Slope).all
				}
			}
			sum += part
		}
		if cmplx.Abs(straight) < 0.25 {
			continue // hardly anything is there anyway
		}
		if d := dsp.Decibels(cmplx.Abs(sum) / cmplx.Abs(straight)); d < depth {
			depth, hz = d, at
		}
	}
	return depth, hz
}

// bandAt is what a fork gives a path of it at a frequency.
func bandAt(f *project.Fork, path int, hz float64) complex128 {
	v := complex128(1)
	for i, x := range f.Crossovers {
		at := crossAt(hz/x, f.Slope)
		if f.Linear {
			at = cross{complex(cmplx.Abs(at.low), 0), complex(cmplx.Abs(at.high), 0), 1}
		}
		switch {
		case i < path:
			v *= at.high
		case i == path:
			v *= at.low
		default:
			v *= at.all
		}
	}
	return v
}

// cross is what a crossover makes of a frequency: its low part, its high part, and the all-pass that they add up to.
type cross struct{ low, high, all complex128 }

// crossAt is a Linkwitz-Riley crossover (Linkwitz, JAES 1976) at a part of its frequency.
func crossAt(ratio float64, slope int) cross {
	dampings := []float64{math.Sqrt2}
	if slope == 48 {
		dampings = []float64{2 * math.Cos(math.Pi/8), 2 * math.Cos(3*math.Pi/8)}
	}
	s := complex(0, ratio)
	c := cross{1, 1, 1}
	for _, k := range dampings {
		under := s*s + complex(k, 0)*s + 1
		c.low /= under * under
		c.high *= s * s / under * (s * s / under)
		c.all *= (s*s - complex(k, 0)*s + 1) / under
	}
	return c
}
