package server

import (
	"encoding/binary"
	"fmt"
	"io"
	"log/slog"
	"math"
	"net/http"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"shoal/internal/bundle"
	"shoal/internal/engine/pages"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// upload streams the body to a temporary file, which the caller closes; the
// file is unlinked at once, so nothing is left behind.
func (s *Server) upload(c *gin.Context) (*os.File, int64, error) {
	f, err := os.CreateTemp(s.tmp, "upload-*")
	if err != nil {
		return nil, 0, fmt.Errorf("begin upload: %w", err)
	}
	_ = os.Remove(f.Name())
	n, err := io.Copy(f, http.MaxBytesReader(c.Writer, c.Request.Body, MaxUpload))
	if err == nil && c.Request.ContentLength > 0 && n != c.Request.ContentLength {
		err = fmt.Errorf("the upload was cut short: %d of %d bytes; try again", n, c.Request.ContentLength)
	}
	if err == nil {
		_, err = f.Seek(0, io.SeekStart)
	}
	if err != nil {
		_ = f.Close()
		return nil, 0, refuse(fmt.Errorf("take the file in (at most %d GiB): %w", MaxUpload>>30, err))
	}
	return f, n, nil
}

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
	if err := s.store.PutAudio(
		c.Request.Context(),
		sound.Hash,
		file,
		sound.Frames,
		sound.Channels,
		sound.Rate,
		sound.Bits,
		"import",
	); err != nil {
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

// revised answers with a project's newest revision.
func (s *Server) revised(c *gin.Context, id, label string) {
	_, rev, err := s.desk.Document(c.Request.Context(), id)
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, Revised{Revision: rev, Label: label})
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
	c.Header("Content-Type", "application/zip")
	c.Header("Content-Disposition", disposition(p.Name+".shoal.zip"))
	if err := bundle.Write(c.Request.Context(), c.Writer, p, s.folder); err != nil {
		slog.Error("a bundle broke off", "project", p.ID, "error", err)
		panic(http.ErrAbortHandler) // the answer is under way: the connection breaks off, and the download fails
	}
}

// disposition names a download safely.
func disposition(name string) string {
	safe := strings.Map(func(r rune) rune {
		if r < 32 || r > 126 || strings.ContainsRune(`"\/:*?<>|`, r) {
			return '_'
		}
		return r
	}, name)
	return `attachment; filename="` + safe + `"`
}

func (s *Server) listPrints(c *gin.Context) {
	list, err := s.prints.List(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, list)
}

func (s *Server) addPrint(c *gin.Context) {
	author, err := s.author(c)
	if err != nil {
		fail(c, err)
		return
	}
	var spec printing.Spec
	if err := body(c, &spec); err != nil {
		fail(c, err)
		return
	}
	st, err := s.prints.Add(c.Request.Context(), c.Param("id"), author, spec)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, st)
}

func (s *Server) cancelPrint(c *gin.Context) {
	if err := s.prints.Cancel(c.Request.Context(), c.Param("print")); err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, Health{true})
}

func (s *Server) printFile(c *gin.Context) {
	path, name, err := s.prints.File(c.Request.Context(), c.Param("print"))
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Content-Disposition", disposition(name))
	c.File(path)
}
