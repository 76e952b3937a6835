package project

import (
	"cmp"
	"slices"
)

// Chart is a project drawn small, as a list of projects shows it: its sections and rows, and where something lies in time.
type Chart struct {
	Seconds  float64        `json:"seconds" required:"true"` // to the end of its last clip; 0: there is none
	Sections []ChartSection `json:"sections" required:"true"`
	Rows     []ChartRow     `json:"rows" required:"true"`
}

// ChartSection is a section, from a part of the whole length on (0 to 1): as far as clips and sections reach.
type ChartSection struct {
	Name string  `json:"name" required:"true"`
	At   float64 `json:"at" required:"true"`
}

// ChartRow is a row that is shown: how many stages stand on it, and where its clips lie.
type ChartRow struct {
	Name   string `json:"name" required:"true"`
	Kind   string `json:"kind" required:"true" enum:"track,group,return,main"`
	Tint   int    `json:"tint" required:"true"`
	Stages int    `json:"stages" required:"true"`
	// Clips are stretches of the whole length (0 to 1), from and to; those that touch are one.
	Clips [][2]float64 `json:"clips" required:"true"`
}

// Chart draws the project small.
func (p *Project) Chart() Chart {
	clock := p.Clock()
	end := int64(1)
	for _, c := range p.Channels {
		for _, x := range c.Clips {
			end = max(end, x.BeginsAt(clock)+x.Frames)
		}
	}
	c := Chart{Sections: []ChartSection{}, Rows: []ChartRow{}}
	if end > 1 {
		c.Seconds = float64(end) / float64(p.SampleRate)
	}
	for _, s := range p.Sections { // the last one may stand behind everything: it has an eighth then
		if at := clock.Frame(s.Tick); at >= end {
			end = max(at*8/7, 1)
		}
	}
	for _, s := range p.Sections {
		c.Sections = append(c.Sections, ChartSection{s.Name, float64(clock.Frame(s.Tick)) / float64(end)})
	}
	for _, ch := range p.Channels {
		if ch.Hidden {
			continue
		}
		r := ChartRow{Name: ch.Name, Kind: ch.Kind, Tint: ch.Tint, Clips: [][2]float64{}}
		ch.Chain.Walk(func(_ *Chain, _ int, n *Node) bool {
			if n.Stage != nil {
				r.Stages++
			}
			return true
		})
		for _, s := range ch.sounds(clock) {
			r.Clips = append(r.Clips, [2]float64{float64(s[0]) / float64(end), float64(s[1]) / float64(end)})
		}
		c.Rows = append(c.Rows, r)
	}
	return c
}

// sounds are the stretches of the song, in frames, on which clips lie; those that touch are one.
func (c *Channel) sounds(clock *Clock) [][2]int64 {
	list := make([][2]int64, 0, len(c.Clips))
	for _, x := range c.Clips {
		at := x.BeginsAt(clock)
		list = append(list, [2]int64{at, at + x.Frames})
	}
	slices.SortFunc(list, func(a, b [2]int64) int { return cmp.Compare(a[0], b[0]) })
	all := list[:0]
	for _, s := range list {
		if n := len(all) - 1; n >= 0 && s[0] <= all[n][1] {
			all[n][1] = max(all[n][1], s[1])
			continue
		}
		all = append(all, s)
	}
	return all
}
