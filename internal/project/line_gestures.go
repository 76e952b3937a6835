package project

import (
	"fmt"
	"math"
	"slices"

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
	// Clip is in the time of which piece frames are meant, where the parameter is one of a piece's treatment; empty: of the
	// one that lies at From, or the first.
	Clip string `json:"clip,omitempty"`
}

// worked is a stretch worked out: its line, parameter and ticks.
type worked struct {
	Stretch
	line     *Line
	d        param.Param
	base     float64
	time     LineTime
	from, to int64
	piece    *Clip // in whose time they are, and within which they stay; nil: a row's line
}

func (s Stretch) work(p *Project, effects Effects) (*worked, error) {
	f, err := p.address(s.Owner, s.Name, effects)
	if err != nil {
		return nil, err
	}
	if f.Structural {
		return nil, fmt.Errorf("%s cannot be automated: it changes latency or memory", f.Label)
	}
	w := &worked{Stretch: s, d: f.Param, base: f.get()}
	if w.time, w.piece, err = p.TimeOf(s.Owner, s.Clip, s.From); err != nil {
		return nil, err
	}
	if w.line, _ = p.Line(s.Owner, s.Name); w.line == nil {
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
	if w.piece != nil {
		start := w.piece.BeginsAt(w.time.Clock)
		frame = min(max(frame, start), start+w.piece.Frames)
	}
	return w.time.Snapped(frame, w.Snap)
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
