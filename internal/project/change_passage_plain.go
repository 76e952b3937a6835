package project

// PlainPassage turns a passage into plain lines, which do what it did; the stages that it brought stay.
type PlainPassage struct {
	ID string `json:"id"`
}

func (c *PlainPassage) apply(p *Project, effects Effects) (undo []Change, err error) {
	x, ok := p.PassageByID(c.ID)
	if !ok {
		return nil, gone("the passage")
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
	at := func(tick int64, gone float64) float64 {
		a := start
		if s.Here {
			a = w.d.Place(w.at(tick))
		}
		return w.value(w.d.At(a + (w.d.Place(s.End)-a)*gone))
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
		for tick := w.from; tick < w.to; tick += spanGrid {
			points = append(points, Point{tick, at(tick, s.At(w.clock.Frame(tick))), Ramp, 0})
		}
		points = thinned(points, w.d)
	default:
		if s.Points[0].Frame > from {
			points = append(points, Point{w.from, at(w.from, s.Points[0].Value), Hold, 0})
		}
		for _, pt := range s.Points {
			if pt.Frame <= to {
				tick := w.tick(pt.Frame)
				points = append(points, Point{tick, at(tick, pt.Value), pt.Shape, pt.Bend})
			}
		}
	}
	return w.replace(p, effects, points)
}
