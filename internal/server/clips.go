package server

import (
	"context"
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/audiofile"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// ClipList names clips.
type ClipList struct {
	Clips []string `json:"clips" required:"true"`
}

// maxMeasured is how many clips are measured at once.
const maxMeasured = 500

// clipLevels measures clips side by side.
func (s *Server) clipLevels(c *gin.Context) {
	var list ClipList
	doc, ok := s.asked(c, &list)
	if !ok {
		return
	}
	levels, err := printing.MeasureClips(c.Request.Context(), doc, s.folder, list.Clips[:min(maxMeasured, len(list.Clips))])
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, levels)
}

// untreated finds the gains with which clips are as loud without their treatment as with it.
func (s *Server) untreated(c *gin.Context) {
	var list ClipList
	doc, ok := s.asked(c, &list)
	if !ok {
		return
	}
	gains, err := printing.AsLoudWithout(c.Request.Context(), doc, s.folder, list.Clips[:min(maxMeasured, len(list.Clips))])
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, gains)
}

// clipMarks finds places at which a clip could be cut.
func (s *Server) clipMarks(c *gin.Context) {
	var spec printing.MarkSpec
	doc, ok := s.asked(c, &spec)
	if !ok {
		return
	}
	marks, err := printing.FindMarks(c.Request.Context(), doc, s.folder, spec)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, marks)
}

// outline gives what is needed to draw what a clip's treatment gives: nothing, where nothing of it runs live. One is made
// at a time.
func (s *Server) outline(c *gin.Context) {
	doc, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	select {
	case s.drawing <- struct{}{}:
		defer func() { <-s.drawing }()
	case <-c.Request.Context().Done():
		return
	}
	b, err := printing.Outline(c.Request.Context(), doc, s.folder, c.Param("clip"))
	switch {
	case err != nil:
		fail(c, refuse(err))
	case b == nil:
		c.Status(http.StatusNoContent)
	default:
		c.Data(http.StatusOK, "application/octet-stream", b)
	}
}

// normalise brings clips to a level, as one change.
func (s *Server) normalise(c *gin.Context) {
	author, id, doc, ok := s.writer(c)
	if !ok {
		return
	}
	var spec printing.NormaliseSpec
	if err := body(c, &spec); err != nil {
		fail(c, err)
		return
	}
	list, err := printing.Normalise(c.Request.Context(), doc, s.folder, spec)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	label := "Normalise clips"
	if err := s.desk.Change(c.Request.Context(), id, author, label, func(*project.Project) []project.Change { return list }); err != nil {
		fail(c, err)
		return
	}
	s.revised(c, id, label)
}

// printsOfClips makes prints of clips, which become one change.
type printsOfClips func(
	ctx context.Context, doc *project.Project, by printing.Printer, clips printing.PlaceSpec, keep func(audiofile.Entry, string) error,
	progress func(float64),
) ([]project.Change, error)

// makePermanent prints clips with their treatments, and lets them play that.
func (s *Server) makePermanent(c *gin.Context) {
	s.printClips(c, "Make treatments permanent", func(
		ctx context.Context, doc *project.Project, by printing.Printer, x printing.PlaceSpec, keep func(audiofile.Entry, string) error,
		progress func(float64),
	) ([]project.Change, error) {
		return printing.MakePermanent(ctx, doc, s.folder, by, x.Clips, keep, progress)
	})
}

// printInPlace prints clips through their row's chain, and puts that in their place.
func (s *Server) printInPlace(c *gin.Context) {
	s.printClips(c, "Print clips where they stand", func(
		ctx context.Context, doc *project.Project, by printing.Printer, x printing.PlaceSpec, keep func(audiofile.Entry, string) error,
		progress func(float64),
	) ([]project.Change, error) {
		return printing.InPlace(ctx, doc, s.folder, by, x, keep, progress)
	})
}

func (s *Server) printClips(c *gin.Context, label string, prints printsOfClips) {
	author, id, doc, by, ok := s.printer(c)
	if !ok {
		return
	}
	var spec printing.PlaceSpec
	if err := body(c, &spec); err != nil {
		fail(c, err)
		return
	}
	keep := func(e audiofile.Entry, name string) error { return s.keepSound(c.Request.Context(), e, name, "print") }
	list, err := prints(c.Request.Context(), doc, by, spec, keep, s.progress(c))
	if err != nil {
		fail(c, refuse(err))
		return
	}
	s.make(c, id, author, label, list)
}
