package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// reverb is a feedback delay network of 32 lines, mixed by two Hadamard matrices with a short delay on each way between them
// (Schlecht and Habets, Scattering in Feedback Delay Networks, IEEE/ACM TASLP 2020) on which ways also change places, and an
// absorption filter in every line (Jot and Chaigne, AES 90, 1991): a line of m frames loses 60 m / (rate · T(f)) dB each time
// round, so that all lines die away together. T is the decay at the middle, times the low factor below the low edge and the
// high factor above the high edge. Movement turns pairs of lines into each other by slowly drifting angles (time-varying
// orthogonal matrix), which leaves the decay as it is: hardly at short decays, where held notes stand still whatever it is, and
// further the longer the tail. Before it: pre-delay, early reflections, low and high cut, four all-pass diffusers a side, which
// ring for a twelfth of the shortest decay at most (35 ms where that is less). The character (hall, room, plate, chamber) sets
// the lengths of lines and diffusers, the first reflections and the colour of what goes in; the decay is as asked in all of
// them. The lines together hold about six seconds in every character, for the density of modes (Schroeder 1962); the shortest
// of them set when the first echoes come.
var reverb = reverbOf(4, crossedLines)

var (
	reverb1 = reverbOf(1, sixteenLines)
	reverb2 = reverbOf(2, allpassedLines)
	reverb3 = reverbOf(3, scatteredLines)
)

func reverbOf(version int, plan *reverbPlan) Kind {
	return Kind{
		Info: Info{
			ID: "reverb", Version: version, Name: "Reverb", Family: "Space", Mix: 25, MixLaw: "add",
			Says:     "Puts the signal in a space, from a small room to a great hall.",
			Synonyms: []string{"room", "hall", "space", "ambience", "echo", "church", "plate", "wet"},
			Plumbs:   []Plumb{{Param: "decay"}, {Param: "mix"}},
			Params: []param.Param{
				{Name: "decay", Label: "Decay", Unit: "s", Says: "How long the middle frequencies take to fall by 60 dB.",
					Min: 0.1, Max: 20, Default: 1.8, Taper: param.Log, Step: 3, Digits: 2},
				{Name: "size", Label: "Size", Unit: "%", Says: "How far apart the walls are.",
					Min: 30, Max: 200, Default: 100, Taper: param.Linear, Step: 2, Digits: 0, Structural: true},
				{Name: "predelay", Label: "Pre-delay", Unit: "ms", Says: "How long after the sound the space answers.",
					Min: 0, Max: 250, Default: 15, Taper: param.Linear, Step: 1, Digits: 0, Structural: true},
				{Name: "diffusion", Label: "Diffusion", Unit: "%", Says: "How soon single echoes melt into one sound.",
					Min: 0, Max: 100, Default: 80, Taper: param.Linear, Step: 1, Digits: 0},
				{Name: "early", Label: "Early", Unit: "dB", Says: "The level of the first reflections.",
					Min: -120, Max: 6, Default: -9, Taper: param.Level, Step: 0.5, Digits: 1},
				{Sheet: "Tone", Name: "lowfactor", Label: "Low decay", Unit: "×", Says: "How much longer or shorter the lows last.",
					Min: 0.3, Max: 2.5, Default: 1.1, Taper: param.Log, Step: 3, Digits: 2},
				{Sheet: "Tone", Name: "lowedge", Label: "Low edge", Unit: "Hz", Says: "Below this the low decay counts.",
					Min: 60, Max: 800, Default: 220, Taper: param.Log, Step: 3, Digits: 0},
				{Sheet: "Tone", Name: "highfactor", Label: "High decay", Unit: "×", Says: "How much shorter the highs last.",
					Min: 0.1, Max: 1.5, Default: 0.45, Taper: param.Log, Step: 3, Digits: 2},
				{Sheet: "Tone", Name: "highedge", Label: "High edge", Unit: "Hz", Says: "Above this the high decay counts.",
					Min: 1000, Max: 16000, Default: 4500, Taper: param.Log, Step: 3, Digits: 0},
				{Sheet: "Tone", Name: "lowcut", Label: "Low cut", Unit: "Hz", Says: "What is kept out of the space at the bottom.",
					Min: 20, Max: 1000, Default: 80, Taper: param.Log, Step: 3, Digits: 0},
				{Sheet: "Tone", Name: "highcut", Label: "High cut", Unit: "Hz", Says: "What is kept out of the space at the top.",
					Min: 1000, Max: 20000, Default: 14000, Taper: param.Log, Step: 3, Digits: 0},
				{Name: "movement", Label: "Movement", Unit: "%", Says: "How much the space lives.",
					Min: 0, Max: 100, Default: 30, Taper: param.Linear, Step: 1, Digits: 0},
				{Name: "width", Label: "Width", Unit: "%", Says: "How far the space spreads between the sides.",
					Min: 0, Max: 150, Default: 100, Taper: param.Linear, Step: 1, Digits: 0},
				{Name: "character", Label: "Character", Says: "What kind of space it is.",
					Max: float64(len(characters) - 1), Taper: param.Choice, Choices: characterNames(), Structural: true},
			},
		},
		New: func(rate float64) Processor { return newSpace(rate, plan) },
		Tail: func(v []float64, _ float64) float64 {
			longest := v[0] * max(1, v[5], v[7])
			return min(60, v[2]/1000+0.3+longest*100/60)
		},
		Rests: func(v []float64, _ float64) float64 { return 0.3 + v[2]/1000 + v[0]*max(1, v[5], v[7]) },
		Draw:  drawReverb,
	}
}

// space is the running reverb.
type space struct {
	*reverbPlan
	rate              float64
	kind              int // structural, as prepared
	colour            bool
	tintLow, tintHigh dsp.Section
	tl, tr, ul, ur    dsp.Biquad
	pre               [2]*dsp.DelayLine
	preFrames         int
	early             [2][reverbEarly]int
	cutLow, cutHigh   dsp.Section
	cl, cr, hl, hr    dsp.Biquad
	diff              [2][reverbDiffusers]allpass
	line              [reverbMost][]float64
	pos               [reverbMost]int
	length            [reverbMost]int
	inside            [reverbMost]allpass // all-passes in the lines, or short delays between two steps of mixing
	round             [reverbMost]int     // in which ways change places between them
	shortMean         float64             // of those delays, in frames
	absorb            [reverbMost]dsp.Section
	state             [reverbMost]dsp.Biquad
	last              [13]float64
	fresh             bool
	level, levelWas   float64 // of what goes into the lines, and at the grid point before
	cosine, sine      [reverbPairs]float64
	cosStep, sinStep  [reverbPairs]float64
	cosEnd, sinEnd    [reverbPairs]float64
	turned            int64 // the grid point that cosEnd and sinEnd belong to
	turnDepth         float64
	*spaceRoom
}

// spaceRoom is what a reverb needs only while it works.
type spaceRoom struct {
	x                    [reverbMost][MaxFrames]float64
	inL, inR, outL, outR [MaxFrames]float64
	spare                [MaxFrames]float64
}

func (s *space) Borrow(o Processor) { s.spaceRoom = o.(*space).spaceRoom }

func newSpace(rate float64, plan *reverbPlan) *space {
	return &space{reverbPlan: plan, rate: rate, spaceRoom: new(spaceRoom)}
}

// Prepare makes lines and delays for size, pre-delay and character.
func (s *space) Prepare(v []float64) {
	size, predelay, kind := v[1], v[2], int(v[13])
	s.kind = kind
	c := characters[kind]
	s.colour = c.low != 0 || c.high != 0
	s.tintLow, s.tintHigh = dsp.Shelf(false, 250, c.low, 0.6, s.rate), dsp.Shelf(true, 4000, c.high, 0.6, s.rate)
	ms := s.rate / 1000
	s.preFrames = int(math.Round(predelay * ms))
	for side := range s.pre {
		s.pre[side] = dsp.NewDelayLine(int((predelay + 60*size/100 + 5) * ms))
		for i, t := range earlyMs[side] {
			s.early[side][i] = s.preFrames + int(math.Round(t*size/100*c.early*ms))
		}
		for i, t := range diffuserMs[side] {
			s.diff[side][i].buf = make([]float64, int(math.Round(t*s.diffusers*c.diffuse*min(1.2, max(0.5, size/100))*ms)))
			s.diff[side][i].pos = 0
		}
	}
	if s.places != nil {
		s.round = aRound(s.places[kind])
	}
	s.shortMean = 0
	for i, n := range s.frames(size/100*ms, kind) {
		s.length[i] = n
		s.line[i] = make([]float64, n)
		s.pos[i] = 0
		if s.inner != nil || s.scattered != nil {
			s.inside[i] = allpass{buf: make([]float64, s.within(min(1.2, max(0.5, size/100))*ms, kind, i)), gain: reverbInside}
			s.shortMean += float64(len(s.inside[i].buf)) / float64(s.lines)
		}
	}
	s.Reset()
}

func (s *space) Reset() {
	for side := range s.pre {
		s.pre[side].Clear()
		for i := range s.diff[side] {
			clear(s.diff[side][i].buf)
		}
	}
	for i := range s.lines {
		clear(s.line[i])
		clear(s.inside[i].buf)
		s.state[i].Clear()
	}
	s.cl, s.cr, s.hl, s.hr = dsp.Biquad{}, dsp.Biquad{}, dsp.Biquad{}, dsp.Biquad{}
	s.tl, s.tr, s.ul, s.ur = dsp.Biquad{}, dsp.Biquad{}, dsp.Biquad{}, dsp.Biquad{}
	s.fresh, s.turned = true, -1
}

func (s *space) CopyFrom(o Processor) {
	p := o.(*space)
	for side := range s.pre {
		s.pre[side].CopyFrom(p.pre[side])
		for i := range s.diff[side] {
			copyRing(s.diff[side][i].buf, &s.diff[side][i].pos, p.diff[side][i].buf, p.diff[side][i].pos)
		}
	}
	for i := range s.lines {
		copyRing(s.line[i], &s.pos[i], p.line[i], p.pos[i])
		if len(s.inside[i].buf) > 0 {
			copyRing(s.inside[i].buf, &s.inside[i].pos, p.inside[i].buf, p.inside[i].pos)
		}
	}
	s.state = p.state
	s.cl, s.cr, s.hl, s.hr = p.cl, p.cr, p.hl, p.hr
	s.tl, s.tr, s.ul, s.ur = p.tl, p.tr, p.ul, p.ur
	s.cosine, s.sine, s.cosStep, s.sinStep = p.cosine, p.sine, p.cosStep, p.sinStep
	s.cosEnd, s.sinEnd, s.turned, s.turnDepth = p.cosEnd, p.sinEnd, p.turned, p.turnDepth
	s.fresh, s.level, s.levelWas = p.fresh, p.level, p.levelWas
	if p.last != [13]float64{} { // it has run: the lengths here may be others
		s.tune(p.last)
	}
}

// copyRing takes over a ring whose pos is its oldest sample; the newest that fit are kept.
func copyRing(dst []float64, pos *int, src []float64, at int) {
	*pos = 0
	n := min(len(dst), len(src))
	clear(dst)
	for i := 1; i <= n; i++ {
		dst[len(dst)-i] = src[((at-i)%len(src)+len(src))%len(src)]
	}
}

func (s *space) Process(p *Span) {
	if s.still(p) { // every line is longer than a span: all of it at once
		s.levelWas = s.level
		s.flush()
		s.run(p, 0, len(p.L))
		return
	}
	for from := 0; from < len(p.L); {
		to, onGrid := p.piece(from)
		if onGrid || s.fresh {
			s.look(p, from)
			s.flush()
		}
		s.run(p, from, to)
		from = to
	}
}

// still reports whether a whole span can be run with the settings there are.
func (s *space) still(p *Span) bool {
	if s.fresh || p.Frame&(Grid-1) != 0 || len(p.L)&(Grid-1) != 0 {
		return false
	}
	if p.Still {
		return true
	}
	for k := range s.last {
		if v := &p.Values[k]; v.Track != nil || v.Now != s.last[k] {
			return false
		}
	}
	return true
}

// look takes the parameters at a grid point.
func (s *space) look(p *Span, i int) {
	var v [13]float64
	p.read(v[:], i)
	s.levelWas = s.level
	if v != s.last {
		s.tune(v)
	}
	if s.fresh {
		s.levelWas = s.level
	}
	s.fresh = false
}

// tune works out what follows from the parameters and from the lengths of lines and diffusers.
func (s *space) tune(v [13]float64) {
	s.cutLow, s.cutHigh = lowCutOf(s.levelled, v[9], s.rate), highCutOf(s.levelled, v[10], s.rate)
	s.level = 1
	if s.levelled {
		s.level = dsp.QuickExp(reverbLevelling * dsp.QuickLog(reverbLevelAt/v[0]))
	}
	w := v
	if s.levelled { // until it has spread over all lines it falls a little faster
		w[0] += s.settles
		w[7] *= v[0] / (w[0] + s.settles)
	}
	for n := range s.lines {
		own := float64(len(s.inside[n].buf))
		inside := own
		if s.scattered != nil { // a way through a line goes on through any of the short delays
			inside = s.shortMean
		}
		s.absorb[n] = s.absorption(float64(s.length[n]), inside, w[:], s.rate)
		s.inside[n].keep = dsp.Gain(max(-60*own/(s.rate*w[0]), dsp.Off+1))
	}
	ring := s.ring(v[0] * min(1, v[5], v[7]))
	for side := range s.diff {
		for n := range s.diff[side] {
			d := &s.diff[side][n]
			wanted := s.diffuse + v[3]/100*(0.7-s.diffuse)
			d.gain = min(wanted, dsp.Exp(-3*math.Ln10*float64(len(d.buf))/s.rate/ring))
		}
	}
	s.last = v
}

func (s *space) flush() {
	for n := range s.lines {
		s.state[n].Flush()
	}
	s.cl.Flush()
	s.cr.Flush()
	s.hl.Flush()
	s.hr.Flush()
	s.tl.Flush()
	s.tr.Flush()
	s.ul.Flush()
	s.ur.Flush()
}

// ReverbDecay is the decay that is asked for at a frequency, in seconds: what the
// picture shows and what the tests measure.
func ReverbDecay(v []float64, f float64) float64 {
	l := 1 / (1 + f*f/(v[6]*v[6]))
	h := 1 / (1 + v[8]*v[8]/(f*f))
	return v[0] / (1 + (1/v[5]-1)*l + (1/v[7]-1)*h)
}

func drawReverb(_, _ float64, v []float64) Picture {
	top := 2.0
	for _, t := range []float64{0.5, 1, 2, 4, 8, 16, 32, 60} {
		top = t
		if v[0]*max(1, v[5], v[7]) <= t*0.95 {
			break
		}
	}
	y := Axis{Label: "decay", Unit: "s", Max: top}
	for i := 1; i < 4; i++ {
		y.Ticks = append(y.Ticks, top*float64(i)/4)
	}
	main := hertz.curve("decay", "main", func(f float64) float64 { return ReverbDecay(v, f) })
	main.Fill = true
	return Picture{Says: "How long each frequency takes to fall by 60 dB.", X: hertz, Y: y, Curves: []Curve{main},
		Handles: []Handle{
			{Label: "Decay", X: math.Sqrt(v[6] * v[8]), Y: ReverbDecay(v, math.Sqrt(v[6]*v[8])), ParamY: "decay"},
			{Label: "Low", X: v[6], Y: ReverbDecay(v, v[6]), ParamX: "lowedge", ParamZ: "lowfactor"},
			{Label: "High", X: v[8], Y: ReverbDecay(v, v[8]), ParamX: "highedge", ParamZ: "highfactor"},
		}}
}
