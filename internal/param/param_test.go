package param

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"
)

var tapers = []Param{
	{Label: "straight", Min: -20, Max: 30, Taper: Linear},
	{Label: "log", Min: 20, Max: 20000, Taper: Log},
	{Label: "level", Unit: "dB", Min: -120, Max: 12, Taper: Level},
	{Label: "choice", Max: 4, Taper: Choice, Choices: []string{"a", "b", "c", "d", "e"}},
}

func TestAPlaceAndItsValueAgreeAndRise(t *testing.T) {
	for _, p := range tapers {
		last := math.Inf(-1)
		for i := range 201 {
			x := float64(i) / 200
			v := p.At(x)
			require.InDelta(t, x, p.Place(v), 1e-9, p.Label)
			require.Greater(t, v, last, p.Label)
			require.NoError(t, p.inside(v), p.Label)
			last = v
		}
		require.InDelta(t, p.Min, p.At(0), 1e-9)
		require.InDelta(t, p.Max, p.At(1), 1e-9*p.Max)
	}
}

// inside is Check without the demand for whole choices.
func (p Param) inside(v float64) error {
	q := p
	q.Taper = Linear
	return q.Check(p.Clamp(v))
}

func TestTheLowestTenthOfALevelLeadsToOff(t *testing.T) {
	p := tapers[2]
	require.InDelta(t, -60, p.At(0.1), 1e-9)
	require.InDelta(t, -120, p.At(0), 1e-9)
}

func TestValuesThatAreNoneAreRefusedInWords(t *testing.T) {
	for v, want := range map[float64]string{31: "straight 31 is outside -20 to 30", math.NaN(): "not a number", math.Inf(1): "not a number"} {
		require.ErrorContains(t, tapers[0].Check(v), want)
	}
	require.ErrorContains(t, tapers[3].Check(1.5), "must be a whole number")
	require.NoError(t, tapers[3].Check(2))
	require.Equal(t, 30.0, tapers[0].Clamp(99))
	require.True(t, tapers[3].Stepped())
	require.Equal(t, &When{"a", []float64{1, 2}}, tapers[0].Only("a", 1, 2).When)
	require.Nil(t, tapers[0].When)
}
