package stretch

import (
	"math"
	"slices"

	"shoal/internal/onset"
)

// known is what is found out about a sound before it is stretched.
type known struct {
	onsets []int64
	struck float64 // part of its energy that lies right behind onsets
	behind float64 // and of its time
	voiced float64 // how much it repeats itself from one period to the next, 0 to 1
	pitch  float64 // Hz, the middle of what is voiced; 0: none
}

const (
	strokeSeconds = 0.080
	frameSeconds  = 0.040
	lowestPitch   = 60.0 // Hz
	highestPitch  = 1000.0
)

func survey(sides [][]float64, rate float64) known {
	x := middle(sides)
	var k known
	for _, o := range onset.Find([][]float64{x}, rate) {
		if o.Strength >= onset.Usual {
			k.onsets = append(k.onsets, o.Frame)
		}
	}
	k.strokes(x, rate)
	k.listen(x, rate)
	return k
}

// middle is the mean of the sides, or the first where they cancel.
func middle(sides [][]float64) []float64 {
	if len(sides) == 1 {
		return sides[0]
	}
	x := make([]float64, len(sides[0]))
	both, one := 0.0, 0.0
	for i := range x {
		x[i] = (sides[0][i] + sides[1][i]) / 2
		both, one = both+x[i]*x[i], one+sides[0][i]*sides[0][i]
	}
	if both < 0.01*one {
		return sides[0]
	}
	return x
}

func (k *known) strokes(x []float64, rate float64) {
	all, near, frames := 0.0, 0.0, 0
	next, long := 0, int(strokeSeconds*rate)
	for i, v := range x {
		for next < len(k.onsets) && int(k.onsets[next])+long < i {
			next++
		}
		all += v * v
		if next < len(k.onsets) && int(k.onsets[next]) <= i+int(0.002*rate) {
			near += v * v
			frames++
		}
	}
	if all > 0 {
		k.struck, k.behind = near/all, float64(frames)/float64(len(x))
	}
}

// listen finds how periodic the sound is, in frames a fifth of a second apart.
func (k *known) listen(x []float64, rate float64) {
	type heard struct{ energy, voiced, pitch float64 }
	var list []heard
	n, apart := int(frameSeconds*rate), int(0.1*rate)
	total := 0.0
	for at := 0; at+2*n < len(x); at += apart {
		v, lag := periodic(x[at:at+2*n], rate)
		e := 0.0
		for _, y := range x[at : at+n] {
			e += y * y
		}
		total += e
		list = append(list, heard{e, v, rate / max(1, lag)})
	}
	if total == 0 {
		return
	}
	var pitches []float64
	for _, h := range list {
		k.voiced += h.energy / total * h.voiced
		if h.voiced > 0.8 && h.energy > 0.1*total/float64(len(list)) {
			pitches = append(pitches, h.pitch)
		}
	}
	if len(pitches) > 0 {
		slices.Sort(pitches)
		k.pitch = pitches[len(pitches)/2]
	}
}

// periodic is how much a stretch is like itself a period later, and that period in frames.
func periodic(x []float64, rate float64) (voiced, lag float64) {
	n := len(x) / 2
	step := max(1, int(rate/12000)) // enough for what is looked for
	best := func(lag int) float64 {
		ab, aa, bb := 0.0, 1e-12, 1e-12
		for i := 0; i < n && i+lag < len(x); i += step {
			a, b := x[i], x[i+lag]
			ab, aa, bb = ab+a*b, aa+a*a, bb+b*b
		}
		return ab / math.Sqrt(aa*bb)
	}
	low := false // it must have fallen before it rises again
	for l := int(rate / highestPitch); l <= int(rate/lowestPitch); l += step {
		r := best(l)
		low = low || r < 0.5
		if low && r > voiced+0.02 {
			voiced, lag = r, float64(l)
		}
	}
	return voiced, lag
}

// character says what a sound is.
func (k *known) character() Character {
	switch {
	case len(k.onsets) >= 2 && k.struck > 0.55 && k.struck > 1.6*k.behind && k.voiced < 0.85:
		return Struck
	case k.voiced > 0.9:
		return Single
	}
	return Together
}

// envelopeOrder is how many cepstral coefficients follow the formants and not the partials.
func (k *known) envelopeOrder(rate float64) int {
	f := k.pitch
	if f == 0 {
		f = 200
	}
	return int(min(0.005*rate, max(0.0008*rate, rate/(2*f))))
}
