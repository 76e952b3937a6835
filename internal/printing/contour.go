package printing

import (
	"context"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Contour renders the rows of a passage.
func Contour(
	ctx context.Context,
	doc *project.Project,
	folder *audiofile.Folder,
	lib *pages.Library,
	passage string,
	progress func(float64),
) (*engine.Contour, error) {
	return gently(func() (*engine.Contour, error) {
		return engine.ContourOf(ctx, doc, lib, passage, Pages(folder, lib), progress)
	})
}
