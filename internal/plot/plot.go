// Package plot draws what was measured as SVG pictures for documents.
package plot

import (
	"fmt"
	"math"
	"strings"
)

// Axis is one side of a plot.
type Axis struct {
	Label    string
	From, To float64
	Ticks    []float64
	Log      bool
}

// part is how far along an axis something lies: 0 at its beginning, 1 at its end.
func (a Axis) part(x float64) float64 {
	if a.Log {
		return math.Log(x/a.From) / math.Log(a.To/a.From)
	}
	return (x - a.From) / (a.To - a.From)
}

// Line is a curve in a plot.
type Line struct {
	Name   string
	X, Y   []float64
	Dashed bool
}

// Plot is a picture of what was measured.
type Plot struct {
	Name, Says string
	X, Y       Axis
	Lines      []Line
}

const (
	wide, high   = 760.0, 320.0
	left, bottom = 54.0, 34.0
	top, right   = 14.0, 150.0
)

// colours are those of the lines, in their order.
var colours = []string{"#1d5f8a", "#b4532a", "#3a7d44", "#7a4f9a", "#8a7a1d", "#555555"}

// SVG draws a plot.
func (p Plot) SVG() string {
	wide, right := wide, right
	for _, l := range p.Lines { // names stand beside the plot, in whole
		if room := 40 + 6*float64(len(l.Name)); room > right {
			wide, right = wide+room-right, room
		}
	}
	across := func(x float64) float64 { return left + (wide-left-right)*p.X.part(x) }
	up := func(y float64) float64 {
		return high - bottom - (high-bottom-top)*math.Max(0, math.Min(1, p.Y.part(y)))
	}
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %g %g" font-family="sans-serif" font-size="11">`+"\n", wide, high)
	fmt.Fprintf(&b, `<rect width="%g" height="%g" fill="#fff"/>`+"\n", wide, high)
	for _, x := range p.X.Ticks {
		fmt.Fprintf(&b, `<path d="M%.1f %.1fV%.1f" stroke="#ddd"/><text x="%.1f" y="%.1f" text-anchor="middle">%g</text>`+"\n",
			across(x), top, high-bottom, across(x), high-bottom+14, x)
	}
	for _, y := range p.Y.Ticks {
		fmt.Fprintf(&b, `<path d="M%.1f %.1fH%.1f" stroke="#ddd"/><text x="%.1f" y="%.1f" text-anchor="end">%g</text>`+"\n",
			left, up(y), wide-right, left-6, up(y)+4, y)
	}
	fmt.Fprintf(&b, `<text x="%.1f" y="%.1f" text-anchor="middle">%s</text>`+"\n", (left+wide-right)/2, high-4, p.X.Label)
	fmt.Fprintf(&b, `<text x="6" y="%.1f">%s</text>`+"\n", top-3, p.Y.Label)
	for i, l := range p.Lines {
		var d strings.Builder
		for k := range l.X {
			fmt.Fprintf(&d, "%s%.1f %.1f", map[bool]string{true: "M", false: "L"}[k == 0], across(l.X[k]), up(l.Y[k]))
		}
		dash := ""
		if l.Dashed {
			dash = ` stroke-dasharray="4 3"`
		}
		fmt.Fprintf(&b, `<path d="%s" fill="none" stroke="%s" stroke-width="1.4"%s/>`+"\n", d.String(), colours[i%len(colours)], dash)
		y := top + 16*float64(i+1)
		fmt.Fprintf(&b, `<path d="M%.1f %.1fh18" stroke="%s" stroke-width="2"%s/><text x="%.1f" y="%.1f">%s</text>`+"\n",
			wide-right+10, y-4, colours[i%len(colours)], dash, wide-right+34, y, l.Name)
	}
	b.WriteString("</svg>\n")
	return b.String()
}
