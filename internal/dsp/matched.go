package dsp

import "math"

// poles returns a1 and a2 for a pole pair at w (radians per frame) and q, by
// impulse invariance.
func poles(w, q float64) (a1, a2 float64) {
	d := 1 / (2 * q)
	if d <= 1 {
		a1 = -2 * Exp(-d*w) * math.Cos(math.Sqrt(1-d*d)*w)
	} else {
		r := math.Sqrt(d*d - 1)
		a1 = -(Exp((r-d)*w) + Exp((-r-d)*w))
	}
	return a1, Exp(-2 * d * w)
}

type grid struct{ p0, p1, p2, a0, a1, a2 float64 }

func gridAt(w, a1, a2 float64) grid {
	s := math.Sin(w / 2)
	p1 := s * s
	p0 := 1 - p1
	return grid{p0, p1, 4 * p0 * p1, sq(1 + a1 + a2), sq(1 - a1 + a2), -4 * a2}
}

func (g grid) den() float64 { return g.a0*g.p0 + g.a1*g.p1 + g.a2*g.p2 }

// LowPass is a second-order low pass with -3 dB at freq for q = 0.7071.
func LowPass(freq, q, rate float64) Section {
	p := prototype{kind: lowPass, freq: freq, q: q, poleHz: freq, poleQ: q}
	return p.section(rate)
}

// HighPass is a second-order high pass.
func HighPass(freq, q, rate float64) Section {
	p := prototype{kind: highPass, freq: freq, q: q, zeros: 2, poleHz: freq, poleQ: q}
	return p.section(rate)
}

// BandPass is a second-order band pass with unity gain at its centre.
func BandPass(freq, q, rate float64) Section {
	p := prototype{kind: bandPass, freq: freq, q: q, zeros: 1, poleHz: freq, poleQ: q}
	return p.section(rate)
}

// Notch removes one frequency: its zeros lie on the unit circle at exactly
// that frequency.
func Notch(freq, q, rate float64) Section {
	w := 2 * math.Pi * freq / rate
	a1, a2 := poles(w, q)
	b := -2 * math.Cos(w)
	k := (1 + a1 + a2) / (2 + b)
	return Section{k, k * b, k, a1, a2}
}

// NotchFine is Notch with a width that is right up to half the rate: the poles follow from the analogue response at zero, at
// half the rate and at the lower edge of the gap.
func NotchFine(freq, q, rate float64) Section {
	n := notchOf(freq, q, rate)
	edge := freq * (math.Sqrt(1/(4*q*q)+1) - 1/(2*q))
	s := sq(math.Sin(math.Pi * edge / rate))
	a0, a1 := n.den0(), n.den(rate/2)
	return n.section(a0, a1, (n.den(edge)-a0*(1-s)-a1*s)/(4*s*(1-s)))
}

// notchTop is the highest frequency, as a part of the rate, at which a wide notch is held to the analogue one: what lies above
// is hardly heard, and what is held there is missing below.
const notchTop = 0.42

// NotchBetween is NotchFine held at both edges of the gap, or at 0.42 of the rate where the upper one lies above.
func NotchBetween(freq, q, rate float64) Section {
	n := notchOf(freq, q, rate)
	half := math.Sqrt(1/(4*q*q) + 1)
	upper := min(freq*(half+1/(2*q)), notchTop*rate)
	if math.Abs(upper/freq-1) < 0.02 { // there is nothing to hold in the gap itself
		upper = freq * 0.95
	}
	below, a := n.beyondZero(freq * (half - 1/(2*q)))
	above, b := n.beyondZero(upper)
	a2 := (a - b) / (4 * (above - below))
	return n.section(n.den0(), a-4*(1-below)*a2, a2)
}

// wideNotch is a notch whose zeros are known and whose poles are sought.
type wideNotch struct {
	freq, q, rate float64
	zeros         Section
}

func notchOf(freq, q, rate float64) wideNotch {
	return wideNotch{freq, q, rate, Section{B0: 1, B1: -2 * math.Cos(2*math.Pi*freq/rate), B2: 1}}
}

func (n wideNotch) den0() float64 { return sq(2 + n.zeros.B1) }

// den is what the denominator's power has to be.
func (n wideNotch) den(f float64) float64 {
	x := sq(f / n.freq)
	return n.zeros.Power(f, n.rate) * (sq(1-x) + x/(n.q*n.q)) / sq(1-x)
}

// beyondZero is the place of a frequency on the grid, and what the denominator's power needs there beyond its part from zero.
func (n wideNotch) beyondZero(f float64) (s, need float64) {
	s = sq(math.Sin(math.Pi * f / n.rate))
	return s, (n.den(f) - n.den0()*(1-s)) / s
}

// section has the poles of a power, or those of a plain notch where there are none.
func (n wideNotch) section(a0, a1, a2 float64) Section {
	d0, d1, d2, ok := factor(a0, a1, a2)
	if !ok || math.Abs(d2) >= d0*0.9999999 || math.Abs(d1) >= d0+d2 {
		return Notch(n.freq, n.q, n.rate)
	}
	return Section{1 / d0, n.zeros.B1 / d0, 1 / d0, d1 / d0, d2 / d0}
}

// Bell raises or lowers a region around a frequency by gain dB. Its width is
// that of q at half the gain in dB, for boost and cut alike: a cut is the exact
// reciprocal of the boost.
func Bell(freq, gain, q, rate float64) Section {
	if gain < 0 {
		return Bell(freq, -gain, q, rate).Invert()
	}
	if gain < 1e-9 {
		return Through
	}
	p := bell(freq, gain, q)
	return p.section(rate)
}

func bell(freq, gain, q float64) prototype {
	a := Gain(gain / 2)
	return prototype{kind: bellKind, freq: freq, q: q, half: a, poleHz: freq, poleQ: q * a}
}

// ShelfPower is the squared magnitude of the analogue second-order shelf that
// the digital shelves are fitted to: half the gain in dB at freq, slope by q.
func ShelfPower(high bool, freq, gain, q, f float64) float64 {
	return shelfPower(high, freq, Gain(gain/2), q, f)
}

// shelfPower is ShelfPower by the factor of half the gain.
func shelfPower(high bool, freq, a, q, f float64) float64 {
	x := f / freq
	if high {
		if x == 0 {
			return 1
		}
		x = 1 / x
	}
	r := a * x * x / (q * q)
	return a * a * (sq(a-x*x) + r) / (sq(1-a*x*x) + r)
}

// Shelf returns a low or high shelf of gain dB. A cut is the reciprocal of the boost.
func Shelf(high bool, freq, gain, q, rate float64) Section {
	if gain < 0 {
		return Shelf(high, freq, -gain, q, rate).Invert()
	}
	if gain < 1e-9 {
		return Through
	}
	p := shelf(high, freq, gain, q)
	return p.section(rate)
}

func shelf(high bool, freq, gain, q float64) prototype {
	half := Gain(gain / 2)
	a := math.Sqrt(half)
	if high {
		return prototype{kind: highShelf, freq: freq, q: q, half: half, poleHz: freq * a, poleQ: q}
	}
	return prototype{kind: lowShelf, freq: freq, q: q, half: half, poleHz: freq / a, poleQ: q}
}

// firstOrder returns the pole and the prototype's magnitude at half the rate.
func firstOrder(freq, rate float64) (a1, half float64) {
	w := 2 * math.Pi * freq / rate
	return -Exp(-w), 1 / math.Sqrt(1+sq(math.Pi/w))
}

// LowPass1 is a first-order low pass, matched at zero and at half the rate.
func LowPass1(freq, rate float64) Section {
	a1, half := firstOrder(freq, rate)
	dc, ny := 1+a1, half*(1-a1)
	return Section{(dc + ny) / 2, (dc - ny) / 2, 0, a1, 0}
}

// HighPass1 is a first-order high pass, matched at zero and at half the rate.
func HighPass1(freq, rate float64) Section {
	a1, half := firstOrder(freq, rate)
	b := math.Sqrt(1-half*half) * (1 - a1) / 2
	return Section{b, -b, 0, a1, 0}
}

// FirstOrder is a first-order low or high pass as a section of second order that is fitted to it, for where LowPass1 and
// HighPass1 are not near enough: towards half the rate.
func FirstOrder(high bool, freq, rate float64) Section {
	p := prototype{kind: lowPass1, freq: freq, poleHz: freq, poleQ: math.Sqrt2 / 2}
	if high {
		p.kind, p.zeros = highPass1, 1
	}
	return p.section(rate)
}

// Butterworth fills dst with the sections of a low (or high) pass of the given
// order, 1 to 8, -3 dB at freq, and returns how many were used. For the second
// order q sets the resonance (0.7071 is Butterworth's); for others it is ignored.
func Butterworth(dst []Section, high bool, order int, freq, q, rate float64) int {
	first := func() Section {
		if high {
			return HighPass1(freq, rate)
		}
		return LowPass1(freq, rate)
	}
	return butterworth(dst, high, order, freq, q, rate, first)
}

// ButterworthFine is Butterworth with odd orders that are as near to their prototypes as even ones are.
func ButterworthFine(dst []Section, high bool, order int, freq, q, rate float64) int {
	return butterworth(dst, high, order, freq, q, rate, func() Section { return FirstOrder(high, freq, rate) })
}

func butterworth(dst []Section, high bool, order int, freq, q, rate float64, first func() Section) int {
	n := 0
	put := func(s Section) { dst[n] = s; n++ }
	if order%2 == 1 {
		put(first())
	}
	for k := 0; k < order/2; k++ {
		pairQ := q
		if order != 2 {
			// pole angles from the negative real axis
			angle := math.Pi * (float64(k) + 0.5) / float64(order)
			if order%2 == 1 {
				angle = math.Pi * float64(k+1) / float64(order)
			}
			pairQ = 1 / (2 * math.Cos(angle))
		}
		if high {
			put(HighPass(freq, pairQ, rate))
		} else {
			put(LowPass(freq, pairQ, rate))
		}
	}
	return n
}
