package main

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"shoal/internal/audiofile"
	"shoal/internal/bundle"
	"shoal/internal/engine"
	"shoal/internal/printing"
	"shoal/internal/project"
	"shoal/internal/sounding"
)

// exit is an ending that is no failure of the program, with a code of its own.
type exit int

func (e exit) Error() string { return fmt.Sprintf("exit code %d", int(e)) }

func checkCommand() *cobra.Command {
	var asJSON, quick bool
	c := &cobra.Command{
		Use:   "check BUNDLE.zip",
		Short: "Print the soundings of a bundle: exit code 0 for none or notes, 1 for cautions, 2 where a signal is lost, 3 if it could not look",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			list, doc, err := check(c.Context(), args[0], quick)
			if err != nil { // 1 and 2 are answers: a failure must not look like one
				fmt.Fprintln(c.ErrOrStderr(), "shoal:", err)
				return exit(3)
			}
			return report(c.OutOrStdout(), list, doc, asJSON)
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "as JSON")
	c.Flags().BoolVar(&quick, "quick", false, "look at the document only, without rendering it to measure")
	return c
}

func check(ctx context.Context, name string, quick bool) ([]sounding.Sounding, *project.Project, error) {
	f, err := os.Open(name)
	if err != nil {
		return nil, nil, err
	}
	defer f.Close()
	info, err := f.Stat()
	if err != nil {
		return nil, nil, err
	}
	folder, clean, err := scratch()
	if err != nil {
		return nil, nil, err
	}
	defer clean()
	doc, err := bundle.Read(ctx, f, info.Size(), folder)
	if err != nil {
		return nil, nil, fmt.Errorf("%s: %w", name, err)
	}
	survey := &sounding.Survey{Doc: doc}
	if !quick && doc.End() > 0 {
		figures, err := measureAll(ctx, doc, folder)
		if err != nil {
			return nil, nil, err
		}
		survey.Figures = &figures
	}
	return sounding.Look(survey), doc, nil
}

// measureAll renders a whole document for its figures.
func measureAll(ctx context.Context, doc *project.Project, folder *audiofile.Folder) (engine.Survey, error) {
	lib, err := printing.Library(ctx, doc, folder)
	if err != nil {
		return engine.Survey{}, err
	}
	return engine.Measure(ctx, doc, lib, doc.End(), printing.Pages(folder, lib), nil)
}

func report(out io.Writer, list []sounding.Sounding, doc *project.Project, asJSON bool) error {
	code := exit(0)
	for _, s := range list {
		switch {
		case s.Meant != "":
		case s.Weight == sounding.Broken:
			code = 2
		case s.Weight == sounding.Caution:
			code = max(code, 1)
		}
	}
	if asJSON {
		e := json.NewEncoder(out)
		e.SetIndent("", "  ")
		if err := e.Encode(list); err != nil {
			return err
		}
	} else {
		for _, s := range list {
			row, _ := doc.Channel(s.Channel)
			fmt.Fprintf(out, "%-8s %s: %s\n         %s\n", s.Weight, row.Name, s.Title, s.Says)
			if s.Meant != "" {
				fmt.Fprintf(out, "         %s says that it is meant.\n", s.Meant)
			}
			for _, f := range s.Fixes {
				fmt.Fprintf(out, "         fix: %s\n", f.Says)
			}
		}
		if len(list) == 0 {
			fmt.Fprintln(out, "Nothing was noticed.")
		}
	}
	if code > 0 {
		return code
	}
	return nil
}
