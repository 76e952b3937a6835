package server

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"shoal/internal/engine"
	"shoal/internal/printing"
	"shoal/internal/project"
	"shoal/internal/store"
	"shoal/internal/working"
)

type inVersion struct {
	inProject
	Version string `path:"version"`
}

type inChange struct {
	inProject
	Revision int64 `path:"revision"`
}

// NewVersion names a revision.
type NewVersion struct {
	Name     string `json:"name" required:"true"`
	Revision int64  `json:"revision" required:"true"` // 0: the newest
}

// Span is a stretch of the song, in frames.
type Span struct {
	From int64 `json:"from" required:"true"`
	To   int64 `json:"to" required:"true"`
}

// Matched is a version to be heard beside the project as it is now, as loud as that.
type Matched struct {
	Gain     float64         `json:"gain" required:"true"` // by how much it was turned up, in dB
	Document project.Project `json:"document" required:"true"`
	Worked   []string        `json:"worked" required:"true"` // what its clips and rows need worked out, as far as it is there
}

// MatchSpan is over what a version is matched: a range of song frames, or where there is none what lies around a place.
type MatchSpan struct {
	From int64 `json:"from" required:"true"`
	To   int64 `json:"to" required:"true"` // 0: no range
	At   int64 `json:"at" required:"true"` // where the song is
}

// How much of the song is measured where no range is drawn, in seconds before and behind the place.
const (
	matchedBefore = 4
	matchedBehind = 12
)

func (m MatchSpan) frames(rate int) (from, to int64) {
	if m.To > 0 {
		return m.From, m.To
	}
	from = max(0, m.At-matchedBefore*int64(rate))
	return from, from + (matchedBefore+matchedBehind)*int64(rate)
}

// BackRows says what is to be as it was.
type BackRows struct {
	Rows []string `json:"rows" required:"true"` // ids; none: all of it
}

// ofVersions are the operations of versions, and of going back.
func ofVersions() []route {
	return []route{
		{"GET", "/api/projects/:id/versions", "The versions of a project: revisions with a name.", (*Server).versions, inProject{},
			[]store.Version{}},
		{"POST", "/api/projects/:id/versions", "Give a revision a name.", (*Server).newVersion, struct {
			inProject
			NewVersion
		}{}, store.Version{}},
		{"PUT", "/api/projects/:id/versions/:version", "Name a version anew.", (*Server).renameVersion, struct {
			inVersion
			NewName
		}{}, Health{}},
		{"DELETE", "/api/projects/:id/versions/:version", "Forget the name of a revision.", (*Server).dropVersion, inVersion{}, Health{}},
		{"GET", "/api/projects/:id/versions/:version/differences", "What has changed since a version, row by row.",
			(*Server).versionDiffers, inVersion{}, []project.RowDifference{}},
		{"POST", "/api/projects/:id/versions/:version/match", "A version, turned up or down to be as loud as the project is now.",
			(*Server).matchVersion, struct {
				inVersion
				MatchSpan
			}{}, Matched{}},
		{"POST", "/api/projects/:id/versions/:version/back", "Let the project, or rows of it, be as they were.", (*Server).backToVersion, struct {
			inVersion
			BackRows
		}{}, Revised{}},
		{"POST", "/api/projects/:id/versions/:version/copies", "Begin a new project from a version.", (*Server).copyVersion, struct {
			inVersion
			NewName
		}{}, store.Summary{}},
		{"GET", "/api/projects/:id/changes/:revision", "What a change has changed, from what to what.", (*Server).changeDiffers, inChange{},
			[]project.RowDifference{}},
		{"POST", "/api/projects/:id/changes/:revision/back", "Let the project be as it was before a change.", (*Server).backBefore,
			inChange{}, Revised{}},
	}
}

func (s *Server) versions(c *gin.Context) {
	list, err := s.store.Versions(c.Request.Context(), c.Param("id"))
	answer(c, list, err)
}

func (s *Server) newVersion(c *gin.Context) {
	var n NewVersion
	if err := body(c, &n); err != nil {
		fail(c, err)
		return
	}
	name, err := project.CleanName("a version", n.Name)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	ctx, id := c.Request.Context(), c.Param("id")
	doc, revision, err := s.desk.Document(ctx, id)
	if err == nil && n.Revision != 0 && n.Revision != revision {
		revision = n.Revision
		doc, err = s.desk.documentAt(ctx, id, revision)
	}
	var b []byte
	if err == nil {
		b, err = json.Marshal(doc)
	}
	v := store.Version{ID: project.NewID(), Revision: revision, Name: name, By: s.person(c), Created: store.Now()}
	if err == nil {
		err = s.store.AddVersion(ctx, id, v, b)
	}
	answer(c, v, err)
}

func (s *Server) renameVersion(c *gin.Context) {
	name, ok := newName(c, "a version")
	if !ok {
		return
	}
	answer(c, Health{true}, s.store.RenameVersion(c.Request.Context(), c.Param("id"), c.Param("version"), name))
}

func (s *Server) dropVersion(c *gin.Context) {
	answer(c, Health{true}, s.store.RenameVersion(c.Request.Context(), c.Param("id"), c.Param("version"), ""))
}

// versionOf reads the version that a path names; false: it has been answered.
func (s *Server) versionOf(c *gin.Context) (store.Version, *project.Project, bool) {
	v, b, err := s.store.Version(c.Request.Context(), c.Param("id"), c.Param("version"))
	var doc *project.Project
	if err == nil {
		doc, err = project.Read(b, engine.EffectInfo)
	}
	if err != nil {
		fail(c, err)
		return v, nil, false
	}
	return v, doc, true
}

func (s *Server) versionDiffers(c *gin.Context) {
	_, then, ok := s.versionOf(c)
	if !ok {
		return
	}
	now, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	list, err := project.DocumentsDiffer(then, now, engine.EffectInfo)
	answer(c, list, err)
}

func (s *Server) matchVersion(c *gin.Context) {
	var span MatchSpan
	now, ok := s.asked(c, &span)
	if !ok {
		return
	}
	_, then, ok := s.versionOf(c)
	if !ok {
		return
	}
	from, to := span.frames(now.SampleRate)
	gain, err := printing.MatchOf(c.Request.Context(), then, now, s.folder, from, to, s.progress(c))
	if err != nil {
		err = refuse(err)
	}
	if err != nil {
		fail(c, err)
		return
	}
	then.ID = now.ID
	s.works.Know(now.ID, then)
	c.JSON(http.StatusOK, Matched{gain, *printing.Louder(then, gain), working.There(then, s.folder)})
}

func (s *Server) backToVersion(c *gin.Context) {
	var b BackRows
	author, id, doc, ok := s.writer(c)
	if !ok {
		return
	}
	if err := body(c, &b); err != nil {
		fail(c, err)
		return
	}
	v, then, ok := s.versionOf(c)
	if !ok {
		return
	}
	label := "Back to " + v.Name
	if len(b.Rows) > 0 {
		label += ": " + rowNames(doc, then, b.Rows)
	}
	if s.changed(c, id, author, label, &project.PutBack{Document: then, Rows: b.Rows}) {
		s.revised(c, id, label)
	}
}

func rowNames(doc, then *project.Project, rows []string) string {
	text := ""
	for i, id := range rows {
		row, ok := doc.Channel(id)
		if !ok {
			row, ok = then.Channel(id)
		}
		if !ok {
			continue
		}
		if i > 0 {
			text += ", "
		}
		text += row.Name
	}
	return text
}

func (s *Server) copyVersion(c *gin.Context) {
	name, ok := newName(c, "a project")
	if !ok {
		return
	}
	if _, then, ok := s.versionOf(c); ok {
		then.ID, then.Name = project.NewID(), name
		s.add(c, then)
	}
}

// revisionOf is the revision that a path names; false: it has been answered.
func revisionOf(c *gin.Context) (int64, bool) {
	n, err := strconv.ParseInt(c.Param("revision"), 10, 64)
	if err != nil || n < 2 {
		fail(c, &refusal{http.StatusNotFound, fmt.Errorf("%q is no revision that somebody made", project.ShortName(c.Param("revision")))})
		return 0, false
	}
	return n, true
}

func (s *Server) changeDiffers(c *gin.Context) {
	n, ok := revisionOf(c)
	if !ok {
		return
	}
	then, now, err := s.desk.around(c.Request.Context(), c.Param("id"), n)
	if err != nil {
		fail(c, err)
		return
	}
	list, err := project.DocumentsDiffer(then, now, engine.EffectInfo)
	answer(c, list, err)
}

func (s *Server) backBefore(c *gin.Context) {
	author, id, _, ok := s.writer(c)
	if !ok {
		return
	}
	n, ok := revisionOf(c)
	if !ok {
		return
	}
	then, err := s.desk.documentAt(c.Request.Context(), id, n-1)
	if err != nil {
		fail(c, err)
		return
	}
	label := fmt.Sprintf("Back to before change %d", n)
	if s.changed(c, id, author, label, &project.PutBack{Document: then}) {
		s.revised(c, id, label)
	}
}
