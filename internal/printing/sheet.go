package printing

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"shoal/internal/measure"
)

// Sheet says what stands in a set of files, for whoever gets them.
type Sheet struct {
	Project  string      `json:"project"`
	Revision int64       `json:"revision"`
	Rate     int         `json:"rate"`
	Format   string      `json:"format"`
	Made     string      `json:"made"` // RFC 3339
	Says     []string    `json:"says"`
	Files    []SheetFile `json:"files"`
}

// SheetFile is what a sheet says of a file.
type SheetFile struct {
	Name      string         `json:"name"` // empty: it was silent, and none was made
	Row       string         `json:"row"`
	Kind      string         `json:"kind"`
	Reference int64          `json:"reference"` // song frame of its first
	Frames    int64          `json:"frames"`
	Over      int64          `json:"over,omitempty"` // samples beyond full scale: cut off in whole numbers
	Gain      float64        `json:"gain,omitempty"` // dB, by which it was brought to a loudness
	Says      string         `json:"says,omitempty"`
	Levels    measure.Report `json:"levels"`
	Lineage   Record         `json:"lineage"`
}

// write puts the sheet beside the files, for people and for programs.
func (s Sheet) write(dir string) error {
	b, err := json.MarshalIndent(s, "", " ")
	if err != nil {
		return fmt.Errorf("write the sheet: %w", err)
	}
	if err := os.WriteFile(filepath.Join(dir, "sheet.json"), b, 0o644); err != nil {
		return fmt.Errorf("write the sheet: %w", err)
	}
	if err := os.WriteFile(filepath.Join(dir, "sheet.md"), []byte(s.markdown()), 0o644); err != nil {
		return fmt.Errorf("write the sheet: %w", err)
	}
	return nil
}

func (s Sheet) markdown() string {
	var b strings.Builder
	fmt.Fprintf(&b, "# %s, revision %d\n\n%d Hz, %s, made %s.\n\n", s.Project, s.Revision, s.Rate, s.Format, s.Made)
	for _, x := range s.Says {
		fmt.Fprintf(&b, "- %s\n", x)
	}
	b.WriteString("\n| file | row | from | length | LUFS | LRA | dBTP |\n|---|---|---|---|---|---|---|\n")
	for _, f := range s.Files {
		name := f.Name
		if name == "" {
			name = "(silent: no file)"
		}
		fmt.Fprintf(&b, "| %s | %s, %s | %s | %s | %s | %s | %s |\n", name, f.Row, kindInWords[f.Kind], clockTime(f.Reference, s.Rate),
			clockTime(f.Frames, s.Rate), level(f.Levels.Integrated), level(f.Levels.Range), level(f.Levels.TruePeak))
	}
	b.WriteString("\n")
	for _, f := range s.Files {
		if f.Says != "" {
			fmt.Fprintf(&b, "- %s: %s\n", f.Row, f.Says)
		}
	}
	b.WriteString("\n## Made from\n\n")
	for _, f := range s.Files {
		fmt.Fprintf(&b, "- %s\n", strings.TrimSpace(f.Lineage.Words()))
	}
	return b.String()
}

// clockTime is a number of frames as minutes and seconds.
func clockTime(frames int64, rate int) string {
	seconds := float64(frames) / float64(rate)
	return fmt.Sprintf("%d:%06.3f", int(seconds)/60, seconds-float64(int(seconds)/60*60))
}

func level(v float64) string {
	if v <= -119 {
		return "silent"
	}
	return fmt.Sprintf("%.1f", v)
}
