package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// repeat takes hold of what is playing when it is switched on and plays it again and again. The
// first time through is the live signal; seams are cross-faded over 3 ms. Each time
// round it can get softer, duller and, in step with the song, shorter. Switched off, it
// fades to the live signal over 5 ms.
var repeat = Kind{
	Info: Info{
		ID: "repeat", Version: 2, Name: "Repeat", Family: "Transition", Mix: 100, MixLaw: "blend",
		Says:     "Catches a moment and repeats it until you let go.",
		Synonyms: []string{"stutter", "loop", "glitch", "roll", "hold"},
		Plumbs:   []Plumb{{Param: "note"}, {Param: "fall"}},
		Params: []param.Param{
			{Name: "hold", Label: "Repeat", Says: "Switch it on to catch what plays now and repeat it.", Max: 1, Taper: param.Switch},
			{Name: "note", Label: "Length", Says: "How long the caught piece is.",
				Max: float64(len(notes) - 1), Default: 5, Taper: param.Choice, Choices: noteNames()},
			{Name: "fall", Label: "Fall", Unit: "dB", Says: "How much softer it gets each time.",
				Min: 0, Max: 24, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "dull", Label: "Dull", Unit: "%", Says: "How much duller it gets each time.",
				Min: 0, Max: 100, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "shrink", Label: "Shrink", Says: "Whether the piece is halved after every fourth time.", Max: 1, Taper: param.Switch},
		},
	},
	New:  func(rate float64) Processor { return newCatch(rate, true) },
	Draw: drawRepeat,
}

// repeat1 came back from the wrong place where it grew shorter, and got softer in a step: both clicked.
var repeat1 = was(repeat, 1, func(rate float64) Processor { return newCatch(rate, false) })

const catchSeconds = 6

type catch struct {
	rate   float64
	bufL   []float64
	bufR   []float64
	on     bool
	at     int  // frames since it was switched on, within the piece
	seams  bool // each round goes over into the next in level and place
	before int  // length of the round before, and its level
	went   float64
	length int
	full   int // length of what was caught
	round  int
	gain   float64
	pole   float64
	z      [2]float64
	out    dsp.Glide // 1 while the repeats are heard
	seam   int
}

func newCatch(rate float64, seams bool) *catch {
	n := int(catchSeconds * rate)
	return &catch{rate: rate, bufL: make([]float64, n), bufR: make([]float64, n), seams: seams, gain: 1, went: 1, seam: int(rate * 0.003)}
}

func (c *catch) Process(s *Span) {
	var v [5]float64
	s.read(v[:], 0)
	on := v[0] != 0
	if on && !c.on {
		c.on, c.at, c.round, c.gain, c.pole, c.z = true, 0, 0, 1, 1, [2]float64{}
		c.full = min(len(c.bufL)-c.seam-1, max(4*c.seam, int(math.Round(notes[int(v[1])].quarters*60/s.Tempo*c.rate))))
		c.length, c.before, c.went = c.full, c.full, 1
		c.out.Set(0)
	}
	if !on && c.on {
		c.on = false
		c.out.Aim(0, int(c.rate*0.005))
	}
	if !c.on && !c.out.Moving() {
		return
	}
	for i := range s.L {
		l, r := s.L[i], s.R[i]
		if c.on && c.round == 0 {
			c.bufL[c.at], c.bufR[c.at] = l, r
			if c.at++; c.at == c.length {
				c.next(v[:])
				c.out.Set(1)
			}
			continue
		}
		if c.at < c.seam && c.round == 1 && c.full+c.at < len(c.bufL) {
			c.bufL[c.full+c.at], c.bufR[c.full+c.at] = l, r // a little more than the piece, for its seams
		}
		x, y, level := c.bufL[c.at], c.bufR[c.at], c.gain
		if c.at < c.seam { // out of the end of the round before, into this one
			w := 0.5 - 0.5*math.Cos(math.Pi*float64(c.at+1)/float64(c.seam+1))
			ends := c.length
			if c.seams {
				ends = c.before
				level += (c.went - level) * (1 - w)
			}
			x = c.bufL[ends+c.at]*(1-w) + x*w
			y = c.bufR[ends+c.at]*(1-w) + y*w
		}
		c.z[0] += c.pole * (x - c.z[0])
		c.z[1] += c.pole * (y - c.z[1])
		x, y = c.z[0]*level, c.z[1]*level
		g := c.out.Next()
		s.L[i], s.R[i] = l+g*(x-l), r+g*(y-r)
		if c.at++; c.at >= c.length {
			c.next(v[:])
		}
	}
	c.z[0], c.z[1] = dsp.Flush(c.z[0]), dsp.Flush(c.z[1])
}

// next begins another round.
func (c *catch) next(v []float64) {
	c.at, c.before, c.went = 0, c.length, c.gain
	c.round++
	if c.round > 1 {
		c.gain *= dsp.Gain(-v[2])
		c.pole = max(0.02, c.pole*(1-v[3]/100*0.5))
	}
	if v[4] != 0 && c.round%4 == 0 && c.length/2 > 4*c.seam {
		c.length /= 2
	}
}

func (c *catch) Reset() {
	clear(c.bufL)
	clear(c.bufR)
	*c = catch{rate: c.rate, bufL: c.bufL, bufR: c.bufR, seams: c.seams, gain: 1, went: 1, seam: c.seam}
}

func (c *catch) CopyFrom(o Processor) {
	p, l, r := o.(*catch), c.bufL, c.bufR
	*c = *p
	c.bufL, c.bufR = l, r
	copy(l, p.bufL)
	copy(r, p.bufR)
}

func drawRepeat(_, tempo float64, v []float64) Picture {
	length := notes[int(v[1])].quarters * 60 / tempo
	x := Axis{Label: "time", Unit: "s", Max: length * 10}
	quarter := 60 / tempo
	for q := 0.0; q < x.Max && len(x.Ticks) < 33; q += quarter {
		x.Ticks = append(x.Ticks, math.Round(q*1000)/1000)
	}
	p := Picture{Says: "The caught piece, and how its repeats follow; the lines are quarter notes.", X: x, Curves: []Curve{},
		Y: Axis{Label: "level", Unit: "dB", Min: -48, Max: 6, Ticks: []float64{-36, -24, -12, 0}}}
	at, db := 0.0, 0.0
	for k := 0; at < x.Max && db > -48 && k < 128; k++ {
		p.Bars = append(p.Bars, Bar{X: at, Y: db})
		at += length
		if k > 0 {
			db -= v[2]
		}
		if v[4] != 0 && (k+1)%4 == 0 && length > 0.024 {
			length /= 2
		}
	}
	p.Handles = []Handle{{Label: "Fall", X: x.Max * 0.3, Y: max(-46, -3*v[2]), ParamY: "fall"}}
	return p
}
