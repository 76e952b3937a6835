package dsp

// DelayLine is a ring of samples with reads at whole and fractional delays.
type DelayLine struct {
	buf  []float64
	pos  int
	seam [fractionTaps]float64 // samples around the end of the ring, for a reader between frames
}

// delaySlack is how many frames a line holds besides those that it was made for, at most: as many as are written before they are read.
const delaySlack = 2048

// NewDelayLine holds at least the given number of frames. A long line is no longer than it must be: a session may have a hundred.
func NewDelayLine(frames int) *DelayLine {
	size := 4
	for size < frames+4 {
		size *= 2
	}
	return &DelayLine{buf: make([]float64, min(size, frames+delaySlack))}
}

// back is where the sample stands that was written n writes before the newest one. Who reads nearer than that, against what is
// asked for, meets the oldest ones, and no end of the engine.
func (d *DelayLine) back(n int) int {
	i := d.pos - n
	for i < 0 {
		i += len(d.buf)
	}
	if i >= len(d.buf) {
		i -= len(d.buf)
	}
	return i
}

// Write puts the next sample in.
func (d *DelayLine) Write(x float64) {
	i := d.pos + 1
	if i >= len(d.buf) {
		i = 0
	}
	d.buf[i] = x
	d.pos = i
}

// Read returns the sample written n writes before the newest one.
func (d *DelayLine) Read(n int) float64 { return d.buf[d.back(n)] }

// ReadBlock copies samples out: dst[i] is what Read(n-i) gives. n must be at
// least len(dst)-1.
func (d *DelayLine) ReadBlock(dst []float64, n int) {
	at := d.back(n)
	if c := copy(dst, d.buf[at:]); c < len(dst) {
		copy(dst[c:], d.buf)
	}
}

// AddBlock adds samples times a gain: to dst[i] what Read(n-i) gives. n must be at least
// len(dst)-1.
func (d *DelayLine) AddBlock(dst []float64, n int, gain float64) {
	at := d.back(n)
	first := min(len(dst), len(d.buf)-at)
	AddScaled(dst[:first], d.buf[at:at+first], gain)
	AddScaled(dst[first:], d.buf[:len(dst)-first], gain)
}

// WriteBlock puts samples in, the first one first.
func (d *DelayLine) WriteBlock(x []float64) {
	if c := copy(d.buf[d.pos+1:], x); c < len(x) {
		copy(d.buf, x[c:])
	}
	if d.pos += len(x); d.pos >= len(d.buf) {
		d.pos -= len(d.buf)
	}
}

// ReadAt returns the sample at a fractional delay of at least one frame, by
// four-point third-order Hermite interpolation.
func (d *DelayLine) ReadAt(delay float64) float64 {
	n := int(delay)
	f := delay - float64(n)
	if f == 0 {
		return d.Read(n)
	}
	a, b, c, e := d.Read(n-1), d.Read(n), d.Read(n+1), d.Read(n+2)
	c1 := 0.5 * (c - a)
	c2 := a - 2.5*b + 2*c - 0.5*e
	c3 := 0.5*(e-a) + 1.5*(b-c)
	return ((c3*f+c2)*f+c1)*f + b
}

// Clear empties the line.
func (d *DelayLine) Clear() { clear(d.buf) }

// CopyFrom takes over the content of a line, also of another length: the
// newest samples that fit are kept.
func (d *DelayLine) CopyFrom(o *DelayLine) {
	if len(d.buf) == len(o.buf) {
		copy(d.buf, o.buf)
		d.pos = o.pos
		return
	}
	n := min(len(d.buf), len(o.buf))
	clear(d.buf)
	d.pos = n - 1
	for i := 0; i < n; i++ {
		d.buf[n-1-i] = o.Read(i)
	}
}

// Shift delays a block by a fixed number of frames, in place: what latency
// compensation is made of. The zero value delays by nothing.
type Shift struct {
	buf []float64
	pos int
}

// NewShift delays by the given number of frames.
func NewShift(frames int) *Shift { return &Shift{buf: make([]float64, frames)} }

// Frames returns the delay.
func (s *Shift) Frames() int { return len(s.buf) }

// Process replaces each sample by the one that came the delay's length before.
func (s *Shift) Process(x []float64) {
	for len(x) > 0 && len(s.buf) > 0 {
		n := min(len(x), len(s.buf)-s.pos)
		Exchange(x[:n], s.buf[s.pos:s.pos+n])
		if s.pos += n; s.pos == len(s.buf) {
			s.pos = 0
		}
		x = x[n:]
	}
}

// Feed puts samples in as Process does, for when nobody needs what comes out.
func (s *Shift) Feed(x []float64) {
	for len(x) > 0 && len(s.buf) > 0 {
		n := copy(s.buf[s.pos:], x)
		if s.pos += n; s.pos == len(s.buf) {
			s.pos = 0
		}
		x = x[n:]
	}
}

// Clear empties it.
func (s *Shift) Clear() { clear(s.buf) }

// CopyFrom takes over the newest samples of another shift.
func (s *Shift) CopyFrom(o *Shift) {
	n := min(len(s.buf), len(o.buf))
	clear(s.buf)
	s.pos = 0
	for i := 0; i < n; i++ { // the i-th newest of o becomes the i-th newest here
		s.buf[len(s.buf)-1-i] = o.buf[((o.pos-1-i)%len(o.buf)+len(o.buf))%len(o.buf)]
	}
}
