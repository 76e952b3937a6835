package dsp

// ConvolveBlock is the length of the first partitions and the latency of a Convolver, in
// frames. What lies beyond convolveSplit is cut into longer ones, which cost less.
const (
	ConvolveBlock = 1024
	convolveLong  = 4 * ConvolveBlock
	convolveSplit = 8 * ConvolveBlock
)

// Spectrum is an impulse response cut into partitions and transformed. It is
// read only and may serve any number of Convolvers.
type Spectrum struct{ head, tail [][]complex128 }

// NewSpectrum transforms an impulse response.
func NewSpectrum(h []float64) *Spectrum {
	split := min(len(h), convolveSplit)
	return &Spectrum{partitions(h[:split], ConvolveBlock), partitions(h[split:], convolveLong)}
}

func partitions(h []float64, block int) [][]complex128 {
	f := NewFFT(2 * block)
	buf := make([]float64, 2*block)
	var parts [][]complex128
	for at := 0; at < len(h); at += block {
		clear(buf)
		copy(buf, h[at:min(len(h), at+block)])
		c := make([]complex128, block+1)
		f.Coefficients(c, buf)
		parts = append(parts, c)
	}
	return parts
}

// Convolver convolves a signal with an impulse response by partitioned
// overlap-save, with short partitions at its beginning and long ones behind (Gardner, JAES
// 1995). Its latency is ConvolveBlock.
type Convolver struct {
	head, tail *level
	wait       *Shift // brings the tail to its place
	buf        [128]float64
}

// NewConvolver makes one with silence before.
func NewConvolver(h *Spectrum) *Convolver {
	c := &Convolver{head: newLevel(h.head, ConvolveBlock)}
	if len(h.tail) > 0 {
		c.tail = newLevel(h.tail, convolveLong)
		c.wait = NewShift(convolveSplit + ConvolveBlock - convolveLong)
	}
	return c
}

// Process replaces a block by what came out.
func (c *Convolver) Process(x []float64) {
	for len(x) > 0 {
		n := min(len(x), len(c.buf))
		tail := c.buf[:n]
		if c.tail != nil {
			copy(tail, x[:n])
			c.tail.process(tail)
			c.wait.Process(tail)
		}
		c.head.process(x[:n])
		if c.tail != nil {
			for i, v := range tail {
				x[i] += v
			}
		}
		x = x[n:]
	}
}

// Clear empties it.
func (c *Convolver) Clear() {
	c.head.clear()
	if c.tail != nil {
		c.tail.clear()
		c.wait.Clear()
	}
}

// CopyFrom takes over the state of a convolver; with another response, what is on its
// way out and what went in.
func (c *Convolver) CopyFrom(o *Convolver) {
	c.head.copyFrom(o.head)
	if c.tail != nil && o.tail != nil {
		c.tail.copyFrom(o.tail)
		c.wait.CopyFrom(o.wait)
	}
}

// level convolves with partitions of one length. All but the first are added up while
// the block is still coming in, so that the work is spread evenly.
type level struct {
	block int
	h     [][]complex128
	fft   *FFT
	in    []float64 // the block before and the one coming in
	out   []float64 // what is given out while a block comes in
	past  [][]complex128
	now   int // where in past the newest spectrum lies
	sum   []complex128
	wave  []float64
	at    int // frames of the block that have come in
	added int // partitions added up for it
}

func newLevel(h [][]complex128, block int) *level {
	c := &level{block: block, h: h, fft: NewFFT(2 * block), in: make([]float64, 2*block), out: make([]float64, block),
		sum: make([]complex128, block+1), wave: make([]float64, 2*block), added: 1}
	for range max(1, len(h)) {
		c.past = append(c.past, make([]complex128, block+1))
	}
	return c
}

func (c *level) process(x []float64) {
	for len(x) > 0 {
		n := min(len(x), c.block-c.at)
		in, out := c.in[c.block+c.at:][:n], c.out[c.at:][:n]
		for i, v := range x[:n] {
			in[i], x[i] = v, out[i]
		}
		c.at += n
		c.addUpTo(1 + (len(c.h)-1)*c.at/c.block)
		if c.at == c.block {
			c.turn()
		}
		x = x[n:]
	}
}

// addUpTo adds partitions of the past: partition k meets the input k blocks before
// the one that is coming in.
func (c *level) addUpTo(count int) {
	for ; c.added < count; c.added++ {
		multiplyAdd(c.sum, c.past[(c.now-c.added+1+len(c.past))%len(c.past)], c.h[c.added])
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
func (c *level) turn() {
	c.addUpTo(len(c.h))
	c.now = (c.now + 1) % len(c.past)
	c.fft.Coefficients(c.past[c.now], c.in)
	if len(c.h) > 0 {
		multiplyAdd(c.sum, c.past[c.now], c.h[0])
	}
	c.fft.Sequence(c.wave, c.sum)
	scale := 1 / float64(2*c.block)
	for i := range c.out {
		c.out[i] = Flush(c.wave[c.block+i] * scale)
	}
	copy(c.in, c.in[c.block:])
	clear(c.sum)
	c.at, c.added = 0, 1
}

func (c *level) clear() {
	clear(c.in)
	clear(c.out)
	clear(c.sum)
	for _, p := range c.past {
		clear(p)
	}
	c.now, c.at, c.added = 0, 0, 1
}

func (c *level) copyFrom(o *level) {
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
	if len(c.h) == len(o.h) && (len(c.h) == 0 || &c.h[0] == &o.h[0]) {
		copy(c.sum, o.sum)
		c.added = o.added
		return
	}
	clear(c.sum)
	c.added = 1
	c.addUpTo(1 + (len(c.h)-1)*c.at/c.block)
}
