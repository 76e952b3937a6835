package shelf

import (
	"fmt"
	"math"
	"strings"

	"shoal/internal/synth"
)

// sound is one of those that ship: made, not recorded.
type sound struct {
	id, name, says string
	tags           []string
	pitch          float64 // Hz; 0: none
	play           func() *synth.Take
}

// stock is what stands on every shelf from the beginning.
func stock() []sound {
	var list []sound
	for _, part := range [][]sound{bells(), sweeps(), knocks(), waters(), breaths()} {
		list = append(list, part...)
	}
	return list
}

// finish brings a sound to its level, takes away what stands still, and lets both ends be silent.
func finish(t *synth.Take, peak float64) *synth.Take {
	for _, ch := range [][]float64{t.L, t.R} {
		mean := 0.0
		for _, v := range ch {
			mean += v / float64(len(ch))
		}
		for i := range ch {
			ch[i] -= mean
		}
		// 2 ms in, 30 ms out, both by raised cosines
		ramp(ch, 96, func(i int) int { return i })
		ramp(ch, 1440, func(i int) int { return len(ch) - 1 - i })
	}
	t.Level(peak)
	return t
}

func ramp(ch []float64, n int, at func(int) int) {
	n = min(n, len(ch))
	for i := range n {
		ch[at(i)] *= 0.5 - 0.5*math.Cos(math.Pi*float64(i)/float64(n))
	}
}

// shape plays a sound sample by sample: x goes from 0 to 1 over its length, s in seconds.
func shape(seconds float64, stereo bool, of func(side int, x, s float64) float64) *synth.Take {
	t := synth.NewTake(seconds, stereo)
	for side, ch := range [][]float64{t.L, t.R} {
		for i := range ch {
			ch[i] = of(side, float64(i)/float64(len(ch)), float64(i)/synth.Rate)
		}
	}
	return t
}

// backwards turns a sound round.
func backwards(t *synth.Take) *synth.Take {
	for _, ch := range [][]float64{t.L, t.R} {
		for i, j := 0, len(ch)-1; i < j; i, j = i+1, j-1 {
			ch[i], ch[j] = ch[j], ch[i]
		}
	}
	return t
}

// noteOf names a frequency: the nearest note, and how far from it in cents where that is more than two.
func noteOf(hz float64) string {
	if hz <= 0 {
		return ""
	}
	note := 69 + 12*math.Log2(hz/440)
	near := math.Round(note)
	names := [12]string{"C", "C♯", "D", "E♭", "E", "F", "F♯", "G", "A♭", "A", "B♭", "B"}
	name := fmt.Sprintf("%s%d", names[int(near)%12], int(near)/12-1)
	if cents := math.Round(100 * (note - near)); math.Abs(cents) > 2 {
		name += strings.Replace(fmt.Sprintf(" %+.0f ct", cents), "-", "−", 1)
	}
	return name
}
