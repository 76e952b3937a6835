package effect

import (
	"slices"
	"strings"

	"shoal/internal/param"
)

// note is a length of the note list, in quarter notes.
type note struct {
	name     string
	quarters float64
}

var notes = []note{
	{"1/32", 0.125}, {"1/16 triplet", 1. / 6}, {"1/16", 0.25}, {"1/8 triplet", 1. / 3}, {"1/16 dotted", 0.375},
	{"1/8", 0.5}, {"1/4 triplet", 2. / 3}, {"1/8 dotted", 0.75}, {"1/4", 1}, {"1/2 triplet", 4. / 3},
	{"1/4 dotted", 1.5}, {"1/2", 2}, {"1/2 dotted", 3}, {"1/1", 4},
}

func noteNames() []string {
	var n []string
	for _, x := range notes {
		n = append(n, x.name)
	}
	return n
}

// InNotes reports whether any of the effect's times can be a note length: then the song's tempo matters to it.
func (k *Kind) InNotes() bool {
	return slices.ContainsFunc(k.Params, func(d param.Param) bool {
		return slices.ContainsFunc(d.Choices, func(c string) bool { return strings.HasPrefix(c, "1/") })
	})
}
