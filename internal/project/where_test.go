package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestAPlaceIsReadAsItIsWritten(t *testing.T) {
	p := New("Places", 48000, 88, 6, 8)
	p.Meter = append(p.Meter, Meter{Tick: p.Clock().Bar(10), Beats: 4, Unit: 4})
	c := p.Clock()
	for _, bar := range []int{0, 3, 9, 10, 11, 40} {
		for _, off := range []int64{0, 480, 960, 1200} {
			tick := c.Bar(bar) + off
			got, err := c.At(c.Where(tick))
			require.NoError(t, err)
			require.InDelta(t, tick, got, 5, c.Where(tick)) // hundredths of a beat are written
		}
	}
	for tick := range c.Bar(3) { // the last hundredth before a beat is not the hundredth of it
		got, err := c.At(c.Where(tick))
		require.NoError(t, err, "%d: %s", tick, c.Where(tick))
		require.InDelta(t, tick, got, 3)
	}
	for where, tick := range map[string]int64{"1": 0, "2": 2880, "1.2": 480, "1.1.50": 240, "1.1.5": 240, " 12.3 ": c.Bar(11) + 1920} {
		got, err := c.At(where)
		require.NoError(t, err, where)
		require.Equal(t, tick, got, where)
	}
	for where, says := range map[string]string{
		"": "bar.beat", "0": "bar.beat", "1.0": "bar.beat", "x": "bar.beat", "-3": "bar.beat", "1.2.3.4": "bar.beat",
		"1.7": "has 6 beats", "11.5": "has 4 beats", "1.1.500": "hundredths",
	} {
		_, err := c.At(where)
		require.ErrorContains(t, err, says, where)
	}
}

// In a tempo ramp as well a place is where its tick is: beats there are not equally long.
func TestAPlaceInARampIsWhereItsTickIs(t *testing.T) {
	p := New("Ramp", 48000, 60, 4, 4)
	p.Tempo = []Tempo{{Tick: 0, BPM: 60, Ramp: true}, {Tick: 3840, BPM: 240}}
	c := p.Clock()
	for _, tick := range []int64{0, 960, 1440, 1920, 3120, 3840, 4800} {
		bar, beat, part := c.Spot(c.Tick(c.Frame(tick)))
		require.Equal(t, []int64{tick/3840 + 1, tick%3840/960 + 1, tick % 960 * 100 / 960}, []int64{bar, beat, part}, "tick %d", tick)
	}
}
