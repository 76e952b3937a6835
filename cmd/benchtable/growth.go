package main

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"shoal/internal/plot"
)

// growing are the benchmarks that are run at several sizes, by what there is more of.
var growing = []struct{ family, says string }{
	{"Tracks", "rows of six stages"},
	{"Channels", "rows, five sends each"},
	{"Sends", "sends, on 100 rows"},
	{"ForkPaths", "paths of a fork"},
	{"Automation", "points of a line"},
	{"Clips", "clips of a row"},
}

// growth is how what a frame costs grows with how much there is: both as how many times the smallest.
func growth(r *Report) (plot.Plot, bool) {
	p := plot.Plot{
		Name: "growth", Says: "What a frame costs, as there is more of something",
		X: plot.Axis{Label: "times as many", From: 1, To: 10, Log: true},
		Y: plot.Axis{Label: "times the cost", From: 1, To: 10, Log: true},
	}
	for _, g := range growing {
		if l, ok := r.growing(g.family, g.says); ok {
			p.Lines = append(p.Lines, l)
			p.X.To, p.Y.To = max(p.X.To, slices.Max(l.X)), max(p.Y.To, slices.Max(l.Y))
		}
	}
	if len(p.Lines) == 0 {
		return p, false
	}
	p.Y.From = 0.5 // what costs the same is a line that is seen
	p.X.Ticks, p.Y.Ticks = decades(p.X), decades(p.Y)
	p.Lines = append(p.Lines, plot.Line{Name: "in proportion", X: []float64{1, p.Y.To}, Y: []float64{1, p.Y.To}, Dashed: true})
	return p, true
}

// growing is the line of a benchmark whose rounds are named by their sizes.
func (r *Report) growing(family, says string) (plot.Line, bool) {
	type at struct{ size, cost float64 }
	var all []at
	for i := range r.Figures {
		name, ok := strings.CutPrefix(r.Figures[i].Name, family+"/")
		if size, err := strconv.ParseFloat(name, 64); ok && err == nil && size > 0 {
			all = append(all, at{size, r.Figures[i].middle()})
		}
	}
	if len(all) < 2 {
		return plot.Line{}, false
	}
	slices.SortFunc(all, func(a, b at) int { return int(a.size - b.size) })
	l := plot.Line{Name: fmt.Sprintf("%s, %g to %g", says, all[0].size, all[len(all)-1].size)}
	for _, x := range all {
		l.X, l.Y = append(l.X, x.size/all[0].size), append(l.Y, x.cost/all[0].cost)
	}
	return l, true
}

// decades are the powers of ten on an axis.
func decades(a plot.Axis) (list []float64) {
	for x := 1.0; x <= math.Ceil(a.To); x *= 10 {
		list = append(list, x)
	}
	return list
}
