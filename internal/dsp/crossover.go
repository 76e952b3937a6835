package dsp

import "math"

// Linkwitz-Riley crossovers (Linkwitz, JAES 1976; sums by Lipshitz and Vanderkooy, JAES
// 1986) of 24 or 48 dB an octave, from state-variable filters by the trapezoidal rule, which
// keep the identities of the analogue filters exactly: the low part and the high part of a
// crossover add up to an all-pass. The high part is taken as that all-pass less the low
// part, so that the sum holds while a crossover moves too.

// MaxCrossovers is how many crossovers a splitter has at most.
const MaxCrossovers = 4

// Apart is the least ratio of neighbouring crossovers: a third of an octave.
var Apart = math.Cbrt(2)

// KeepApart brings crossovers in Hz into order, a third of an octave apart, within a lowest and
// a highest: the lower ones hold their place, unless the highest would be passed.
func KeepApart(hz []float64, lowest, highest float64) {
	for i := range hz {
		hz[i] = max(hz[i], lowest)
		lowest = hz[i] * Apart
	}
	for i := len(hz) - 1; i >= 0; i-- {
		hz[i] = min(hz[i], highest)
		highest = hz[i] / Apart
	}
}

// HighestCrossover bounds crossovers at a rate, in Hz.
func HighestCrossover(rate float64) float64 { return 0.45 * rate }

// sections are the damping figures 1/Q of a Butterworth filter's second-order sections: one
// for 24 dB an octave, two for 48.
func sections(steep bool) []float64 {
	if steep {
		return []float64{2 * math.Cos(math.Pi/8), 2 * math.Cos(3*math.Pi/8)}
	}
	return []float64{math.Sqrt2}
}

// linearCell is a state-variable filter that stays linear at any level.
type linearCell struct{ s1, s2 float64 }

func (c *linearCell) flush() { c.s1, c.s2 = Flush(c.s1), Flush(c.s2) }

// gains are the integrator gain of a crossover over a block: one value, or one a frame while
// it moves.
type gains struct {
	now   float64
	track []float64
}

// tuned gives the coefficients of a cell for an integrator gain and a damping.
func tuned(g, k float64) (a1, a2, a3 float64) {
	a1 = 1 / (1 + g*(g+k))
	a2 = g * a1
	return a1, a2, g * a2
}

// cellPair is one cell for each side, which run in one loop: neither waits for the other.
type cellPair struct{ l, r linearCell }

// stereo is a block of both sides.
type stereo struct{ l, r []float64 }

// both filters x to its low part and to its all-passed self. low and all may be x.
func (c *cellPair) both(x, low, all stereo, g *gains, k float64) {
	s1, s2, t1, t2 := c.l.s1, c.l.s2, c.r.s1, c.r.s2
	n := len(x.l)
	xr, lowL, lowR, allL, allR := x.r[:n], low.l[:n], low.r[:n], all.l[:n], all.r[:n]
	a1, a2, a3 := tuned(g.now, k)
	for i, v := range x.l {
		if g.track != nil {
			a1, a2, a3 = tuned(g.track[i], k)
		}
		w := xr[i]
		d, e := v-s2, w-t2
		v1, w1 := a1*s1+a2*d, a1*t1+a2*e
		v2, w2 := s2+a2*s1+a3*d, t2+a2*t1+a3*e
		s1, s2 = 2*v1-s1, 2*v2-s2
		t1, t2 = 2*w1-t1, 2*w2-t2
		lowL[i], allL[i] = v2, v-2*k*v1
		lowR[i], allR[i] = w2, w-2*k*w1
	}
	c.l.s1, c.l.s2, c.r.s1, c.r.s2 = s1, s2, t1, t2
}

func (c *cellPair) flush() { c.l.flush(); c.r.flush() }

// Splitter divides a stereo signal into bands. Every band receives the all-pass of each
// crossover that it did not pass, so that the bands add up to an all-pass: their sum is flat in
// magnitude, at every rate and slope.
type Splitter struct {
	rate  float64
	damp  []float64
	count int
	first [MaxCrossovers][2]cellPair                // divide, and all-pass
	again [MaxCrossovers][3]cellPair                // the rest of the low part
	align [MaxCrossovers][MaxCrossovers][2]cellPair // of a band, for a crossover above it
	g     [MaxCrossovers]gains
	room  []float64 // for frames of moving gains
	spare stereo
}

// NewSplitter makes one with so many crossovers, of 48 dB an octave when steep, else 24.
// block is the most frames of one Process.
func NewSplitter(rate float64, crossovers int, steep bool, block int) *Splitter {
	return &Splitter{rate: rate, damp: sections(steep), count: crossovers, room: make([]float64, crossovers*block),
		spare: stereo{make([]float64, block), make([]float64, block)}}
}

// Set places a crossover in Hz for the next Process.
func (s *Splitter) Set(i int, hz float64) { s.g[i] = gains{now: Warp(hz, s.rate)} }

// Track gives the place of a crossover in Hz for every frame of the next Process.
func (s *Splitter) Track(i int, hz []float64) {
	n := len(s.room) / s.count
	t := s.room[i*n:][:len(hz)]
	for k, f := range hz {
		t[k] = Warp(f, s.rate)
	}
	s.g[i] = gains{t[0], t}
}

// Process divides a block into bands, from the lowest up: left[k] and right[k] are those of band
// k. The last of them hold the signal, and are left as the highest band.
func (s *Splitter) Process(left, right [][]float64) {
	x := stereo{left[s.count], right[s.count]}
	low := stereo{s.spare.l[:len(x.l)], s.spare.r[:len(x.l)]}
	for i := range s.count {
		g := &s.g[i]
		out := stereo{left[i], right[i]} // all-passed copies that are not wanted go there meanwhile
		s.first[i][0].both(x, low, x, g, s.damp[0])
		if len(s.damp) == 2 {
			s.first[i][1].both(x, out, x, g, s.damp[1])
			s.again[i][0].both(low, low, out, g, s.damp[1])
			s.again[i][1].both(low, low, out, g, s.damp[0])
			s.again[i][2].both(low, low, out, g, s.damp[1])
		} else {
			s.again[i][0].both(low, low, out, g, s.damp[0])
		}
		for n, v := range low.l {
			w := low.r[n]
			x.l[n] -= v
			x.r[n] -= w
			out.l[n], out.r[n] = v, w
		}
		for b := range i {
			for k, damp := range s.damp {
				band := stereo{left[b], right[b]}
				s.align[b][i][k].both(band, low, band, g, damp)
			}
		}
	}
}

// Flush zeroes state that has become too small to matter.
func (s *Splitter) Flush() {
	for i := range s.count {
		for k := range s.first[i] {
			s.first[i][k].flush()
		}
		for k := range s.again[i] {
			s.again[i][k].flush()
		}
		for b := range i {
			for k := range s.align[b][i] {
				s.align[b][i][k].flush()
			}
		}
	}
}

// Clear empties all state.
func (s *Splitter) Clear() {
	s.first, s.again = [MaxCrossovers][2]cellPair{}, [MaxCrossovers][3]cellPair{}
	s.align = [MaxCrossovers][MaxCrossovers][2]cellPair{}
}

// CopyFrom takes over the state of a splitter of the same slope, for the crossovers that both have
// at the same place: from says which crossover of the other each of these was, -1 none.
func (s *Splitter) CopyFrom(o *Splitter, from []int) {
	if len(s.damp) != len(o.damp) {
		return
	}
	for i, f := range from {
		if f < 0 {
			continue
		}
		s.first[i], s.again[i] = o.first[f], o.again[f]
		for b := range i {
			if from[b] >= 0 {
				s.align[b][i] = o.align[from[b]][f]
			}
		}
	}
}

// BandPower is the squared magnitude of a band at a frequency, of a splitter with these
// crossovers in Hz; exact for the steep and the gentle slope, and for linear phase too where
// the crossovers are not close to one another.
func BandPower(freq, rate float64, hz []float64, band int, steep bool) float64 {
	p := 1.0
	order := 4.0
	if steep {
		order = 8
	}
	at := func(f float64) float64 { // (f/f0) to the order, on the bent axis
		return math.Pow(math.Tan(math.Pi*min(freq/rate, 0.4999))/Warp(f, rate), order)
	}
	if band < len(hz) {
		w := at(hz[band])
		p /= (1 + w) * (1 + w)
	}
	if band > 0 {
		w := at(hz[band-1])
		p *= w / (1 + w) * w / (1 + w)
	}
	if band > 1 { // it has passed the high parts of those below as well
		for _, f := range hz[:band-1] {
			w := at(f)
			p *= w / (1 + w) * w / (1 + w)
		}
	}
	return p
}
