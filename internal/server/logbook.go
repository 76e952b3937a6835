package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/store"
)

func (s *Server) logbook(c *gin.Context) {
	list, err := s.store.Latest(c.Request.Context(), c.Param("id"), 200)
	if err != nil {
		fail(c, err)
		return
	}
	out := []Logged{}
	said := map[string]bool{}
	for _, e := range list {
		if e.Kind == "do" && e.Gesture != "" { // one gesture, one entry: what it came to
			if said[e.Author+e.Gesture] {
				continue
			}
			said[e.Author+e.Gesture] = true
		}
		out = append(out, Logged{e.Revision, store.Person{ID: e.Author, Name: e.Name}, e.Label, e.Kind, e.Spent, e.Time})
	}
	c.JSON(http.StatusOK, out)
}
