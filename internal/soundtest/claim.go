// Package soundtest judges effects from outside only: it feeds them sounds, as the command line does, and measures what
// comes out by mathematics of its own, which is slow and shares no code with theirs.
package soundtest

import (
	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

// Rate is the sampling rate at which is measured unless a claim says otherwise, in hertz.
const Rate = 48000.0

// Set is what an effect's parameters are set to, by name; the others stay as they begin.
type Set = map[string]float64

// Subject is an effect as it sounds in one of its versions.
type Subject struct{ kind *effect.Kind }

// Claim is something that is said of an effect, and how it is found out whether it holds.
type Claim struct {
	Effect string
	Says   string
	Unit   string
	// Aim is what is wanted at most, and held.
	Aim float64
	// Long says that it takes more than a moment.
	Long    bool
	Measure func(s Subject) float64
}

// Claims are all of them, effect by effect.
func Claims() []Claim {
	var list []Claim
	for _, of := range [][]Claim{
		ofReverb(), ofPitch(), ofMovement(), ofTransitions(), ofDynamics(), ofLevels(), ofTails(), ofFilters(), ofAliases(),
	} {
		list = append(list, of...)
	}
	return list
}

// Of is an effect in its newest version, or in an older one.
func Of(id string, version int) (Subject, bool) {
	k, ok := effect.Of(id, version)
	return Subject{k}, ok
}

// Version is that of the subject.
func (s Subject) Version() int { return s.kind.Version }

// run lets two sides pass, in place; nothing else is mixed in.
func (s Subject) run(rate float64, set Set, l, r []float64) {
	effecttest.Of(s.kind, rate, set).Run(l, r, effect.MaxFrames)
}

// alone lets one signal pass on both sides and gives the left of it.
func (s Subject) alone(rate float64, set Set, x []float64) []float64 {
	l, r := append([]float64(nil), x...), append([]float64(nil), x...)
	s.run(rate, set, l, r)
	return l
}
