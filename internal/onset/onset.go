// Package onset finds where sounds begin in a recording: strokes, notes, words.
//
// The novelty of each moment is the rise of the logarithmic spectrum against the strongest of the neighbouring bands a
// little earlier, so that a wavering tone is no onset (Böck and Widmer, "Maximum filter vibrato suppression for onset
// detection", DAFx 2013). Its peaks above what is usual around them are onsets (Bello et al., "A tutorial on onset
// detection in music signals", IEEE TSAP 13/5, 2005); where exactly each begins is looked up in the energy itself.
package onset

import (
	"math"
	"sort"

	"shoal/internal/dsp"
)

// Onset is where a sound begins.
type Onset struct {
	Frame    int64   // of the recording
	Strength float64 // above 0 to 1: by how much it stands out, beside the strongest of the recording
}

const (
	hopSeconds    = 0.005
	windowSeconds = 0.021
	bands         = 48
	lowest        = 50.0    // Hz
	highest       = 16000.0 // Hz
	lag           = 3       // hops between what is compared
	aroundPeak    = 0.030   // seconds in which only the highest counts
	usual         = 0.120   // seconds before and behind that say what is usual
	least         = 0.04    // strength below which nothing is an onset
	compression   = 1000.0  // of amplitudes before their logarithm is taken, beside the loudest
)

// Usual is the strength from which on an onset counts where nobody says how many are wanted.
const Usual = 0.15

// Find finds the onsets of a recording, of one channel or several, in their order.
func Find(sides [][]float64, rate float64) []Onset {
	if len(sides) == 0 || len(sides[0]) == 0 {
		return nil
	}
	x := mono(sides)
	hop := int(math.Round(hopSeconds * rate))
	rise := novelty(x, rate, hop)
	strongest := 0.0
	for _, v := range rise {
		strongest = max(strongest, v)
	}
	if strongest == 0 {
		return nil
	}
	var out []Onset
	for _, t := range peaks(rise, int(aroundPeak/hopSeconds), int(usual/hopSeconds), least*strongest) {
		at := refine(x, t.hop*hop, rate)
		if n := len(out); n > 0 && at-out[n-1].Frame < int64(aroundPeak*rate) {
			if t.above/strongest > out[n-1].Strength {
				out[n-1] = Onset{at, t.above / strongest}
			}
			continue
		}
		out = append(out, Onset{at, t.above / strongest})
	}
	return out
}

func mono(sides [][]float64) []float64 {
	if len(sides) == 1 {
		return sides[0]
	}
	x := make([]float64, len(sides[0]))
	for i := range x {
		x[i] = (sides[0][i] + sides[1][i]) / 2
	}
	return x
}

// novelty is by how much the spectrum rises at each hop, whose window ends there plus half its length.
func novelty(x []float64, rate float64, hop int) []float64 {
	size := 1 << int(math.Round(math.Log2(windowSeconds*rate)))
	fft, edges := dsp.NewFFT(size), bandEdges(size, rate)
	window, frame := make([]float64, size), make([]float64, size)
	for i := range window {
		window[i] = 0.5 - 0.5*math.Cos(2*math.Pi*(float64(i)+0.5)/float64(size))
	}
	peak := 0.0
	for _, v := range x {
		peak = max(peak, math.Abs(v))
	}
	if peak == 0 {
		return nil
	}
	scale := compression / (peak * float64(size) / 4)
	spectrum := make([]complex128, size/2+1)
	var before [lag][]float64
	hops := max(1, (len(x)-size/2)/hop+1) // where the recording breaks off nothing begins
	out := make([]float64, hops)
	for t := range hops {
		begin := t*hop - size/2
		for i := range frame {
			frame[i] = 0
			if k := begin + i; k >= 0 && k < len(x) {
				frame[i] = x[k] * window[i]
			}
		}
		fft.Coefficients(spectrum, frame)
		now := make([]float64, bands)
		for b := range now {
			sum := 0.0
			for k := edges[b]; k < edges[b+1]; k++ {
				re, im := real(spectrum[k]), imag(spectrum[k])
				sum += math.Sqrt(re*re + im*im)
			}
			now[b] = math.Log1p(scale * sum / float64(edges[b+1]-edges[b]))
		}
		old := before[t%lag]
		for b := range now {
			was := 0.0
			if old != nil {
				for k := max(0, b-1); k <= min(bands-1, b+1); k++ {
					was = max(was, old[k])
				}
			}
			out[t] += max(0, now[b]-was)
		}
		before[t%lag] = now
	}
	return out
}

// bandEdges are the lines of the spectrum at which bands begin; each has one at least.
func bandEdges(size int, rate float64) []int {
	top := math.Min(highest, 0.45*rate)
	edges := make([]int, bands+1)
	for b := range edges {
		hz := lowest * math.Pow(top/lowest, float64(b)/bands)
		edges[b] = int(math.Round(hz / rate * float64(size)))
		if b > 0 {
			edges[b] = max(edges[b], edges[b-1]+1)
		}
	}
	return edges
}

// found is a peak of the novelty, and by how much it lies above what is usual there.
type found struct {
	hop   int
	above float64
}

func peaks(rise []float64, around, usual int, least float64) (out []found) {
	for t, v := range rise {
		highest := true
		for k := max(0, t-around); k <= min(len(rise)-1, t+around) && highest; k++ {
			highest = rise[k] < v || rise[k] == v && k >= t
		}
		if !highest {
			continue
		}
		near := append([]float64(nil), rise[max(0, t-usual):min(len(rise), t+usual)]...)
		sort.Float64s(near)
		if above := v - near[len(near)/2]; above > least {
			out = append(out, found{t, above})
		}
	}
	return out
}

// refine finds where the energy around a place begins to rise: where it first comes to a part of its highest.
func refine(x []float64, at int, rate float64) int64 {
	step := max(1, int(rate/1000))
	from, to := max(0, at-int(0.030*rate)), min(len(x), at+int(0.020*rate))
	var energy []float64
	for i := from; i+step <= to; i += step {
		sum := 0.0
		for k := i; k < i+step; k++ {
			v := x[k]
			if k > 0 {
				v -= 0.95 * x[k-1] // what is struck is bright
			}
			sum += v * v
		}
		energy = append(energy, sum)
	}
	if len(energy) == 0 {
		return int64(at)
	}
	top, best := 0, -1.0
	for i := 2; i < len(energy); i++ { // the steepest rise, and from there on how high it goes
		if d := energy[i] - max(energy[i-1], energy[i-2]); d > best {
			top, best = i, d
		}
	}
	low := math.Inf(1)
	for _, e := range energy[:max(1, top)] {
		low = min(low, e)
	}
	i := top
	for i > 0 && energy[i-1] > low+0.1*(energy[top]-low) && energy[i-1] < energy[i] {
		i--
	}
	return int64(from + i*step)
}
