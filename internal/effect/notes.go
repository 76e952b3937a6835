package effect

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
