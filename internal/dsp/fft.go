package dsp

import "math"

// FFT transforms real sequences of a power of two. It is a Stockham transform of
// radix 4 (Van Loan, "Computational Frameworks for the FFT", 1992, section 1.7) over half
// the length, with the usual split for real input. It stands in the render path of the
// convolver and the noise reducer, where it takes less than half the time of the
// library's that its test holds it to. Not for several goroutines at once.
type FFT struct {
	n       int
	z, y    []complex128
	stages  []fftStage
	halfway []complex128 // e^(-2πik/n)
}

type fftStage struct {
	radix int
	w     []complex128 // w, w², w³ for every p
}

// NewFFT prepares a transform of n values; n is a power of two from 8 on.
func NewFFT(n int) *FFT {
	m := n / 2
	f := &FFT{n: n, z: make([]complex128, m), y: make([]complex128, m), halfway: make([]complex128, m/2+1)}
	turn := func(k, of int) complex128 {
		s, c := math.Sincos(-2 * math.Pi * float64(k) / float64(of))
		return complex(c, s)
	}
	for k := range f.halfway {
		f.halfway[k] = turn(k, n)
	}
	for left := m; left > 1; {
		if left%4 != 0 {
			f.stages = append(f.stages, fftStage{radix: 2})
			left /= 2
			continue
		}
		st := fftStage{radix: 4}
		for p := range left / 4 {
			st.w = append(st.w, turn(p, left), turn(2*p, left), turn(3*p, left))
		}
		f.stages = append(f.stages, st)
		left /= 4
	}
	return f
}

// complex transforms z in place.
func (f *FFT) complex() {
	x, y := f.z, f.y
	n, s := len(x), 1
	for i := range f.stages {
		st := &f.stages[i]
		if st.radix == 2 {
			radix2(x, y, s)
			n, s = n/2, s*2
		} else {
			radix4(x, y, n, s, st.w)
			n, s = n/4, s*4
		}
		x, y = y, x
	}
	f.z, f.y = x, y
}

// radix2 is the last stage of a length that is no power of four: n is 2.
func radix2(x, y []complex128, s int) {
	a, b := x[:s], x[s:2*s]
	c, d := y[:s], y[s:2*s]
	for q, u := range a {
		v := b[q]
		c[q], d[q] = u+v, u-v
	}
}

// radix4First is radix4 for s = 1, where its inner loop would be one step long.
func radix4First(x, y []complex128, w []complex128) {
	m := len(x) / 4
	x0, x1, x2, x3 := x[:m], x[m:][:m], x[2*m:][:m], x[3*m:][:m]
	w = w[:3*m]
	for p, a := range x0 {
		b, c, d := x1[p], x2[p], x3[p]
		ac, bd := a+c, b+d
		mac, mbd := a-c, b-d
		j := complex(-imag(mbd), real(mbd))
		o := y[4*p : 4*p+4 : 4*p+4]
		o[0] = ac + bd
		o[1] = times(w[3*p], mac-j)
		o[2] = times(w[3*p+1], ac-bd)
		o[3] = times(w[3*p+2], mac+j)
	}
}

func radix4(x, y []complex128, n, s int, w []complex128) {
	if s == 1 {
		radix4First(x, y, w)
		return
	}
	m := n / 4
	for p := range m {
		w1, w2, w3 := w[3*p], w[3*p+1], w[3*p+2]
		x0, x1, x2, x3 := x[s*p:][:s], x[s*(p+m):][:s], x[s*(p+2*m):][:s], x[s*(p+3*m):][:s]
		o := y[4*s*p:][:4*s]
		y0, y1, y2, y3 := o[:s], o[s:2*s], o[2*s:3*s], o[3*s:4*s]
		for q, a := range x0 {
			b, c, d := x1[q], x2[q], x3[q]
			ac, bd := a+c, b+d
			mac, mbd := a-c, b-d
			j := complex(-imag(mbd), real(mbd))
			y0[q] = ac + bd
			y1[q] = times(w1, mac-j)
			y2[q] = times(w2, ac-bd)
			y3[q] = times(w3, mac+j)
		}
	}
}

// times multiplies without looking for infinities.
func times(a, b complex128) complex128 {
	return complex(real(a)*real(b)-imag(a)*imag(b), real(a)*imag(b)+imag(a)*real(b))
}

// Coefficients writes the n/2+1 coefficients of x to dst.
func (f *FFT) Coefficients(dst []complex128, x []float64) {
	m := f.n / 2
	for k := range f.z {
		f.z[k] = complex(x[2*k], x[2*k+1])
	}
	f.complex()
	z := f.z
	dst[0] = complex(real(z[0])+imag(z[0]), 0)
	dst[m] = complex(real(z[0])-imag(z[0]), 0)
	for k := 1; k <= m/2; k++ {
		a, b := z[k], z[m-k]
		b = complex(real(b), -imag(b))
		even, odd := a+b, times(f.halfway[k], a-b)
		odd = complex(imag(odd), -real(odd)) // -i
		dst[k] = (even + odd) * 0.5
		r := (even - odd) * 0.5
		dst[m-k] = complex(real(r), -imag(r))
	}
}

// Sequence writes the sequence of coefficients to dst, times n.
func (f *FFT) Sequence(dst []float64, c []complex128) {
	m := f.n / 2
	z := f.z
	// the inverse is the transform of the conjugate, conjugated
	first, last := real(c[0]), real(c[m])
	z[0] = complex(first+last, -(first - last))
	for k := 1; k <= m/2; k++ {
		a, b := c[k], c[m-k]
		b = complex(real(b), -imag(b))
		w := f.halfway[k]
		even, odd := a+b, times(complex(real(w), -imag(w)), a-b)
		odd = complex(-imag(odd), real(odd)) // i
		r := even + odd
		z[k] = complex(real(r), -imag(r))
		r = even - odd
		z[m-k] = r // conjugated twice
	}
	f.complex()
	for k, v := range f.z {
		dst[2*k], dst[2*k+1] = real(v), -imag(v)
	}
}
