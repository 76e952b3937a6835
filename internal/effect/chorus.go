package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

const chorusVoices = 6

// chorus adds voices that are late by a slowly moving time (Dattorro, JAES 1997, part
// 2). Voices are spread evenly over the cycle and over the sides; their signs are all
// alike, so that a mono sum keeps them. Delays in ms.
var chorus = Kind{
	Info: Info{
		ID: "chorus", Version: 2, Name: "Chorus", Family: "Movement", Mix: 55, MixLaw: "add",
		Says:     "Adds moving copies, so that one sounds like several.",
		Plumbs:   []Plumb{{Param: "depth"}, {Param: "mix"}},
		Synonyms: []string{"ensemble", "thicken", "wide", "many", "unison", "shimmer"},
		Params: append([]param.Param{
			{Name: "voices", Label: "Voices", Says: "How many copies there are.",
				Min: 1, Max: chorusVoices, Default: 3, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "delay", Label: "Delay", Unit: "ms", Says: "How late the copies are on average.",
				Min: 2, Max: 40, Default: 14, Taper: param.Log, Step: 3, Digits: 1},
			{Name: "depth", Label: "Depth", Unit: "ms", Says: "How far that time moves either way.",
				Min: 0, Max: 12, Default: 2.2, Taper: param.Linear, Step: 0.1, Digits: 2},
			{Name: "spread", Label: "Spread", Unit: "%", Says: "How far the copies stand apart between left and right.",
				Min: 0, Max: 100, Default: 80, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "lowcut", Label: "Low cut", Unit: "Hz", Says: "What the copies leave out at the bottom.",
				Min: 20, Max: 1000, Default: 140, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "highcut", Label: "High cut", Unit: "Hz", Says: "What the copies leave out at the top.",
				Min: 1000, Max: 20000, Default: 12000, Taper: param.Log, Step: 3, Digits: 0},
		}, cycleParams(0.45, 13)...),
	},
	New:   func(rate float64) Processor { return newCrowd(rate, true) },
	Tail:  func([]float64, float64) float64 { return 0.08 },
	Rests: func([]float64, float64) float64 { return 0.5 },
	Draw:  drawChorus,
}

// chorus1 lost highs between frames, and its cuts were never quite out.
var chorus1 = was(chorus, 1, func(rate float64) Processor { return newCrowd(rate, false) })

type crowd struct {
	rate        float64
	smooth      bool // read by the windowed sinc, with cuts that can be out
	line        [2]*dsp.DelayLine
	lfo         lfo
	fresh       bool
	from, to    [chorusVoices]float64
	set         [2]float64 // voices and spread that the gains are of
	gains       [chorusVoices][2]float64
	delays      [Grid]float64
	low, high   dsp.Section
	ll, lr      dsp.Biquad
	hl, hr      dsp.Biquad
	lowHz, hiHz float64
}

func newCrowd(rate float64, smooth bool) *crowd {
	dsp.Smooths()
	n := int(0.054*rate) + 16
	return &crowd{rate: rate, smooth: smooth, line: [2]*dsp.DelayLine{dsp.NewDelayLine(n), dsp.NewDelayLine(n)}}
}

// crowdGains says how loud a voice is on either side, for so many voices (which may be
// on the way from one number to the next) and a spread.
func crowdGains(k int, voices, spread float64) (l, r float64) {
	there := max(0, min(1, voices-float64(k)))
	g := there / math.Sqrt(max(1, voices))
	pan := 0.0
	if voices > 1 {
		pan = spread / 100 * (2*float64(k)/(math.Ceil(voices)-1) - 1)
		if pan > 1 {
			pan = 1
		}
	}
	l, r = panGains(pan)
	return g * l, g * r
}

// panGains is the sine/cosine law, unity in the middle.
func panGains(p float64) (l, r float64) {
	a := (p + 1) * math.Pi / 4
	return math.Sqrt2 * math.Cos(a), math.Sqrt2 * math.Sin(a)
}

func (c *crowd) Process(s *Span) {
	var v [9]float64
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !c.fresh {
			s.read(v[:], from)
			c.look(s, from, v[:])
		}
		c.run(s, from, to)
		from = to
	}
	c.ll.Flush()
	c.lr.Flush()
	c.hl.Flush()
	c.hr.Flush()
}

func (c *crowd) look(s *Span, i int, v []float64) {
	hz, q := cycle(v[6:])
	a, b := c.lfo.look(s, i, c.rate, hz, q)
	ms := c.rate / 1000
	depth := min(v[2], v[1]-1)
	at := func(k int, phase float64) float64 {
		return max(2, ms*(v[1]+depth*wave(waveSine, phase+float64(k)/chorusVoices, 0)))
	}
	for k := range c.from {
		if !c.fresh {
			c.to[k] = at(k, a)
		}
		c.from[k], c.to[k] = c.to[k], at(k, b)
	}
	if set := [2]float64{v[0], v[3]}; !c.fresh || set != c.set {
		c.set = set
		for k := range c.gains {
			c.gains[k][0], c.gains[k][1] = crowdGains(k, v[0], v[3])
		}
	}
	if !c.fresh || v[4] != c.lowHz {
		c.lowHz, c.low = v[4], lowCutOf(c.smooth, v[4], c.rate)
	}
	if !c.fresh || v[5] != c.hiHz {
		c.hiHz, c.high = v[5], highCutOf(c.smooth, v[5], c.rate)
	}
	c.fresh = true
}

func (c *crowd) run(s *Span, from, to int) {
	l, r := s.L[from:to], s.R[from:to]
	dsp.RunStereo2(&c.low, &c.high, &c.ll, &c.lr, &c.hl, &c.hr, l, r)
	start := (s.Frame + int64(from)) & (Grid - 1)
	if !c.smooth {
		c.runOlder(l, r, start)
		return
	}
	c.line[0].WriteBlock(l)
	c.line[1].WriteBlock(r)
	clear(l)
	clear(r)
	delays := c.delays[:len(l)]
	for k, g := range c.gains {
		if g == [2]float64{} {
			break
		}
		glideOver(delays, c.from[k], c.to[k], start)
		dsp.AddSmoothBlocks(c.line[0], c.line[1], l, r, delays, g)
	}
}

func (c *crowd) runOlder(l, r []float64, start int64) {
	for i := range l {
		c.line[0].Write(l[i])
		c.line[1].Write(r[i])
		t := float64(start+int64(i)) / Grid
		var x, y float64
		for k, g := range c.gains {
			if g == [2]float64{} {
				break
			}
			d := c.from[k] + (c.to[k]-c.from[k])*t
			x += g[0] * c.line[0].ReadAt(d)
			y += g[1] * c.line[1].ReadAt(d)
		}
		l[i], r[i] = x, y
	}
}

func (c *crowd) Reset() {
	c.line[0].Clear()
	c.line[1].Clear()
	line := c.line
	*c = crowd{rate: c.rate, smooth: c.smooth, line: line}
}

func (c *crowd) CopyFrom(o Processor) {
	p := o.(*crowd)
	line := c.line
	*c = *p
	c.line = line
	c.line[0].CopyFrom(p.line[0])
	c.line[1].CopyFrom(p.line[1])
}

func drawChorus(_, tempo float64, v []float64) Picture {
	t := period(v[6:], tempo)
	x := Axis{Label: "time", Unit: "s", Max: 2 * t, Ticks: []float64{roundTick(t / 2), roundTick(t), roundTick(t * 1.5)}}
	y := Axis{Label: "delay", Unit: "ms", Max: 55, Ticks: []float64{10, 20, 30, 40}}
	p := Picture{Says: "How late each copy is, over two cycles.", X: x, Y: y, Curves: []Curve{},
		Handles: []Handle{{Label: "Delay", X: t, Y: v[1], ParamY: "delay"}}}
	depth := min(v[2], v[1]-1)
	for k := range int(math.Ceil(v[0])) {
		role := "part"
		if k == 0 {
			role = "main"
		}
		p.Curves = append(p.Curves, x.curve("voice", role, func(s float64) float64 {
			return v[1] + depth*wave(waveSine, s/t+float64(k)/chorusVoices, 0)
		}))
	}
	return p
}
