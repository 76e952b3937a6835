package server

import (
	"archive/zip"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"time"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/printing"
)

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
	if spec.Target == "track" {
		if err := s.may(c, c.Param("id"), crew.Change); err != nil {
			fail(c, err)
			return
		}
	}
	s.notes(c, c.Param("id"), "exported", spec.Target)
	st, err := s.prints.Add(c.Request.Context(), c.Param("id"), author, spec)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, st)
}

func (s *Server) cancelPrint(c *gin.Context) {
	if p, err := s.store.Print(c.Request.Context(), c.Param("print")); err == nil && p.Author != s.person(c).ID {
		if err := s.may(c, p.Project, crew.Change); err != nil {
			fail(c, err)
			return
		}
	}
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
	if info, err := os.Stat(path); err == nil && info.IsDir() {
		s.zipFolder(c, path)
		return
	}
	c.File(path)
}

// zipFolder sends the files of a folder as one, while it is read.
func (s *Server) zipFolder(c *gin.Context, dir string) {
	c.Header("Content-Type", "application/zip")
	z := zip.NewWriter(c.Writer)
	list, err := os.ReadDir(dir)
	for _, e := range list {
		if err != nil {
			break
		}
		err = addToZip(z, dir, e.Name())
	}
	if err := errors.Join(err, z.Close()); err != nil { // too late for words: the file that arrives is not whole
		_ = c.Error(err)
		c.Abort()
	}
}

func addToZip(z *zip.Writer, dir, name string) error {
	f, err := os.Open(filepath.Join(dir, name))
	if err != nil {
		return err
	}
	defer f.Close()
	w, err := z.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Store, Modified: time.Now()})
	if err != nil {
		return err
	}
	_, err = io.Copy(w, f)
	return err
}

// stemFile sends one of the files of stems.
func (s *Server) stemFile(c *gin.Context) {
	dir, _, err := s.prints.File(c.Request.Context(), c.Param("print"))
	if err != nil {
		fail(c, err)
		return
	}
	name := filepath.Base(c.Param("name"))
	path := filepath.Join(dir, name)
	if _, err := os.Stat(path); err != nil {
		fail(c, &refusal{http.StatusNotFound, fmt.Errorf("there is no file %q among these", name)})
		return
	}
	c.Header("Content-Disposition", disposition(name))
	c.File(path)
}

// planStems says what stems would come to.
func (s *Server) planStems(c *gin.Context) {
	var spec printing.Spec
	doc, ok := s.asked(c, &spec)
	if !ok {
		return
	}
	if spec.Target != "stems" {
		fail(c, refuse(fmt.Errorf("only stems are planned: the target is %q", spec.Target)))
		return
	}
	c.JSON(http.StatusOK, s.prints.PlanStems(doc, spec))
}
