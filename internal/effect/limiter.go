package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// limiter keeps sample peaks, or true peaks, at or below its ceiling. The gain that each
// frame needs is held as a sliding minimum over the look-ahead, released
// exponentially, and averaged over the look-ahead again, so that it arrives in
// time along a straight ramp: the ceiling is never passed. Its latency is the
// look-ahead. True peaks are found by interpolating sixteen times, up to 0.49 of the rate,
// which takes another 132 frames (dsp.Beyond). A peak counts for 10 ms (a quarter of the release, where that is less), so
// that a low tone is not bent; and what has been down for most of a second lets go four times slower (two time constants:
// McNally, JAES 1984): the gain is the lower of that and of what the release says. A key turns it down
// as well: it looks at the louder of the two, so that its ceiling holds all the same.
// Ceiling and input in dB, release in ms (63 %).
var limiter = Kind{
	Info: Info{
		ID: "limiter", Version: 2, Name: "Limiter", Family: "Dynamics", Mix: 100, MixLaw: "blend", Keyed: true,
		Says:     "Lets no sample pass its ceiling, and can push the signal up against it.",
		Synonyms: []string{"ceiling", "brickwall", "peak", "loud", "maximise", "protect"},
		Plumbs:   []Plumb{{Param: "input"}, {Param: "ceiling"}},
		Live:     []string{"in", "out", "reduction"},
		Params: []param.Param{
			{Name: "input", Label: "Input", Unit: "dB", Says: "Gain before the ceiling.",
				Min: 0, Max: 24, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "ceiling", Label: "Ceiling", Unit: "dB", Says: "No sample comes out above this.",
				Min: -24, Max: 0, Default: -1, Taper: param.Linear, Step: 0.1, Digits: 1},
			{Name: "release", Label: "Release", Unit: "ms", Says: "How fast it lets go again: 63 % of the way in this time.",
				Min: 1, Max: 1000, Default: 80, Taper: param.Log, Step: 5, Digits: 0},
			{Name: "ahead", Label: "Look-ahead", Unit: "ms", Says: "How early it sees a peak coming. Longer is gentler, and later.",
				Max: 3, Default: 1, Taper: param.Choice, Choices: []string{"0.5", "1.5", "3", "6"}, Structural: true},
			{Name: "peaks", Label: "Peaks", Says: "Whether it looks at the samples, or also at what lies between them.",
				Max: 1, Taper: param.Choice, Choices: []string{"of samples", "true peaks"}, Structural: true},
		},
	},
	New:     func(rate float64) Processor { return newLimit(rate, true) },
	Latency: func(rate float64, v []float64) int { return limitAhead(rate, v[3]) + betweenLag(v[4], true) },
	Rests:   func(v []float64, _ float64) float64 { return 0.1 + 10*limitLater*v[2]/1000 },
	Draw:    drawLimiter,
}

// limiter1 let go the same way always, missed true peaks above 20 kHz, and had no margin between frames while its ceiling moved.
var limiter1 = func() Kind {
	k := was(limiter, 1, func(rate float64) Processor { return newLimit(rate, false) })
	k.Latency = func(rate float64, v []float64) int { return limitAhead(rate, v[3]) + betweenLag(v[4], false) }
	return k
}()

// What has been down for longer than limitLong, in seconds, takes limitLater times the release to come back.
const (
	limitLong  = 0.8
	limitLater = 4
)

func limitAhead(rate, choice float64) int {
	return int(math.Round([]float64{0.0005, 0.0015, 0.003, 0.006}[int(choice)] * rate))
}

type limit struct {
	rate           float64
	ahead          int
	delayL         *dsp.Shift
	delayR         *dsp.Shift
	minimum        slidingMin
	box            []float64
	boxAt          int
	boxSum         float64
	held           float64
	in, out, least float64
	calm           int  // frames since something passed the ceiling
	asleep         bool // every gain is 1 and stays so while nothing does
	gain           [MaxFrames]float64
	pushed         [MaxFrames]float64 // the input's gain, while it or the ceiling moves
	ceiling        [MaxFrames]float64
	peaks          [MaxFrames]float64
	between        between // nil: sample peaks
	keyBetween     between
	patient        bool    // what has been down for long lets go later
	slow           float64 // the gain that does
	peakHold       peakHold
	parts          int // of the grid for which a peak counts
	keyPeaks       [MaxFrames]float64
}

// between finds peaks between frames.
type between interface {
	Peaks(dst, l, r []float64, floor float64)
	Clear()
}

func newBetween(far bool) between {
	if far {
		return dsp.NewBeyond()
	}
	return dsp.NewBetween()
}

// copyBetween takes over what another has heard; both are of one kind.
func copyBetween(to, from between) {
	switch x := from.(type) {
	case *dsp.Beyond:
		*to.(*dsp.Beyond) = *x
	case *dsp.Between:
		*to.(*dsp.Between) = *x
	}
}

// betweenLag is how much later true peaks are known.
func betweenLag(choice float64, far bool) int {
	switch {
	case choice == 0:
		return 0
	case far:
		return dsp.BeyondLag
	}
	return dsp.BetweenLag
}

func newLimit(rate float64, patient bool) *limit {
	l := &limit{rate: rate, patient: patient}
	l.size(limitAhead(rate, 1), false)
	return l
}

func (l *limit) size(ahead int, between bool) {
	l.ahead = ahead
	lag := 0
	l.between, l.keyBetween = nil, nil
	if between {
		l.between, l.keyBetween, lag = newBetween(l.patient), newBetween(l.patient), betweenLag(1, l.patient)
	}
	l.delayL, l.delayR = dsp.NewShift(ahead+lag), dsp.NewShift(ahead+lag)
	l.minimum.size(ahead + 1)
	l.box = make([]float64, ahead)
	l.Reset()
}

func (l *limit) Reset() {
	l.delayL.Clear()
	l.delayR.Clear()
	l.minimum.clear()
	for i := range l.box {
		l.box[i] = 1
	}
	l.boxSum, l.boxAt, l.held, l.slow = float64(len(l.box)), 0, 1, 1
	l.in, l.out, l.least, l.peakHold = 0, 0, 1, peakHold{}
	l.calm, l.asleep = 0, false
	if l.between != nil {
		l.between.Clear()
		l.keyBetween.Clear()
	}
}

// Prepare sizes the processor for its structural parameters, off the render path.
func (l *limit) Prepare(v []float64) {
	if a := limitAhead(l.rate, v[3]); a != l.ahead || (v[4] != 0) != (l.between != nil) {
		l.size(a, v[4] != 0)
	}
}

func (l *limit) Process(s *Span) {
	in, ceiling := &s.Values[0], &s.Values[1]
	release := dsp.Decay(l.releaseOf(s.Values[2].At(0)), l.rate)
	k, c := dsp.Gain(in.Now), dsp.Gain(ceiling.Now)
	moving := in.Track != nil || ceiling.Track != nil
	if !moving && l.asleep {
		if l.rest(s, k, c) {
			return
		}
	}
	n := float64(len(l.box))
	if moving {
		pushed := l.pushed[:len(s.L)]
		in.Gains(pushed)
		dsp.Multiply(s.L, pushed)
		dsp.Multiply(s.R, pushed)
		ceiling.Gains(l.ceiling[:len(s.L)])
	} else {
		dsp.Scale(s.L, k)
		dsp.Scale(s.R, k)
	}
	peaks := l.look(s, k, c)
	margin := 1.0
	if l.between != nil { // interpolation has a margin of its own: aim a little lower
		if margin = 0.994; l.patient {
			margin = 0.99
		}
	}
	c *= margin
	down, up := 1-dsp.Decay(limitLong, l.rate), 1-dsp.Decay(limitLater*s.Values[2].At(0)/1000, l.rate)
	if l.patient {
		l.holds(s, peaks)
	}
	for i, p := range peaks {
		if moving {
			c = l.ceiling[i]
			if l.patient {
				c *= margin
			}
		}
		if p > l.in && !l.patient {
			l.in = p
		}
		need := 1.0
		if p > c {
			need, l.calm = c/p, 0
		} else {
			l.calm++
		}
		need = l.minimum.next(need)
		if need < l.held {
			l.held = need
		} else {
			l.held = need + (l.held-need)*release
		}
		now := l.held
		if l.patient {
			k := up
			if l.held < l.slow {
				k = down
			}
			l.slow += (l.held - l.slow) * k
			now = smaller(now, l.slow)
		}
		l.boxSum += now - l.box[l.boxAt]
		l.box[l.boxAt] = now
		if l.boxAt++; l.boxAt == len(l.box) {
			l.boxAt = 0
			sum := 0.0 // afresh, so that rounding never gathers
			for _, v := range l.box {
				sum += v
			}
			l.boxSum = sum
		}
		l.gain[i] = smaller(l.boxSum/n, 1)
	}
	l.delayL.Process(s.L)
	l.delayR.Process(s.R)
	// nothing to do until the next peak: from here on every gain is 1
	if l.calm > 2*l.ahead+2 && l.held > 1-1e-9 && l.slow > 1-1e-9 && l.between == nil {
		l.asleep = true
		l.held, l.slow, l.peakHold = 1, 1, peakHold{}
		l.minimum.clear()
		for i := range l.box {
			l.box[i] = 1
		}
		l.boxSum, l.boxAt = float64(len(l.box)), 0
	}
	gains := l.gain[:len(s.L)]
	dsp.Multiply(s.L, gains)
	dsp.Multiply(s.R, gains)
	l.out = max(l.out, dsp.Peak(s.L, s.R))
	for _, g := range gains {
		l.least = smaller(l.least, g)
	}
}

// releaseOf is the time constant for a release in ms: a peak counts for a while first, as in the compressor.
func (l *limit) releaseOf(ms float64) float64 {
	if !l.patient {
		return ms / 1000
	}
	var rest float64
	l.parts, rest = heldParts(ms/1000, l.rate)
	return rest
}

// holds lets peaks count for a while, and notes how loud the loudest was.
func (l *limit) holds(s *Span, peaks []float64) {
	l.in = max(l.in, dsp.Highest(peaks))
	l.peakHold.run(peaks, int(s.Frame&(Grid-1)), l.parts)
}

// look finds the peak at each frame, of the signal or of its key, whichever is louder. k is the gain
// that the signal has had and that its key is given too, c the ceiling.
func (l *limit) look(s *Span, k, c float64) []float64 {
	peaks := l.peaks[:len(s.L)]
	if s.Steered {
		clear(peaks)
	} else if l.between == nil {
		dsp.Louder(peaks, s.L, s.R)
	} else {
		l.between.Peaks(peaks, s.L, s.R, c*0.7)
	}
	if s.KeyL == nil {
		return peaks
	}
	key := l.keyPeaks[:len(s.L)]
	if l.between == nil {
		dsp.Louder(key, s.KeyL, s.KeyR)
	} else {
		l.keyBetween.Peaks(key, s.KeyL, s.KeyR, c*0.7/k)
	}
	in := &s.Values[0]
	for i := range peaks {
		if in.Track != nil {
			k = l.pushed[i]
		}
		peaks[i] = larger(peaks[i], k*key[i])
	}
	return peaks
}

// rest delays a span in which nothing passes the ceiling; if something does,
// it wakes the limiter and changes nothing.
func (l *limit) rest(s *Span, k, c float64) bool {
	peak := dsp.Peak(s.L, s.R)
	loudest := peak
	if s.Steered {
		loudest = 0
	}
	if s.KeyL != nil {
		loudest = max(loudest, dsp.Peak(s.KeyL, s.KeyR))
	}
	if loudest*k > c {
		l.asleep = false
		return false
	}
	l.in = max(l.in, loudest*k)
	if k != 1 {
		dsp.Scale(s.L, k)
		dsp.Scale(s.R, k)
	}
	l.delayL.Process(s.L)
	l.delayR.Process(s.R)
	l.out = max(l.out, peak*k)
	return true
}

// Report gives peak in, peak out and the deepest reduction since the last report, in dB.
func (l *limit) Report(dst []float64) {
	dst[0], dst[1], dst[2] = dsp.Decibels(l.in), dsp.Decibels(l.out), -dsp.Decibels(l.least)
	l.in, l.out, l.least = 0, 0, 1
}

// CopyFrom keeps the signal in the look-ahead and the gain it stood at.
func (l *limit) CopyFrom(o Processor) {
	p := o.(*limit)
	l.delayL.CopyFrom(p.delayL)
	l.delayR.CopyFrom(p.delayR)
	l.held, l.slow, l.calm, l.asleep, l.peakHold = p.held, p.slow, p.calm, p.asleep, p.peakHold
	if l.between != nil && p.between != nil {
		copyBetween(l.between, p.between)
		copyBetween(l.keyBetween, p.keyBetween)
	}
	if l.ahead == p.ahead {
		copy(l.box, p.box)
		l.boxAt, l.boxSum = p.boxAt, p.boxSum
		l.minimum.copyFrom(&p.minimum)
		return
	}
	l.calm, l.asleep = 0, false
	g := p.boxSum / float64(len(p.box))
	for i := range l.box {
		l.box[i] = g
	}
	l.boxSum, l.boxAt = g*float64(len(l.box)), 0
	l.minimum.clear()
	l.minimum.next(p.held)
}

// slidingMin is the minimum of the last so many values, in constant time on
// average, by a queue of rising values.
type slidingMin struct {
	value []float64
	when  []int
	head  int
	count int
	now   int
	width int
}

func (m *slidingMin) size(width int) {
	m.width = width
	m.value, m.when = make([]float64, width+1), make([]int, width+1)
	m.clear()
}

func (m *slidingMin) clear() { m.head, m.count, m.now = 0, 0, 0 }

func (m *slidingMin) copyFrom(o *slidingMin) {
	copy(m.value, o.value)
	copy(m.when, o.when)
	m.head, m.count, m.now = o.head, o.count, o.now
}

func (m *slidingMin) next(v float64) float64 {
	size := len(m.value)
	for m.count > 0 {
		last := m.head + m.count - 1
		if last >= size {
			last -= size
		}
		if m.value[last] < v {
			break
		}
		m.count--
	}
	at := m.head + m.count
	if at >= size {
		at -= size
	}
	m.value[at], m.when[at] = v, m.now
	m.count++
	if m.when[m.head] <= m.now-m.width {
		m.count--
		if m.head++; m.head == size {
			m.head = 0
		}
	}
	m.now++
	return m.value[m.head]
}

func drawLimiter(_, _ float64, v []float64) Picture {
	level := Axis{Unit: "dB", Min: -36, Max: 6, Ticks: []float64{-30, -24, -18, -12, -6, 0}}
	x, y := level, level
	x.Label, y.Label = "in", "out"
	main := x.curve("out", "main", func(in float64) float64 { return min(in+v[0], v[1]) })
	main.Fill = true
	return Picture{
		Says:   "Output against input level; the line ends flat at the ceiling.",
		X:      x,
		Y:      y,
		Curves: []Curve{x.curve("unchanged", "ghost", func(in float64) float64 { return in }), main},
		Handles: []Handle{
			{Label: "Ceiling", X: v[1] - v[0], Y: v[1], ParamY: "ceiling"},
			{Label: "Input", X: -30, Y: -30 + v[0], ParamY: "input"},
		},
		Live: &Live{X: 0, Y: 1, Reduction: 2},
	}
}
