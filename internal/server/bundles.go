package server

import (
	"log/slog"
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/bundle"
	"shoal/internal/project"
)

func (s *Server) importBundle(c *gin.Context) {
	f, size, err := s.upload(c)
	if err != nil {
		fail(c, err)
		return
	}
	defer f.Close()
	p, err := bundle.Read(c.Request.Context(), f, size, s.folder)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	for _, a := range p.Audio {
		if err := s.store.PutAudio(c.Request.Context(), a.Hash, a.Name, a.Frames, a.Channels, p.SampleRate, 0, "bundle"); err != nil {
			fail(c, err)
			return
		}
	}
	p.ID = project.NewID()
	s.add(c, p)
}

func (s *Server) exportBundle(c *gin.Context) {
	p, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	if err := bundle.Check(p, s.folder); err != nil {
		fail(c, refuse(err))
		return
	}
	s.notes(c, p.ID, "exported", "bundle")
	c.Header("Content-Type", "application/zip")
	c.Header("Content-Disposition", disposition(p.Name+".shoal.zip"))
	if err := bundle.Write(c.Request.Context(), c.Writer, p, s.folder); err != nil {
		slog.Error("a bundle broke off", "project", p.ID, "error", err)
		panic(http.ErrAbortHandler) // the answer is under way: the connection breaks off, and the download fails
	}
}
