package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

const (
	reverbLines     = 16
	reverbDiffusers = 4
	reverbEarly     = 8
)

// reverb is a feedback delay network of sixteen lines with a Hadamard mixing
// matrix and an absorption filter in every line (Jot and Chaigne, AES 90, 1991): a
// line of m frames loses 60 m / (rate · T(f)) dB each time round, so that all
// lines die away together. T is the decay at the middle, times the low factor
// below the low edge and the high factor above the high edge. Movement turns pairs
// of lines into each other by slowly drifting angles (time-varying orthogonal
// matrix), which leaves the decay as it is. Before it: pre-delay, early
// reflections, low and high cut, four all-pass diffusers a side. The character (hall,
// room, plate, chamber) sets the lengths of lines and diffusers, the first reflections and
// the colour of what goes in; the decay is as asked in all of them.
var reverb = Kind{
	Info: Info{
		ID: "reverb", Version: 1, Name: "Reverb", Family: "Space", Mix: 25, MixLaw: "add",
		Says:     "Puts the signal in a space, from a small room to a great hall.",
		Synonyms: []string{"room", "hall", "space", "ambience", "echo", "church", "plate", "wet"},
		Params: []param.Param{
			{Name: "decay", Label: "Decay", Unit: "s", Says: "How long the middle frequencies take to fall by 60 dB.", Min: 0.1, Max: 20, Default: 1.8, Taper: param.Log, Step: 3, Digits: 2},
			{Name: "size", Label: "Size", Unit: "%", Says: "How far apart the walls are.", Min: 30, Max: 200, Default: 100, Taper: param.Linear, Step: 2, Digits: 0, Structural: true},
			{Name: "predelay", Label: "Pre-delay", Unit: "ms", Says: "How long after the sound the space answers.", Min: 0, Max: 250, Default: 15, Taper: param.Linear, Step: 1, Digits: 0, Structural: true},
			{Name: "diffusion", Label: "Diffusion", Unit: "%", Says: "How soon single echoes melt into one sound.", Min: 0, Max: 100, Default: 80, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "early", Label: "Early", Unit: "dB", Says: "The level of the first reflections.", Min: -120, Max: 6, Default: -9, Taper: param.Level, Step: 0.5, Digits: 1},
			{Name: "lowfactor", Label: "Low decay", Unit: "×", Says: "How much longer or shorter the lows last.", Min: 0.3, Max: 2.5, Default: 1.1, Taper: param.Log, Step: 3, Digits: 2},
			{Name: "lowedge", Label: "Low edge", Unit: "Hz", Says: "Below this the low decay counts.", Min: 60, Max: 800, Default: 220, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "highfactor", Label: "High decay", Unit: "×", Says: "How much shorter the highs last.", Min: 0.1, Max: 1.5, Default: 0.45, Taper: param.Log, Step: 3, Digits: 2},
			{Name: "highedge", Label: "High edge", Unit: "Hz", Says: "Above this the high decay counts.", Min: 1000, Max: 16000, Default: 4500, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "lowcut", Label: "Low cut", Unit: "Hz", Says: "What is kept out of the space at the bottom.", Min: 20, Max: 1000, Default: 80, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "highcut", Label: "High cut", Unit: "Hz", Says: "What is kept out of the space at the top.", Min: 1000, Max: 20000, Default: 14000, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "movement", Label: "Movement", Unit: "%", Says: "How much the space lives.", Min: 0, Max: 100, Default: 30, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "width", Label: "Width", Unit: "%", Says: "How far the space spreads between the sides.", Min: 0, Max: 150, Default: 100, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "character", Label: "Character", Says: "What kind of space it is.", Max: float64(len(characters) - 1), Taper: param.Choice, Choices: characterNames(), Structural: true},
		},
	},
	New: func(rate float64) Processor { return newSpace(rate) },
	Tail: func(v []float64, _ float64) float64 {
		longest := v[0] * max(1, v[5], v[7])
		return min(60, v[2]/1000+0.3+longest*100/60)
	},
	Draw: drawReverb,
}

// Line lengths in milliseconds at size 100 %: spread evenly in the logarithm, then nudged
// apart so that no two stand in a simple ratio.
var reverbMs = [reverbLines]float64{
	21.13, 22.91, 25.37, 27.83, 29.71, 32.57, 35.09, 37.73, 40.51, 43.31, 46.99, 50.33, 54.41, 58.57, 63.29, 68.11,
}

// character is what makes one kind of space unlike another: how long its lines and
// diffusers are against those of the hall, and its first reflections.
type character struct {
	name                  string
	lines, diffuse, early float64    // times the hall's lengths
	reflect               [2]float64 // level of the first reflections, and how much each is of the one before
	low, high             float64    // gains in dB of what goes in, for lows and highs
}

var characters = []character{
	{"hall", 1, 1, 1, [2]float64{0.5, -0.87}, 0, 0},
	{"room", 0.52, 0.7, 0.42, [2]float64{0.72, -0.78}, 0, -1.5},
	{"plate", 0.38, 0.62, 0.12, [2]float64{0.1, -0.5}, -4, 2.5},
	{"chamber", 0.74, 1.15, 0.66, [2]float64{0.42, 0.8}, 1.5, -3},
}

func characterNames() []string {
	var n []string
	for _, c := range characters {
		n = append(n, c.name)
	}
	return n
}

var diffuserMs = [2][reverbDiffusers]float64{{3.17, 5.09, 7.43, 10.67}, {3.41, 4.79, 7.91, 10.13}}

var earlyMs = [2][reverbEarly]float64{{6.1, 11.9, 17.3, 23.9, 31.1, 39.7, 47.3, 58.1}, {7.9, 10.3, 19.1, 25.7, 29.3, 41.9, 50.9, 55.3}}

// space is the running reverb.
type space struct {
	rate              float64
	size, predelay    float64 // structural, as prepared
	kind              int
	colour            bool
	tintLow, tintHigh dsp.Section
	tl, tr, ul, ur    dsp.Biquad
	pre               [2]*dsp.DelayLine
	preFrames         int
	early             [2][reverbEarly]int
	cutLow, cutHigh   dsp.Section
	cl, cr, hl, hr    dsp.Biquad
	diff              [2][reverbDiffusers]allpass
	line              [reverbLines][]float64
	pos               [reverbLines]int
	length            [reverbLines]int
	absorb            [reverbLines]dsp.Section
	state             [reverbLines]dsp.Biquad
	last              [13]float64
	fresh             bool
	cosine, sine      [reverbLines / 2]float64
	cosStep, sinStep  [reverbLines / 2]float64
	cosEnd, sinEnd    [reverbLines / 2]float64
	turned            int64 // the grid point that cosEnd and sinEnd belong to
	turnDepth         float64
	*spaceRoom
}

// spaceRoom is what a reverb needs only while it works.
type spaceRoom struct {
	x                    [reverbLines][MaxFrames]float64
	inL, inR, outL, outR [MaxFrames]float64
}

func (s *space) Borrow(o Processor) { s.spaceRoom = o.(*space).spaceRoom }

type allpass struct {
	buf  []float64
	pos  int
	gain float64
}

func (a *allpass) run(x []float64) {
	g := a.gain
	for len(x) > 0 {
		n := min(len(x), len(a.buf)-a.pos)
		ring := a.buf[a.pos : a.pos+n]
		for i, u := range x[:n] {
			d := ring[i]
			v := u - g*d
			ring[i] = dsp.Flush(v)
			x[i] = d + g*v
		}
		if a.pos += n; a.pos == len(a.buf) {
			a.pos = 0
		}
		x = x[n:]
	}
}

func newSpace(rate float64) *space {
	s := &space{rate: rate, spaceRoom: new(spaceRoom)}
	s.build(100, 15, 0)
	return s
}

// Prepare sizes lines for size and pre-delay.
func (s *space) Prepare(v []float64) {
	if v[1] != s.size || v[2] != s.predelay || int(v[13]) != s.kind {
		s.build(v[1], v[2], int(v[13]))
	}
}

func (s *space) build(size, predelay float64, kind int) {
	s.size, s.predelay, s.kind = size, predelay, kind
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
			s.diff[side][i].buf = make([]float64, int(math.Round(t*c.diffuse*min(1.2, max(0.5, size/100))*ms)))
			s.diff[side][i].pos = 0
		}
	}
	for i, t := range reverbMs {
		n := max(MaxFrames+1, int(math.Round(t*size/100*c.lines*ms)))
		n += 1 - n%2 // odd lengths share no factor of two
		s.length[i] = n
		s.line[i] = make([]float64, n)
		s.pos[i] = 0
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
	for i := range s.line {
		clear(s.line[i])
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
			s.diff[side][i].gain = p.diff[side][i].gain
		}
	}
	for i := range s.line {
		copyRing(s.line[i], &s.pos[i], p.line[i], p.pos[i])
	}
	s.state = p.state
	s.cl, s.cr, s.hl, s.hr = p.cl, p.cr, p.hl, p.hr
	s.tl, s.tr, s.ul, s.ur = p.tl, p.tr, p.ul, p.ur
	s.cosine, s.sine, s.cosStep, s.sinStep = p.cosine, p.sine, p.cosStep, p.sinStep
	s.cosEnd, s.sinEnd, s.turned, s.turnDepth = p.cosEnd, p.sinEnd, p.turned, p.turnDepth
	s.cutLow, s.cutHigh = p.cutLow, p.cutHigh
	s.fresh, s.last = p.fresh, p.last
	if !s.fresh {
		for i := range s.absorb {
			s.absorb[i] = absorption(float64(s.length[i]), s.last[:], s.rate)
		}
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
	if v != s.last {
		if s.fresh || v[9] != s.last[9] || v[10] != s.last[10] {
			s.cutLow = dsp.HighPass1(v[9], s.rate)
			s.cutHigh = dsp.LowPass1(min(v[10], s.rate*0.45), s.rate)
		}
		for n := range s.absorb {
			s.absorb[n] = absorption(float64(s.length[n]), v[:], s.rate)
		}
		// a diffuser must not ring longer than a third of the shortest decay
		shortest := v[0] * min(1, v[5], v[7]) / 3
		for side := range s.diff {
			for n := range s.diff[side] {
				d := &s.diff[side][n]
				d.gain = min(v[3]/100*0.7, dsp.Exp(-3*math.Ln10*float64(len(d.buf))/s.rate/shortest))
			}
		}
		s.last = v
	}
	s.fresh = false
}

// turn takes the angles of the mixing matrix at a frame: they drift with song time, and
// between grid points sine and cosine move in straight lines.
func (s *space) turn(frame int64) {
	grid := frame &^ (Grid - 1)
	depth := s.last[11] / 100 * 0.9
	for k := range s.cosine {
		angle := func(frame int64) float64 {
			return depth * dsp.Drift(uint64(k)*977+11, float64(frame)/s.rate*(0.7+0.13*float64(k)))
		}
		if s.turned != grid || s.turnDepth != depth { // not where the piece before ended
			a := angle(grid)
			s.cosEnd[k], s.sinEnd[k] = math.Cos(a), math.Sin(a)
		}
		b := angle(grid + Grid)
		c0, s0 := s.cosEnd[k], s.sinEnd[k]
		s.cosEnd[k], s.sinEnd[k] = math.Cos(b), math.Sin(b)
		s.cosStep[k], s.sinStep[k] = (s.cosEnd[k]-c0)/Grid, (s.sinEnd[k]-s0)/Grid
		at := float64(frame - grid)
		s.cosine[k], s.sine[k] = c0+at*s.cosStep[k], s0+at*s.sinStep[k]
	}
	s.turned, s.turnDepth = grid+Grid, depth
}

func (s *space) flush() {
	for n := range s.state {
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

// absorption is the filter of a line of so many frames: the middle's loss, with
// first-order shelves for what lows and highs lose beyond it.
func absorption(frames float64, v []float64, rate float64) dsp.Section {
	mid := -60 * frames / (rate * v[0])
	g := dsp.Gain(max(mid, dsp.Off+1))
	low := shelf1(v[6], mid/v[5]-mid, false, rate)
	high := shelf1(min(v[8], rate*0.4), mid/v[7]-mid, true, rate)
	return dsp.Section{
		B0: g * low.B0 * high.B0, B1: g * (low.B0*high.B1 + low.B1*high.B0), B2: g * low.B1 * high.B1,
		A1: low.A1 + high.A1, A2: low.A1 * high.A1,
	}
}

// shelf1 is a first-order shelf of db beyond an edge, half of it at the edge,
// by the bilinear transform of (s + √G)/(s + 1/√G) turned round as needed.
func shelf1(edge, db float64, high bool, rate float64) dsp.Section {
	k := math.Tan(math.Pi * edge / rate)
	r := dsp.Gain(min(max(db, -110), 40) / 2)
	if high {
		// H = (r s + k) / (s/r + k): 1 at zero, r² at the top, r at the edge
		a0 := 1/r + k
		return dsp.Section{B0: (r + k) / a0, B1: (k - r) / a0, A1: (k - 1/r) / a0}
	}
	// H = (s + r k) / (s + k/r): r² at zero, 1 at the top
	a0 := 1 + k/r
	return dsp.Section{B0: (1 + r*k) / a0, B1: (r*k - 1) / a0, A1: (k/r - 1) / a0}
}

func (s *space) run(p *Span, from, to int) {
	n := to - from
	early, width := &p.Values[4], &p.Values[12]
	for i := 0; i < n; i++ {
		s.inL[i], s.inR[i] = dsp.Flush(p.L[from+i]), dsp.Flush(p.R[from+i])
	}
	inL, inR := s.inL[:n], s.inR[:n]
	s.pre[0].WriteBlock(inL)
	s.pre[1].WriteBlock(inR)
	s.reflect(n, early, from)
	s.pre[0].ReadBlock(inL, s.preFrames+n-1)
	s.pre[1].ReadBlock(inR, s.preFrames+n-1)
	dsp.RunStereo2(&s.cutLow, &s.cutHigh, &s.cl, &s.cr, &s.hl, &s.hr, inL, inR)
	if s.colour {
		dsp.RunStereo2(&s.tintLow, &s.tintHigh, &s.tl, &s.tr, &s.ul, &s.ur, inL, inR)
	}
	for k := range s.diff[0] {
		s.diff[0][k].run(inL)
		s.diff[1][k].run(inR)
	}
	s.read(n)
	for i := 0; i < n; i++ {
		var l, r float64
		for k := 0; k < reverbLines; k += 4 { // signs alternate so that sides are unlike
			l += s.x[k][i] - s.x[k+2][i]
			r += s.x[k+1][i] - s.x[k+3][i]
		}
		s.outL[i] += l * 0.42
		s.outR[i] += r * 0.42
	}
	for a := 0; a < n; {
		b, onGrid := p.piece(from + a)
		if onGrid || s.turned < 0 {
			s.turn(p.Frame + int64(from+a))
		}
		s.mix(a, b-from)
		a = b - from
	}
	s.write(n)
	for i := 0; i < n; i++ {
		l, r := s.outL[i], s.outR[i]
		m, d := (l+r)*0.5, (l-r)*0.5*width.At(from+i)*0.01
		p.L[from+i], p.R[from+i] = m+d, m-d
	}
}

// reflect makes the early reflections of the piece just written to the pre-delay.
func (s *space) reflect(n int, early *Value, from int) {
	l, r := s.outL[:n], s.outR[:n]
	clear(l)
	clear(r)
	g, next := characters[s.kind].reflect[0], characters[s.kind].reflect[1]
	for k := range s.early[0] {
		s.pre[0].AddBlock(l, s.early[0][k]+n-1, g)
		s.pre[1].AddBlock(r, s.early[1][k]+n-1, g)
		g *= next
	}
	e := dsp.Gain(early.Now)
	for i, a := range l {
		b := r[i]
		if early.Track != nil {
			e = dsp.Gain(early.Track[from+i])
		}
		l[i], r[i] = e*(a+0.35*b), e*(b+0.35*a)
	}
}

// read takes n frames out of every line and absorbs.
func (s *space) read(n int) {
	for k := 0; k < reverbLines; k += 2 {
		a, b := s.line[k], s.line[k+1]
		p, q := s.pos[k], s.pos[k+1]
		for i := 0; i < n; { // up to where either line begins anew
			m := min(n-i, len(a)-p, len(b)-q)
			dsp.RunTwo(&s.absorb[k], &s.absorb[k+1], &s.state[k], &s.state[k+1], a[p:p+m], b[q:q+m], s.x[k][i:i+m], s.x[k+1][i:i+m])
			i, p, q = i+m, (p+m)%len(a), (q+m)%len(b)
		}
	}
}

// mix applies the Hadamard matrix and then the drifting rotations to frames
// [from, to). It goes frame by frame with the butterflies written out, so that the
// sixteen values stay in registers instead of passing through memory four times.
func (s *space) mix(from, to int) {
	x := &s.x
	cosine, sine := s.cosine, s.sine
	for f := from; f < to; f++ {
		i := f & (MaxFrames - 1)
		a0, a1, a2, a3, a4, a5, a6, a7, a8, a9, a10, a11, a12, a13, a14, a15 := x[0][i], x[1][i], x[2][i], x[3][i], x[4][i], x[5][i], x[6][i], x[7][i], x[8][i], x[9][i], x[10][i], x[11][i], x[12][i], x[13][i], x[14][i], x[15][i]
		a0, a1 = a0+a1, a0-a1
		a2, a3 = a2+a3, a2-a3
		a4, a5 = a4+a5, a4-a5
		a6, a7 = a6+a7, a6-a7
		a8, a9 = a8+a9, a8-a9
		a10, a11 = a10+a11, a10-a11
		a12, a13 = a12+a13, a12-a13
		a14, a15 = a14+a15, a14-a15
		a0, a2 = a0+a2, a0-a2
		a1, a3 = a1+a3, a1-a3
		a4, a6 = a4+a6, a4-a6
		a5, a7 = a5+a7, a5-a7
		a8, a10 = a8+a10, a8-a10
		a9, a11 = a9+a11, a9-a11
		a12, a14 = a12+a14, a12-a14
		a13, a15 = a13+a15, a13-a15
		a0, a4 = a0+a4, a0-a4
		a1, a5 = a1+a5, a1-a5
		a2, a6 = a2+a6, a2-a6
		a3, a7 = a3+a7, a3-a7
		a8, a12 = a8+a12, a8-a12
		a9, a13 = a9+a13, a9-a13
		a10, a14 = a10+a14, a10-a14
		a11, a15 = a11+a15, a11-a15
		a0, a8 = a0+a8, a0-a8
		a1, a9 = a1+a9, a1-a9
		a2, a10 = a2+a10, a2-a10
		a3, a11 = a3+a11, a3-a11
		a4, a12 = a4+a12, a4-a12
		a5, a13 = a5+a13, a5-a13
		a6, a14 = a6+a14, a6-a14
		a7, a15 = a7+a15, a7-a15
		x[0][i], x[8][i] = turned(a0, a8, &cosine[0], &sine[0], s.cosStep[0], s.sinStep[0])
		x[1][i], x[9][i] = turned(a1, a9, &cosine[1], &sine[1], s.cosStep[1], s.sinStep[1])
		x[2][i], x[10][i] = turned(a2, a10, &cosine[2], &sine[2], s.cosStep[2], s.sinStep[2])
		x[3][i], x[11][i] = turned(a3, a11, &cosine[3], &sine[3], s.cosStep[3], s.sinStep[3])
		x[4][i], x[12][i] = turned(a4, a12, &cosine[4], &sine[4], s.cosStep[4], s.sinStep[4])
		x[5][i], x[13][i] = turned(a5, a13, &cosine[5], &sine[5], s.cosStep[5], s.sinStep[5])
		x[6][i], x[14][i] = turned(a6, a14, &cosine[6], &sine[6], s.cosStep[6], s.sinStep[6])
		x[7][i], x[15][i] = turned(a7, a15, &cosine[7], &sine[7], s.cosStep[7], s.sinStep[7])
	}
	s.cosine, s.sine = cosine, sine
}

// turned rotates a pair, scaled by the 1/√16 that makes the matrix orthogonal, and
// moves sine and cosine on.
func turned(u, v float64, c, d *float64, cStep, dStep float64) (float64, float64) {
	u, v = u*0.25, v*0.25
	a, b := *c*u-*d*v, *d*u+*c*v
	*c += cStep
	*d += dStep
	return a, b
}

// write adds the input and puts n frames back into every line.
func (s *space) write(n int) {
	for k := range s.line {
		x, buf, pos := s.x[k][:n], s.line[k], s.pos[k]
		in := s.inL[:n]
		if k&1 == 1 {
			in = s.inR[:n]
		}
		g := 0.35
		if k&4 != 0 {
			g = -g
		}
		first := min(n, len(buf)-pos)
		feed(buf[pos:pos+first], x, in, g)
		feed(buf[:n-first], x[first:], in[first:], g)
		if pos += n; pos >= len(buf) {
			pos -= len(buf)
		}
		s.pos[k] = pos
	}
}

// feed puts what goes round again and g times what is new into a line.
func feed(line, x, in []float64, g float64) {
	x, in = x[:len(line)], in[:len(line)]
	for i, v := range x {
		line[i] = dsp.Flush(v + g*in[i])
	}
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
