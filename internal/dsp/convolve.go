package dsp

import "gonum.org/v1/gonum/dsp/fourier"

// ConvolveBlock is the length of a partition and the latency of a Convolver, in frames.
const ConvolveBlock = 1024

const convolveBins = ConvolveBlock + 1

// Spectrum is an impulse response cut into partitions and transformed. It is
// read only and may serve any number of Convolvers.
type Spectrum struct{ parts [][]complex128 }

// NewSpectrum transforms an impulse response.
func NewSpectrum(h []float64) *Spectrum {
	f := fourier.NewFFT(2 * ConvolveBlock)
	buf := make([]float64, 2*ConvolveBlock)
	s := &Spectrum{}
	for at := 0; at < len(h); at += ConvolveBlock {
		clear(buf)
		copy(buf, h[at:min(len(h), at+ConvolveBlock)])
		s.parts = append(s.parts, f.Coefficients(nil, buf))
	}
	return s
}

// Convolver convolves a signal with an impulse response by uniformly partitioned
// overlap-save (Gardner, JAES 1995; Wefers 2015). All partitions but the first are added
// up while the block is still coming in, so that the work is spread evenly. Its latency is
// ConvolveBlock.
type Convolver struct {
	h     *Spectrum
	fft   *fourier.FFT
	in    []float64 // the block before and the one coming in
	out   []float64 // what is given out while a block comes in
	past  [][]complex128
	now   int // where in past the newest spectrum lies
	sum   []complex128
	wave  []float64
	at    int // frames of the block that have come in
	added int // partitions added up for it
}

// NewConvolver makes one with silence before.
func NewConvolver(h *Spectrum) *Convolver {
	c := &Convolver{h: h, fft: fourier.NewFFT(2 * ConvolveBlock), in: make([]float64, 2*ConvolveBlock), out: make([]float64, ConvolveBlock),
		sum: make([]complex128, convolveBins), wave: make([]float64, 2*ConvolveBlock), added: 1}
	for range max(1, len(h.parts)) {
		c.past = append(c.past, make([]complex128, convolveBins))
	}
	return c
}

// Process replaces a block by what came out.
func (c *Convolver) Process(x []float64) {
	for len(x) > 0 {
		n := min(len(x), ConvolveBlock-c.at)
		in, out := c.in[ConvolveBlock+c.at:][:n], c.out[c.at:][:n]
		for i, v := range x[:n] {
			in[i], x[i] = v, out[i]
		}
		c.at += n
		c.addUpTo(1 + (len(c.h.parts)-1)*c.at/ConvolveBlock)
		if c.at == ConvolveBlock {
			c.turn()
		}
		x = x[n:]
	}
}

// addUpTo adds partitions of the past: partition k meets the input k blocks before
// the one that is coming in.
func (c *Convolver) addUpTo(count int) {
	for ; c.added < count; c.added++ {
		multiplyAdd(c.sum, c.past[(c.now-c.added+1+len(c.past))%len(c.past)], c.h.parts[c.added])
	}
}

func multiplyAdd(sum, a, b []complex128) {
	a, b = a[:len(sum)], b[:len(sum)]
	for i := range sum {
		ar, ai, br, bi := real(a[i]), imag(a[i]), real(b[i]), imag(b[i])
		sum[i] += complex(ar*br-ai*bi, ar*bi+ai*br)
	}
}

// turn finishes a block.
func (c *Convolver) turn() {
	c.addUpTo(len(c.h.parts))
	c.now = (c.now + 1) % len(c.past)
	c.fft.Coefficients(c.past[c.now], c.in)
	if len(c.h.parts) > 0 {
		multiplyAdd(c.sum, c.past[c.now], c.h.parts[0])
	}
	c.fft.Sequence(c.wave, c.sum)
	for i := range c.out {
		c.out[i] = Flush(c.wave[ConvolveBlock+i] * (1 / float64(2*ConvolveBlock)))
	}
	copy(c.in, c.in[ConvolveBlock:])
	clear(c.sum)
	c.at, c.added = 0, 1
}

// Clear empties it.
func (c *Convolver) Clear() {
	clear(c.in)
	clear(c.out)
	clear(c.sum)
	for _, p := range c.past {
		clear(p)
	}
	c.now, c.at, c.added = 0, 0, 1
}

// CopyFrom takes over the state of a convolver; with another response, what is on its
// way out and the newest of what went in.
func (c *Convolver) CopyFrom(o *Convolver) {
	copy(c.in, o.in)
	copy(c.out, o.out)
	c.at = o.at
	for k := range c.past {
		clear(c.past[k])
	}
	c.now = len(c.past) - 1
	for k := 0; k < min(len(c.past), len(o.past)); k++ {
		copy(c.past[c.now-k], o.past[((o.now-k)%len(o.past)+len(o.past))%len(o.past)])
	}
	if c.h == o.h {
		copy(c.sum, o.sum)
		c.added = o.added
		return
	}
	clear(c.sum)
	c.added = 1
	c.addUpTo(1 + (len(c.h.parts)-1)*c.at/ConvolveBlock)
}
