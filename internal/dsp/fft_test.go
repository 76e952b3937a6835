package dsp

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/dsp/fourier"
)

func TestTheFastTransformIsTheLibrarys(t *testing.T) {
	for _, n := range []int{8, 16, 32, 64, 128, 1024, 2048, 4096, 8192} {
		signals := map[string][]float64{
			"impulse":  make([]float64, n),
			"constant": make([]float64, n),
			"noise":    make([]float64, n),
			"edge":     make([]float64, n),
		}
		signals["impulse"][1] = 1
		for i := range n {
			signals["constant"][i] = 1
			signals["noise"][i] = White(7, int64(i))
			signals["edge"][i] = float64(1 - 2*(i%2))
		}
		slow, fast := fourier.NewFFT(n), NewFFT(n)
		for name, x := range signals {
			want, got := slow.Coefficients(nil, x), make([]complex128, n/2+1)
			fast.Coefficients(got, x)
			for k := range want {
				require.InDelta(t, real(want[k]), real(got[k]), 1e-10, "%s of %d, bin %d", name, n, k)
				require.InDelta(t, imag(want[k]), imag(got[k]), 1e-10, "%s of %d, bin %d", name, n, k)
			}
			back := make([]float64, n)
			fast.Sequence(back, got)
			for i := range x {
				require.InDelta(t, x[i], back[i]/float64(n), 1e-12, "%s of %d, value %d", name, n, i)
			}
		}
	}
}

func BenchmarkFFT(b *testing.B) {
	x, c := make([]float64, 2048), make([]complex128, 1025)
	for i := range x {
		x[i] = White(7, int64(i))
	}
	for name, f := range map[string]func(){
		"ours":    func() func() { f := NewFFT(2048); return func() { f.Coefficients(c, x) } }(),
		"library": func() func() { f := fourier.NewFFT(2048); return func() { f.Coefficients(c, x) } }(),
	} {
		b.Run(fmt.Sprint(name), func(b *testing.B) {
			for b.Loop() {
				f()
			}
		})
	}
}
