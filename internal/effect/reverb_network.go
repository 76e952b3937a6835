package effect

import (
	"math"

	"shoal/internal/dsp"
)

// allpass is one diffuser.
type allpass struct {
	buf  []float64
	pos  int
	gain float64
	keep float64 // of one in a line: what it loses each time round as part of it
}

// lose runs as run does, and loses what its length loses.
func (a *allpass) lose(x []float64) {
	for len(x) > 0 {
		n := min(len(x), len(a.buf)-a.pos)
		dsp.DiffuseLossy(x[:n], a.buf[a.pos:a.pos+n], a.gain, a.keep)
		if a.pos += n; a.pos == len(a.buf) {
			a.pos = 0
		}
		x = x[n:]
	}
}

// delay is a plain delay by the length from x to dst, which loses as much as lose does: what comes in is added to what goes into it.
func (a *allpass) delay(dst, x, in []float64, gain float64) {
	for len(x) > 0 {
		n := min(len(x), len(a.buf)-a.pos)
		dsp.FeedThrough(dst[:n], x[:n], a.buf[a.pos:a.pos+n], in[:n], gain, a.keep)
		if a.pos += n; a.pos == len(a.buf) {
			a.pos = 0
		}
		dst, x, in = dst[n:], x[n:], in[n:]
	}
}

func (a *allpass) run(x []float64) {
	for len(x) > 0 {
		n := min(len(x), len(a.buf)-a.pos)
		dsp.Diffuse(x[:n], a.buf[a.pos:a.pos+n], a.gain)
		if a.pos += n; a.pos == len(a.buf) {
			a.pos = 0
		}
		x = x[n:]
	}
}

// turn takes the angles of the mixing matrix at a frame: they drift with song time, and
// between points of their grid sine and cosine move in straight lines.
func (s *space) turn(frame int64) {
	step := int64(s.turnGrid)
	grid := frame &^ (step - 1)
	depth := s.depth(s.last[11]/100, s.last[0])
	for k := range s.turns {
		angle := func(frame int64) float64 {
			return depth * dsp.Drift(uint64(k)*977+11, float64(frame)/s.rate*(0.7+0.13*float64(k)))
		}
		if s.turned != grid || !s.glides && s.turnDepth != depth { // not where the piece before ended
			a := angle(grid)
			s.cosEnd[k], s.sinEnd[k] = math.Cos(a), math.Sin(a)
		}
		b := angle(grid + step)
		c0, s0 := s.cosEnd[k], s.sinEnd[k]
		s.cosEnd[k], s.sinEnd[k] = math.Cos(b), math.Sin(b)
		s.cosStep[k], s.sinStep[k] = (s.cosEnd[k]-c0)/float64(step), (s.sinEnd[k]-s0)/float64(step)
		at := float64(frame - grid)
		s.cosine[k], s.sine[k] = c0+at*s.cosStep[k], s0+at*s.sinStep[k]
	}
	s.turned, s.turnDepth = grid+step, depth
}

// absorption is the filter of a line of so many frames: the middle's loss, with
// first-order shelves for what lows and highs lose beyond it, also in what is within, which loses only the middle's part.
func (p *reverbPlan) absorption(frames, within float64, v []float64, rate float64) dsp.Section {
	mid := -60 * frames / (rate * v[0])
	g := dsp.Gain(max(mid, dsp.Off+1))
	mid = -60 * (frames + within) / (rate * v[0])
	shelf := func(edge, factor float64, high bool) dsp.Section {
		return shelf1(edge, min(max(mid/factor-mid, -p.steepest), 40), high, rate)
	}
	low := shelf(v[6], v[5], false)
	high := shelf(min(v[8], rate*0.4), v[7], true)
	return dsp.Section{
		B0: g * low.B0 * high.B0, B1: g * (low.B0*high.B1 + low.B1*high.B0), B2: g * low.B1 * high.B1,
		A1: low.A1 + high.A1, A2: low.A1 * high.A1,
	}
}

// shelf1 is a first-order shelf of db beyond an edge, half of it at the edge,
// by the bilinear transform of (s + √G)/(s + 1/√G) turned round as needed.
func shelf1(edge, db float64, high bool, rate float64) dsp.Section {
	k := math.Tan(math.Pi * edge / rate)
	r := dsp.Gain(db / 2)
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
	inL, inR := s.inL[:n], s.inR[:n]
	copy(inL, p.L[from:])
	copy(inR, p.R[from:])
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
	s.sum(n)
	s.levelIn(n, int((p.Frame+int64(from))&(Grid-1)))
	if s.scattered != nil {
		s.scatter(n)
	}
	for a := 0; a < n; {
		frame := p.Frame + int64(from+a)
		if frame&int64(s.turnGrid-1) == 0 || s.turned < 0 {
			s.turn(frame)
		}
		b := min(n, a+s.turnGrid-int(frame&int64(s.turnGrid-1)))
		s.mix(a, b)
		a = b
	}
	s.write(n)
	if width.Track == nil && width.Now == 100 {
		copy(p.L[from:to], s.outL[:n])
		copy(p.R[from:to], s.outR[:n])
		return
	}
	for i := 0; i < n; i++ {
		l, r := s.outL[i], s.outR[i]
		m, d := (l+r)*0.5, (l-r)*0.5*width.At(from+i)*0.01
		p.L[from+i], p.R[from+i] = m+d, m-d
	}
}

// sum adds what is heard of the lines: signs alternate so that sides are unlike.
func (s *space) sum(n int) {
	if !s.levelled {
		for k := 0; k < s.lines; k += 4 {
			dsp.AddScaled(s.outL[:n], s.x[k][:n], 0.42)
			dsp.AddScaled(s.outR[:n], s.x[k+1][:n], 0.42)
			dsp.AddScaled(s.outL[:n], s.x[k+2][:n], -0.42)
			dsp.AddScaled(s.outR[:n], s.x[k+3][:n], -0.42)
		}
		return
	}
	g := reverbOut * s.out[s.kind]
	for k := 0; k < s.lines; k += 4 {
		dsp.AddDifference(s.outL[:n], s.x[k][:n], s.x[k+2][:n], g)
		dsp.AddDifference(s.outR[:n], s.x[k+1][:n], s.x[k+3][:n], g)
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
	if early.Track == nil { // x is free until the lines are read
		x, y := s.x[0][:n], s.x[1][:n]
		dsp.ScaleTo(x, l, 0.35*e)
		dsp.ScaleTo(y, r, 0.35*e)
		dsp.Scale(l, e)
		dsp.Scale(r, e)
		dsp.AddScaled(l, y, 1)
		dsp.AddScaled(r, x, 1)
		return
	}
	for i, a := range l {
		b := r[i]
		e = dsp.Gain(early.Track[from+i])
		l[i], r[i] = e*(a+0.35*b), e*(b+0.35*a)
	}
}

// levelIn lets what goes into the lines be as loud as the decay asks for, in a straight line over the grid; at is where
// on it the piece begins.
func (s *space) levelIn(n, at int) {
	if s.level == 1 && s.levelWas == 1 {
		return
	}
	if s.level == s.levelWas {
		dsp.Scale(s.inL[:n], s.level)
		dsp.Scale(s.inR[:n], s.level)
		return
	}
	step := (s.level - s.levelWas) / Grid
	for i := range n {
		g := s.level
		if at+i+1 < Grid {
			g = s.levelWas + step*float64(at+i+1)
		}
		s.inL[i] *= g
		s.inR[i] *= g
	}
}

// read takes n frames out of every line and absorbs.
func (s *space) read(n int) {
	for k := 0; k < s.lines; k += 2 {
		a, b := s.line[k], s.line[k+1]
		p, q := s.pos[k], s.pos[k+1]
		for i := 0; i < n; { // up to where either line begins anew
			m := min(n-i, len(a)-p, len(b)-q)
			dsp.RunTwo(&s.absorb[k], &s.absorb[k+1], &s.state[k], &s.state[k+1], a[p:p+m], b[q:q+m], s.x[k][i:i+m], s.x[k+1][i:i+m])
			i, p, q = i+m, (p+m)%len(a), (q+m)%len(b)
		}
		if s.inner != nil {
			s.inside[k].lose(s.x[k][:n])
			s.inside[k+1].lose(s.x[k+1][:n])
		}
	}
}

// mix applies the Hadamard matrix and then the drifting rotations to frames [from, to).
func (s *space) mix(from, to int) {
	if s.lines == 16 {
		butterflies((*[16][MaxFrames]float64)(s.x[:16]), from, to)
		for k := range s.turns {
			s.turnPair(s.x[k][from:to], s.x[k+8][from:to], k)
		}
		return
	}
	s.halves(from, to)
	every := reverbPairs / s.turns
	for k := range reverbPairs {
		x, y := s.x[k][from:to], s.x[k+reverbPairs][from:to]
		if k%every == 0 {
			s.joinTurned(x, y, k/every)
		} else {
			dsp.SumAndDifference(x, y, reverbScale)
		}
	}
}

// hadamard applies the matrix of 32 lines to frames [from, to).
func (s *space) hadamard(from, to int) {
	s.halves(from, to)
	for k := range reverbPairs {
		dsp.SumAndDifference(s.x[k][from:to], s.x[k+reverbPairs][from:to], reverbScale)
	}
}

// halves applies the matrix of sixteen to either half of 32 lines: sums and differences of them make the matrix of 32.
func (s *space) halves(from, to int) {
	butterflies((*[16][MaxFrames]float64)(s.x[:16]), from, to)
	butterflies((*[16][MaxFrames]float64)(s.x[16:]), from, to)
}

// scatter is the first step of mixing: the Hadamard matrix, what comes in, and a short delay on each way. Ways that change
// places go on each as the one before it in a round through all of them, so that one row is enough to keep what would be lost.
func (s *space) scatter(n int) {
	s.hadamard(0, n)
	if s.places == nil {
		for k := range s.lines {
			s.shortDelay(k, n, s.x[k][:n])
		}
		return
	}
	s.shortDelay(s.round[0], n, s.spare[:n])
	for i, k := range s.round[1:] {
		s.shortDelay(k, n, s.x[s.round[i]][:n])
	}
	copy(s.x[s.round[reverbMost-1]][:n], s.spare[:n])
}

func (s *space) shortDelay(k, n int, dst []float64) {
	in, g := s.into(k, n)
	s.inside[k].delay(dst, s.x[k][:n], in, g)
}

// into is what of the input goes into a line: signs alternate so that lines are unlike.
func (s *space) into(k, n int) (in []float64, gain float64) {
	in, gain = s.inL[:n], 0.35
	if k&1 == 1 {
		in = s.inR[:n]
	}
	if k&4 != 0 {
		gain = -gain
	}
	return in, gain
}

// butterflies applies the Hadamard matrix, unscaled, to sixteen signals. It goes frame by frame with everything written
// out, so that the sixteen values stay in registers instead of passing through memory four times.
func butterflies(x *[16][MaxFrames]float64, from, to int) {
	for f := from; f < to; f++ {
		i := f & (MaxFrames - 1)
		a0, a1, a2, a3, a4, a5, a6, a7 := x[0][i], x[1][i], x[2][i], x[3][i], x[4][i], x[5][i], x[6][i], x[7][i]
		a8, a9, a10, a11, a12, a13, a14, a15 := x[8][i], x[9][i], x[10][i], x[11][i], x[12][i], x[13][i], x[14][i], x[15][i]
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
		x[0][i], x[1][i], x[2][i], x[3][i], x[4][i], x[5][i], x[6][i], x[7][i] = a0, a1, a2, a3, a4, a5, a6, a7
		x[8][i], x[9][i], x[10][i], x[11][i], x[12][i], x[13][i], x[14][i], x[15][i] = a8, a9, a10, a11, a12, a13, a14, a15
	}
}

// turnPair turns two of sixteen signals into each other by a drifting angle, and makes their matrix orthogonal.
func (s *space) turnPair(a, b []float64, k int) {
	c, d, cStep, dStep := s.cosine[k], s.sine[k], s.cosStep[k], s.sinStep[k]
	b = b[:len(a)]
	for i, u := range a {
		u, v := u*0.25, b[i]*0.25
		a[i], b[i] = c*u-d*v, d*u+c*v
		c += cStep
		d += dStep
	}
	s.cosine[k], s.sine[k] = c, d
}

// joinTurned is the last step of the matrix of 32 lines, and turns what comes out of it as turnPair does, in one pass.
func (s *space) joinTurned(a, b []float64, k int) {
	c, d, cStep, dStep := s.cosine[k], s.sine[k], s.cosStep[k], s.sinStep[k]
	b = b[:len(a)]
	for i, x := range a {
		y := b[i]
		u, v := reverbScale*(x+y), reverbScale*(x-y)
		a[i], b[i] = c*u-d*v, d*u+c*v
		c += cStep
		d += dStep
	}
	s.cosine[k], s.sine[k] = c, d
}

// write puts n frames back into every line, and adds the input unless it was scattered.
func (s *space) write(n int) {
	for k := range s.lines {
		x, buf, pos := s.x[k][:n], s.line[k], s.pos[k]
		first := min(n, len(buf)-pos)
		if s.scattered != nil {
			copy(buf[pos:], x[:first])
			copy(buf, x[first:])
		} else {
			in, g := s.into(k, n)
			dsp.Feed(buf[pos:pos+first], x, in, g)
			dsp.Feed(buf[:n-first], x[first:], in[first:], g)
		}
		if pos += n; pos >= len(buf) {
			pos -= len(buf)
		}
		s.pos[k] = pos
	}
}
