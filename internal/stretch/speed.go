package stretch

import (
	"context"
	"math"
	"sync"
)

const (
	sincHalf  = 32   // zero crossings on either side
	sincSteps = 2048 // table entries from one to the next
	sincBeta  = 10.0 // Kaiser: 100 dB
)

// sincTable is a windowed sinc from its middle outwards.
var sincTable = sync.OnceValue(func() []float64 {
	t := make([]float64, sincHalf*sincSteps+2)
	for i := range t {
		x := float64(i) / sincSteps
		if x >= sincHalf {
			continue
		}
		w := bessel0(sincBeta*math.Sqrt(1-(x/sincHalf)*(x/sincHalf))) / bessel0(sincBeta)
		t[i] = w
		if x > 0 {
			t[i] *= math.Sin(math.Pi*x) / (math.Pi * x)
		}
	}
	return t
})

// bessel0 is the modified Bessel function of order 0, by its series.
func bessel0(x float64) float64 {
	sum, term := 1.0, 1.0
	for k := 1.0; term > 1e-17*sum; k++ {
		term *= x * x / (4 * k * k)
		sum += term
	}
	return sum
}

// Speed reads a sound along a map, so that its pitch goes with its speed: a windowed sinc of 64 crossings that is cut
// where what is faster would fold back, 100 dB down.
func Speed(ctx context.Context, sides [][]float64, m Map) ([][]float64, error) {
	if m.straight() {
		return sides, nil
	}
	frames := int(math.Round(m.Out()))
	out := make([][]float64, len(sides))
	for c := range sides {
		out[c] = make([]float64, frames)
		for i := range out[c] {
			if i%65536 == 0 && ctx.Err() != nil {
				return nil, ctx.Err()
			}
			at := m.back(float64(i))
			out[c][i] = readAt(sides[c], at, m.back(float64(i)+1)-at)
		}
	}
	return out, nil
}

// readAt is a sound between its samples, where it is read at a speed.
func readAt(x []float64, at, speed float64) float64 {
	table, cut := sincTable(), 1.0
	if speed > 1 {
		cut = 1 / speed
	}
	reach := sincHalf / cut
	from, to := int(math.Ceil(at-reach)), int(math.Floor(at+reach))
	sum := 0.0
	for k := max(0, from); k <= min(to, len(x)-1); k++ {
		d := math.Abs(at-float64(k)) * cut * sincSteps
		i := int(d)
		f := d - float64(i)
		sum += x[k] * (table[i] + f*(table[i+1]-table[i]))
	}
	return sum * cut
}
