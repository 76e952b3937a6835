// Package stretch changes how long a sound lasts, and how high it is, each without the other.
//
// A held sound goes through a phase vocoder with phases locked to the peaks of the spectrum (Laroche and Dolson,
// "Improved phase vocoder time-scale modification of audio", IEEE TSAP 7/3, 1999), in the form that compares two
// windows of the source one hop apart, so that no frequency need be estimated (Puckette, "Phase-locked vocoder", 1995).
// Around onsets it goes on at its own speed with its own phases, so that a stroke stays a stroke (after Röbel, "A new
// approach to transient processing in the phase vocoder", DAFx 2003). A struck sound is laid together in the time
// domain from stretches that match (Verhelst and Roelands, "An overlap-add technique based on waveform similarity",
// ICASSP 1993), from each onset anew. Pitch is length and then speed.
package stretch

import (
	"context"
	"math"
)

// Character says what a sound is, and so how it is stretched.
type Character int

// The characters.
const (
	Auto     Character = iota // it is found out
	Single                    // one voice or instrument: short windows
	Together                  // several at once: long windows
	Struck                    // drums and what is plucked: strokes stay whole
)

// How says how a sound is stretched.
type How struct {
	Character Character
	// Formants keeps the envelope of the spectrum where it is while the pitch moves. Struck sounds are then taken for single.
	Formants bool
	// Progress, if not nil, is told the part done, 0 to 1.
	Progress func(float64)
}

// Length lets a sound of one side or more last as its map says, at the same pitch. Its result is exactly as long as the
// map, and the sound itself where the map changes nothing.
func Length(ctx context.Context, sides [][]float64, rate float64, m Map, how How) ([][]float64, error) {
	if m.straight() {
		return sides, nil
	}
	return keepPitch(ctx, sides, rate, m, how, 1)
}

// Pitch moves a sound by a ratio of frequencies, above 0, and leaves its length.
func Pitch(ctx context.Context, sides [][]float64, rate, ratio float64, how How) ([][]float64, error) {
	if ratio == 1 || len(sides) == 0 || len(sides[0]) == 0 {
		return sides, nil
	}
	frames := int64(len(sides[0]))
	long := max(1, int64(math.Round(float64(frames)*ratio)))
	moved, err := keepPitch(ctx, sides, rate, Even(frames, long), how, ratio)
	if err != nil {
		return nil, err
	}
	return Speed(ctx, moved, Map{{0, 0}, {float64(frames) * ratio, float64(frames)}})
}

// keepPitch stretches; the pitch will be moved by a ratio afterwards.
func keepPitch(ctx context.Context, sides [][]float64, rate float64, m Map, how How, ratio float64) ([][]float64, error) {
	if len(sides) == 0 || len(sides[0]) == 0 {
		return sides, nil
	}
	k := survey(sides, rate)
	c := how.Character
	if c == Auto {
		c = k.character()
	}
	formants := how.Formants && ratio != 1
	if c == Struck && !formants {
		return struck(ctx, sides, rate, m, k.onsets, how.Progress)
	}
	size := windowFrames(rate, c)
	v := newVocoder(sides, size, m.lockedAround(k.onsets, float64(size)/2), k.onsets)
	if formants {
		v.shape = newEnvelope(size, ratio, k.envelopeOrder(rate))
	}
	return v.run(ctx, int64(math.Round(m.Out())), how.Progress)
}

// windowFrames is how long a window is: a power of two, 43 ms for a single voice and 85 for several.
func windowFrames(rate float64, c Character) int {
	seconds := 0.0853
	if c == Single || c == Struck {
		seconds = 0.0427
	}
	return 1 << int(math.Round(math.Log2(seconds*rate)))
}
