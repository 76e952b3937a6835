package figures

import (
	"context"
	"fmt"
	"math"
	"slices"

	"shoal/internal/dsp"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Contour is what a passage does to the level of its rows, behind their faders, from two bars before it
// to two bars after; found by rendering them with it and without.
type Contour struct {
	From int64        `json:"from" required:"true"` // song frame of the first figure
	To   int64        `json:"to" required:"true"`
	Rows []RowContour `json:"rows" required:"true"` // the first is all of them together, where there are several
}

// RowContour is one row's part.
type RowContour struct {
	Row     string    `json:"row" required:"true"`
	With    []float64 `json:"with" required:"true"` // mean level in dB, evenly from From to To
	Without []float64 `json:"without" required:"true"`
	// End is the peak in dB over the last 20 ms of the passage, Left that from its end to the
	// next sound, for four seconds at most; Until is the frame to which that was measured.
	End   float64 `json:"end" required:"true"`
	Left  float64 `json:"left" required:"true"`
	Until int64   `json:"until" required:"true"`
	Says  string  `json:"says" required:"true"` // what is left, in words
}

// nothingLeft is the peak in dB below which nothing is heard of a tail.
const nothingLeft = -80

// say puts into words what is left after the frame at which the passage ends.
func (r *RowContour) say(end int64, rate float64) {
	seconds := float64(r.Until-end) / rate
	switch {
	case seconds < 0.02:
		r.Says = "The next sound begins at its end."
	case r.Left < nothingLeft:
		r.Says = fmt.Sprintf("Nothing is left in the %.1f s after its end.", seconds)
	default:
		r.Says = fmt.Sprintf("%.0f dB are left in the %.1f s after its end.", r.Left, seconds)
	}
}

const (
	contourPoints = 240
	contourSettle = 3 // seconds that are rendered before the first figure, for what rings
)

// levels gathers those of a row.
type levels struct {
	engine.TailMeter
	from, to int64 // of the figures
	power    []float64
	count    []int
}

func (s *levels) hear(frame int64, l, r []float64) {
	s.Hear(frame, l, r)
	if frame >= s.from && frame < s.to {
		i := int((frame - s.from) * int64(len(s.power)) / (s.to - s.from))
		s.power[i] += power(l, r)
		s.count[i] += 2 * len(l)
	}
}

func (s *levels) figures() []float64 {
	out := make([]float64, len(s.power))
	for i, p := range s.power {
		out[i] = max(dsp.Off, 10*math.Log10(p/float64(max(1, s.count[i]))+1e-12))
	}
	return out
}

// OfPassage renders the rows of a passage. progress, if not nil, is told the part done.
func OfPassage(
	ctx context.Context,
	doc *project.Project,
	lib *pages.Library,
	id string,
	load engine.Loader,
	progress func(float64),
) (*Contour, error) {
	x, ok := doc.PassageByID(id)
	if !ok {
		return nil, errNoPassage
	}
	clock := doc.Clock()
	out := &Contour{
		From: clock.Frame(max(0, x.From-2*clock.MeterAt(x.From).BarTicks())),
		To:   clock.Frame(x.To + 2*clock.MeterAt(x.To).BarTicks()),
		Rows: []RowContour{},
	}
	if len(x.Rows) == 0 {
		return out, nil
	}
	with, err := contours(ctx, doc, lib, x, out, load, engine.PartOf(progress, 0, 2))
	if err != nil {
		return nil, err
	}
	other := *doc // the same, but for this passage
	other.Passages = slices.Clone(doc.Passages)
	turned := *x
	turned.Off = !x.Off
	other.Passages[slices.Index(doc.Passages, x)] = &turned
	without, err := contours(ctx, &other, lib, x, out, load, engine.PartOf(progress, 1, 2))
	if err != nil {
		return nil, err
	}
	if x.Off {
		with, without = without, with
	}
	for i, row := range x.Rows {
		s := with[i]
		out.Rows = append(out.Rows, RowContour{Row: row, With: s.figures(), Without: without[i].figures(),
			End: dsp.Decibels(s.AtEnd), Left: dsp.Decibels(s.Left), Until: s.Until})
	}
	if len(out.Rows) > 1 {
		out.Rows = append([]RowContour{together(out.Rows)}, out.Rows...)
	}
	for i := range out.Rows {
		out.Rows[i].say(doc.Clock().Frame(x.To), float64(doc.SampleRate))
	}
	return out, nil
}

// together adds the powers of rows; what is left is that of the loudest.
func together(rows []RowContour) RowContour {
	all := RowContour{
		With:    make([]float64, contourPoints),
		Without: make([]float64, contourPoints),
		End:     dsp.Off,
		Left:    dsp.Off,
		Until:   rows[0].Until,
	}
	for i := range contourPoints {
		with, without := 0.0, 0.0
		for _, r := range rows {
			with, without = with+math.Pow(10, r.With[i]/10), without+math.Pow(10, r.Without[i]/10)
		}
		all.With[i], all.Without[i] = 10*math.Log10(with+1e-12), 10*math.Log10(without+1e-12)
	}
	for _, r := range rows {
		all.End, all.Left, all.Until = max(all.End, r.End), max(all.Left, r.Left), min(all.Until, r.Until)
	}
	return all
}

// contours renders a passage's rows and gathers their levels.
func contours(
	ctx context.Context,
	doc *project.Project,
	lib *pages.Library,
	x *project.Passage,
	o *Contour,
	load engine.Loader,
	progress func(float64),
) ([]*levels, error) {
	var rows []*levels
	var ears []engine.Ear
	clock, last := doc.Clock(), o.To
	for _, row := range x.Rows {
		s := &levels{
			TailMeter: engine.NewTailMeter(doc, clock, x, row),
			from:      o.From,
			to:        o.To,
			power:     make([]float64, contourPoints),
			count:     make([]int, contourPoints),
		}
		last = max(last, s.Until)
		rows = append(rows, s)
		ears = append(ears, engine.Ear{At: engine.Place{Row: row}, Hear: s.hear})
	}
	stretch := engine.Stretch{Rows: x.Rows, From: max(0, o.From-contourSettle*int64(doc.SampleRate)), To: last}
	_, err := engine.Overhear(ctx, doc, lib, stretch, ears, load, progress)
	return rows, err
}
