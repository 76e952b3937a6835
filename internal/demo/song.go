package demo

import "shoal/internal/synth"

const (
	rate   = synth.Rate
	tempo  = 88.0
	eighth = 60 / tempo / 2 // seconds
	bar    = 6 * eighth
)

type (
	take      = synth.Take
	dice      = synth.Dice
	mode      = synth.Mode
	resonator = synth.Resonator
	saw       = synth.Saw
)

// A section of the song, in bars.
type part struct {
	name  string
	first int
	bars  int
	// chords by bar, going round; each is bass note and four notes above it
	chords [][5]float64
}

var (
	dMinor = [5]float64{38, 62, 65, 69, 72}
	bFlat  = [5]float64{34, 62, 65, 70, 74}
	fMajor = [5]float64{41, 60, 65, 69, 72}
	cAdd   = [5]float64{36, 60, 64, 67, 74}
	gMinor = [5]float64{43, 62, 65, 70, 74}
	aMinor = [5]float64{33, 60, 64, 69, 72}
)

var song = []part{
	{"Ebb", 0, 16, [][5]float64{dMinor, dMinor, bFlat, fMajor, dMinor, aMinor, bFlat, cAdd}},
	{"Slack", 16, 14, [][5]float64{gMinor, gMinor, dMinor, dMinor, bFlat, fMajor, cAdd}},
	{"Flood", 30, 20, [][5]float64{dMinor, cAdd, bFlat, fMajor, gMinor, dMinor, bFlat, aMinor}},
	{"High Water", 50, 18, [][5]float64{fMajor, cAdd, gMinor, dMinor, fMajor, cAdd, bFlat, bFlat}},
}

func chordAt(b int) [5]float64 {
	for i := len(song) - 1; i >= 0; i-- {
		if b >= song[i].first {
			return song[i].chords[(b-song[i].first)%len(song[i].chords)]
		}
	}
	return dMinor
}

func partAt(b int) int {
	for i := len(song) - 1; i >= 0; i-- {
		if b >= song[i].first {
			return i
		}
	}
	return 0
}

// stretch is where an instrument plays: bars [from, to) and how long it rings.
type stretch struct {
	from, to int
	ring     float64 // seconds
}

func (s stretch) seconds() float64 { return float64(s.to-s.from)*bar + s.ring }
