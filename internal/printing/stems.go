package printing

import (
	"fmt"
	"slices"
	"strings"

	"shoal/internal/disk"
	"shoal/internal/project"
)

// Kinds of stems.
const (
	StemHeard = "heard" // what a row gives to its output: behind fader, pan and mute
	StemChain = "chain" // behind its chain, before its fader
)

// Stem is a row that becomes a file of its own.
type Stem struct {
	Channel string `json:"channel" required:"true"`
	Kind    string `json:"kind" required:"true" enum:"heard,chain,share,rest"`
}

// Stems says which rows become files, and how these are called.
type Stems struct {
	Rows []Stem `json:"rows" required:"true"`
	// Pattern makes the names of the files: {project}, {n} (their number), {row}, {kind}; empty: DefaultPattern.
	Pattern string `json:"pattern,omitempty"`
	// Trim cuts each file at its first sound, with its place in the song as its time reference; else all begin at From.
	Trim bool `json:"trim,omitempty"`
	// Level brings main, as heard, to a loudness.
	Level *MixLevel `json:"level,omitempty"`
}

// MixLevel is a loudness that a mix is brought to by one gain; nothing of it is processed.
type MixLevel struct {
	LUFS    float64 `json:"lufs" required:"true"`    // integrated, -40 to 0
	Ceiling float64 `json:"ceiling" required:"true"` // dBTP that its true peak stays below, -20 to 0
}

// DefaultPattern is how stems are called where nobody says so.
const DefaultPattern = "{project} {n} {row}"

// maxStems is how many files are made at once at most.
const maxStems = 200

// point is where the signal of a stem is taken.
func (s Stem) point() project.Tap {
	if s.Kind == StemChain {
		return project.Tap{Channel: s.Channel, Point: "pre"}
	}
	return project.Tap{Channel: s.Channel, Point: "post"}
}

// check refuses stems that make no sense for a document.
func (s *Stems) check(doc *project.Project, format string) error {
	if len(s.Rows) == 0 {
		return fmt.Errorf("choose the rows that are to become files")
	}
	if len(s.Rows) > maxStems {
		return fmt.Errorf("these are %d files; at most %d are made at once", len(s.Rows), maxStems)
	}
	for _, x := range s.Rows {
		if _, ok := doc.Channel(x.Channel); !ok {
			return fmt.Errorf("one of the rows is no longer there: choose again")
		}
		if x.Kind != StemHeard && x.Kind != StemChain && x.Kind != StemShare {
			return fmt.Errorf("%q is no kind of stem that can be chosen: there are heard, chain and share", x.Kind)
		}
	}
	if len(s.files(doc)) == 0 {
		return fmt.Errorf("returns and the main output have no share of their own: choose the rows that send there")
	}
	if l := s.Level; l != nil {
		if !(l.LUFS >= -40 && l.LUFS <= 0) {
			return fmt.Errorf("a loudness of %g LUFS: a mix is brought to -40 to 0", l.LUFS)
		}
		if !(l.Ceiling >= -20 && l.Ceiling <= 0) {
			return fmt.Errorf("a ceiling of %g dBTP: it must be -20 to 0", l.Ceiling)
		}
	}
	_, err := s.names(doc, format)
	return err
}

// names are the names of the files, in order, without two that are equal on any file system.
func (s *Stems) names(doc *project.Project, format string) ([]string, error) {
	ext, _ := Extension(format)
	pattern := s.Pattern
	if strings.TrimSpace(pattern) == "" {
		pattern = DefaultPattern
	}
	if s.twoKinds() && !strings.Contains(pattern, "{kind}") && !strings.Contains(pattern, "{n}") {
		pattern += " {kind}" // two files of one row are told from each other
	}
	files := s.files(doc)
	digits := len(fmt.Sprint(len(files)))
	taken := map[string]int{}
	names := make([]string, len(files))
	for i, x := range files {
		row := x.title(doc)
		name := strings.NewReplacer(
			"{project}", doc.Name, "{n}", fmt.Sprintf("%0*d", max(2, digits), i+1), "{row}", row, "{kind}", kindInWords[x.Kind],
		).Replace(pattern)
		names[i] = FileName(name) + "." + ext
		key := strings.ToLower(names[i])
		if j, ok := taken[key]; ok {
			return nil, fmt.Errorf("%s and %s would both be called %q: put {n} or {row} into the pattern", files[j].title(doc), row, names[i])
		}
		taken[key] = i
	}
	return names, nil
}

// twoKinds reports whether rows are taken in more than one way.
func (s *Stems) twoKinds() bool {
	return slices.ContainsFunc(s.Rows, func(x Stem) bool { return x.Kind != s.Rows[0].Kind })
}

var kindInWords = map[string]string{
	StemHeard: "as heard", StemChain: "after its chain", StemShare: "with its share of the returns", StemRest: "what is in no share",
}

// says is what is to be known of the files before they are made.
func (s *Stems) says(doc *project.Project) []string {
	main := doc.MainChannel()
	heard := map[string]bool{}
	mixed := false
	for _, x := range s.Rows {
		heard[x.Channel] = heard[x.Channel] || x.Kind == StemHeard
		mixed = mixed || x.Channel == main.ID && x.Kind == StemHeard
	}
	var lacking []string
	rows, all := 0, 0
	for _, ch := range doc.Channels {
		if ch.Output != main.ID {
			continue
		}
		if all++; heard[ch.ID] {
			rows++
		} else {
			lacking = append(lacking, ch.Name)
		}
	}
	var says []string
	switch {
	case rows == all && all > 0:
		says = append(says, "The rows as heard sum to what comes into "+main.Name+
			", below -120 dBFS. What its own chain and fader do is not in them.")
	case rows > 0:
		says = append(says, "The rows as heard do not sum to the mix: "+inWords(lacking)+" also feed "+main.Name+".")
	}
	for _, x := range s.Rows {
		if ch, _ := doc.Channel(x.Channel); x.Kind == StemChain && len(ch.Sends) > 0 {
			says = append(says, "What rows after their chains send to returns is not in their files.")
			break
		}
	}
	says = append(says, s.saysOfShares(doc)...)
	if twice := s.twice(doc); len(twice) > 0 {
		says = append(says, "Twice among the files, for a group that they are in is there too: "+inWords(twice)+".")
	}
	if s.Level != nil && !mixed {
		says = append(says, "Only "+main.Name+" as heard is brought to a loudness, and it is not among the files.")
	}
	return says
}

// twice are the rows that come behind their faders and are also in the file of a group.
func (s *Stems) twice(doc *project.Project) (names []string) {
	there := map[Stem]bool{}
	for _, x := range s.Rows {
		there[x] = true
	}
	main := doc.MainChannel().ID
	for _, x := range s.Rows {
		ch, ok := doc.Channel(x.Channel)
		if x.Kind == StemChain || !ok {
			continue
		}
		for up, ok := doc.Channel(ch.Output); ok && up.ID != main; up, ok = doc.Channel(up.Output) {
			if there[Stem{up.ID, x.Kind}] {
				names = append(names, ch.Name)
				break
			}
		}
	}
	return names
}

// inWords lists names, at most a few.
func inWords(names []string) string {
	const most = 4
	if len(names) > most {
		return strings.Join(names[:most], ", ") + fmt.Sprintf(" and %d more", len(names)-most)
	}
	return strings.Join(names, ", ")
}

// StemPlan is what stems would come to.
type StemPlan struct {
	Files []PlannedFile `json:"files" required:"true"`
	Bytes int64         `json:"bytes" required:"true"` // about how large they are together
	Free  int64         `json:"free" required:"true"`  // bytes on the disk; -1: nobody knows
	Says  []string      `json:"says" required:"true"`
	Wrong string        `json:"wrong,omitempty"` // why they cannot be made like this
}

// PlannedFile is a file that would be made.
type PlannedFile struct {
	Channel string `json:"channel" required:"true"`
	Kind    string `json:"kind" required:"true"`
	Row     string `json:"row" required:"true"`
	Name    string `json:"name" required:"true"`
}

// PlanStems says what would be made.
func (w *Works) PlanStems(doc *project.Project, spec Spec) StemPlan {
	plan := StemPlan{Files: []PlannedFile{}, Says: []string{}, Free: disk.Free(w.exports)}
	if err := spec.Check(doc); err != nil {
		plan.Wrong = err.Error()
		return plan
	}
	names, _ := spec.Stems.names(doc, spec.Format)
	for i, x := range spec.Stems.files(doc) {
		plan.Files = append(plan.Files, PlannedFile{x.Channel, x.Kind, x.title(doc), names[i]})
	}
	plan.Bytes = spec.bytes(doc)
	if err := w.room(doc, spec); err != nil {
		plan.Wrong = err.Error()
	}
	plan.Says = append(plan.Says, spec.Stems.says(doc)...)
	return plan
}

// bytes is about how large the files of a spec are together, tails not counted.
func (s Spec) bytes(doc *project.Project) int64 {
	f := formats[s.Format]
	per := float64(2 * f.bits / 8)
	if f.extension == "flac" {
		per *= 0.7
	}
	n := float64(len(s.Stems.files(doc)))
	if s.Stems.Level != nil {
		n += 8 / per // what is levelled is kept once more in 32 bits meanwhile
	}
	return int64(n * per * float64(s.To-s.From))
}

// room refuses files for which the disk has no room.
func (w *Works) room(doc *project.Project, spec Spec) error {
	free := disk.Free(w.exports)
	if need := spec.bytes(doc) + 1<<20; free >= 0 && need > free {
		return fmt.Errorf("these files need about %s, and the disk has room for %s: free some, or choose fewer rows, a shorter range or FLAC",
			megabytes(need), megabytes(free))
	}
	return nil
}

func megabytes(n int64) string {
	if n >= 1<<30 {
		return fmt.Sprintf("%.1f GB", float64(n)/(1<<30))
	}
	return fmt.Sprintf("%.0f MB", float64(n)/(1<<20))
}
