// Package effect holds the effects: for each one a file that says what it is
// (parameters, units, ranges), how it sounds, and how it is drawn.
//
// An effect is a Kind. Its New makes a Processor, which works on spans of
// stereo samples in place, always fully wet: mix, bypass and latency
// compensation belong to the engine. A processor is given the value of every
// parameter for the span, already smoothed, so it never smooths by itself what
// a hand has moved; it recomputes coefficients on a grid of 16 frames of its own
// song time, so that the result does not depend on how the engine cuts blocks.
//
// To add an effect, write its file and name it in kinds.go.
package effect
