package server

import (
	"context"
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
	"shoal/internal/printing"
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
	file := project.ShortName(filepath.Base(c.Query("name")))
	name := strings.TrimSuffix(file, filepath.Ext(file))
	if name == "" || name == "." || name == "/" {
		name = "Import"
	}
	name = project.ShortName(name)
	last := time.Time{}
	sound, form, err := s.folder.Import(c.Request.Context(), f, doc.SampleRate, func(p float64) {
		if time.Since(last) > 100*time.Millisecond {
			last = time.Now()
			s.hub.send(id, Message{Import: &ImportMessage{file, p}})
		}
	})
	if err != nil {
		fail(c, refuse(fmt.Errorf("%s: %w", file, err)))
		return
	}
	if err := s.keepSound(c.Request.Context(), sound, file, "import"); err != nil {
		fail(c, err)
		return
	}
	audio := project.Audio{Hash: sound.Hash, Name: file, Frames: sound.Frames, Channels: sound.Channels}
	if to, ok := printing.BelongsTo(doc, form.Belongs); ok {
		s.land(c, sound, audio, to, inFrames(form, doc.SampleRate))
		return
	}
	place := &project.PlaceSound{ID: project.NewID(), Name: name, Index: math.MaxInt32, Audio: audio}
	if at, err := strconv.ParseInt(c.Query("start"), 10, 64); err == nil {
		place.Start = at
	}
	if at, err := strconv.Atoi(c.Query("index")); err == nil {
		place.Index = at
	}
	if !s.changed(c, id, author, "Import "+file, place) {
		return
	}
	s.imported(c, id, Imported{Row: place.ID, Time: inFrames(form, doc.SampleRate), Lacks: lacks(form)}, "Import "+file)
}

// Imported is what became of a file: the row on which it lies now.
type Imported struct {
	Revised
	Row string `json:"row" required:"true"`
	// Time is the song frame that its time reference says, where it has one.
	Time int64 `json:"time,omitempty"`
	// Landed is the clip that it has become where it belongs, and Longer by how many frames it is longer than what went out.
	Landed string `json:"landed,omitempty"`
	// Lacks is how many seconds are missing of what the file says that it holds.
	Lacks  float64 `json:"lacks,omitempty"`
	Longer int64   `json:"longer,omitempty"`
}

// lacks is how many seconds a file is cut short by. Some encoders do not count a frame or two of their own.
func lacks(form audiofile.Format) float64 {
	if short := form.Promised - form.Frames; short > 3000 {
		return float64(short) / float64(form.Rate)
	}
	return 0
}

// inFrames is the time reference of a file in frames of a project.
func inFrames(form audiofile.Format, rate int) int64 {
	if form.Rate == 0 {
		return 0
	}
	return int64(math.Round(float64(form.Time) * float64(rate) / float64(form.Rate)))
}

// land puts a file that comes back where it belongs, over what lies there.
func (s *Server) land(c *gin.Context, sound audiofile.Entry, audio project.Audio, to printing.Belonging, start int64) {
	author, id, doc, by, ok := s.printer(c)
	if !ok {
		return
	}
	if err := printing.Landed(doc, by, to.Row, start, sound, s.folder); err != nil {
		fail(c, err)
		return
	}
	row, ok := doc.Channel(to.Row)
	if !ok {
		fail(c, refuse(project.Gone("the row")))
		return
	}
	name := strings.TrimSuffix(audio.Name, filepath.Ext(audio.Name))
	label := "Back from outside: " + name
	land := &project.LandSound{
		Row: to.Row, ID: project.NewID(), Name: row.Name + ", worked on outside", Audio: audio, Start: start, Behind: to.Behind,
	}
	if !s.changed(c, id, author, label, land) {
		return
	}
	s.imported(c, id, Imported{Row: to.Row, Time: start, Landed: land.ID, Longer: sound.Frames - to.Frames}, label)
}

// changed applies changes; false: they were refused, and the answer says so.
func (s *Server) changed(c *gin.Context, id, author, label string, list ...project.Change) bool {
	if err := s.desk.Change(c.Request.Context(), id, author, label, func(*project.Project) []project.Change { return list }); err != nil {
		fail(c, err)
		return false
	}
	return true
}

func (s *Server) imported(c *gin.Context, id string, x Imported, label string) {
	_, rev, err := s.desk.Document(c.Request.Context(), id)
	if err != nil {
		fail(c, err)
		return
	}
	x.Revised = Revised{Revision: rev, Label: label}
	c.JSON(http.StatusOK, x)
}

// keepSound writes down what has come into the folder: under which name, and by which way.
func (s *Server) keepSound(ctx context.Context, e audiofile.Entry, name, origin string) error {
	return s.store.PutAudio(ctx, e.Hash, name, e.Frames, e.Channels, e.Rate, e.Bits, origin)
}

// sound is the hash that a path names, of a sound that may be heard through its project; false: it has been answered.
func (s *Server) sound(c *gin.Context) (hash string, ok bool) {
	hash = c.Param("hash")
	if !project.IsHash(hash) {
		fail(c, &refusal{http.StatusNotFound, fmt.Errorf("%q is no audio hash", project.ShortName(hash))})
		return "", false
	}
	return hash, s.heard(c, hash)
}

func (s *Server) page(c *gin.Context) {
	hash, ok := s.sound(c)
	if !ok {
		return
	}
	n, err := strconv.Atoi(c.Param("page"))
	if err != nil {
		fail(c, &refusal{http.StatusNotFound, fmt.Errorf("%q is no page number", c.Param("page"))})
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
	c.Header("Cache-Control", "private, max-age=31536000, immutable")
	c.Header("X-Channels", strconv.Itoa(len(p)))
	c.Data(http.StatusOK, "application/octet-stream", b)
}

func (s *Server) overview(c *gin.Context) {
	hash, ok := s.sound(c)
	if !ok {
		return
	}
	b, err := s.folder.Overview(hash)
	if err != nil {
		fail(c, &refusal{http.StatusNotFound, err})
		return
	}
	c.Header("Cache-Control", "private, max-age=31536000, immutable")
	c.Data(http.StatusOK, "application/octet-stream", b)
}
