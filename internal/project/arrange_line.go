package project

import "shoal/internal/param"

// arranged is the line's points with the pieces of the song where they come to stand: at each place the line
// has the value that it had there before.
func (l *Line) arranged(order []piece, d param.Param, base float64) []Point {
	var out []Point
	for _, x := range order {
		points := l.cutOut(x, d, base)
		if n := len(out); n > 0 && len(points) > 0 && out[n-1].Value == points[0].Value && out[n-1].Tick == points[0].Tick {
			out = out[:n-1]
		}
		out = append(out, points...)
	}
	return out
}

// cutOut is the part of a line that lies in a piece, with a point at its begin and one at its end.
func (l *Line) cutOut(x piece, d param.Param, base float64) []Point {
	at := func(tick float64) float64 { return l.At(tick, d, base) }
	move := x.at - x.from
	var out []Point
	put := func(tick int64, value float64, shape string, bend float64) {
		out = append(out, Point{tick + move, value, shape, bend})
	}
	i, j := l.Inside(x.from, x.to-1)
	if i == j || l.Points[i].Tick > x.from { // it begins between two points
		to := x.to
		if i < j {
			to = l.Points[i].Tick
		}
		l.between(i-1, x.from, to, at, put)
	}
	for k := i; k < j; k++ {
		pt := l.Points[k]
		if k+1 < len(l.Points) && l.Points[k+1].Tick > x.to { // it is cut between two points
			l.between(k, pt.Tick, x.to, at, put)
			continue
		}
		put(pt.Tick, pt.Value, pt.Shape, pt.Bend)
	}
	put(x.to, at(float64(x.to)-1e-6), Hold, 0)
	return out
}

// between draws a part of the segment behind a point: whole where that can be said, else in short ramps.
func (l *Line) between(k int, from, to int64, at func(float64) float64, put func(int64, float64, string, float64)) {
	shape := Hold
	if k >= 0 && k+1 < len(l.Points) {
		shape = l.Points[k].Shape
	}
	if shape == Hold || shape == Ramp {
		put(from, at(float64(from)), shape, 0)
		return
	}
	for tick := from; tick < to; tick += spanGrid {
		put(tick, at(float64(tick)), Ramp, 0)
	}
}
