package project

import "slices"

// PlainPassage turns a passage into plain lines, which do what it did; the stages that it brought stay.
type PlainPassage struct {
	ID string `json:"id"`
}

func (c *PlainPassage) apply(p *Project, effects Effects) (undo []Change, err error) {
	x, ok := p.PassageByID(c.ID)
	if !ok {
		return nil, Gone("the passage")
	}
	for _, s := range p.spansOf(x, p.Clock()) {
		u, err := p.drawSpan(&s, effects)
		if err != nil {
			return nil, err
		}
		undo = append(u, undo...)
	}
	u, err := (&takePassage{c.ID}).apply(p, effects)
	if err != nil {
		return nil, err
	}
	return append(u, undo...), nil
}

// spanGrid is how closely, in ticks, a span is drawn that begins where a line stands.
const spanGrid = 30

// drawSpan writes a span into its parameter's line.
func (p *Project) drawSpan(s *Span, effects Effects) ([]Change, error) {
	from, to := s.From, min(s.To, max(p.End(), s.From+1))
	w, err := Stretch{Owner: s.Owner, Name: s.Name, From: from, To: to}.work(p, effects)
	if err != nil {
		return nil, err
	}
	start := w.d.Place(s.Start)
	at := func(tick float64, Gone float64) float64 {
		a := start
		if s.Here {
			a = w.d.Place(w.line.At(tick, w.d, w.base))
		}
		return w.value(w.d.At(a + (w.d.Place(s.End)-a)*Gone))
	}
	var points []Point
	switch {
	case w.d.Stepped():
		for _, pt := range s.Steps() {
			v := s.Start
			if tick := w.tick(pt.Frame); pt.Value == 1 {
				v = s.End
			} else if s.Here {
				v = w.at(tick)
			}
			points = append(points, Point{w.tick(pt.Frame), v, Hold, 0})
		}
	case s.Here && len(w.line.Points) > 0: // two movements in one
		for _, x := range w.places(s) {
			if x.tick > w.from { // where either jumps there are two points
				points = append(points, Point{x.tick, at(float64(x.tick)-1e-6, s.At(x.frame-1)), Ramp, 0})
			}
			points = append(points, Point{x.tick, at(float64(x.tick), s.At(x.frame)), Ramp, 0})
		}
		points = thinned(points, w.d, 0)
	default:
		if s.Points[0].Frame > from {
			points = append(points, Point{w.from, at(float64(w.from), s.Points[0].Value), Hold, 0})
		}
		for _, pt := range s.Points {
			if pt.Frame <= to {
				tick := w.tick(pt.Frame)
				points = append(points, Point{tick, at(float64(tick), pt.Value), pt.Shape, pt.Bend})
			}
		}
	}
	return w.replace(p, effects, points)
}

// spanPlace is a place at which a span over a line is looked at.
type spanPlace struct{ tick, frame int64 }

// places are a grid, and where the span or the line has a point.
func (w *worked) places(s *Span) []spanPlace {
	var out []spanPlace
	for tick := w.from; tick < w.to; tick += spanGrid {
		out = append(out, spanPlace{tick, w.time.Frame(tick)})
	}
	i, j := w.line.Inside(w.from, w.to-1)
	for _, pt := range w.line.Points[i:j] {
		out = append(out, spanPlace{pt.Tick, w.time.Frame(pt.Tick)})
	}
	for _, pt := range s.Points { // its own frame: between two ticks a jump would be missed
		if tick := w.tick(pt.Frame); tick >= w.from && tick < w.to {
			out = append(out, spanPlace{tick, pt.Frame})
		}
	}
	slices.SortStableFunc(out, func(a, b spanPlace) int { return int(a.frame - b.frame) })
	return out
}
