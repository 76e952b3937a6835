// Command reshape gives the functions of a Go WebAssembly module their loops back.
//
// The Go compiler writes every function as one big switch inside a loop: each jump
// between basic blocks sets a number and goes round through the switch, so that a
// goroutine can be resumed anywhere. In the kernels of the engine that costs more than
// the arithmetic: a browser's compiler sees neither loops nor straight lines. Where a
// function is entered at its beginning (not resumed), none of that is needed: reshape
// rebuilds the flow of control as nested blocks and loops and puts it before the
// original code, which stays for the rare case of resuming.
//
// The method is that of N. Ramsey, "Beyond Relooper: recursive translation of
// unstructured control flow to structured control flow", ICFP 2022.
package main

import (
	"flag"
	"fmt"
	"os"
	"strings"
)

// rendering are the functions that run for every block of sound. Reshaped, a function is twice as large: what only answers now and
// then stays as it is.
var rendering = []string{
	"shoal_internal_dsp.", "shoal_internal_effect.", "shoal_internal_engine", "shoal_internal_input.", "shoal_internal_synth.",
	"shoal_internal_project_songtime.", "shoal_internal_onset.", "shoal_internal_stretch.", "math.", "runtime.mem",
}

func main() {
	prefixes := flag.String("in", strings.Join(rendering, ","), "prefixes of the functions to reshape, with commas between")
	names := flag.Bool("names", false, "keep the names of functions, for a profiler")
	flag.Usage = func() {
		fmt.Fprintln(os.Stderr, "usage: reshape [-in PREFIXES] [-names] FROM.wasm TO.wasm")
		flag.PrintDefaults()
	}
	flag.Parse()
	if flag.NArg() != 2 {
		flag.Usage()
		os.Exit(2)
	}
	if err := run(flag.Arg(0), flag.Arg(1), strings.Split(*prefixes, ","), *names); err != nil {
		fmt.Fprintln(os.Stderr, "reshape:", err)
		os.Exit(1)
	}
}

func run(from, to string, prefixes []string, names bool) error {
	in, err := os.ReadFile(from)
	if err != nil {
		return err
	}
	wanted := func(name string) bool {
		for _, p := range prefixes {
			if strings.HasPrefix(name, p) {
				return true
			}
		}
		return false
	}
	out, n, err := reshape(in, wanted, names)
	if err != nil {
		return fmt.Errorf("%s: %w", from, err)
	}
	if n == 0 {
		return fmt.Errorf("%s: no function could be reshaped: was it built with -ldflags=-s, or by a Go whose code has another form?", from)
	}
	return os.WriteFile(to, out, 0o644)
}
