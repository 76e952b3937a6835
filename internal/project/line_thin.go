package project

import (
	"fmt"
	"math"
	"slices"
)

// ThinView is what thinning a stretch of a line would leave of it.
type ThinView struct {
	Before int `json:"before" required:"true"`
	After  int `json:"after" required:"true"`
	// Away is how far the line would be from the points left out, at most, in the parameter's unit.
	Away float64 `json:"away" required:"true"`
	// Was and Is are places along the travel, evenly over the stretch.
	Was []float64 `json:"was" required:"true"`
	Is  []float64 `json:"is" required:"true"`
}

// thinPlaces is in how many places a thinned stretch is shown.
const thinPlaces = 121

// Thinned looks at what thinning a stretch would leave, with all that is at most so far away left out.
func (p *Project) Thinned(s Stretch, within float64, effects Effects) (*ThinView, error) {
	w, err := s.work(p, effects)
	if err != nil {
		return nil, err
	}
	if !(within >= 0) {
		return nil, fmt.Errorf("%g is no distance", within)
	}
	i, j := w.line.Inside(w.from, w.to)
	points := w.line.Points[i:j]
	thin := &Line{Points: slices.Concat(w.line.Points[:i], thinned(slices.Clone(points), w.d, within), w.line.Points[j:])}
	v := &ThinView{Before: len(points), After: len(thin.Points) - len(w.line.Points) + len(points), Was: []float64{}, Is: []float64{}}
	for _, pt := range points {
		v.Away = max(v.Away, math.Abs(thin.At(float64(pt.Tick), w.d, w.base)-w.line.At(float64(pt.Tick), w.d, w.base)))
	}
	for k := range thinPlaces {
		t := float64(w.from) + float64(w.to-w.from)*float64(k)/(thinPlaces-1)
		v.Was, v.Is = append(v.Was, w.d.Place(w.line.At(t, w.d, w.base))), append(v.Is, w.d.Place(thin.At(t, w.d, w.base)))
	}
	return v, nil
}
