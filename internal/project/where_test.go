package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestAPlaceIsReadAsItIsWritten(t *testing.T) {
	p := New("Places", 48000, 88, 6, 8)
	p.Meter = append(p.Meter, Meter{p.Clock().Bar(10), 4, 4})
	c := p.Clock()
	for _, bar := range []int{0, 3, 9, 10, 11, 40} {
		for _, off := range []int64{0, 480, 960, 1200} {
			tick := c.Bar(bar) + off
			got, err := c.At(c.Where(tick))
			require.NoError(t, err)
			require.InDelta(t, tick, got, 5, c.Where(tick)) // hundredths of a beat are written
		}
	}
	for where, tick := range map[string]int64{"1": 0, "2": 2880, "1.2": 480, "1.1.50": 240, "1.1.5": 240, " 12.3 ": c.Bar(11) + 1920} {
		got, err := c.At(where)
		require.NoError(t, err, where)
		require.Equal(t, tick, got, where)
	}
	for where, says := range map[string]string{"": "bar.beat", "0": "bar.beat", "1.0": "bar.beat", "x": "bar.beat", "-3": "bar.beat", "1.2.3.4": "bar.beat",
		"1.7": "has 6 beats", "11.5": "has 4 beats", "1.1.500": "hundredths"} {
		_, err := c.At(where)
		require.ErrorContains(t, err, says, where)
	}
}
