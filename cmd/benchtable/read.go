package main

import (
	"bufio"
	"fmt"
	"io"
	"os"
	"regexp"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"time"
)

// Report is what was measured on a machine, one after the other.
type Report struct {
	Machine string   `json:"machine"`
	Date    string   `json:"date"`
	Figures []Figure `json:"figures"`
	Browser []string `json:"browser"` // as they were said
}

// Figure is what a benchmark gave in each of its rounds.
type Figure struct {
	Package string    `json:"package"`
	Name    string    `json:"name"`
	Unit    string    `json:"unit"`
	Rounds  []float64 `json:"rounds"`
}

// Reference is the benchmark that all others are held against: plain arithmetic that never changes, so that what remains of two
// runs on a machine that was fast or slow is what the code makes of it.
const Reference = "Reference"

// units are those that a benchmark may tell, the most telling first.
var units = []string{"ns/frame", "x-realtime", "x", "ns/op"}

// more reports whether more of a unit is better.
func more(unit string) bool { return unit == "x" || unit == "x-realtime" }

var line = regexp.MustCompile(`^Benchmark(\S+?)(?:-\d+)?\s+\d+\s+(.+)$`)

// read takes in what go test and the browser's benchmarks print.
func read(r io.Reader) (*Report, error) {
	report, in := &Report{}, ""
	s := bufio.NewScanner(r)
	for s.Scan() {
		text := s.Text()
		if pkg, ok := strings.CutPrefix(text, "pkg: "); ok {
			in = strings.TrimPrefix(pkg, "shoal/internal/")
		}
		if _, said, ok := strings.Cut(text, "bench: "); ok {
			report.Browser = append(report.Browser, said)
		}
		m := line.FindStringSubmatch(text)
		if m == nil {
			continue
		}
		unit, value, err := telling(m[2])
		if err != nil {
			return nil, fmt.Errorf("%s: %w", m[1], err)
		}
		report.add(in, m[1], unit, value)
	}
	if len(report.Figures) == 0 {
		return nil, fmt.Errorf("there is no benchmark in it")
	}
	return report, s.Err()
}

func (r *Report) add(in, name, unit string, value float64) {
	f := r.find(in, name)
	if f == nil {
		r.Figures = append(r.Figures, Figure{Package: in, Name: name, Unit: unit})
		f = &r.Figures[len(r.Figures)-1]
	}
	f.Rounds = append(f.Rounds, value)
}

// telling is the most telling of a benchmark's figures.
func telling(text string) (unit string, value float64, err error) {
	words := strings.Fields(text)
	for _, unit := range units {
		if i := slices.Index(words, unit); i > 0 {
			value, err = strconv.ParseFloat(words[i-1], 64)
			return unit, value, err
		}
	}
	return "", 0, fmt.Errorf("no figure of it can be read: %s", text)
}

// middle is the median of the rounds, and spread how far they lie apart as a part of it.
func (f *Figure) middle() float64 {
	x := slices.Sorted(slices.Values(f.Rounds))
	return x[len(x)/2]
}

func (f *Figure) spread() float64 { return (slices.Max(f.Rounds) - slices.Min(f.Rounds)) / f.middle() }

func (r *Report) find(in, name string) *Figure {
	i := slices.IndexFunc(r.Figures, func(f Figure) bool { return f.Package == in && f.Name == name })
	if i < 0 {
		return nil
	}
	return &r.Figures[i]
}

// reference is what plain arithmetic took in the same run.
func (r *Report) reference() *Figure {
	i := slices.IndexFunc(r.Figures, func(f Figure) bool { return f.Name == Reference })
	if i < 0 {
		return nil
	}
	return &r.Figures[i]
}

func machine() string {
	name := runtime.GOARCH
	if b, err := os.ReadFile("/proc/cpuinfo"); err == nil {
		if _, rest, ok := strings.Cut(string(b), "model name"); ok {
			first, _, _ := strings.Cut(rest, "\n")
			name = strings.Trim(first, "\t: ")
		}
	}
	return fmt.Sprintf("%s, %d cores, %s", name, runtime.NumCPU(), runtime.Version())
}

func date() string { return time.Now().UTC().Format(time.DateOnly) }
