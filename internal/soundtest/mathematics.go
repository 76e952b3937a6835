package soundtest

import (
	"math"
	"math/rand/v2"

	"gonum.org/v1/gonum/dsp/fourier"
)

// sine is a tone of a frequency in hertz, as high as its amplitude.
func sine(n int, hz, amplitude, rate float64) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = amplitude * math.Sin(2*math.Pi*hz*float64(i)/rate)
	}
	return x
}

// noise is even and white.
func noise(n int, seed uint64, amplitude float64) []float64 {
	r := rand.New(rand.NewPCG(seed, 77))
	x := make([]float64, n)
	for i := range x {
		x[i] = amplitude * (2*r.Float64() - 1)
	}
	return x
}

// db is a ratio of amplitudes in dB.
func db(x float64) float64 { return 20 * math.Log10(math.Abs(x)+1e-30) }

// power is the mean square of a stretch, in dB.
func power(x []float64) float64 {
	sum := 0.0
	for _, v := range x {
		sum += v * v
	}
	return 10 * math.Log10(sum/float64(len(x))+1e-30)
}

// partial is the complex amplitude of a frequency in a stretch, through a Hann window.
func partial(x []float64, hz, rate float64) complex128 {
	var sum complex128
	whole := 0.0
	for i, v := range x {
		w := 0.5 - 0.5*math.Cos(2*math.Pi*(float64(i)+0.5)/float64(len(x)))
		s, c := math.Sincos(2 * math.Pi * hz * float64(i) / rate)
		sum += complex(w*v*c, -w*v*s)
		whole += w
	}
	return sum * complex(2/whole, 0)
}

// spectrum is the power of every bin of a stretch, through a window.
func spectrum(x []float64, window func(u float64) float64) []float64 {
	w := make([]float64, len(x))
	for i, v := range x {
		w[i] = v * window((float64(i)+0.5)/float64(len(x)))
	}
	c := fourier.NewFFT(len(w)).Coefficients(nil, w)
	p := make([]float64, len(c))
	for i, v := range c {
		p[i] = real(v)*real(v) + imag(v)*imag(v)
	}
	return p
}

func hann(u float64) float64 { return 0.5 - 0.5*math.Cos(2*math.Pi*u) }

// thirds is the mean of a spectrum over a third of an octave around each bin.
func thirds(p []float64) []float64 {
	sums := make([]float64, len(p)+1)
	for i, v := range p {
		sums[i+1] = sums[i] + v
	}
	out := make([]float64, len(p))
	for i := range p {
		a, b := int(float64(i)*math.Exp2(-1.0/6)), min(len(p), int(float64(i)*math.Exp2(1.0/6))+1)
		out[i] = (sums[b] - sums[a]) / float64(b-a)
	}
	return out
}

// decayTime is how long an octave of some responses takes to fall by 60 dB, from the fall of their energy together between
// two levels in dB, by backward integration (Schroeder 1965).
func decayTime(ways [][]float64, hz, from, to, rate float64) float64 {
	e := make([]float64, len(ways[0])+1)
	for _, h := range ways {
		x := band(h, hz/math.Sqrt2, hz*math.Sqrt2, rate)
		sum := 0.0
		for i := len(x) - 1; i >= 0; i-- {
			sum += x[i] * x[i]
			e[i] += sum
		}
	}
	at := func(level float64) int {
		for i, v := range e {
			if 10*math.Log10(v/e[0]+1e-30) <= level {
				return i
			}
		}
		return len(e)
	}
	return float64(at(to)-at(from)) / rate * 60 / (from - to)
}

// band keeps what lies between two frequencies, by taking the rest out of the spectrum of all of it, with edges of a
// twelfth of an octave.
func band(x []float64, low, high, rate float64) []float64 {
	n := 1
	for n < 2*len(x) {
		n *= 2
	}
	w := make([]float64, n)
	copy(w, x)
	f := fourier.NewFFT(n)
	c := f.Coefficients(nil, w)
	for i := range c {
		hz := float64(i) * rate / float64(n)
		edge := func(octaves float64) float64 { // 0 below, 1 above
			return 0.5 + 0.5*math.Sin(math.Pi/2*math.Max(-1, math.Min(1, octaves*12)))
		}
		g := 0.0
		if hz > 0 {
			g = edge(math.Log2(hz/low)) * edge(math.Log2(high/hz))
		}
		c[i] *= complex(g/float64(n), 0)
	}
	return f.Sequence(nil, c)[:len(x)]
}

// worst is the largest of a function's values over a list.
func worst(list []float64, f func(x float64) float64) float64 {
	most := math.Inf(-1)
	for _, x := range list {
		most = math.Max(most, f(x))
	}
	return most
}

// truePeak is the highest that lies between frames too, in dB: by a windowed sinc of 512 taps at sixteen places.
func truePeak(x []float64) float64 {
	const half, places = 256, 16
	most := 0.0
	for p := range places {
		var taps [2 * half]float64
		for k := range taps {
			t := float64(k-half+1) - float64(p)/places
			w := 0.5 + 0.5*math.Cos(math.Pi*t/(half+1))
			taps[k] = w
			if t != 0 {
				taps[k] = w * math.Sin(math.Pi*t) / (math.Pi * t)
			}
		}
		for i := half; i+half < len(x); i++ {
			if math.Abs(x[i]) < most/8 && math.Abs(x[i+1]) < most/8 {
				continue
			}
			sum := 0.0
			for k, c := range taps {
				sum += c * x[i+k-half+1]
			}
			most = math.Max(most, math.Abs(sum))
		}
	}
	return db(most)
}
