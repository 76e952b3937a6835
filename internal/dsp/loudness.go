package dsp

import "math"

// Loudness measures programme loudness after ITU-R BS.1770-5: K weighting,
// mean square over 10 ms hops, 400 ms momentary and 3 s short-term windows (the highest momentary loudness is found
// every 10 ms, the highest short-term every 100 ms, windows for the gates begin every 100 ms),
// integrated loudness with the absolute gate at -70 LUFS and the relative gate at
// -10 LU; the loudness range after EBU Tech 3342. Feeding it allocates only
// while gated history is kept.
type Loudness struct {
	rate     float64
	hop      int
	shelf    Section
	high     Section
	sl, sr   Biquad
	hl, hr   Biquad
	sum      float64
	n        int
	ring     [loudnessRing]float64 // mean squares of the last hops
	hops     int
	keep     bool
	blocks   []float64 // mean squares of 400 ms windows, one per hop
	shorts   []float64 // mean squares of 3 s windows, one per hop
	maxM     float64
	maxS     float64
	run      loudnessHistogram
	scratchL [128]float64
	scratchR [128]float64
}

// Hops of 10 ms: in a momentary window, in a short-term one, and between the windows of the gates.
const (
	loudnessRing = 300
	loudnessNow  = 40
	loudnessGate = 10
)

// NewLoudness measures at a rate. When keep is true, every block is kept so
// that Integrated and Range are exact; otherwise Integrated comes from a
// histogram of 0.1 LU steps that never grows.
func NewLoudness(rate float64, keep bool) *Loudness {
	l := &Loudness{rate: rate, hop: int(math.Round(rate / 100)), keep: keep}
	l.shelf, l.high = kWeighting(rate)
	l.Reset()
	return l
}

// kWeighting derives the two filters of BS.1770 for any rate from the
// analogue parameters behind its 48 kHz coefficients, by the bilinear transform.
func kWeighting(rate float64) (shelf, high Section) {
	const f0, g, q = 1681.974450955533, 3.999843853973347, 0.7071752369554196
	k := math.Tan(math.Pi * f0 / rate)
	vh := Exp(g / 20 * ln10)
	vb := Exp(math.Log(vh) * 0.4996667741545416)
	a0 := 1 + k/q + k*k
	shelf = Section{(vh + vb*k/q + k*k) / a0, 2 * (k*k - vh) / a0, (vh - vb*k/q + k*k) / a0, 2 * (k*k - 1) / a0, (1 - k/q + k*k) / a0}
	const f1, q1 = 38.13547087602444, 0.5003270373238773
	k = math.Tan(math.Pi * f1 / rate)
	a0 = 1 + k/q1 + k*k
	high = Section{1, -2, 1, 2 * (k*k - 1) / a0, (1 - k/q1 + k*k) / a0}
	return shelf, high
}

// Reset forgets everything heard so far.
func (l *Loudness) Reset() {
	l.sl, l.sr, l.hl, l.hr = Biquad{}, Biquad{}, Biquad{}, Biquad{}
	l.sum, l.n, l.hops = 0, 0, 0
	l.ring = [loudnessRing]float64{}
	l.blocks, l.shorts = l.blocks[:0], l.shorts[:0]
	l.maxM, l.maxS = math.Inf(-1), math.Inf(-1)
	l.run = loudnessHistogram{}
}

// Feed measures a stereo block of any length.
func (l *Loudness) Feed(left, right []float64) {
	for len(left) > 0 {
		n := min(len(left), len(l.scratchL), l.hop-l.n)
		if !l.still() || !Silent(left[:n]) || !Silent(right[:n]) {
			l.weigh(left[:n], right[:n])
		}
		l.n += n
		if l.n == l.hop {
			l.endHop()
		}
		left, right = left[n:], right[n:]
	}
	l.sl.Flush()
	l.sr.Flush()
	l.hl.Flush()
	l.hr.Flush()
}

// still reports whether nothing is left in the filters: silence leaves it so.
func (l *Loudness) still() bool {
	return l.sl == Biquad{} && l.sr == Biquad{} && l.hl == Biquad{} && l.hr == Biquad{}
}

// weigh adds the weighted squares of some frames, at most as many as there is scratch for.
func (l *Loudness) weigh(left, right []float64) {
	a, b := l.scratchL[:len(left)], l.scratchR[:len(left)]
	copy(a, left)
	copy(b, right)
	RunStereo2(&l.shelf, &l.high, &l.sl, &l.sr, &l.hl, &l.hr, a, b)
	for i, v := range a {
		l.sum += v*v + b[i]*b[i]
	}
}

func (l *Loudness) endHop() {
	l.ring[l.hops%len(l.ring)] = l.sum / float64(l.hop)
	l.sum, l.n = 0, 0
	l.hops++
	if l.hops < loudnessNow {
		return
	}
	m := l.mean(loudnessNow)
	l.maxM = max(l.maxM, lufs(m))
	if l.hops%loudnessGate != 0 {
		return
	}
	if l.keep {
		l.blocks = append(l.blocks, m)
	} else {
		l.run.add(m)
	}
	if l.hops >= loudnessRing {
		s := l.mean(loudnessRing)
		l.maxS = max(l.maxS, lufs(s))
		if l.keep {
			l.shorts = append(l.shorts, s)
		}
	}
}

func (l *Loudness) mean(hops int) float64 {
	s := 0.0
	for i := 1; i <= hops; i++ {
		s += l.ring[((l.hops-i)%len(l.ring)+len(l.ring))%len(l.ring)]
	}
	return s / float64(hops)
}

func lufs(meanSquare float64) float64 {
	if meanSquare <= 0 {
		return math.Inf(-1)
	}
	return -0.691 + 10*math.Log10(meanSquare)
}

// Momentary is the loudness of the last 400 ms in LUFS.
func (l *Loudness) Momentary() float64 { return lufs(l.mean(loudnessNow)) }

// Short is the loudness of the last 3 s in LUFS.
func (l *Loudness) Short() float64 { return lufs(l.mean(loudnessRing)) }

// MaxMomentary and MaxShort are the highest so far.
func (l *Loudness) MaxMomentary() float64 { return l.maxM }

// MaxShort is the highest short-term loudness so far.
func (l *Loudness) MaxShort() float64 { return l.maxS }

// Integrated is the gated loudness of everything since Reset in LUFS.
func (l *Loudness) Integrated() float64 {
	if !l.keep {
		return l.run.integrated()
	}
	return lufs(gatedMean(l.blocks, 10))
}

// gatedMean is the mean of the values above -70 LUFS and above their own
// gated mean less rel LU.
func gatedMean(blocks []float64, rel float64) float64 {
	above := func(gate float64) (mean float64) {
		n := 0
		for _, b := range blocks {
			if lufs(b) > gate {
				mean += b
				n++
			}
		}
		return mean / float64(max(n, 1))
	}
	return above(max(-70, lufs(above(-70))-rel))
}

// Range is the loudness range in LU (EBU Tech 3342); it needs keep.
func (l *Loudness) Range() float64 {
	gate := max(-70, lufs(func() float64 {
		s, n := 0.0, 0
		for _, b := range l.shorts {
			if lufs(b) >= -70 {
				s += b
				n++
			}
		}
		return s / float64(max(n, 1))
	}())-20)
	var kept []float64
	for _, b := range l.shorts {
		if v := lufs(b); v >= gate {
			kept = append(kept, v)
		}
	}
	if len(kept) == 0 {
		return 0
	}
	sortFloats(kept)
	at := func(p float64) float64 { return kept[int(math.Round(p*float64(len(kept)-1)))] }
	return at(0.95) - at(0.10)
}

// loudnessHistogram counts blocks in steps of 0.1 LU from -70 to +10 LUFS.
type loudnessHistogram struct {
	count [800]int
	sum   [800]float64
}

func (h *loudnessHistogram) add(meanSquare float64) {
	v := lufs(meanSquare)
	if v <= -70 {
		return
	}
	i := min(int((v+70)*10), len(h.count)-1)
	h.count[i]++
	h.sum[i] += meanSquare
}

func (h *loudnessHistogram) integrated() float64 {
	above := func(first int) float64 {
		n, s := 0, 0.0
		for i := first; i < len(h.count); i++ {
			n += h.count[i]
			s += h.sum[i]
		}
		return s / float64(max(n, 1))
	}
	gate := lufs(above(0)) - 10
	if math.IsInf(gate, -1) {
		return gate
	}
	return lufs(above(max(0, int((gate+70)*10))))
}
