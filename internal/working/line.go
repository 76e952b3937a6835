package working

import (
	"context"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Print prints a row as far as its line, unless that is there. It is written as it is rendered, so that no song is too
// long; nothing half-done is ever left.
func Print(ctx context.Context, doc *project.Project, folder *audiofile.Folder, w *engine.Waterline, progress func(float64)) error {
	defer alone(w.Key)()
	if folder.HasWorked(w.Key) {
		return nil
	}
	if err := All(ctx, w.Made.Project, folder, nil); err != nil {
		return err
	}
	d, err := folder.Draft(doc.SampleRate, 2, 32, nil)
	if err != nil {
		return err
	}
	defer d.Drop()
	lib := pages.New(Room(w.Made.Project)).AllWorked()
	sides := make([][]float64, 2)
	frames := int64(0)
	err = w.Print(ctx, doc, lib, Pages(folder, lib), func(l, r []float64) error {
		sides[0], sides[1] = l, r
		frames += int64(len(l))
		return d.Write(sides)
	}, progress)
	if err != nil {
		return err
	}
	if frames != w.Frames() {
		return fmt.Errorf("a mistake of Shoal's: %d frames were to be printed, and there are %d", w.Frames(), frames)
	}
	if err := ctx.Err(); err != nil {
		return err
	}
	return d.KeepWorked(w.Key)
}

// Pages loads pages for an offline render from the audio folder.
func Pages(folder *audiofile.Folder, lib *pages.Library) engine.Loader {
	return func(_ context.Context, need []pages.Missing) error {
		for _, m := range need {
			p, err := folder.Page(m.Hash, m.Page, pages.Frames)
			if err != nil {
				return err
			}
			lib.Put(m.Hash, m.Page, p)
		}
		return nil
	}
}
