package printing

import (
	"context"

	"shoal/internal/audiofile"
	"shoal/internal/engine/figures"
	"shoal/internal/engine/pages"
	"shoal/internal/gentle"
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
) (*figures.Contour, error) {
	return gentle.Do(func() (*figures.Contour, error) {
		return figures.OfPassage(ctx, doc, lib, passage, Pages(folder, lib), progress)
	})
}
