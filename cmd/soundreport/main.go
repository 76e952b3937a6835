// Command soundreport measures everything that is claimed of the sound, and writes it down: of effects as they are made now,
// and as they sounded before.
package main

import (
	"flag"
	"fmt"
	"os"
	"strings"

	"shoal/internal/soundtest"
)

func main() {
	only := flag.String("only", "", "an effect; none: all")
	flag.Parse()
	for _, c := range soundtest.Claims() {
		if *only != "" && c.Effect != *only {
			continue
		}
		s, _ := soundtest.Of(c.Effect, 0)
		now := c.Measure(s)
		line := []string{fmt.Sprintf("%8.3f", now)}
		for v := s.Version() - 1; v > 0; v-- {
			if old, ok := soundtest.Of(c.Effect, v); ok {
				line = append(line, fmt.Sprintf("was %8.3f", c.Measure(old)))
			}
		}
		mark := " "
		if now > c.Aim {
			mark = "!"
		}
		fmt.Fprintf(os.Stdout, "%s %s most %g %s — %s: %s\n", mark, strings.Join(line, ", "), c.Aim, c.Unit, c.Effect, c.Says)
	}
}
