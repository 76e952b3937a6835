package printing

import (
	"context"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// Contour renders the rows of a passage, on a thread that lets others go first.
func Contour(ctx context.Context, doc *project.Project, folder *audiofile.Folder, lib *engine.Library, passage string) (*engine.Contour, error) {
	type answer struct {
		c   *engine.Contour
		err error
	}
	done := make(chan answer, 1)
	go func() {
		gentle()
		c, err := engine.ContourOf(ctx, doc, lib, passage, Pages(folder, lib))
		done <- answer{c, err}
	}()
	a := <-done
	return a.c, a.err
}
