package server

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/store"
)

// needs is what every operation needs of whoever asks for it, where there are accounts. What is not in it is not served.
var needs = map[string]crew.Need{
	"GET /api/health": crew.Anyone, "GET /api/openapi.json": crew.Anyone, "GET /api/me": crew.Anyone,
	"POST /api/session": crew.Anyone, "POST /api/links/look": crew.Anyone, "POST /api/links/take": crew.Anyone,
	"DELETE /api/session": crew.SignedIn, "GET /api/sessions": crew.SignedIn, "DELETE /api/sessions/:session": crew.SignedIn,
	"PUT /api/me": crew.SignedIn, "PUT /api/password": crew.SignedIn,
	"GET /api/accounts": crew.Keeper, "POST /api/accounts/links": crew.Keeper, "POST /api/accounts/:person/reset": crew.Keeper,
	"DELETE /api/accounts/:person": crew.Keeper, "POST /api/accounts/:person/restore": crew.Keeper, "GET /api/acts": crew.Keeper,

	"GET /api/effects": crew.SignedIn, "GET /api/params": crew.SignedIn, "GET /api/templates": crew.SignedIn,
	"GET /api/passages": crew.SignedIn, "GET /api/inputs": crew.SignedIn, "GET /api/projects": crew.SignedIn,
	"POST /api/projects": crew.SignedIn, "POST /api/bundles": crew.SignedIn, "POST /api/demo": crew.SignedIn,
	"GET /api/demo": crew.SignedIn,

	"GET /api/presets": crew.SignedIn, "POST /api/presets": crew.SignedIn, "PUT /api/presets/:preset": crew.SignedIn,
	"DELETE /api/presets/:preset": crew.SignedIn, "POST /api/presets/:preset/restore": crew.SignedIn,
	"GET /api/preset-files": crew.SignedIn, "POST /api/preset-files": crew.SignedIn,
	"GET /api/shelf": crew.SignedIn, "POST /api/shelf": crew.SignedIn, "PUT /api/shelf/:thing": crew.SignedIn,
	"DELETE /api/shelf/:thing": crew.SignedIn, "POST /api/shelf/:thing/restore": crew.SignedIn,

	"GET /api/projects/:id": crew.Hear, "GET /api/projects/:id/live": crew.Hear, "GET /api/projects/:id/changes": crew.Hear,
	"GET /api/projects/:id/logbook": crew.Hear, "GET /api/projects/:id/prints": crew.Hear, "POST /api/projects/:id/stems": crew.Hear,
	"GET /api/projects/:id/works": crew.Hear, "POST /api/projects/:id/works/:key": crew.Hear,
	"GET /api/projects/:id/audio/:hash/pcm/:page": crew.Hear, "GET /api/projects/:id/audio/:hash/overview": crew.Hear,
	"POST /api/projects/:id/trials": crew.Hear, "GET /api/projects/:id/forks/:fork": crew.Hear,
	"POST /api/projects/:id/clips/levels": crew.Hear, "POST /api/projects/:id/clips/untreated": crew.Hear,
	"GET /api/projects/:id/clips/:clip/outline": crew.Hear, "POST /api/projects/:id/clips/marks": crew.Hear,
	"GET /api/projects/:id/steps/:hash": crew.Hear, "POST /api/projects/:id/steps/:hash/now": crew.Hear,
	"GET /api/projects/:id/passages/:passage": crew.Hear, "GET /api/projects/:id/shelf/:thing": crew.Hear,
	"GET /api/projects/:id/presets": crew.Hear, "GET /api/projects/:id/crew": crew.Hear,

	"GET /api/projects/:id/undo": crew.Hear, "GET /api/projects/:id/versions": crew.Hear,
	"GET /api/projects/:id/versions/:version/differences": crew.Hear, "POST /api/projects/:id/versions/:version/match": crew.Hear,
	"GET /api/projects/:id/changes/:revision": crew.Hear,

	"POST /api/projects/:id/versions/:version/copies": crew.Export,
	"POST /api/projects/:id/copies":                   crew.Export, "GET /api/projects/:id/bundle": crew.Export,
	"GET /api/projects/:id/midi":        crew.Export,
	"GET /api/projects/:id/logbook.csv": crew.Export, "POST /api/projects/:id/prints": crew.Export,
	"DELETE /api/prints/:print": crew.Export, "GET /api/prints/:print/file": crew.Export, "GET /api/prints/:print/files/:name": crew.Export,

	"POST /api/projects/:id/versions": crew.Change, "PUT /api/projects/:id/versions/:version": crew.Change,
	"DELETE /api/projects/:id/versions/:version": crew.Change, "POST /api/projects/:id/versions/:version/back": crew.Change,
	"POST /api/projects/:id/changes/:revision/back": crew.Change,
	"POST /api/projects/:id/midi":                   crew.Change,
	"POST /api/projects/:id/changes":                crew.Hear, // to remark; all else is looked at there
	"POST /api/projects/:id/undo":                   crew.Change,
	"POST /api/projects/:id/redo":                   crew.Change, "POST /api/projects/:id/audio": crew.Change, "POST /api/projects/:id/sounds": crew.Change,
	"DELETE /api/projects/:id/works/:key": crew.Change, "POST /api/projects/:id/forks/:fork/level": crew.Change,
	"POST /api/projects/:id/clips/normalise": crew.Change, "POST /api/projects/:id/clips/print": crew.Change,
	"POST /api/projects/:id/clips/permanent": crew.Change, "POST /api/projects/:id/steps/:hash/again": crew.Change,
	"POST /api/projects/:id/steps/:hash/chain": crew.Change, "POST /api/projects/:id/passages": crew.Change,
	"POST /api/projects/:id/recordings": crew.Change, "PUT /api/recordings/:recording/rows/:row": crew.Change,
	"POST /api/recordings/:recording/end": crew.Change,

	"DELETE /api/projects/:id": crew.Own, "POST /api/projects/:id/restore": crew.Own, "PUT /api/projects/:id/crew": crew.Own,
	"PUT /api/projects/:id/crew/:person": crew.Own, "DELETE /api/projects/:id/crew/:person": crew.Hear, // anybody may leave
	"POST /api/projects/:id/links": crew.Own, "DELETE /api/projects/:id/links/:link": crew.Own,
}

// permit lets nobody through who may not do what an operation does; false: it has been answered.
func (s *Server) permit(c *gin.Context, op string) bool {
	need, known := needs[op]
	if !known {
		fail(c, fmt.Errorf("nobody said what %s needs", op))
		return false
	}
	if s.house == nil || need == crew.Anyone {
		return true
	}
	a := s.account(c)
	switch {
	case a.ID == "":
		fail(c, &refusal{http.StatusUnauthorized, errors.New("sign in first")})
		return false
	case need == crew.Keeper && !a.Keeper:
		s.refuses(c, "", &refusal{http.StatusForbidden, errors.New("only who keeps this Shoal does this")})
		return false
	case c.Request.Method != http.MethodGet && !s.house.changes.allow(a.ID, changeEvery, changesAtOnce):
		c.Header("Retry-After", "1")
		fail(c, &refusal{http.StatusTooManyRequests, errors.New("this is more at once than one person does: wait a second and go on")})
		return false
	case !need.OfProject():
		return true
	}
	id, err := s.projectOf(c)
	if err == nil {
		err = s.may(c, id, need)
	}
	if err != nil {
		fail(c, err)
		return false
	}
	return true
}

// How much one person changes, of whatever kind: so much at once, and then one after every while.
const (
	changeEvery   = 10 * time.Millisecond
	changesAtOnce = 400
)

// projectOf is the project that a request is about.
func (s *Server) projectOf(c *gin.Context) (string, error) {
	if id := c.Param("print"); id != "" {
		p, err := s.store.Print(c.Request.Context(), id)
		if errors.Is(err, store.ErrNone) {
			err = crew.ErrOutside
		}
		return p.Project, outside(err)
	}
	if id := c.Param("recording"); id != "" {
		in, by, err := s.recordings.Of(id)
		if err == nil && by != s.person(c).ID {
			err = crew.ErrOutside
		}
		if errors.Is(err, crew.ErrOutside) {
			return "", outside(err)
		}
		if err != nil {
			return "", whyNotRecorded(err)
		}
		return in, nil
	}
	return c.Param("id"), nil
}

// may says why whoever asks may not do in a project what needs something; nil: they may. Who is refused is written down.
func (s *Server) may(c *gin.Context, id string, need crew.Need) error {
	if s.house == nil {
		return nil
	}
	ctx := c.Request.Context()
	role, exports, err := s.store.Standing(ctx, id, s.account(c).ID)
	if err != nil && !errors.Is(err, store.ErrNone) {
		return err
	}
	err = crew.Standing{Role: crew.Role(role), Exports: exports}.Allows(need, func() []string { return s.owners(ctx, id) })
	if err != nil {
		err = outside(err)
		s.notes(c, id, "refused", c.Request.Method+" "+c.FullPath())
	}
	return err
}

// outside gives a refusal its status: who is not in a project does not learn that there is one.
func outside(err error) error {
	var no *crew.Refused
	switch {
	case errors.Is(err, crew.ErrOutside):
		return &refusal{http.StatusNotFound, err}
	case errors.As(err, &no):
		return &refusal{http.StatusForbidden, err}
	}
	return err
}

func (s *Server) owners(ctx context.Context, id string) (names []string) {
	list, err := s.store.Members(ctx, id)
	if err != nil {
		return nil // the refusal says it without names
	}
	for _, m := range list {
		if crew.Role(m.Role) == crew.Owner {
			names = append(names, m.Person.Name)
		}
	}
	return names
}

// refuses answers with a refusal and writes it down.
func (s *Server) refuses(c *gin.Context, project string, err error) {
	s.notes(c, project, "refused", c.Request.Method+" "+c.FullPath())
	fail(c, err)
}

// notes adds to the record of what was done; it holds nobody up.
func (s *Server) notes(c *gin.Context, project, what, says string) {
	if s.house == nil {
		return
	}
	a := store.Act{Person: s.person(c), Address: addressOf(c), Project: project, What: what, Says: short(says, 200)}
	if err := s.store.Note(context.WithoutCancel(c.Request.Context()), a); err != nil {
		slog.Error("what was done could not be written down", "what", what, "error", err)
	}
}

// mayUse reports whether somebody may put a sound into a project by its hash: it is there already, in another project that they
// are in, or on the shelf. A hash is no permission.
func (s *Server) mayUse(ctx context.Context, id, person, hash string) (bool, error) {
	if has, err := s.store.HasSound(ctx, id, hash); has || err != nil {
		return has, err
	}
	if may, err := s.store.MayHear(ctx, person, hash); may || err != nil {
		return may, err
	}
	return s.store.OnShelf(ctx, hash)
}

// mayBeHeard reports whether a sound may be heard through a project: it is one of it, is worked out for it, or stands on the shelf.
func (s *Server) mayBeHeard(ctx context.Context, id, hash string) (bool, error) {
	doc, _, err := s.desk.Document(ctx, id)
	if err != nil {
		return false, err
	}
	if _, has := doc.AudioByHash(hash); has {
		return true, nil
	}
	if made, err := s.works.For(ctx, id, hash); made || err != nil {
		return made, err
	}
	if has, err := s.store.HasSound(ctx, id, hash); has || err != nil {
		return has, err
	}
	return s.store.OnShelf(ctx, hash)
}

// heard lets a sound through that may be heard through the project of the path; false: it has been answered. On this machine all
// may be heard, and nothing is looked up for it: pages of sound do not wait for a change that is being stored.
func (s *Server) heard(c *gin.Context, hash string) bool {
	if s.house == nil {
		return true
	}
	may, err := s.mayBeHeard(c.Request.Context(), c.Param("id"), hash)
	if err == nil && !may {
		err = &refusal{http.StatusNotFound, errors.New("this project has no such sound")}
	}
	if err != nil {
		fail(c, err)
		return false
	}
	return true
}

func short(text string, most int) string {
	if len(text) > most {
		return text[:most]
	}
	return text
}

// addressOf is where a request comes from, without its port.
func addressOf(c *gin.Context) string { return c.RemoteIP() }
