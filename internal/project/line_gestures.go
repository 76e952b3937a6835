package project

import (
	"fmt"
	"math"
	"slices"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// Gestures on a stretch of a line. They are given song frames, as they are seen and heard, and a
// grid in ticks to which points snap (0: none); ticks are worked out here. Each of them is an EditLine.

// Stretch is a part of a parameter's line, in song frames.
type Stretch struct {
	Owner string `json:"owner"`
	Name  string `json:"name"`
	From  int64  `json:"from"`
	To    int64  `json:"to"`
	Snap  int64  `json:"snap,omitempty"`
}

// worked is a stretch worked out: its line, parameter and ticks.
type worked struct {
	Stretch
	line     *Line
	d        param.Param
	base     float64
	clock    *Clock
	from, to int64
}

func (s Stretch) work(p *Project, effects Effects) (*worked, error) {
	f, err := p.address(s.Owner, s.Name, effects)
	if err != nil {
		return nil, err
	}
	if f.Structural {
		return nil, fmt.Errorf("%s cannot be automated: it changes latency or memory", f.Label)
	}
	w := &worked{Stretch: s, d: f.Param, base: f.get(), clock: p.Clock()}
	if w.line, _ = p.line(s.Owner, s.Name); w.line == nil {
		w.line = &Line{Owner: s.Owner, Name: s.Name}
	}
	w.from, w.to = w.tick(s.From), w.tick(s.To)
	if w.to < w.from {
		return nil, fmt.Errorf("the stretch ends before it begins")
	}
	return w, nil
}

// tick is the tick of a frame, on the grid.
func (w *worked) tick(frame int64) int64 {
	t := w.clock.Tick(max(frame, 0))
	if w.Snap > 0 {
		return int64(math.Round(t/float64(w.Snap))) * w.Snap
	}
	return int64(math.Round(t))
}

func (w *worked) at(tick int64) float64 { return w.line.At(float64(tick), w.d, w.base) }

// shape is how points of this parameter go on: switches and choices can only step.
func (w *worked) shape(s string) string {
	if w.d.Stepped() || s == "" && w.d.Stepped() {
		return Hold
	}
	if s == "" {
		return Ramp
	}
	return s
}

// value brings a value into the range, on a step if there are only steps.
func (w *worked) value(v float64) float64 {
	v = w.d.Clamp(v)
	if w.d.Stepped() {
		return math.Round(v)
	}
	return v
}

// edit is the change that puts points in the place of the stretch.
func (w *worked) edit(p *Project, effects Effects, from, to int64, points []Point) ([]Change, error) {
	slices.SortStableFunc(points, func(a, b Point) int { return int(a.Tick - b.Tick) })
	return (&EditLine{w.Owner, w.Name, from, to, points}).apply(p, effects)
}

// PutPoint adds a point at From, or moves the one that is there to Value. A line begins with it.
type PutPoint struct {
	Stretch
	Value float64 `json:"value"`
	Shape string  `json:"shape,omitempty"`
}

func (c *PutPoint) apply(p *Project, effects Effects) ([]Change, error) {
	c.To = c.From
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	shape, bend := w.shape(c.Shape), 0.0
	if i, _ := w.line.inside(w.from+1, w.from+1); i > 0 && c.Shape == "" { // it goes on as the stretch that it parts
		shape, bend = w.line.Points[i-1].Shape, w.line.Points[i-1].Bend
	}
	return w.edit(p, effects, w.from, w.from, []Point{{w.from, w.value(c.Value), shape, bend}})
}

// BeginLine gives a parameter a line: flat, at its present value.
type BeginLine struct {
	Owner string `json:"owner"`
	Name  string `json:"name"`
}

func (c *BeginLine) apply(p *Project, effects Effects) ([]Change, error) {
	w, err := Stretch{Owner: c.Owner, Name: c.Name}.work(p, effects)
	if err != nil {
		return nil, err
	}
	if l, _ := p.line(c.Owner, c.Name); l != nil {
		return nil, fmt.Errorf("%s has a line already", w.d.Label)
	}
	return p.each(effects, &SetLine{Owner: c.Owner, Name: c.Name, Points: []Point{}})
}

// MovePoints moves the points at some ticks, by frames and by a part of the parameter's travel.
type MovePoints struct {
	Stretch
	Ticks []int64 `json:"ticks"`
	By    int64   `json:"by"`
	Up    float64 `json:"up"`
}

func (c *MovePoints) apply(p *Project, effects Effects) ([]Change, error) {
	return c.change(p, effects, c.Ticks, func(w *worked, pt Point) *Point {
		if c.By != 0 {
			pt.Tick = max(0, w.tick(w.clock.Frame(pt.Tick)+c.By))
		}
		if c.Up != 0 {
			pt.Value = w.value(w.d.At(max(0, min(1, w.d.Place(pt.Value)+c.Up))))
		}
		return &pt
	})
}

// change gives every point at some ticks another one, or takes it away.
func (s Stretch) change(p *Project, effects Effects, ticks []int64, to func(w *worked, pt Point) *Point) ([]Change, error) {
	if len(ticks) == 0 {
		return nil, fmt.Errorf("there are no points to change")
	}
	s.To = s.From
	w, err := s.work(p, effects)
	if err != nil {
		return nil, err
	}
	from, end := slices.Min(ticks), slices.Max(ticks)
	i, j := w.line.inside(from, end)
	var out []Point
	found := false
	for _, pt := range w.line.Points[i:j] {
		if !slices.Contains(ticks, pt.Tick) {
			out = append(out, pt)
			continue
		}
		found = true
		if n := to(w, pt); n != nil {
			out = append(out, *n)
		}
	}
	if !found {
		return nil, gone("the point")
	}
	return w.edit(p, effects, from, end, out)
}

// SetPoints sets what is given of the points at some ticks.
type SetPoints struct {
	Stretch
	Ticks []int64  `json:"ticks"`
	Value *float64 `json:"value,omitempty"`
	Shape *string  `json:"shape,omitempty"`
	Bend  *float64 `json:"bend,omitempty"`
}

func (c *SetPoints) apply(p *Project, effects Effects) ([]Change, error) {
	return c.change(p, effects, c.Ticks, func(w *worked, pt Point) *Point {
		if c.Value != nil {
			pt.Value = w.value(*c.Value)
		}
		if c.Shape != nil {
			pt.Shape = w.shape(*c.Shape)
		}
		if c.Bend != nil {
			pt.Bend = max(-1, min(1, *c.Bend))
			if !w.d.Stepped() {
				pt.Shape = Curve
			}
		}
		return &pt
	})
}

// CutPoints takes points away.
type CutPoints struct {
	Stretch
	Ticks []int64 `json:"ticks"`
}

func (c *CutPoints) apply(p *Project, effects Effects) ([]Change, error) {
	return c.change(p, effects, c.Ticks, func(*worked, Point) *Point { return nil })
}

// HoldStretch gives a stretch one value, with steps at both ends: "on for the solo, off after".
type HoldStretch struct {
	Stretch
	Value float64 `json:"value"`
}

func (c *HoldStretch) apply(p *Project, effects Effects) ([]Change, error) {
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	return w.replace(p, effects, []Point{{Tick: w.from, Value: w.value(c.Value), Shape: Hold}})
}

// replace puts points in the place of the stretch; before it and behind it the line stays what it was.
func (w *worked) replace(p *Project, effects Effects, points []Point) ([]Change, error) {
	if w.to <= w.from {
		return nil, fmt.Errorf("select a stretch of the line first")
	}
	before, after := w.at(w.from), w.at(w.to)
	i, j := w.line.inside(w.from, w.to)
	shape, bend := w.shape(""), 0.0
	if j > 0 {
		shape, bend = w.line.Points[j-1].Shape, w.line.Points[j-1].Bend
	}
	if len(w.line.Points) == 0 || j == len(w.line.Points) {
		shape, bend = Hold, 0
	}
	var out []Point
	switch {
	case w.from == 0:
	case i > 0 && w.line.Points[i-1].Shape != Hold: // it arrives where it would have been
		out = append(out, Point{Tick: w.from, Value: before, Shape: Hold})
	case i == 0: // the line began later, or was flat
		out = append(out, Point{Tick: 0, Value: before, Shape: Hold})
	}
	from := w.from
	if i == 0 && w.from > 0 {
		from = 0
	}
	out = append(out, points...)
	if last := out[len(out)-1]; last.Tick < w.to && last.Shape != Hold { // the last value is held as far as the end
		out[len(out)-1].Shape = Hold
	}
	out = append(out, Point{Tick: w.to, Value: after, Shape: shape, Bend: bend})
	return w.edit(p, effects, from, w.to, out)
}

// FillStretch gives every so many ticks of a stretch a value: one, rising from low to high, or by
// chance between them. Seed is the throw: the same one falls the same way.
type FillStretch struct {
	Stretch
	Every int64   `json:"every"`
	How   string  `json:"how"` // value, rise, chance
	Low   float64 `json:"low"`
	High  float64 `json:"high"`
	Seed  int64   `json:"seed,omitempty"`
}

// maxFill bounds the points of one gesture.
const maxFill = 20000

func (c *FillStretch) apply(p *Project, effects Effects) ([]Change, error) {
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	if c.Every < 1 || (w.to-w.from)/c.Every > maxFill {
		return nil, fmt.Errorf("a point every %d ticks is too often for this stretch", c.Every)
	}
	low, high := w.d.Place(w.d.Clamp(c.Low)), w.d.Place(w.d.Clamp(c.High))
	var out []Point
	for t := w.from; t < w.to; t += c.Every {
		part := float64(t-w.from) / float64(max(1, w.to-w.from-c.Every))
		switch c.How {
		case "rise":
		case "chance":
			part = 0.5 + 0.5*dsp.White(uint64(c.Seed), t)
		case "value":
			part = 1
		default:
			return nil, fmt.Errorf("a stretch is not filled by %q: it must be value, rise or chance", c.How)
		}
		out = append(out, Point{Tick: t, Value: w.value(w.d.At(low + (high-low)*max(0, min(1, part)))), Shape: Hold})
	}
	return w.replace(p, effects, out)
}

// ShapeStretch draws a shape from the tempo's grid into a stretch, between two values.
type ShapeStretch struct {
	Stretch
	Kind  string  `json:"kind"` // rise, fall, pulse, tremble, stair
	Every int64   `json:"every"`
	Low   float64 `json:"low"`
	High  float64 `json:"high"`
}

func (c *ShapeStretch) apply(p *Project, effects Effects) ([]Change, error) {
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	low, high := w.value(c.Low), w.value(c.High)
	if c.Every < 2 || (w.to-w.from)/c.Every > maxFill {
		return nil, fmt.Errorf("a step every %d ticks does not fit this stretch", c.Every)
	}
	var out []Point
	put := func(t int64, v float64, shape string) {
		if t < w.to {
			out = append(out, Point{Tick: t, Value: v, Shape: w.shape(shape)})
		}
	}
	switch c.Kind {
	case "rise", "fall":
		a, b := low, high
		if c.Kind == "fall" {
			a, b = high, low
		}
		put(w.from, a, Smooth)
		out = append(out, Point{Tick: w.to, Value: b, Shape: Hold})
	case "pulse":
		for t := w.from; t < w.to; t += c.Every {
			put(t, high, Hold)
			put(t+c.Every/2, low, Hold)
		}
	case "tremble":
		for t := w.from; t < w.to; t += c.Every {
			put(t, high, Smooth)
			put(t+c.Every/2, low, Smooth)
		}
	case "stair":
		n := max(1, (w.to-w.from+c.Every-1)/c.Every)
		for k := range n {
			part := float64(k) / float64(max(1, n-1))
			put(w.from+k*c.Every, w.value(w.d.At(w.d.Place(low)+(w.d.Place(high)-w.d.Place(low))*part)), Hold)
		}
	default:
		return nil, fmt.Errorf("there is no shape called %q", c.Kind)
	}
	return w.replace(p, effects, out)
}

// TurnStretch changes the points of a stretch: reverse turns it round in time, thin leaves out
// what is not needed, scale multiplies by By around the middle of what it spans, and shift moves
// by By of the travel.
type TurnStretch struct {
	Stretch
	How string  `json:"how"`
	By  float64 `json:"by,omitempty"`
}

func (c *TurnStretch) apply(p *Project, effects Effects) ([]Change, error) {
	w, err := c.work(p, effects)
	if err != nil {
		return nil, err
	}
	i, j := w.line.inside(w.from, w.to)
	points := slices.Clone(w.line.Points[i:j])
	if len(points) == 0 {
		return nil, fmt.Errorf("there are no points in this stretch")
	}
	switch c.How {
	case "thin":
		points = thinned(points, w.d)
	case "reverse":
		reversed(points)
	case "scale", "shift":
		lowest, highest := 1.0, 0.0
		for _, pt := range points {
			lowest, highest = min(lowest, w.d.Place(pt.Value)), max(highest, w.d.Place(pt.Value))
		}
		middle := (lowest + highest) / 2
		for k := range points {
			x := w.d.Place(points[k].Value)
			if c.How == "scale" {
				x = middle + (x-middle)*c.By
			} else {
				x += c.By
			}
			points[k].Value = w.value(w.d.At(max(0, min(1, x))))
		}
	default:
		return nil, fmt.Errorf("a stretch is not turned by %q", c.How)
	}
	return w.edit(p, effects, w.from, w.to, points)
}

// reversed turns points round within the time that they span; the shape between two of them goes
// with the pair.
func reversed(points []Point) {
	first, last := points[0].Tick, points[len(points)-1].Tick
	slices.Reverse(points)
	end := points[0].Shape
	for k := range points {
		points[k].Tick = first + last - points[k].Tick
		if k+1 < len(points) {
			points[k].Shape, points[k].Bend = points[k+1].Shape, -points[k+1].Bend
		} else {
			points[k].Shape, points[k].Bend = end, 0
		}
	}
}

// PastePoints puts copied points down so that the first of them stands at From. Of names the
// parameter that they come from: for another one their range is adapted.
type PastePoints struct {
	Stretch
	Points []Point  `json:"points"`
	Of     *Address `json:"of,omitempty"`
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
	var out []Point
	for _, pt := range c.Points {
		v := w.d.At(max(0, min(1, source.Place(source.Clamp(pt.Value)))))
		if source.Unit == w.d.Unit && source.Taper == w.d.Taper {
			v = pt.Value
		}
		out = append(out, Point{w.from + pt.Tick - c.Points[0].Tick, w.value(v), w.shape(pt.Shape), pt.Bend})
	}
	return w.edit(p, effects, w.from, out[len(out)-1].Tick, out)
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
		taken = thinned(taken, w.d)
	}
	end := taken[len(taken)-1].Tick
	back := max(end+1, w.tick(c.To+c.Glide))
	after := w.at(back)
	before := w.at(w.from)
	i, _ := w.line.inside(w.from, w.from)
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
	if _, j := w.line.inside(0, back); j > 0 && j < len(w.line.Points) {
		shape, bend = w.line.Points[j-1].Shape, w.line.Points[j-1].Bend
	}
	out = append(out, Point{Tick: back, Value: after, Shape: shape, Bend: bend})
	return w.edit(p, effects, from, back, out)
}
