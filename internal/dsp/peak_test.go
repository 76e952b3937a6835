package dsp

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Against the plain way, at every length around the four that go at once.
func TestPeakIsTheLargestMagnitude(t *testing.T) {
	for n := range 19 {
		for at := range n {
			l, r := make([]float64, n), make([]float64, n)
			for i := range l {
				l[i], r[i] = 0.1*math.Sin(float64(i)), -0.2*math.Cos(float64(i))
			}
			l[at], r[n-1-at] = -3, 2
			a, b := PeakBits(l, r)
			assert.Equal(t, 3.0, math.Float64frombits(a), "%d of %d", at, n)
			assert.Equal(t, 2.0, math.Float64frombits(b), "%d of %d", at, n)
			assert.Equal(t, 3.0, Peak(l, r))
			r[at] = math.NaN()
			_, b = PeakBits(l, r)
			assert.Greater(t, b, math.Float64bits(math.Inf(1)), "what is no number stands above all")
		}
	}
	assert.Zero(t, Peak(nil, nil))
}
