package printing

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"time"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/gentle"
	"shoal/internal/project"
)

// toFiles renders stems in one pass, into a folder of the exports with the name of the print. It is there whole or not
// at all.
func (w *Works) toFiles(
	ctx context.Context, doc *project.Project, record Record, spec Spec, id string, tell func(float64),
) (string, error) {
	if err := w.room(doc, spec); err != nil {
		return "", err
	}
	dir := filepath.Join(w.exports, id+".partial")
	if err := os.RemoveAll(dir); err != nil {
		return "", fmt.Errorf("clear what an earlier try left: %w", err)
	}
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return "", fmt.Errorf("begin the files: %w", err)
	}
	defer func() { _ = os.RemoveAll(dir) }()
	files, err := RenderStems(ctx, doc, w.folder, spec, Printer{record.By, record.Revision}, dir, tell)
	if err != nil {
		return "", err
	}
	sheet := Sheet{Project: doc.Name, Revision: record.Revision, Rate: doc.SampleRate, Format: spec.Format,
		Made: time.Now().UTC().Format(time.RFC3339), Says: spec.Stems.says(doc), Files: files}
	if err := sheet.write(dir); err != nil {
		return "", err
	}
	return id, os.Rename(dir, filepath.Join(w.exports, id))
}

// RenderStems writes the stems of a spec into a folder, and says what came of each.
func RenderStems(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, spec Spec, by Printer, dir string, progress func(float64),
) ([]SheetFile, error) {
	names, err := spec.Stems.names(doc, spec.Format)
	if err != nil {
		return nil, err
	}
	staged, points := spec.Stems.staged(doc)
	pass := engine.Pass{Points: points, From: spec.From, To: spec.To, Tail: spec.Tail}
	stems := spec.Stems.files(doc)
	files := make([]*stemFile, len(names))
	hands := gentle.NewHands(len(names))
	for i, x := range stems {
		files[i] = spec.stemFile(doc, x, filepath.Join(dir, names[i]), by)
		files[i].start(hands)
	}
	err = renderPass(ctx, staged, folder, pass, func(i int, l, r []float64) error {
		files[i].add(l, r)
		return nil
	}, progress)
	for _, f := range files {
		f.hand()
	}
	hands.Close()
	for _, f := range files {
		err = errors.Join(err, f.end())
	}
	if err != nil {
		return nil, err
	}
	out := make([]SheetFile, len(files))
	for i, f := range files {
		if out[i] = f.sheet(doc, spec, stems[i]); f.noRest(stems[i]) {
			out[i].Name, out[i].Says = "", "nothing: the shares sum by themselves"
			if err := os.Remove(f.path); err != nil && !errors.Is(err, os.ErrNotExist) {
				return nil, fmt.Errorf("remove a rest that is silent: %w", err)
			}
		}
	}
	return out, nil
}

func renderPass(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, pass engine.Pass,
	write func(i int, l, r []float64) error, progress func(float64),
) error {
	lib, err := Library(ctx, doc, folder)
	if err != nil {
		return err
	}
	return engine.Stems(ctx, doc, lib, pass, Pages(folder, lib), write, progress)
}

// stemFile prepares the file of a stem.
func (s Spec) stemFile(doc *project.Project, x Stem, path string, by Printer) *stemFile {
	one := s
	one.Channel = x.Channel
	record := NewRecord(doc, by, one, OfFile, x.Kind != StemChain)
	f := &stemFile{path: path, format: s.Format, rate: doc.SampleRate, trim: s.Stems.Trim, cues: Cues(doc, s.From, s.To),
		record: record, note: *record.Note()}
	f.note.Description += ", " + kindInWords[x.Kind]
	if x.Channel == doc.MainChannel().ID && x.Kind == StemHeard {
		f.level = s.Stems.Level
	}
	return f
}

// sheet says what came of the file.
func (s *stemFile) sheet(doc *project.Project, spec Spec, x Stem) SheetFile {
	f := SheetFile{Name: filepath.Base(s.path), Row: x.title(doc), Kind: x.Kind, Reference: s.note.Reference + s.skipped,
		Frames: s.frames, Over: s.over, Gain: s.gain, Levels: s.report, Lineage: s.record}
	switch level := spec.Stems.Level; {
	case s.frames == 0:
		f.Name, f.Says = "", "nothing sounds in this range"
	case s.over > 0 && spec.Format != "wav32f":
		f.Says = fmt.Sprintf("%d samples are beyond full scale and were cut off: turn it down, or take 32 bit float", s.over)
	case s.gain != 0 && s.report.Integrated < level.LUFS-0.05:
		f.Says = fmt.Sprintf("brought to %.1f LUFS by %+.1f dB; the ceiling of %g dBTP does not let it come to %g",
			s.report.Integrated, s.gain, level.Ceiling, level.LUFS)
	case s.gain != 0:
		f.Says = fmt.Sprintf("brought to %.1f LUFS by %+.1f dB", s.report.Integrated, s.gain)
	}
	return f
}

// filesOf are the names of the files of stems.
func (w *Works) filesOf(result string) (names []string) {
	list, err := os.ReadDir(filepath.Join(w.exports, filepath.Base(result)))
	if err != nil {
		return nil // they have been thrown away
	}
	for _, e := range list {
		names = append(names, e.Name())
	}
	return names
}

// clearPartial removes what a process that was killed had begun.
func clearPartial(exports string) error {
	list, err := filepath.Glob(filepath.Join(exports, "*.partial"))
	if err != nil {
		return fmt.Errorf("look for what was left: %w", err)
	}
	for _, path := range list {
		if err := os.RemoveAll(path); err != nil {
			return fmt.Errorf("remove what was left: %w", err)
		}
	}
	return nil
}
