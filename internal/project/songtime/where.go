package songtime

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Spot is where a tick falls: its bar and beat, counted from 1, and in hundredths how far it is to the next beat. It is
// the one way in which places are said.
func (c *Clock) Spot(tick float64) (bar, beat, hundredths int64) {
	i := c.meterIndex(int64(tick))
	m := c.meter[i]
	perBeat := m.BarTicks() / int64(m.Beats)
	n := int64(math.Round(100 * (tick - float64(m.Tick)) / float64(perBeat)))
	perBar := 100 * int64(m.Beats)
	return int64(c.barStart[i]) + n/perBar + 1, n%perBar/100 + 1, n % 100
}

// Where says a tick as bar and beat and, where it falls between beats, hundredths: what At reads.
func (c *Clock) Where(tick int64) string {
	bar, beat, part := c.Spot(float64(tick))
	if part == 0 {
		return fmt.Sprintf("%d.%d", bar, beat)
	}
	return fmt.Sprintf("%d.%d.%02d", bar, beat, part)
}

// At reads what Where writes: a bar, or bar.beat, or bar.beat.hundredths, all but the hundredths
// counted from 1. The error says what is wrong with it.
func (c *Clock) At(where string) (int64, error) {
	parts := strings.Split(strings.TrimSpace(where), ".")
	if len(parts) > 3 {
		return 0, fmt.Errorf("%q is no place in the song: write bar.beat, as 29.1", where)
	}
	n := [3]int64{1, 1, 0}
	for i, s := range parts {
		v, err := strconv.ParseInt(s, 10, 32)
		if err != nil || v < 0 || i < 2 && v == 0 {
			return 0, fmt.Errorf("%q is no place in the song: write bar.beat, as 29.1", where)
		}
		n[i] = v
	}
	start := c.Bar(int(n[0] - 1))
	m := c.MeterAt(start)
	beat := m.BarTicks() / int64(m.Beats)
	if n[1] > int64(m.Beats) {
		return 0, fmt.Errorf("bar %d has %d beats, not %d", n[0], m.Beats, n[1])
	}
	if len(parts) == 3 && (len(parts[2]) > 2 || n[2] > 99) {
		return 0, fmt.Errorf("%q: between beats there are hundredths, as 29.1.50", where)
	}
	if len(parts) == 3 && len(parts[2]) == 1 {
		n[2] *= 10
	}
	return start + (n[1]-1)*beat + int64(math.Round(float64(n[2])*float64(beat)/100)), nil
}
