package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// compressor is a feed-forward compressor in the log domain with a soft knee
// and a branching smoother on the reduction (Giannoulis, Massberg, Reiss, JAES
// 2012). Attack and release are time constants: after that time 63 % of a step of
// the reduction is reached. Both sides get the reduction of the louder one. A peak counts for 10 ms (a quarter of
// the release, where that is less), so that a tone of 50 Hz or more stands still at its curve.
var compressor = Kind{
	Info: Info{
		ID: "compressor", Version: 2, Name: "Compressor", Family: "Dynamics", Mix: 100, MixLaw: "blend", Keyed: true,
		Says:     "Turns down what is above a threshold, to even out a performance or shape its attack.",
		Plumbs:   []Plumb{{Param: "threshold"}, {Param: "makeup"}},
		Synonyms: []string{"dynamics", "squeeze", "level", "glue", "control", "punch", "leveller"},
		Live:     []string{"in", "out", "reduction"},
		Params: []param.Param{
			{Name: "threshold", Label: "Threshold", Unit: "dB", Says: "Above this level the signal is turned down.",
				Min: -60, Max: 0, Default: -24, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "ratio", Label: "Ratio", Unit: ": 1", Says: "How many decibels in give one decibel out above the threshold.",
				Min: 1, Max: 50, Default: 2.5, Taper: param.Log, Step: 5, Digits: 1},
			{Name: "knee", Label: "Knee", Unit: "dB", Says: "How wide the bend around the threshold is.",
				Min: 0, Max: 24, Default: 6, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "attack", Label: "Attack", Unit: "ms", Says: "How fast it turns down: 63 % of the way in this time.",
				Min: 0.05, Max: 250, Default: 10, Taper: param.Log, Step: 5, Digits: 2},
			{Name: "release", Label: "Release", Unit: "ms", Says: "How fast it lets go again: 63 % of the way in this time.",
				Min: 5, Max: 3000, Default: 120, Taper: param.Log, Step: 5, Digits: 0},
			{Name: "makeup", Label: "Make-up", Unit: "dB", Says: "Gain after the reduction.",
				Min: -12, Max: 24, Default: 6.5, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Sheet: "Key", Name: "detector", Label: "Detector", Says: "What counts as level: every peak, or the power over about 10 ms.",
				Max: 1, Taper: param.Choice, Choices: []string{"peak", "RMS"}},
			{Sheet: "Key", Name: "hold", Label: "Hold", Unit: "ms", Says: "How long it stays down before it lets go.",
				Min: 0, Max: 500, Taper: param.Linear, Step: 1, Digits: 0},
			{Sheet: "Key", Name: "keylow", Label: "Key low cut", Unit: "Hz", Says: "What it does not listen to at the bottom. At 20 Hz it is out.",
				Min: 20, Max: 4000, Default: 20, Taper: param.Log, Step: 3, Digits: 0},
			{Sheet: "Key", Name: "keyhigh", Label: "Key high cut", Unit: "Hz", Says: "What it does not listen to at the top. At 20 kHz it is out.",
				Min: 200, Max: 20000, Default: 20000, Taper: param.Log, Step: 3, Digits: 0},
			{Sheet: "Key", Name: "ahead", Label: "Look-ahead", Unit: "ms",
				Says: "How early it hears a peak coming. It makes the stage later by as much.",
				Max:  3, Taper: param.Choice, Choices: []string{"0", "1", "3", "8"}, Structural: true},
		},
	},
	New:     func(rate float64) Processor { return newComp(rate, true) },
	Latency: func(rate float64, v []float64) int { return gateAhead(rate, v[10]) },
	Rests:   func(v []float64, _ float64) float64 { return 0.2 + v[7]/1000 + faded(v[4]/1000) },
	Draw:    drawCompressor,
}

// compressor1 fell between the peaks of a tone: it stood under its curve, was slower than it said, and bent low tones.
var compressor1 = began(was(compressor, 1, func(rate float64) Processor { return newComp(rate, false) }), "makeup", 2)

type comp struct {
	holding         bool // peaks count for a while
	peaks           peakHold
	parts           int
	rate            float64
	power           float64 // one-pole factor of the RMS detector
	mean            float64
	reduction       float64 // dB, 0 or above
	in, out, most   float64 // since the last report
	knee, thr, slop float64
	floor           float64 // below this linear level nothing is reduced
	attack, release float64
	last            [7]float64
	key             keyFilter
	holds           int // frames of the hold left
	delay           [2]*dsp.Shift
	work            [MaxFrames]float64
}

func newComp(rate float64, holding bool) *comp {
	return &comp{holding: holding, rate: rate, power: dsp.Decay(0.01, rate), delay: [2]*dsp.Shift{dsp.NewShift(0), dsp.NewShift(0)}}
}

// Prepare sizes the look-ahead.
func (c *comp) Prepare(v []float64) {
	if a := gateAhead(c.rate, v[10]); a != c.delay[0].Frames() {
		c.delay = [2]*dsp.Shift{dsp.NewShift(a), dsp.NewShift(a)}
	}
}

// computeReduction is the static curve: dB of reduction for a level in dB.
// slope is 1 - 1/ratio.
func computeReduction(level, threshold, slope, knee float64) float64 {
	over := level - threshold
	if 2*over <= -knee {
		return 0
	}
	if 2*over >= knee {
		return slope * over
	}
	d := over + knee/2
	return slope * d * d / (2 * knee)
}

func (c *comp) Process(s *Span) {
	for from := 0; from < len(s.L); {
		to := len(s.L) // with nothing moving, all of it at once
		if !c.still(s) {
			to, _ = s.piece(from)
		}
		c.look(s, from)
		c.run(s, from, to)
		from = to
	}
	c.out = max(c.out, dsp.Peak(s.L, s.R))
}

// still reports whether no parameter moves within the span.
func (c *comp) still(s *Span) bool {
	if s.Still {
		return true
	}
	for i := range s.Values {
		if s.Values[i].Track != nil {
			return false
		}
	}
	return true
}

// run works in passes over a piece, each without a branch in its loop: the level, the
// reduction it asks for, the reduction there is, the gain.
func (c *comp) run(s *Span, from, to int) {
	keyL, keyR := s.KeyL, s.KeyR
	if keyL == nil {
		keyL, keyR = s.L, s.R
	}
	c.key.set(s.Values[8].At(from), s.Values[9].At(from), c.rate)
	keyL, keyR = c.key.run(keyL[from:to], keyR[from:to])
	work := c.work[:to-from]
	peak := dsp.Louder(work, keyL, keyR)
	c.in = max(c.in, peak)
	if s.Values[6].At(from) != 0 {
		peak = c.meanOf(work)
	} else if c.holding {
		peak = c.peaks.run(work, int((s.Frame+int64(from))&(Grid-1)), c.parts)
	}
	l, r := s.L[from:to], s.R[from:to]
	c.delay[0].Process(l)
	c.delay[1].Process(r)
	makeup := &s.Values[5]
	if peak <= c.floor && c.reduction < 1e-7 && makeup.Track == nil { // it does nothing
		c.reduction = 0
		k := dsp.QuickExp(makeup.Now * (math.Ln10 / 20))
		dsp.Scale(l, k)
		dsp.Scale(r, k)
		return
	}
	c.wanted(work)
	c.smooth(work, int(s.Values[7].At(from)/1000*c.rate))
	c.most = max(c.most, dsp.Highest(work))
	if makeup.Track == nil {
		dsp.QuickExps(work, -makeup.Now, -math.Ln10/20)
	} else {
		for i, red := range work {
			work[i] = dsp.QuickExp((makeup.Track[from+i] - red) * (math.Ln10 / 20))
		}
	}
	dsp.Multiply(l, work)
	dsp.Multiply(r, work)
}

// meanOf replaces levels by their running mean in the sense of power, and returns the highest.
func (c *comp) meanOf(level []float64) float64 {
	mean, most := c.mean, 0.0
	for i, a := range level {
		mean = a*a + (mean-a*a)*c.power
		a = math.Sqrt(mean)
		level[i], most = a, larger(most, a)
	}
	c.mean = dsp.Flush(mean)
	return most
}

// wanted replaces levels by the reduction in dB that the static curve asks for: the same as
// computeReduction, with the bend as the difference of two squares, each zero below its end of
// the knee.
func (c *comp) wanted(level []float64) {
	const db = 20 / math.Ln10
	begin, end := (c.thr-c.knee/2)/db, (c.thr+c.knee/2)/db
	k := c.slop / (2 * c.knee) * (db * db) / 4
	dsp.QuickLogs(level)
	for len(level) >= 2 {
		in := (*[2]float64)(level)
		x, y := in[0]-begin, in[0]-end
		x, y = x+math.Abs(x), y+math.Abs(y)
		in[0] = k * (x - y) * (x + y)
		x, y = in[1]-begin, in[1]-end
		x, y = x+math.Abs(x), y+math.Abs(y)
		in[1] = k * (x - y) * (x + y)
		level = level[2:]
	}
	for i, in := range level {
		x, y := in-begin, in-end
		x, y = x+math.Abs(x), y+math.Abs(y)
		level[i] = k * (x - y) * (x + y)
	}
}

// smooth replaces reductions wanted by those there are. Attack and release differ in the
// factor of the step only, which is written as its mean and the part that has the step's sign.
func (c *comp) smooth(want []float64, hold int) {
	red := c.reduction
	if hold == 0 && c.holds == 0 {
		mean, part := (c.release+c.attack)/2, (c.release-c.attack)/2
		for len(want) >= 2 {
			w := (*[2]float64)(want)
			d := red - w[0]
			red = (w[0] + d*mean) + math.Abs(d)*part
			w[0] = red
			d = red - w[1]
			red = (w[1] + d*mean) + math.Abs(d)*part
			w[1] = red
			want = want[2:]
		}
		for i, w := range want {
			d := red - w
			red = (w + d*mean) + math.Abs(d)*part
			want[i] = red
		}
	} else {
		for i, w := range want {
			k := c.release
			if w > red {
				k, c.holds = c.attack, hold
			} else if c.holds > 0 {
				k = 1
				c.holds--
			}
			red = w + (red-w)*k
			want[i] = red
		}
	}
	c.reduction = dsp.Flush(red)
}

// look takes the parameters at a frame; factors are computed only when they moved.
func (c *comp) look(s *Span, i int) {
	var v [7]float64
	for k := range v {
		v[k] = s.Values[k].At(i)
	}
	if v == c.last {
		return
	}
	c.last = v
	c.thr, c.knee = v[0], max(v[2], 1e-6)
	c.slop = 1 - 1/v[1]
	c.floor = dsp.Gain(c.thr - c.knee/2)
	release := v[4] / 1000
	if c.holding && v[6] == 0 {
		c.parts, release = heldParts(release, c.rate)
	}
	c.attack, c.release = dsp.Decay(v[3]/1000, c.rate), dsp.Decay(release, c.rate)
}

func (c *comp) Reset() {
	c.delay[0].Clear()
	c.delay[1].Clear()
	*c = comp{holding: c.holding, rate: c.rate, power: c.power, delay: c.delay}
}

func (c *comp) CopyFrom(o Processor) {
	p, delay := o.(*comp), c.delay
	*c = *p
	c.delay = delay
	c.delay[0].CopyFrom(p.delay[0])
	c.delay[1].CopyFrom(p.delay[1])
}

// Report gives the peak in and out and the deepest reduction since the last report, in dB.
func (c *comp) Report(dst []float64) {
	dst[0], dst[1], dst[2] = dsp.Decibels(c.in), dsp.Decibels(c.out), c.most
	c.in, c.out, c.most = 0, 0, c.reduction
}

func drawCompressor(_, _ float64, v []float64) Picture {
	level := Axis{Unit: "dB", Min: -60, Max: 0, Ticks: []float64{-50, -40, -30, -20, -10}}
	x, y := level, level
	x.Label, y.Label = "in", "out"
	slope := 1 - 1/v[1]
	out := func(in float64) float64 {
		return in - computeReduction(in, v[0], slope, max(v[2], 1e-6)) + v[5]
	}
	main := x.curve("out", "main", out)
	main.Fill = true
	return Picture{
		Says: "Output against input level; above the threshold the line is flatter.", X: x, Y: y,
		Curves: []Curve{x.curve("unchanged", "ghost", func(in float64) float64 { return in }), main},
		Handles: []Handle{
			{Label: "Threshold", X: v[0], Y: out(v[0]), ParamX: "threshold", ParamY: "makeup"},
			{Label: "Ratio", X: 0, Y: out(0), ParamY: "ratio"},
		},
		Live: &Live{X: 0, Y: 1, Reduction: 2},
	}
}
