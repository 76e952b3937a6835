// Command benchtable makes of what benchmarks print a file for programs, a table for people, and a word on what has become slower:
// go test -bench, with several rounds, and the lines "bench: ..." of the browser's.
package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"path/filepath"
)

func main() {
	from := flag.String("from", "build/bench.txt", "what the benchmarks printed")
	to := flag.String("json", "build/bench.json", "where the figures go")
	docs := flag.String("docs", "docs", "folder of performance.json, the table that was kept last, and of performance.md")
	keep := flag.Bool("keep", false, "keep this table: write performance.json and performance.md")
	flag.Parse()
	if err := run(*from, *to, *docs, *keep); err != nil {
		fmt.Fprintln(os.Stderr, "benchtable:", err)
		os.Exit(1)
	}
}

func run(from, to, docs string, keep bool) error {
	f, err := os.Open(from)
	if err != nil {
		return err
	}
	defer f.Close()
	now, err := read(f)
	if err != nil {
		return fmt.Errorf("%s: %w", from, err)
	}
	now.Machine, now.Date = machine(), date()
	b, err := json.MarshalIndent(now, "", "  ")
	if err != nil {
		return err
	}
	if err := os.WriteFile(to, b, 0o600); err != nil {
		return err
	}
	last, err := kept(filepath.Join(docs, "performance.json"))
	if err != nil {
		return err
	}
	for _, c := range said(last, now) {
		fmt.Println(c)
	}
	if !keep {
		return nil
	}
	if err := os.WriteFile(filepath.Join(docs, "performance.json"), append(b, '\n'), 0o600); err != nil {
		return err
	}
	text := table(now)
	if p, ok := growth(now); ok {
		name := filepath.Join("performance", p.Name+".svg")
		if err := os.MkdirAll(filepath.Join(docs, "performance"), 0o700); err != nil {
			return err
		}
		if err := os.WriteFile(filepath.Join(docs, name), []byte(p.SVG()), 0o600); err != nil {
			return err
		}
		text += fmt.Sprintf("\n## Growth\n\n%s.\n\n![%s](%s)\n", p.Says, p.Says, filepath.ToSlash(name))
	}
	return os.WriteFile(filepath.Join(docs, "performance.md"), []byte(text), 0o600)
}

// said is what there is to say of the change since the table that was kept last.
func said(last, now *Report) []string {
	if len(last.Figures) == 0 {
		return []string{"No table has been kept to compare with: make performance keeps one."}
	}
	if changes := compare(last, now); len(changes) > 0 {
		return changes
	}
	return []string{"Nothing has become slower or faster by more than noise."}
}

// kept is the table that was kept last; none is an empty one.
func kept(name string) (*Report, error) {
	b, err := os.ReadFile(name)
	if os.IsNotExist(err) {
		return &Report{}, nil
	}
	if err != nil {
		return nil, err
	}
	var r Report
	if err := json.Unmarshal(b, &r); err != nil {
		return nil, fmt.Errorf("%s: %w", name, err)
	}
	return &r, nil
}
