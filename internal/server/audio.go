package server

import (
	"encoding/binary"
	"fmt"
	"math"
	"net/http"
	"path/filepath"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"shoal/internal/audiofile"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

func (s *Server) importAudio(c *gin.Context) {
	author, id, doc, ok := s.writer(c)
	if !ok {
		return
	}
	f, _, err := s.upload(c)
	if err != nil {
		fail(c, err)
		return
	}
	defer f.Close()
	file := filepath.Base(c.Query("name"))
	name := strings.TrimSuffix(file, filepath.Ext(file))
	if name == "" || name == "." || name == "/" {
		name = "Import"
	}
	name = project.ShortName(name)
	last := time.Time{}
	sound, _, err := s.folder.Import(c.Request.Context(), f, doc.SampleRate, func(p float64) {
		if time.Since(last) > 100*time.Millisecond {
			last = time.Now()
			s.hub.send(id, Message{Import: &ImportMessage{file, p}})
		}
	})
	if err != nil {
		fail(c, refuse(fmt.Errorf("%s: %w", file, err)))
		return
	}
	if err := s.keepSound(c, sound, file, "import"); err != nil {
		fail(c, err)
		return
	}
	place := &project.PlaceSound{ID: project.NewID(), Name: name, Index: math.MaxInt32,
		Audio: project.Audio{Hash: sound.Hash, Name: file, Frames: sound.Frames, Channels: sound.Channels}}
	if at, err := strconv.ParseInt(c.Query("start"), 10, 64); err == nil {
		place.Start = at
	}
	if at, err := strconv.Atoi(c.Query("index")); err == nil {
		place.Index = at
	}
	err = s.desk.Change(
		c.Request.Context(),
		id,
		author,
		"Import "+file,
		func(*project.Project) []project.Change { return []project.Change{place} },
	)
	if err != nil {
		fail(c, err)
		return
	}
	s.revised(c, id, "Import "+file)
}

// keepSound writes down what has come into the folder: under which name, and by which way.
func (s *Server) keepSound(c *gin.Context, e audiofile.Entry, name, origin string) error {
	return s.store.PutAudio(c.Request.Context(), e.Hash, name, e.Frames, e.Channels, e.Rate, e.Bits, origin)
}

func hashOf(c *gin.Context) (string, error) {
	h := c.Param("hash")
	if !project.IsHash(h) {
		return "", &refusal{http.StatusNotFound, fmt.Errorf("%q is no audio hash", h)}
	}
	return h, nil
}

func (s *Server) page(c *gin.Context) {
	hash, err := hashOf(c)
	if err != nil {
		fail(c, err)
		return
	}
	n, err := strconv.Atoi(c.Param("page"))
	if err != nil {
		fail(c, refuse(fmt.Errorf("%q is no page number", c.Param("page"))))
		return
	}
	p, err := s.folder.Page(hash, n, pages.Frames)
	if err != nil {
		fail(c, &refusal{http.StatusNotFound, err})
		return
	}
	b := make([]byte, 0, 4*len(p)*len(p[0]))
	for _, ch := range p {
		for _, v := range ch {
			b = binary.LittleEndian.AppendUint32(b, math.Float32bits(v))
		}
	}
	c.Header("Cache-Control", "public, max-age=31536000, immutable")
	c.Header("X-Channels", strconv.Itoa(len(p)))
	c.Data(http.StatusOK, "application/octet-stream", b)
}

func (s *Server) overview(c *gin.Context) {
	hash, err := hashOf(c)
	if err != nil {
		fail(c, err)
		return
	}
	b, err := s.folder.Overview(hash)
	if err != nil {
		fail(c, &refusal{http.StatusNotFound, err})
		return
	}
	c.Header("Cache-Control", "public, max-age=31536000, immutable")
	c.Data(http.StatusOK, "application/octet-stream", b)
}
