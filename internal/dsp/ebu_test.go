package dsp

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
)

// The cases of EBU Tech 3341 and 3342 that are made of tones. Cases 7 and 8 of 3341, 5 and 6 of 3342 are recordings, case 6 has
// five channels, and 20 to 23 are filtered files: they are not here.

// Cases 1 to 5 of 3341 (integrated), 1 to 4 of 3342 (range).
func TestLoudnessCases(t *testing.T) {
	for name, c := range map[string]struct {
		parts []part
		want  float64
	}{
		"1 steady":        {[]part{{-23, 20}}, -23},
		"2 low":           {[]part{{-33, 20}}, -33},
		"3 relative gate": {[]part{{-36, 10}, {-23, 60}, {-36, 10}}, -23},
		"4 absolute gate": {[]part{{-72, 10}, {-36, 10}, {-23, 60}, {-36, 10}, {-72, 10}}, -23},
		"5 mixed":         {[]part{{-26, 20}, {-20, 20.1}, {-26, 20}}, -23},
	} {
		x := tones(c.parts...)
		for _, keep := range []bool{true, false} {
			l := NewLoudness(rate48, keep)
			l.Feed(x, x)
			require.InDelta(t, c.want, l.Integrated(), 0.1, name)
		}
	}
	for name, c := range map[string]struct {
		parts []part
		want  float64
	}{
		"1": {[]part{{-20, 20}, {-30, 20}}, 10},
		"2": {[]part{{-20, 20}, {-15, 20}}, 5},
		"3": {[]part{{-40, 20}, {-20, 20}}, 20},
		"4": {[]part{{-50, 20}, {-35, 20}, {-20, 20}, {-35, 20}, {-50, 20}}, 15},
	} {
		x := tones(c.parts...)
		l := NewLoudness(rate48, true)
		l.Feed(x, x)
		require.InDelta(t, c.want, l.Range(), 1, "range case "+name)
	}
}

// Case 13: a tone of 400 ms is found at its whole loudness wherever it begins.
func TestTheMomentaryMaximumIsFoundWhereverItLies(t *testing.T) {
	const rate = 48000
	for k := range 20 {
		begin := rate/2 + k*240 + 17*k // between the hops of 100 ms, and between those of 10
		x := make([]float64, 2*rate)
		for i := range rate * 4 / 10 {
			x[begin+i] = Gain(-23) * math.Sin(2*math.Pi*1000*float64(i)/rate)
		}
		l := NewLoudness(rate, true)
		l.Feed(x, x)
		require.InDelta(t, -23, l.MaxMomentary(), 0.1, "begins at frame %d", begin)
	}
}

// held feeds a signal in hops of 10 ms and tells what a reading was after each, from a time in seconds on.
func held(t *testing.T, x []float64, from float64, want float64, read func(l *Loudness) float64, about string) {
	t.Helper()
	const hop = 480
	l := NewLoudness(rate48, false)
	for at := 0; at+hop <= len(x); at += hop {
		l.Feed(x[at:at+hop], x[at:at+hop])
		if float64(at+hop) >= from*rate48 {
			require.InDelta(t, want, read(l), 0.1, "%s, %.2f s", about, float64(at+hop)/rate48)
		}
	}
}

// Cases 9 and 12: what is loud and soft in turn, once in a window, reads the same all along.
func TestAWindowThatFitsTheChangeReadsTheSameAllAlong(t *testing.T) {
	var short, now []part
	for range 5 {
		short = append(short, part{-20, 1.34}, part{-30, 1.66})
	}
	for range 25 {
		now = append(now, part{-20, 0.18}, part{-30, 0.22})
	}
	held(t, tones(short...), 3, -23, (*Loudness).Short, "case 9")
	held(t, tones(now...), 1, -23, (*Loudness).Momentary, "case 12")
}

// Case 10: a tone of 3 s is found at its whole loudness wherever it begins.
func TestTheShortMaximumIsFoundWhereverItLies(t *testing.T) {
	for k := range 20 {
		x := make([]float64, int(0.15*float64(k)*rate48))
		x = append(append(x, sine(3*rate48, 1000, rate48, -23)...), make([]float64, rate48)...)
		l := NewLoudness(rate48, true)
		l.Feed(x, x)
		require.InDelta(t, -23, l.MaxShort(), 0.1, "after %.2f s", 0.15*float64(k))
	}
}

// Cases 11 and 14: tones that grow by 1 dB each, after pauses of different lengths, are the loudest so far one after the other.
func TestTheMaximaFollowWhatGrows(t *testing.T) {
	for _, c := range []struct {
		about               string
		tone, step, between float64
		read                func(l *Loudness) float64
	}{
		{"case 11", 3, 0.15, 3, (*Loudness).MaxShort},
		{"case 14", 0.4, 0.02, 0.4, (*Loudness).MaxMomentary},
	} {
		l := NewLoudness(rate48, false)
		for k := range 20 {
			pause := c.step * float64(k)
			x := make([]float64, int(pause*rate48))
			x = append(x, sine(int(c.tone*rate48), 1000, rate48, float64(k)-38)...)
			x = append(x, make([]float64, int((c.between-pause)*rate48))...)
			l.Feed(x, x)
			require.InDelta(t, float64(k)-38, c.read(l), 0.1, "%s, tone %d", c.about, k+1)
		}
	}
}

// Cases 15 to 19: tones whose samples miss their peaks, by phase.
func TestTruePeaksOfTones(t *testing.T) {
	for i, c := range []struct{ part, phase, amplitude, want float64 }{
		{4, 0, 0.5, -6}, {4, 45, 0.5, -6}, {6, 60, 0.5, -6}, {8, 67.5, 0.5, -6}, {4, 45, 1.41, 3},
	} {
		x := make([]float64, rate48)
		for n := range x { // let in and out over 50 ms: the beginning of a tone is a peak of its own
			in := math.Min(1, math.Min(float64(n), float64(len(x)-n))/2400)
			x[n] = in * c.amplitude * math.Sin(2*math.Pi*float64(n)/c.part+c.phase*math.Pi/180)
		}
		m := NewTruePeak(4, 12)
		m.Feed(x)
		got := Decibels(m.Take())
		require.Greater(t, got, c.want-0.4, fmt.Sprint("case ", 15+i))
		require.Less(t, got, c.want+0.2, fmt.Sprint("case ", 15+i))
	}
}
