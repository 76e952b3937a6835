package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/project"
	"shoal/internal/shelf"
	"shoal/internal/store"
)

type inThing struct {
	Thing string `path:"thing"`
}

// ThingWords are what is said of a thing on the shelf.
type ThingWords struct {
	Name string   `json:"name" required:"true"` // empty: as its clip is called
	Says string   `json:"says" required:"true"`
	Tags []string `json:"tags" required:"true"`
}

// NewThing asks to put clips on the shelf.
type NewThing struct {
	Project string   `json:"project" required:"true"`
	Clips   []string `json:"clips" required:"true"`
	ThingWords
}

// shelf lists what stands there. Who is first to look waits until what ships has been made, about a second.
func (s *Server) shelf(c *gin.Context) {
	own, shipped, err := s.onShelf(c)
	answer(c, append(own, shipped...), err)
}

// onShelf reads the shelf, and makes what ships with it where that is not there.
func (s *Server) onShelf(c *gin.Context) (own, shipped []*shelf.Thing, err error) {
	s.stocking.Lock()
	defer s.stocking.Unlock()
	ctx := c.Request.Context()
	bodies, err := s.store.Things(ctx, store.Shelf)
	if err != nil {
		return nil, nil, err
	}
	own, have := []*shelf.Thing{}, map[string]*shelf.Thing{}
	for _, b := range bodies {
		t := &shelf.Thing{}
		if err := json.Unmarshal(b, t); err != nil || t.Check() != nil {
			continue // written by something else: it stays in the database
		}
		if t.Shipped {
			have[t.ID] = t
		} else {
			own = append(own, t)
		}
	}
	if shipped, err = shelf.Stocked(ctx, s.folder, have); err != nil {
		return nil, nil, err
	}
	var fresh []*shelf.Thing
	for _, t := range shipped {
		if have[t.ID] != t {
			fresh = append(fresh, t)
		}
	}
	return own, shipped, s.putThings(c, "", fresh...)
}

func (s *Server) putThings(c *gin.Context, author string, list ...*shelf.Thing) error {
	stored := make([]store.Thing, 0, len(list))
	for _, t := range list {
		b, err := json.Marshal(t)
		if err != nil {
			return err
		}
		stored = append(stored, store.Thing{ID: t.ID, Name: t.Name, Body: b})
	}
	return s.store.PutThings(c.Request.Context(), store.Shelf, author, stored...)
}

func (s *Server) putOnShelf(c *gin.Context) {
	author, err := s.author(c)
	var n NewThing
	if err == nil {
		err = body(c, &n)
	}
	if err == nil {
		err = s.may(c, n.Project, crew.Export)
	}
	if err != nil {
		fail(c, err)
		return
	}
	doc, _, err := s.desk.Document(c.Request.Context(), n.Project)
	if err != nil {
		fail(c, err)
		return
	}
	t, err := shelf.New(doc, n.Clips)
	if err == nil {
		err = n.say(t)
	}
	if err != nil {
		fail(c, refuse(err))
		return
	}
	who, err := s.store.Person(c.Request.Context(), author)
	t.From.Author, t.From.Time = who.Name, store.Now()
	if err == nil {
		err = t.Hear(c.Request.Context(), s.folder)
	}
	if err == nil {
		err = s.putThings(c, author, t)
	}
	answer(c, t, err)
}

// say gives a thing its words.
func (w ThingWords) say(t *shelf.Thing) error {
	if w.Name != "" {
		t.Name = w.Name
	}
	t.Says, t.Tags = w.Says, w.Tags
	return t.Check()
}

// thing finds a thing, also one that was taken off.
func (s *Server) thing(c *gin.Context) (*shelf.Thing, error) {
	b, err := s.store.Thing(c.Request.Context(), store.Shelf, c.Param("thing"))
	if errors.Is(err, store.ErrNone) {
		return nil, &refusal{http.StatusNotFound, fmt.Errorf("this is no longer on the shelf")}
	}
	if err != nil {
		return nil, err
	}
	t := &shelf.Thing{}
	if err := json.Unmarshal(b, t); err != nil {
		return nil, fmt.Errorf("read what stands on the shelf: %w", err)
	}
	return t, nil
}

// ownThing finds a thing that may be changed, and who does.
func (s *Server) ownThing(c *gin.Context) (t *shelf.Thing, author string, err error) {
	if author, err = s.author(c); err != nil {
		return nil, "", err
	}
	if t, err = s.thing(c); err == nil && t.Shipped {
		err = refuse(fmt.Errorf("%s comes with Shoal and stays on the shelf", t.Name))
	}
	return t, author, err
}

func (s *Server) setThing(c *gin.Context) {
	t, author, err := s.ownThing(c)
	var w ThingWords
	if err == nil {
		err = body(c, &w)
	}
	if err != nil {
		fail(c, err)
		return
	}
	if err = w.say(t); err != nil {
		err = refuse(err)
	} else {
		err = s.putThings(c, author, t)
	}
	answer(c, t, err)
}

func (s *Server) binThing(c *gin.Context)     { s.setThingBin(c, true) }
func (s *Server) restoreThing(c *gin.Context) { s.setThingBin(c, false) }

func (s *Server) setThingBin(c *gin.Context, in bool) {
	t, _, err := s.ownThing(c)
	if err == nil {
		err = s.store.BinThing(c.Request.Context(), store.Shelf, t.ID, in)
	}
	answer(c, Health{true}, err)
}

// takeThing answers with the changes that put a thing down: to hear it there, or to make them.
func (s *Server) takeThing(c *gin.Context) {
	doc, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	t, err := s.thing(c)
	if err == nil {
		t, err = t.At(c.Request.Context(), doc.SampleRate, s.folder)
	}
	if err != nil {
		fail(c, err)
		return
	}
	var n [4]int64
	for i, name := range []string{"at", "grid", "near", "next"} {
		if v := c.Query(name); v != "" {
			if n[i], err = strconv.ParseInt(v, 10, 64); err != nil {
				fail(c, refuse(fmt.Errorf("%s=%q: it must be a whole number", name, v)))
				return
			}
		}
	}
	if n[3] > 0 {
		n[0] = doc.NextOnGrid(n[0], n[3])
	}
	put := t.Put(c.Query("row"), n[0], project.Snap{Grid: n[1], Near: n[2]})
	c.JSON(http.StatusOK, Taken{"Put down " + t.Name, mustEncode([]project.Change{put})})
}
