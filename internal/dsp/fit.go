package dsp

import "math"

// prototype is an analogue second-order filter, with what a digital twin must know of it beforehand.
type prototype struct {
	kind   prototypeKind
	freq   float64 // where its shape turns, Hz
	q      float64 // how narrow it is; of a shelf, how steep
	half   float64 // the factor of half its gain, of bells and shelves
	zeros  int     // how many of its zeros lie at zero frequency: 0, 1 or 2
	poleHz float64 // the natural frequency of its poles
	poleQ  float64
}

type prototypeKind int

const (
	lowPass prototypeKind = iota
	highPass
	lowPass1
	highPass1
	bandPass
	bellKind
	lowShelf
	highShelf
)

// power is the squared magnitude at a frequency.
func (p *prototype) power(f float64) float64 {
	switch p.kind {
	case lowShelf, highShelf:
		return shelfPower(p.kind == highShelf, p.freq, p.half, p.q, f)
	}
	x, qq := sq(f/p.freq), p.q*p.q
	switch p.kind {
	case bellKind:
		a := p.half
		return (sq(1-x) + x*a*a/qq) / (sq(1-x) + x/(a*a*p.q*p.q))
	case highPass:
		return x * x / (sq(1-x) + x/qq)
	case lowPass1:
		return 1 / (1 + x)
	case highPass1:
		return x / (1 + x)
	case bandPass:
		return x / qq / (sq(1-x) + x/qq)
	}
	return 1 / (sq(1-x) + x/qq)
}

// tame reports whether the matched section is known to be within 0.05 dB: the error of bells and shelves
// grows with the frequency, the gain and the width. The bounds were measured; a test holds them.
func (p *prototype) tame(rate float64) bool {
	r := p.freq / rate
	if p.kind < bellKind || r > 0.065 {
		return false
	}
	r *= p.half
	switch {
	case p.kind == bellKind:
		return r < 0.07*p.q
	case p.q < 0.72:
		return r < 0.33*p.q*p.q
	}
	return r < 0.077
}

// section returns the digital twin of a prototype.
//
// With φ = sin²(ω/2) the power response of a section is a quotient of two
// parabolas in φ (Vicanek, "Matched Second Order Digital Filters", 2016).
// Vicanek takes the poles by impulse invariance and matches the numerator at
// zero, at half the rate and at the filter's own frequency. That is what happens
// here where it is good to 0.05 dB. Higher up, or where the poles of a shelf
// would lie above half the rate, numerator and denominator are fitted together
// to the prototype's power by weighted least squares (Sanathanan and Koerner
// 1963: the weights of one round are the denominator of the round before).
// Of all rounds the one with the least error wins. Where the free fit has no
// stable answer, the denominator at half the rate is pinned to a part of the first guess.
func (p *prototype) section(rate float64) Section {
	best := p.matched(rate)
	if p.tame(rate) || p.fits(best, rate) {
		return best
	}
	least := p.worst(best, rate)
	start := best
	half := sq(1-start.A1+start.A2) / sq(1+start.A1+start.A2)
	for _, pin := range [...]float64{0, 1, 0.4, 0.15, 0.05} {
		den := start
		for round := 0; round < 5; round++ {
			s, ok := p.fit(den, pin*half, rate)
			if !ok {
				break
			}
			if e := p.worst(s, rate); e < least {
				best, least = s, e
			}
			den = s
		}
		if least < 0.25 {
			break
		}
	}
	if p.zeros == 2 && least > 0.4 { // a high pass near half the rate: let one zero move off zero frequency
		p.zeros = 1
		den := best
		for round := 0; round < 4; round++ {
			s, ok := p.fit(den, 0, rate)
			if !ok {
				break
			}
			if e := p.worst(s, rate); e < least {
				best, least = s, e
			}
			den = s
		}
	}
	return best
}

const fitPoints = 40

// points lists where a fit is made and judged: close around the filter's own
// frequency at the scale of its width, and over the audible range.
func (p *prototype) points(dst *[fitPoints]float64, rate float64) []float64 {
	top := min(20500, rate*0.45)
	n := 0
	add := func(f float64) {
		if f < top && n < fitPoints {
			dst[n] = f
			n++
		}
	}
	for _, m := range [...]float64{0.001, 0.02, 0.06, 0.12, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.25, 1.4, 1.7, 2, 2.5, 3} {
		add(p.freq * m)
	}
	for _, m := range [...]float64{0.15, 0.35, 0.6, 1, 1.6} {
		d := m / p.poleQ / 2
		add(p.freq / (1 + d))
		add(p.freq * (1 + d))
	}
	for _, m := range [...]float64{0.3, 0.5, 0.65, 0.75, 0.85, 0.92, 0.97, 0.995} {
		add(top * m)
	}
	return dst[:n]
}

// fits reports whether a section is within 0.05 dB of the prototype, where that is above -40 dB. A
// band that is moved asks this sixteen times a millisecond and more: no logarithm, no sine.
func (p *prototype) fits(s Section, rate float64) bool {
	const ratio = 1.0115794542598986 // 0.05 dB
	n0, n1, n2 := sq(s.B0+s.B1+s.B2), sq(s.B0-s.B1+s.B2), -4*s.B0*s.B2
	d0, d1, d2 := sq(1+s.A1+s.A2), sq(1-s.A1+s.A2), -4*s.A2
	var room [fitPoints]float64
	for _, f := range p.points(&room, rate) {
		want := p.power(f)
		if want < 1e-4 {
			continue
		}
		p1 := sq(quickSine(math.Pi * f / rate))
		p0 := 1 - p1
		p2 := 4 * p0 * p1
		num, den := (n0*p0+n1*p1+n2*p2)*ratio, (d0*p0+d1*p1+d2*p2)*want
		if !(num > den && num < den*(ratio*ratio)) {
			return false
		}
	}
	return true
}

// quickSine is the sine of 0 to 1.5 within 1e-10, by its series.
func quickSine(x float64) float64 {
	y := x * x
	return x * (1 - y/6*(1-y/20*(1-y/42*(1-y/72*(1-y/110*(1-y/156*(1-y/210)))))))
}

// worst returns the largest error in dB where the prototype is above -40 dB.
func (p *prototype) worst(s Section, rate float64) float64 {
	var room [fitPoints]float64
	w := 0.0
	for _, f := range p.points(&room, rate) {
		want := p.power(f)
		if want < 1e-4 {
			continue
		}
		d := math.Abs(10 * math.Log10(s.Power(f, rate)/want))
		if !(d <= w) {
			w = d
		}
	}
	return w
}

// matched takes the poles by impulse invariance and the numerator from three points.
func (p *prototype) matched(rate float64) Section {
	switch p.kind {
	case lowPass1:
		return LowPass1(p.freq, rate)
	case highPass1:
		return HighPass1(p.freq, rate)
	}
	a1, a2 := poles(2*math.Pi*min(p.poleHz, rate*0.475)/rate, p.poleQ)
	at := min(p.freq, rate*0.4)
	g := gridAt(2*math.Pi*at/rate, a1, a2)
	if p.zeros == 2 {
		b0 := math.Sqrt(p.power(at)*g.den()) / (4 * g.p1)
		return Section{b0, -2 * b0, b0, a1, a2}
	}
	b0 := p.power(0) * g.a0
	b1 := p.power(rate/2) * g.a1
	b2 := (p.power(at)*g.den() - b0*g.p0 - b1*g.p1) / g.p2
	n0, n1, n2, _ := factor(b0, b1, b2)
	return Section{n0, n1, n2, a1, a2}
}

// fit solves one round. The unknowns are the denominator's A1 and A2 (A0 = 1)
// and what the numerator has: B0 φ0 + B1 φ1 + B2 φ2, without B0 when a zero
// lies at zero frequency, or k φ1² when two do.
func (p *prototype) fit(before Section, pin, rate float64) (Section, bool) {
	var room [fitPoints]float64
	var m [5][6]float64
	a0 := sq(1 + before.A1 + before.A2)
	for _, f := range p.points(&room, rate) {
		y := p.power(f)
		s := math.Sin(math.Pi * f / rate)
		p1 := s * s
		p0 := 1 - p1
		p2 := 4 * p0 * p1
		den := p0 + (sq(1-before.A1+before.A2)*p1-4*before.A2*p2)/a0
		weight := 1 / (den * max(y, 1e-5))
		row := [6]float64{-y * p1, -y * p2, p1, p2, p0, y * p0}
		switch p.zeros {
		case 2:
			row[2], row[3], row[4] = p1*p1, 0, 0
		case 1:
			row[4] = 0
		}
		if y < 1e-2 && y > 1e-4 {
			weight *= 3 // few points lie here, and they count in dB
		}
		if pin > 0 {
			row[5] -= row[0] * pin
			row[0] = 0
		}
		for i := range row {
			row[i] *= weight
		}
		for i := 0; i < 5; i++ {
			for j := 0; j < 6; j++ {
				m[i][j] += row[i] * row[j]
			}
		}
	}
	for i := range m { // unused unknowns stay zero
		if m[i][i] == 0 {
			m[i][i] = 1
		}
	}
	x, ok := solve5(m)
	if !ok {
		return Section{}, false
	}
	if pin > 0 {
		x[0] = pin
	}
	b0, b1, b2 := x[4], x[2], x[3]
	if p.zeros == 2 { // φ1² = φ1 - φ2/4
		b2 = -b1 / 4
	}
	if x[0] <= 0 || b1 < 0 || b0 < 0 {
		return Section{}, false
	}
	d0, d1, d2, ok := factor(1, x[0], x[1])
	if !ok || math.Abs(d2) >= d0*0.9999999 || math.Abs(d1) >= d0+d2 {
		return Section{}, false
	}
	n0, n1, n2, _ := factor(b0, b1, b2)
	if !Finite(n0+n1+n2) || math.Abs(n2) > n0*(1+1e-9) {
		return Section{}, false
	}
	return Section{n0 / d0, n1 / d0, n2 / d0, d1 / d0, d2 / d0}, true
}

// factor turns power coefficients into a minimum-phase polynomial.
func factor(p0, p1, p2 float64) (c0, c1, c2 float64, ok bool) {
	r0, r1 := math.Sqrt(max(p0, 0)), math.Sqrt(max(p1, 0))
	w := (r0 + r1) / 2
	d := w*w + p2
	c0 = (w + math.Sqrt(max(d, 0))) / 2
	c1 = (r0 - r1) / 2
	c2 = -p2 / (4 * c0)
	return c0, c1, c2, d >= 0
}

// solve5 is Gaussian elimination with pivoting.
func solve5(m [5][6]float64) (x [5]float64, ok bool) {
	for c := 0; c < 5; c++ {
		best := c
		for r := c + 1; r < 5; r++ {
			if math.Abs(m[r][c]) > math.Abs(m[best][c]) {
				best = r
			}
		}
		m[c], m[best] = m[best], m[c]
		for r := 0; r < 5; r++ {
			if r == c {
				continue
			}
			k := m[r][c] / m[c][c]
			for j := c; j < 6; j++ {
				m[r][j] -= k * m[c][j]
			}
		}
	}
	ok = true
	for i := range x {
		x[i] = m[i][5] / m[i][i]
		ok = ok && Finite(x[i])
	}
	return x, ok
}
