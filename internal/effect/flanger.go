package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// flanger mixes the signal with itself, a few milliseconds late and moving, so that
// teeth of a comb travel through the spectrum (Dattorro, JAES 1997, part 2).
// Feedback, to 95 %, sharpens the teeth; below 0 it moves them by half. The comb is made
// inside, dry and late at equal level over √2, so that its level stays about.
var flanger = Kind{
	Info: Info{
		ID: "flanger", Version: 2, Name: "Flanger", Family: "Movement", Mix: 70, MixLaw: "blend",
		Says:     "Sends a moving comb through the sound, hollow or ringing.",
		Synonyms: []string{"jet", "comb", "swoosh", "whoosh", "metallic", "through"},
		Plumbs:   []Plumb{{Param: "depth"}, {Param: "feedback"}},
		Params: append([]param.Param{
			{Name: "delay", Label: "Delay", Unit: "ms", Says: "The shortest time between sound and copy.",
				Min: 0.1, Max: 10, Default: 0.6, Taper: param.Log, Step: 3, Digits: 2},
			{Name: "depth", Label: "Depth", Unit: "ms", Says: "How much longer the time gets.",
				Min: 0, Max: 10, Default: 2.4, Taper: param.Linear, Step: 0.1, Digits: 2},
			{Name: "feedback", Label: "Feedback", Unit: "%", Says: "How much of the copy goes round again; below 0 turned upside down.",
				Min: -95, Max: 95, Default: 35, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "sides", Label: "Sides apart", Unit: "°", Says: "How far the right side lags behind the left.",
				Min: 0, Max: 180, Default: 60, Taper: param.Linear, Step: 5, Digits: 0},
			{Name: "highcut", Label: "High cut", Unit: "Hz", Says: "What the copy leaves out at the top.",
				Min: 1000, Max: 20000, Default: 14000, Taper: param.Log, Step: 3, Digits: 0},
		}, cycleParams(0.18, 14)...),
	},
	New:   func(rate float64) Processor { return newComb(rate, true) },
	Tail:  func(v []float64, _ float64) float64 { return tailOf((v[0]+v[1])/1000, math.Abs(v[2])/100) },
	Rests: func(v []float64, _ float64) float64 { return 0.1 + tailOf((v[0]+v[1])/1000, math.Abs(v[2])/100) },
	Draw:  drawFlanger,
}

// tailOf bounds how long a loop of so many seconds rings above -100 dB.
func tailOf(seconds, feedback float64) float64 {
	if feedback <= 0 {
		return seconds + 0.05
	}
	if feedback >= 0.999 {
		return 60
	}
	return min(60, 0.05+seconds*(1+math.Ceil(-100/dsp.Decibels(feedback))))
}

// flanger1 lost highs between frames, and its cut was never quite out.
var flanger1 = was(flanger, 1, func(rate float64) Processor { return newComb(rate, false) })

type comb struct {
	rate     float64
	smooth   bool // read by the windowed sinc where there is room for it, with a cut that can be out
	line     [2]*dsp.DelayLine
	lfo      lfo
	fresh    bool
	from, to [2]float64
	high     dsp.Section
	highHz   float64
	state    [2]dsp.Biquad

	delays, late [Grid]float64 // of the frames at hand
}

func newComb(rate float64, smooth bool) *comb {
	dsp.Smooths()
	n := int(0.021*rate) + 16
	return &comb{rate: rate, smooth: smooth, line: [2]*dsp.DelayLine{dsp.NewDelayLine(n), dsp.NewDelayLine(n)}}
}

func (c *comb) Process(s *Span) {
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !c.fresh {
			c.look(s, from)
		}
		start := (s.Frame + int64(from)) & (Grid - 1)
		for side, x := range [2][]float64{s.L[from:to], s.R[from:to]} {
			glideOver(c.delays[:len(x)], c.from[side], c.to[side], start)
			c.run(c.line[side], &c.state[side], x, &s.Values[2], from)
		}
		from = to
	}
}

// look finds where the delays of both sides go until the grid's next frame, and the cut.
func (c *comb) look(s *Span, from int) {
	var v [8]float64
	s.read(v[:], from)
	hz, q := cycle(v[5:])
	a, b := c.lfo.look(s, from, c.rate, hz, q)
	at := func(phase float64) float64 {
		return max(2, c.rate/1000*(v[0]+v[1]*(0.5+0.5*wave(waveSine, phase, 0))))
	}
	lag := v[3] / 360
	if !c.fresh {
		c.to = [2]float64{at(a), at(a - lag)}
	}
	c.from, c.to = c.to, [2]float64{at(b), at(b - lag)}
	if !c.fresh || v[4] != c.highHz {
		c.highHz, c.high = v[4], highCutOf(c.smooth, v[4], c.rate)
	}
	c.fresh = true
}

// run sends a side through its loop. Where the copy is later than the grid is long, all of it stands in the line already.
func (c *comb) run(line *dsp.DelayLine, st *dsp.Biquad, x []float64, feedback *Value, from int) {
	delays := c.delays[:len(x)]
	late := c.late[:len(x)]
	nearest := min(delays[0], delays[len(x)-1]) - 1
	whole := c.smooth && nearest >= dsp.FractionMargin+max(Grid, combMeet)
	if whole {
		line.ReadSmoothAhead(late, delays)
	}
	for i, u := range x {
		if !whole {
			late[i] = c.read(line, delays[i]-1)
		}
		y := st.Next(&c.high, late[i])
		line.Write(dsp.Flush(u + feedback.At(from+i)*0.01*bounded(y)))
		x[i] = (u + y) * (1 / math.Sqrt2)
	}
	st.Flush()
}

// combMeet is the way, in frames, over which the long interpolator takes over from the short one.
const combMeet = 4

// read takes a line at a delay. The windowed sinc needs what comes after: nearer than that a shorter interpolator serves,
// and both meet in between.
func (c *comb) read(line *dsp.DelayLine, delay float64) float64 {
	if !c.smooth || delay <= dsp.FractionMargin {
		return line.ReadAt(delay)
	}
	y := line.ReadSmooth(delay)
	if delay < dsp.FractionMargin+combMeet {
		x := line.ReadAt(delay)
		y = x + (y-x)*(delay-dsp.FractionMargin)/combMeet
	}
	return y
}

func (c *comb) Reset() {
	c.line[0].Clear()
	c.line[1].Clear()
	*c = comb{rate: c.rate, smooth: c.smooth, line: c.line}
}

func (c *comb) CopyFrom(o Processor) {
	p := o.(*comb)
	line := c.line
	*c = *p
	c.line = line
	c.line[0].CopyFrom(p.line[0])
	c.line[1].CopyFrom(p.line[1])
}

func drawFlanger(_, tempo float64, v []float64) Picture {
	y := Axis{Label: "delay", Unit: "ms", Max: 20, Ticks: []float64{4, 8, 12, 16}}
	if v[0]+v[1] <= 5 {
		y = Axis{Label: "delay", Unit: "ms", Max: 5, Ticks: []float64{1, 2, 3, 4}}
	}
	t := period(v[5:], tempo)
	p := drawMovement("How late the copy is on the left and right, over two cycles.", y, t, func(c float64) (l, r float64) {
		return v[0] + v[1]*(0.5+0.5*wave(waveSine, c, 0)), v[0] + v[1]*(0.5+0.5*wave(waveSine, c-v[3]/360, 0))
	})
	p.Handles = []Handle{
		{Label: "Delay", X: t * 0.75, Y: v[0], ParamY: "delay"},
		{Label: "Top", X: t * 1.25, Y: v[0] + v[1], ParamY: "depth"},
	}
	return p
}
