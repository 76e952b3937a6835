package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// lfo gives the phase of a slow oscillation in cycles: a pure function of song
// time, so that a print equals what was heard. When the rate moves, or the song
// jumps without a reset (a loop's end), the phase goes on from where it was and is
// drawn back to the pure function within about two seconds.
type lfo struct {
	started     bool
	end, offset float64
}

// look returns the phases at the grid point at or before frame i of the span and
// at the next one. quarters is the length of a cycle; 0 means that hz counts.
func (l *lfo) look(s *Span, i int, rate, hz, quarters float64) (from, to float64) {
	grid := (s.Frame + int64(i)) &^ (Grid - 1)
	var pure, inc float64
	if quarters > 0 {
		perFrame := s.Tempo / 60 / rate
		pure = (s.Quarter + float64(grid-s.Frame)*perFrame) / quarters
		inc = perFrame / quarters
	} else {
		pure, inc = float64(grid)/rate*hz, hz/rate
	}
	if l.started {
		l.offset = l.end - pure
		l.offset -= math.Floor(l.offset + 0.5)
		l.offset *= 0.9995
		if math.Abs(l.offset) < 1e-7 {
			l.offset = 0
		}
	} else {
		l.offset = 0
	}
	l.started = true
	from = pure + l.offset
	to = from + inc*Grid
	l.end = to
	return from, to
}

// Shapes of an oscillation.
const (
	waveSine = iota
	waveTriangle
	waveFall
	waveRise
	waveSquare
	waveSmooth
	waveSteps
)

var waveNames = []string{"sine", "triangle", "falling", "rising", "square", "wander", "random steps"}

// wave is the value, -1 to 1, of a shape at a phase in cycles. Jumps take 1 % of
// a cycle, so that they do not click.
func wave(shape int, phase float64, seed uint64) float64 {
	whole := math.Floor(phase)
	f := phase - whole
	switch shape {
	case waveTriangle:
		return 1 - 4*math.Abs(math.Mod(f+0.75, 1)-0.5)
	case waveFall:
		return soften(1-2*f, f, -1)
	case waveRise:
		return soften(2*f-1, f, 1)
	case waveSquare:
		return max(-1, min(1, 32*math.Sin(2*math.Pi*f)))
	case waveSmooth:
		return dsp.Drift(seed, phase*2)
	case waveSteps:
		a, b := dsp.White(seed, int64(whole)-1), dsp.White(seed, int64(whole))
		return a + (b-a)*min(1, f/0.01)
	}
	return math.Sin(2 * math.Pi * f)
}

// Wave is the value, -1 to 1, of a shape by its place in WaveNames, at a phase in cycles. Chance
// falls by the seed.
func Wave(shape int, phase float64, seed uint64) float64 { return wave(shape, phase, seed) }

// WaveNames are the shapes that Wave knows.
func WaveNames() []string { return waveNames }

// soften leads from the end of the last cycle to the start of this one.
func soften(v, f, last float64) float64 {
	if f < 0.01 {
		return last + (v-last)*f/0.01
	}
	return v
}

// cycleNotes are the lengths that a cycle can have.
var cycleNotes = append(append([]note{}, notes...), note{"2/1", 8}, note{"4/1", 16})

// CycleNote is a note length by name, in quarter notes.
type CycleNote struct {
	Name     string
	Quarters float64
}

// CycleNotes are the note lengths that a movement to and fro can take.
func CycleNotes() (list []CycleNote) {
	for _, n := range cycleNotes {
		list = append(list, CycleNote{n.name, n.quarters})
	}
	return list
}

func cycleNames() []string {
	var n []string
	for _, x := range cycleNotes {
		n = append(n, x.name)
	}
	return n
}

// cycleParams are the three parameters that say how fast a movement is.
func cycleParams(hz float64, noteIndex float64) []param.Param {
	return []param.Param{
		{
			Name:    "sync",
			Label:   "Speed in",
			Says:    "Whether the speed is in cycles a second, or a cycle is a note length that follows the tempo.",
			Max:     1,
			Taper:   param.Choice,
			Choices: []string{"hertz", "notes"},
		},
		param.Param{Name: "rate", Label: "Speed", Unit: "Hz", Says: "How often it moves to and fro, when the speed is in hertz.",
			Min: 0.02, Max: 20, Default: hz, Taper: param.Log, Step: 3, Digits: 2}.Only("sync", 0),
		param.Param{Name: "note", Label: "Cycle", Says: "How long one movement to and fro takes, when it follows the tempo.",
			Max: float64(len(cycleNotes) - 1), Default: noteIndex, Taper: param.Choice, Choices: cycleNames()}.Only("sync", 1),
	}
}

// onSheet puts parameters on a sheet of their effect's scales.
func onSheet(sheet string, ps []param.Param) []param.Param {
	for i := range ps {
		ps[i].Sheet = sheet
	}
	return ps
}

// cycle reads those three: the speed in Hz, and the length in quarter notes or 0.
func cycle(v []float64) (hz, quarters float64) {
	if v[0] != 0 {
		return v[1], cycleNotes[int(v[2])].quarters
	}
	return v[1], 0
}

// period is the length of a cycle in seconds.
func period(v []float64, tempo float64) float64 {
	if hz, q := cycle(v); q == 0 {
		return 1 / hz
	} else {
		return q * 60 / tempo
	}
}

// read takes every parameter's value at frame i.
func (s *Span) read(dst []float64, i int) {
	for k := range dst {
		dst[k] = s.Values[k].At(i)
	}
}

// roundTick keeps a tick short enough to be written.
func roundTick(v float64) float64 {
	if v >= 1 {
		return math.Round(v*100) / 100
	}
	return math.Round(v*1000) / 1000
}

// drawMovement draws what moves over two cycles, left and right.
func drawMovement(says string, y Axis, seconds float64, f func(cycles float64) (l, r float64)) Picture {
	x := Axis{Label: "time", Unit: "s", Max: 2 * seconds}
	for k := 1; k < 4; k++ {
		x.Ticks = append(x.Ticks, roundTick(float64(k)*seconds/2))
	}
	left := x.curve("left", "main", func(t float64) float64 { l, _ := f(t / seconds); return l })
	right := x.curve("right", "part", func(t float64) float64 { _, r := f(t / seconds); return r })
	return Picture{Says: says, X: x, Y: y, Curves: []Curve{right, left}}
}
