// Package figures measures by rendering: what a fork does as a whole, how loud its paths are, what a passage does to the
// level of its rows. It overhears the one engine and knows nothing of its inside.
package figures

import "errors"

var (
	errGone      = errors.New("the fork is no longer there")
	errNoPassage = errors.New("the passage is no longer there")
)

// power is the sum of the squares of both sides.
func power(l, r []float64) float64 {
	t := 0.0
	for i, v := range l {
		t += v*v + r[i]*r[i]
	}
	return t
}
