package stretch

import (
	"context"
	"math"
	"math/cmplx"

	"shoal/internal/dsp"
)

const overlaps = 8 // windows that lie over every frame

// vocoder lays windows of a sound together at another distance, each turned so that it goes on where the one before is.
type vocoder struct {
	sides  [][]float64
	size   int
	hop    int
	window []float64
	m      Map
	onsets []int64
	shape  *envelope // nil: the spectrum stays as it is
	fft    *dsp.FFT
	time   []float64

	now, hop0 [][]complex128 // the window, and the one a hop before it in the source, per side
	laid      [][]complex128 // what was laid last
	turn      []complex128   // by which each bin is turned
	power     []float64
	peaks     []int
}

func newVocoder(sides [][]float64, size int, m Map, onsets []int64) *vocoder {
	v := &vocoder{sides: sides, size: size, hop: size / overlaps, m: m, onsets: onsets, fft: dsp.NewFFT(size)}
	v.window = make([]float64, size)
	for i := range v.window {
		v.window[i] = 0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/float64(size))
	}
	v.time = make([]float64, size)
	bins := size/2 + 1
	for range sides {
		v.now, v.hop0, v.laid = append(v.now, make([]complex128, bins)), append(v.hop0, make([]complex128, bins)),
			append(v.laid, make([]complex128, bins))
	}
	v.turn, v.power = make([]complex128, bins), make([]float64, bins)
	for b := range v.turn {
		v.turn[b] = 1
	}
	return v
}

// look transforms the window of every side whose middle is at a frame of the source.
func (v *vocoder) look(dst [][]complex128, middle int) {
	from := middle - v.size/2
	for c, x := range v.sides {
		for i := range v.time {
			v.time[i] = 0
			if k := from + i; k >= 0 && k < len(x) {
				v.time[i] = x[k] * v.window[i]
			}
		}
		v.fft.Coefficients(dst[c], v.time)
	}
}

// run makes so many frames.
func (v *vocoder) run(ctx context.Context, frames int64, progress func(float64)) ([][]float64, error) {
	out := make([][]float64, len(v.sides))
	for c := range out {
		out[c] = make([]float64, frames)
	}
	// the windows, squared, add up to 3/8 of their number; the transform back is times its length
	scale := 1 / (0.375 * overlaps * float64(v.size))
	next := 0 // onset that comes next
	for k, at := 0, -v.size/2; at < int(frames)+v.size/2; k, at = k+1, at+v.hop {
		if k%32 == 0 {
			if err := ctx.Err(); err != nil {
				return nil, err
			}
			if progress != nil {
				progress(float64(max(at, 0)) / float64(frames))
			}
		}
		middle := int(math.Round(v.m.back(float64(at))))
		v.look(v.now, middle)
		switch {
		case k == 0: // the first goes in as it is
		case v.m.lockedAt(float64(at), float64(v.hop)): // it goes on as it did
			next = v.strike(next, middle)
		default:
			v.look(v.hop0, middle-v.hop)
			v.goOn()
		}
		v.lay(out, at-v.size/2, scale)
	}
	return out, nil
}

// strike lets what an onset brings begin with its own phases, when its window comes to it.
func (v *vocoder) strike(next, middle int) int {
	for next < len(v.onsets) && int(v.onsets[next]) < middle-v.size/2 {
		next++
	}
	if next == len(v.onsets) || int(v.onsets[next]) > middle+v.size/2 {
		return next
	}
	v.look(v.hop0, int(v.onsets[next])+v.size/4)
	for b := range v.turn {
		was, is := 0.0, 0.0
		for c := range v.now {
			was += power(v.laid[c][b])
			is += power(v.hop0[c][b])
		}
		if is > 4*was { // what was there before goes on: 6 dB
			v.turn[b] = 1
		}
	}
	return next + 1
}

// goOn finds by how much each bin is turned. All bins around a peak are turned as it is.
func (v *vocoder) goOn() {
	for b := range v.power {
		v.power[b] = 0
		for c := range v.now {
			v.power[b] += power(v.now[c][b])
		}
	}
	v.findPeaks()
	if len(v.peaks) == 0 {
		return
	}
	from := 0
	for i, p := range v.peaks {
		to := len(v.turn)
		if i+1 < len(v.peaks) {
			to = v.between(p, v.peaks[i+1])
		}
		t := v.turnOf(p)
		for b := from; b < to; b++ {
			v.turn[b] = t
		}
		from = to
	}
}

// turnOf is the turn with which a peak goes on from where it was laid last: as from a hop before in the source.
func (v *vocoder) turnOf(peak int) complex128 {
	sum := complex128(0)
	for b := max(0, peak-1); b <= min(peak+1, len(v.turn)-1); b++ {
		for c := range v.now {
			sum += v.laid[c][b] * cmplx.Conj(v.hop0[c][b])
		}
	}
	if a := cmplx.Abs(sum); a > 1e-30 {
		return sum / complex(a, 0)
	}
	return 1
}

// findPeaks finds the bins that are louder than the two on either side.
func (v *vocoder) findPeaks() {
	v.peaks = v.peaks[:0]
	at := func(b int) float64 {
		if b < 0 || b >= len(v.power) {
			return -1
		}
		return v.power[b]
	}
	for b, x := range v.power {
		if x > at(b-1) && x > at(b-2) && x >= at(b+1) && x >= at(b+2) && x > 0 {
			v.peaks = append(v.peaks, b)
		}
	}
}

// between is the quietest bin between two peaks.
func (v *vocoder) between(a, b int) int {
	least := a + 1
	for k := a + 1; k < b; k++ {
		if v.power[k] < v.power[least] {
			least = k
		}
	}
	return least
}

// lay adds the window to the result from a frame on.
func (v *vocoder) lay(out [][]float64, from int, scale float64) {
	if v.shape != nil {
		v.shape.find(v.now)
	}
	for c := range v.now {
		for b, x := range v.now[c] {
			v.laid[c][b] = x * v.turn[b]
		}
		y := v.laid[c]
		if v.shape != nil {
			y = v.shape.shaped(y)
		}
		v.fft.Sequence(v.time, y)
		for i, w := range v.window {
			if k := from + i; k >= 0 && k < len(out[c]) {
				out[c][k] += v.time[i] * w * scale
			}
		}
	}
}

func power(z complex128) float64 { return real(z)*real(z) + imag(z)*imag(z) }
