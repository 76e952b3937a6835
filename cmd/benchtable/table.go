package main

import (
	"fmt"
	"strings"
)

// least is the smallest change that is told, as a part: rounds of one run often agree better than two runs of the same do.
const least = 0.1

// compare says what has become slower or faster since the table that was kept last, by more than the rounds of either lie apart.
// Both are held against the reference of their own run.
func compare(last, now *Report) (list []string) {
	for i := range now.Figures {
		f := &now.Figures[i]
		was := last.find(f.Package, f.Name)
		if was == nil || was.Unit != f.Unit || f.Name == Reference {
			continue
		}
		factor := now.cost(f) / last.cost(was)
		noise := max(least, f.spread(), was.spread())
		switch {
		case factor > 1+noise:
			list = append(list, fmt.Sprintf("slower: %s %s takes %.2f times what it took on %s", f.Package, f.Name, factor, last.Date))
		case factor < 1/(1+noise):
			list = append(list, fmt.Sprintf("faster: %s %s takes %.2f times what it took on %s", f.Package, f.Name, factor, last.Date))
		}
	}
	return list
}

// cost is how much a figure costs against the reference: more is slower, in whatever unit it is told.
func (r *Report) cost(f *Figure) float64 {
	reference := 1.0
	if x := r.reference(); x != nil {
		reference = x.middle()
	}
	if more(f.Unit) {
		return 1 / f.middle() / reference
	}
	return f.middle() / reference
}

// table is the report as people read it.
func table(r *Report) string {
	var b strings.Builder
	fmt.Fprintf(&b, "# Performance\n\nMade by `make performance` on %s, on %s.\n", r.Date, r.Machine)
	b.WriteString("The middle of several rounds, and how far they lie apart. *Against plain arithmetic*: " +
		"how many times one second-order section\n" +
		"in plain Go, per frame, in the same run; so machines, and minutes of one machine, can be compared. `make bench` says what has\n" +
		"become slower since.\n")
	in := ""
	for i := range r.Figures {
		f := &r.Figures[i]
		if f.Package != in {
			in = f.Package
			fmt.Fprintf(&b, "\n## %s\n\n| what | | unit | ± | against plain arithmetic |\n|---|---|---|---|---|\n", in)
		}
		against := ""
		if f.Unit == "ns/frame" {
			against = fmt.Sprintf("%.1f", r.cost(f))
		}
		fmt.Fprintf(&b, "| %s | %.4g | %s | %.0f %% | %s |\n", f.Name, f.middle(), f.Unit, 50*f.spread(), against)
	}
	if len(r.Browser) > 0 {
		b.WriteString("\n## In the browser\n\n")
		for _, said := range r.Browser {
			fmt.Fprintf(&b, "- %s\n", said)
		}
	}
	return b.String()
}
