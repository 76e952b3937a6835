// Command soundreport measures everything that is claimed of the sound, and writes it down with plots: of effects as they are
// made now, and as they sounded before.
package main

import (
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"shoal/internal/soundtest"
)

func main() {
	only := flag.String("only", "", "an effect; none: all")
	dir := flag.String("docs", "", "folder for sound-report.md and its plots; none: to the screen only")
	flag.Parse()
	rows := measured(*only)
	if *dir == "" {
		return
	}
	if err := write(*dir, rows); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// row is a claim with what was measured, and what was measured of the version before.
type row struct {
	soundtest.Claim
	now, before float64
	had         bool
}

func measured(only string) (rows []row) {
	for _, c := range soundtest.Claims() {
		if only != "" && c.Effect != only {
			continue
		}
		s, _ := soundtest.Of(c.Effect, 0)
		r := row{Claim: c, now: c.Measure(s)}
		if old, ok := soundtest.Of(c.Effect, s.Version()-1); ok && s.Version() > 1 {
			r.before, r.had = c.Measure(old), true
		}
		fmt.Println(r.line())
		rows = append(rows, r)
	}
	return rows
}

func (r *row) line() string {
	was := "–"
	if r.had {
		was = figure(r.before)
	}
	mark := ""
	if r.now > r.Aim {
		mark = "**not yet**"
	}
	return fmt.Sprintf("| %s | %s | %s | %s | %s | %s | %s |", r.Effect, r.Says, r.Unit, figure(r.Aim), figure(r.now), was, mark)
}

func figure(x float64) string { return strings.Replace(fmt.Sprintf("%.3g", x), "-", "−", 1) }

const head = `# The sound, measured from outside

Made by ` + "`make sound`" + ` (cmd/soundreport): every claim of internal/soundtest, measured through the effects as a user runs them, by
mathematics that shares no code with theirs. *Wanted* is what is wanted at most; *before* is the version before, which old projects keep.

| effect | what is measured | unit | wanted | measured | before | |
|---|---|---|---|---|---|---|
`

func write(dir string, rows []row) error {
	var b strings.Builder
	b.WriteString(head)
	for _, r := range rows {
		b.WriteString(r.line() + "\n")
	}
	b.WriteString("\n## Plots\n")
	if err := os.MkdirAll(filepath.Join(dir, "sound"), 0o755); err != nil {
		return err
	}
	for _, p := range soundtest.Plots() {
		name := filepath.Join("sound", p.Name+".svg")
		if err := os.WriteFile(filepath.Join(dir, name), []byte(p.SVG()), 0o644); err != nil {
			return err
		}
		fmt.Fprintf(&b, "\n%s\n\n![%s](%s)\n", p.Says, p.Says, name)
	}
	return os.WriteFile(filepath.Join(dir, "sound-report.md"), []byte(b.String()), 0o644)
}
