package dsp

import "math"

// LowestLinear is the lowest crossover in Hz that the kernels of a linear-phase splitter resolve.
const LowestLinear = 60

// kernelFrames is the length of the kernels at a rate: 171 ms.
func kernelFrames(rate float64) int {
	if rate > 50000 {
		return 16383
	}
	return 8191
}

// LinearLatency is how late a linear-phase splitter is at a rate, in frames.
func LinearLatency(rate float64) int { return kernelFrames(rate)/2 + ConvolveBlock }

// lowKernel is the response of a low pass with the magnitude of a Linkwitz-Riley crossover and
// no turn of phase: 1/(1+(f/f0)^4), or to the 8th when steep, by the inverse Fourier
// transform, its ends faded out by a Tukey window.
func lowKernel(rate, hz float64, steep bool) []float64 {
	n := kernelFrames(rate)
	size := 4 * (n + 1)
	order := 4.0
	if steep {
		order = 8
	}
	f := NewFFT(size)
	bins := make([]complex128, size/2+1)
	for i := range bins {
		bins[i] = complex(1/(1+math.Pow(float64(i)*rate/float64(size)/hz, order)), 0)
	}
	wave := make([]float64, size)
	f.Sequence(wave, bins)
	out := make([]float64, n)
	half := n / 2
	sum := 0.0
	for i := range out {
		k := i - half
		w := 1.0
		if edge := math.Abs(float64(k))/float64(half+1) - 0.75; edge > 0 {
			w = 0.5 + 0.5*math.Cos(math.Pi*edge/0.25)
		}
		out[i] = wave[(k+size)%size] / float64(size) * w
		sum += out[i]
	}
	for i := range out { // unity at the lowest end
		out[i] /= sum
	}
	return out
}

// LinearSplitter divides a stereo signal into bands without turning phases, by convolution. The
// highest band is what the others leave of the delayed signal, so their sum is that signal.
type LinearSplitter struct {
	low  [][2]*Convolver
	wait [2]*Shift
	part [][]float64
}

// NewLinearSplitter makes one; it takes some milliseconds. block is the most frames of one Process.
func NewLinearSplitter(rate float64, hz []float64, steep bool, block int) *LinearSplitter {
	s := &LinearSplitter{wait: [2]*Shift{NewShift(LinearLatency(rate)), NewShift(LinearLatency(rate))}}
	for _, f := range hz {
		k := NewSpectrum(lowKernel(rate, f, steep))
		s.low = append(s.low, [2]*Convolver{NewConvolver(k), NewConvolver(k)})
		s.part = append(s.part, make([]float64, block))
	}
	return s
}

// Process divides a block as Splitter.Process does.
func (s *LinearSplitter) Process(left, right [][]float64) {
	s.side(0, left)
	s.side(1, right)
}

func (s *LinearSplitter) side(side int, bands [][]float64) {
	x := bands[len(s.low)]
	for i, c := range s.low {
		p := s.part[i][:len(x)]
		copy(p, x)
		c[side].Process(p)
	}
	s.wait[side].Process(x)
	for i := range s.low {
		p := s.part[i][:len(x)]
		if i == 0 {
			copy(bands[0], p)
			continue
		}
		below := s.part[i-1][:len(x)]
		for n, v := range p {
			bands[i][n] = v - below[n]
		}
	}
	for n, v := range s.part[len(s.low)-1][:len(x)] {
		x[n] -= v
	}
}

// Clear empties it.
func (s *LinearSplitter) Clear() {
	for side := range 2 {
		s.wait[side].Clear()
		for _, c := range s.low {
			c[side].Clear()
		}
	}
}

// CopyFrom takes over what another one has heard, whose crossovers may stand elsewhere.
func (s *LinearSplitter) CopyFrom(o *LinearSplitter) {
	for side := range 2 {
		s.wait[side].CopyFrom(o.wait[side])
		for i, c := range s.low {
			c[side].CopyFrom(o.low[min(i, len(o.low)-1)][side])
		}
	}
}
