package project

import (
	"fmt"
	"slices"
)

// PastePoints puts copied points down so that the first of them stands at From. Of names the
// parameter that they come from: for another one their range is adapted.
type PastePoints struct {
	Stretch
	Points []Point  `json:"points"`
	Of     *Address `json:"of,omitempty"`
	// Origin is the tick of theirs that comes to stand at From; nil: that of the first. Points of
	// several lines that were copied together have one.
	Origin *int64 `json:"origin,omitempty"`
}

// Address names a parameter.
type Address struct {
	Owner string `json:"owner"`
	Name  string `json:"name"`
}

func (c *PastePoints) apply(p *Project, effects Effects) ([]Change, error) {
	if len(c.Points) == 0 {
		return nil, fmt.Errorf("there is nothing to paste")
	}
	c.To = c.From
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	source := w.d
	if c.Of != nil {
		if f, err := p.address(c.Of.Owner, c.Of.Name, effects); err == nil {
			source = f.Param
		}
	}
	origin := c.Points[0].Tick
	if c.Origin != nil {
		origin = *c.Origin
	}
	var out []Point
	for _, pt := range c.Points {
		v := w.d.At(max(0, min(1, source.Place(source.Clamp(pt.Value)))))
		if source.Unit == w.d.Unit && source.Taper == w.d.Taper {
			v = pt.Value
		}
		out = append(out, Point{max(0, w.from+pt.Tick-origin), w.value(v), w.shape(pt.Shape), pt.Bend})
	}
	return w.edit(p, effects, out[0].Tick, out[len(out)-1].Tick, out)
}

// TakenDown is what a hand did with a parameter while the song played: values at frames, thinned to
// the fewest points within the bounds of thinning. Behind its end the line is reached again
// after Glide frames.
type TakenDown struct {
	Stretch
	Frames []int64   `json:"frames"`
	Values []float64 `json:"values"`
	Glide  int64     `json:"glide"`
}

func (c *TakenDown) apply(p *Project, effects Effects) ([]Change, error) {
	if len(c.Frames) == 0 || len(c.Frames) != len(c.Values) {
		return nil, fmt.Errorf("nothing was taken down")
	}
	c.From, c.To = c.Frames[0], c.Frames[len(c.Frames)-1]
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	var taken []Point
	for k, f := range c.Frames {
		pt := Point{Tick: w.tick(f), Value: w.value(c.Values[k]), Shape: w.shape("")}
		if n := len(taken); n > 0 && pt.Tick <= taken[n-1].Tick {
			taken[n-1].Value = pt.Value // two values in one tick: the later one counts
			continue
		}
		taken = append(taken, pt)
	}
	if w.d.Stepped() {
		taken = slices.CompactFunc(taken, func(a, b Point) bool { return a.Value == b.Value })
	} else {
		taken = thinned(taken, w.d, 0)
	}
	end := taken[len(taken)-1].Tick
	back := max(end+1, w.tick(c.To+c.Glide))
	after := w.at(back)
	before := w.at(w.from)
	i, _ := w.line.Inside(w.from, w.from)
	from := w.from
	var out []Point
	if len(w.line.Points) == 0 || i == 0 && w.from > 0 { // the line was flat as far as here
		out = append(out, Point{Tick: 0, Value: before, Shape: Hold})
		from = 0
	} else if i > 0 && w.line.Points[i-1].Shape != Hold {
		out = append(out, Point{Tick: w.from, Value: before, Shape: Hold})
	}
	out = append(out, taken...)
	if c.Glide <= 0 {
		out[len(out)-1].Shape = Hold
	}
	shape, bend := Hold, 0.0
	if _, j := w.line.Inside(0, back); j > 0 && j < len(w.line.Points) {
		shape, bend = w.line.Points[j-1].Shape, w.line.Points[j-1].Bend
	}
	out = append(out, Point{Tick: back, Value: after, Shape: shape, Bend: bend})
	return w.edit(p, effects, from, back, out)
}
