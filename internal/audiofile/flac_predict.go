package audiofile

import (
	"math"
	"math/bits"
	"slices"

	"github.com/mewkiz/flac/frame"
)

// How sound is predicted in FLAC files (RFC 9639, sections 9.2.6 and 9.2.7).
const (
	flacOrder     = 12 // the most coefficients
	flacPrecision = 14 // bits of each
	flacParts     = 6  // 2 to the power of it is into how many parts what is left is cut at most
)

// subframes chooses how the sides of a block are written: as they are, or one of them (or their middle) and their difference.
func subframes(left, right []int32, bps int) (frame.Channels, []*frame.Subframe) {
	mid, side := make([]int32, len(left)), make([]int32, len(left))
	for i, l := range left {
		mid[i], side[i] = (l+right[i])>>1, l-right[i]
	}
	l, r, m, s := roughly(left), roughly(right), roughly(mid), roughly(side)
	channels, first, second := frame.ChannelsLR, left, right
	firstBits, secondBits := bps, bps
	switch min(l+r, l+s, s+r, m+s) {
	case l + r:
	case m + s:
		channels, first, second, secondBits = frame.ChannelsMidSide, mid, side, bps+1
	case l + s:
		channels, second, secondBits = frame.ChannelsLeftSide, side, bps+1
	default:
		channels, first, firstBits = frame.ChannelsSideRight, side, bps+1
	}
	a, b := predicted(first, firstBits), predicted(second, secondBits)
	a.Samples, b.Samples = left, right // the encoder makes the difference itself
	return channels, []*frame.Subframe{a, b}
}

// roughly is how much a signal will take: the sum of what a straight line through two samples leaves of the next.
func roughly(x []int32) (sum int64) {
	for i := 2; i < len(x); i++ {
		d := int64(x[i]) - 2*int64(x[i-1]) + int64(x[i-2])
		sum += max(d, -d)
	}
	return sum
}

// predicted says how a signal is written: by as many coefficients as pay for themselves, or as it is.
func predicted(x []int32, bps int) *frame.Subframe {
	verbatim := &frame.Subframe{SubHeader: frame.SubHeader{Pred: frame.PredVerbatim}, Samples: x, NSamples: len(x)}
	if !slices.ContainsFunc(x, func(v int32) bool { return v != x[0] }) {
		return &frame.Subframe{SubHeader: frame.SubHeader{Pred: frame.PredConstant}, Samples: x, NSamples: len(x)}
	}
	if len(x) <= 2*flacOrder {
		return verbatim
	}
	coefficients, order := linear(x, bps)
	if order == 0 {
		return verbatim
	}
	whole, shift := quantised(coefficients)
	left, ok := leftOf(x, whole, shift)
	if !ok {
		return verbatim
	}
	rice, size, long := partitions(left, order, len(x))
	if size+order*(bps+flacPrecision) >= len(x)*bps {
		return verbatim
	}
	h := frame.SubHeader{
		Pred: frame.PredFIR, Order: order, CoeffPrec: flacPrecision, CoeffShift: int32(shift), Coeffs: whole, RiceSubframe: rice,
	}
	if long {
		h.ResidualCodingMethod = frame.ResidualCodingMethodRice2
	}
	return &frame.Subframe{SubHeader: h, Samples: x, NSamples: len(x)}
}

// linear finds the coefficients that leave least, by the autocorrelation of the windowed signal and Levinson's recursion, for
// as many of them as it pays to write down.
func linear(x []int32, bps int) (best []float64, order int) {
	w := make([]float64, len(x))
	for i, v := range x { // a tapered cosine over half of it
		u := math.Min(1, 4*math.Min(float64(i)+0.5, float64(len(x)-i)-0.5)/float64(len(x)))
		w[i] = float64(v) * (0.5 - 0.5*math.Cos(math.Pi*u))
	}
	var r [flacOrder + 1]float64
	for lag := range r {
		for i := lag; i < len(w); i++ {
			r[lag] += w[i] * w[i-lag]
		}
	}
	if r[0] == 0 {
		return nil, 0
	}
	var a [flacOrder]float64
	left, least := r[0]*(1+1e-10), math.Inf(1)
	for n := range flacOrder {
		k := r[n+1]
		for j := range n {
			k -= a[j] * r[n-j]
		}
		k /= left
		a[n] = k
		for j := range n / 2 {
			a[j], a[n-1-j] = a[j]-k*a[n-1-j], a[n-1-j]-k*a[j]
		}
		if n%2 == 1 {
			a[n/2] -= k * a[n/2]
		}
		left *= 1 - k*k
		mean := math.Max(left/r[0]*energy(x), 1e-9)
		size := float64(len(x)-n-1)*math.Max(0, 0.5*math.Log2(mean)+1.5) + float64((n+1)*(bps+flacPrecision))
		if size < least {
			least, best, order = size, slices.Clone(a[:n+1]), n+1
		}
	}
	return best, order
}

func energy(x []int32) float64 {
	sum := 0.0
	for _, v := range x {
		sum += float64(v) * float64(v)
	}
	return sum / float64(len(x))
}

// quantised makes whole numbers of coefficients; what rounding takes from one is given to the next.
func quantised(a []float64) (whole []int32, shift int) {
	most := 0.0
	for _, v := range a {
		most = math.Max(most, math.Abs(v))
	}
	_, e := math.Frexp(most)
	shift = min(15, max(0, flacPrecision-1-e))
	const limit = 1 << (flacPrecision - 1)
	over := 0.0
	for _, v := range a {
		over += v * float64(int(1)<<shift)
		q := math.Max(-limit, math.Min(limit-1, math.Round(over)))
		over -= q
		whole = append(whole, int32(q))
	}
	return whole, shift
}

// leftOf is what a prediction leaves; false where that does not fit into 31 bits.
func leftOf(x, whole []int32, shift int) ([]int32, bool) {
	left := make([]int32, len(x)-len(whole))
	for i := range left {
		var sum int64
		at := x[i : i+len(whole)]
		for j, c := range whole {
			sum += int64(c) * int64(at[len(whole)-1-j])
		}
		d := int64(x[i+len(whole)]) - sum>>shift
		if d > math.MaxInt32/2 || d < math.MinInt32/2 {
			return nil, false
		}
		left[i] = int32(d)
	}
	return left, true
}

// partitions cuts what is left into parts with a parameter of their own each, so that it takes least, and says how many bits
// that are; long: parameters need five bits.
func partitions(left []int32, order, block int) (best *frame.RiceSubframe, least int, long bool) {
	least = math.MaxInt
	for p := 0; p <= flacParts; p++ {
		if block%(1<<p) != 0 || block>>p <= order {
			break
		}
		x := &frame.RiceSubframe{PartOrder: p}
		size, at, most := 0, 0, uint(0)
		for part := range 1 << p {
			n := block >> p
			if part == 0 {
				n -= order
			}
			k, bits := parameter(left[at : at+n])
			x.Partitions = append(x.Partitions, frame.RicePartition{Param: k})
			size, at, most = size+bits+5, at+n, max(most, k)
		}
		if size < least {
			best, least, long = x, size, most > 14
		}
	}
	return best, least, long
}

// parameter is the Rice parameter that a part takes least with, and how many bits that are.
func parameter(left []int32) (k uint, size int) {
	var sum uint64
	for _, v := range left {
		sum += uint64(folded(v))
	}
	if len(left) == 0 {
		return 0, 0
	}
	middle := bits.Len64(sum / uint64(len(left)))
	size = math.MaxInt
	for try := max(0, middle-2); try <= min(30, middle+1); try++ {
		n := len(left) * (try + 1)
		for _, v := range left {
			n += int(folded(v) >> try)
		}
		if n < size {
			k, size = uint(try), n
		}
	}
	return k, size
}

// folded makes small numbers of those near zero on either side.
func folded(v int32) uint32 { return uint32(v<<1) ^ uint32(v>>31) }
