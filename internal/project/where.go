package project

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Where says a tick as bar and beat, and where it falls between beats, in hundredths.
func (c *Clock) Where(tick int64) string {
	i := c.meterIndex(tick)
	m := c.meter[i]
	beat := m.BarTicks() / int64(m.Beats)
	off := tick - m.Tick
	bar, in := off/m.BarTicks(), off%m.BarTicks()
	s := fmt.Sprintf("%d.%d", int64(c.barStart[i])+bar+1, in/beat+1)
	if part := in % beat; part != 0 {
		s += fmt.Sprintf(".%02.0f", math.Round(100*float64(part)/float64(beat)))
	}
	return s
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
