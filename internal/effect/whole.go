package effect

import (
	"math"

	"shoal/internal/param"
)

// Whole-sound steps need all of a piece before they can answer, so they are worked out before it is played, and stand
// only in treatments. What they do is in package working; here is what can be said of them. A processor of theirs lets
// everything pass.

// Whole lists the whole-sound steps; the order is that of the list on screen.
func Whole() []Kind { return whole }

var whole = []Kind{backwards, pitchStep, lengthStep}

const wholeFamily = "Whole sound"

// backwards turns the whole piece round, with the tails that stages before it have: twice is the source, bit for bit.
var backwards = Kind{
	Info: Info{
		ID: "backwards", Version: 1, Name: "Backwards", Family: wholeFamily, Whole: true, Mix: 100, MixLaw: "blend",
		Says:     "Plays the whole piece from its end to its beginning.",
		Synonyms: []string{"reverse", "turn round", "rewind", "inverse"},
		Plumbs:   []Plumb{}, Params: []param.Param{},
	},
	New: passing, Draw: drawBackwards,
}

// takenFor is what a sound can be taken for, as package stretch counts them.
func takenFor() param.Param {
	return param.Param{Name: "character", Label: "It is", Says: "What the sound is: that decides how it is taken apart.",
		Max: 3, Taper: param.Choice, Choices: []string{"found out", "one voice", "several together", "struck"}}
}

// pitchStep stretches the piece by the ratio of frequencies and reads it that much faster (package stretch). Formants are kept
// by the true envelope. Unity is the sound itself.
var pitchStep = Kind{
	Info: Info{
		ID: "pitch", Version: 1, Name: "Pitch", Family: wholeFamily, Whole: true, Mix: 100, MixLaw: "blend",
		Says:     "Makes the whole piece higher or lower; it lasts as long as before.",
		Synonyms: []string{"transpose", "octave", "semitones", "tune", "formant", "shift", "down", "up"},
		Plumbs:   []Plumb{{Param: "semitones"}, {Param: "cents"}},
		Params: []param.Param{
			{Name: "semitones", Label: "Semitones", Unit: "st", Says: "How many semitones higher or lower.",
				Min: -24, Max: 24, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "cents", Label: "Cents", Unit: "ct", Says: "Hundredths of a semitone besides.",
				Min: -100, Max: 100, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "formants", Label: "Keep formants", Says: "Leaves the colour of a voice where it is while its pitch moves.",
				Max: 1, Taper: param.Switch},
			takenFor(),
		},
	},
	New: passing, Draw: drawPitch,
}

// lengthStep stretches the piece (package stretch) by percent, or so that each beat at its own tempo comes where the song
// has it; or reads it at another speed, so that the pitch goes along. Its length is exact to the frame.
var lengthStep = Kind{
	Info: Info{
		ID: "length", Version: 1, Name: "Length", Family: wholeFamily, Whole: true, Mix: 100, MixLaw: "blend",
		Says:     "Makes the whole piece longer or shorter.",
		Synonyms: []string{"stretch", "time", "tempo", "slow", "fast", "fit", "duration", "half speed"},
		Plumbs:   []Plumb{{Param: "percent"}, {Param: "tempo"}},
		Params: []param.Param{
			{Name: "by", Label: "Length by", Says: "Whether it is so much of what it was, or follows the tempo of the song.",
				Max: 1, Taper: param.Choice, Choices: []string{"percent", "the song's tempo"}},
			param.Param{Name: "percent", Label: "Length", Unit: "%", Says: "How long it is beside what it was.",
				Min: 10, Max: 1000, Default: 100, Taper: param.Log, Step: 1, Digits: 1}.Only("by", 0),
			param.Param{Name: "tempo", Label: "Its tempo", Unit: "bpm", Says: "The tempo at which the sound was made.",
				Min: 20, Max: 400, Default: 120, Taper: param.Log, Step: 1, Digits: 2}.Only("by", 1),
			{Name: "pitch", Label: "Pitch", Says: "Whether the pitch is kept, or falls and rises with the speed.",
				Max: 1, Taper: param.Choice, Choices: []string{"kept", "goes with the speed"}},
			takenFor().Only("pitch", 0),
		},
	},
	New: passing, Draw: drawLength,
}

// PitchRatio is by how much a Pitch step with these values moves frequencies.
func PitchRatio(v []float64) float64 { return math.Exp2((v[0] + v[1]/100) / 12) }

type untouched struct{}

func passing(float64) Processor { return untouched{} }

func (untouched) Process(*Span)      {}
func (untouched) Reset()             {}
func (untouched) CopyFrom(Processor) {}
