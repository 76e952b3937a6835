package effect

import "slices"

// Plumb names a parameter that is most telling about an effect; "mix" is the stage's.
type Plumb struct {
	Param string `json:"param" required:"true"`
	// Named is the parameter whose value names it, such as the frequency of a band's gain; empty: its label does.
	Named string `json:"named,omitempty"`
}

// hung is how many plumbs there is room for under a stage.
const hung = 2

// Hanging are the plumbs under a stage with these values: one or two.
func (k *Kind) Hanging(v []float64) []Plumb {
	if k.Telling != nil {
		return k.Telling(v)
	}
	var out []Plumb
	for _, x := range k.Plumbs {
		if i := k.Index(x.Param); (i < 0 || k.matters(i, v)) && len(out) < hung {
			out = append(out, x)
		}
	}
	return out
}

// matters reports whether a parameter need be shown with these values.
func (k *Kind) matters(i int, v []float64) bool {
	w := k.Params[i].When
	if w == nil {
		return true
	}
	other := k.Index(w.Name)
	return other < 0 || slices.Contains(w.Is, v[other])
}
