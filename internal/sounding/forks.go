package sounding

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

// forks calls f for every fork that works on a channel's chain, with the chain it stands in.
func forks(c *project.Channel, f func(fork *project.Fork, in *project.Chain, i int)) {
	if c.Chain.Bypass {
		return
	}
	c.Chain.Walk(func(in *project.Chain, i int, n *project.Node) bool {
		if n.Fork != nil && !n.Fork.Bypass && n.Fork.Mix > 0 {
			f(n.Fork, in, i)
		}
		return true
	})
}

// heard reports whether a path reaches the end of its fork, by its settings.
func heard(p *project.Path) bool { return !p.Mute && p.Level > dsp.Off }

// dry reports whether nothing on a path changes the signal.
func dry(p *project.Path) bool {
	if p.Chain.Bypass {
		return true
	}
	return p.Chain.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
		return n.Stage != nil && (n.Stage.Bypass || n.Stage.Mix == 0 || neutral(n.Stage)) || n.Fork != nil && n.Fork.Bypass
	})
}

// still reports whether a path joins as it was divided: no level, pan, width, mute or polarity.
func still(p *project.Path) bool {
	return !p.Mute && p.Level == 0 && p.Pan == 0 && p.Width == 100 && !p.Invert
}

// plain reports whether a fork leaves the signal as it is, apart from dividing it.
func plain(f *project.Fork) bool {
	for _, p := range f.Paths {
		if len(p.Chain.Nodes) > 0 || f.Kind != project.Copies && !still(p) {
			return false
		}
	}
	return true
}

// direct is the gain, with its sign, with which the untreated signal comes through the dry paths
// of a fork of copies; paths counts them.
func direct(f *project.Fork) (gain float64, paths int) {
	for _, p := range f.Paths {
		if !heard(p) || !dry(p) || p.Pan != 0 {
			continue
		}
		g := dsp.Gain(p.Level)
		if p.Invert {
			g = -g
		}
		gain += g
		paths++
	}
	return gain, paths
}

func tenth(v float64) float64 { return math.Round(v*10) / 10 }
