package stretch

import (
	"context"
	"testing"

	"shoal/internal/dsp"
)

// What it takes to make ten stereo seconds half as long again, by character; and to move a voice with its formants.
func BenchmarkStretch(b *testing.B) {
	const seconds = 10
	x := [][]float64{make([]float64, seconds*rate), make([]float64, seconds*rate)}
	for i := range x[0] {
		x[0][i], x[1][i] = 0.2*dsp.White(1, int64(i)), 0.2*dsp.White(2, int64(i))
	}
	for name, do := range map[string]func() ([][]float64, error){
		"single":   func() ([][]float64, error) { return longer(x, Single) },
		"together": func() ([][]float64, error) { return longer(x, Together) },
		"struck":   func() ([][]float64, error) { return longer(x, Struck) },
		"formants": func() ([][]float64, error) {
			return Pitch(context.Background(), x, rate, 0.75, How{Character: Single, Formants: true})
		},
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if _, err := do(); err != nil {
					b.Fatal(err)
				}
			}
			b.ReportMetric(seconds/(b.Elapsed().Seconds()/float64(b.N)), "x-realtime")
		})
	}
}

func longer(x [][]float64, c Character) ([][]float64, error) {
	n := int64(len(x[0]))
	return Length(context.Background(), x, rate, Even(n, n*3/2), How{Character: c})
}
