package server

import (
	"encoding/csv"
	"fmt"
	"log/slog"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"shoal/internal/project"
	"shoal/internal/store"
)

// logPage is how many entries of the logbook are given at once.
const logPage = 100

// LogPage is a part of the logbook, the newest first.
type LogPage struct {
	Entries []Logged `json:"entries" required:"true"`
	More    bool     `json:"more" required:"true"` // there are older ones
}

// Logged is an entry of the logbook.
type Logged struct {
	Revision int64        `json:"revision" required:"true"`
	Author   store.Person `json:"author" required:"true"`
	Label    string       `json:"label" required:"true"`
	Kind     string       `json:"kind" required:"true" enum:"do,undo,redo"`
	Spent    bool         `json:"spent" required:"true"`
	Time     string       `json:"time" required:"true"`
}

func (s *Server) logbook(c *gin.Context) {
	q := store.LogQuery{Words: project.ShortName(c.Query("words")), Limit: logPage + 1}
	if text := c.Query("before"); text != "" {
		before, err := strconv.ParseInt(text, 10, 64)
		if err != nil || before < 1 {
			fail(c, refuse(fmt.Errorf("before must be a revision number, not %q", project.ShortName(text))))
			return
		}
		q.Before = before
	}
	if err := s.narrow(c, &q); err != nil {
		fail(c, err)
		return
	}
	list, err := s.store.Log(c.Request.Context(), c.Param("id"), q)
	if err != nil {
		fail(c, err)
		return
	}
	page := LogPage{Entries: []Logged{}, More: len(list) > logPage}
	for _, e := range list[:min(len(list), logPage)] {
		page.Entries = append(page.Entries, Logged{e.Revision, store.Person{ID: e.Author, Name: e.Name}, e.Label, e.Kind, e.Spent, e.Time})
	}
	c.JSON(http.StatusOK, page)
}

// logKinds are the kinds of what is in the logbook, by how the names of changes begin.
var logKinds = map[string][]string{
	"rows":   {"channel", "row", "group"},
	"stages": {"stage", "node", "nodes", "chain", "trial", "param", "mover", "handle", "audio", "sounding"},
	"forks":  {"fork", "path", "band"}, "sends": {"send", "return"}, "clips": {"clip", "clips", "sound", "treatment", "way-in", "take"},
	"lines": {"line"}, "song": {"section", "sections", "tempo", "time", "project", "passage", "course"},
	"prints": {"print", "waterline"}, "remarks": {"remark"},
}

// narrow lets a query ask only for what somebody made, for what was done to a row, or for one kind.
func (s *Server) narrow(c *gin.Context, q *store.LogQuery) error {
	q.Author = short(c.Query("person"), 64)
	if kind := c.Query("kind"); kind != "" {
		names, known := logKinds[kind]
		if !known {
			return refuse(fmt.Errorf("there is no kind %q of changes", project.ShortName(kind)))
		}
		q.Kinds = names
	}
	if row := c.Query("row"); row != "" {
		doc, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
		if err != nil {
			return err
		}
		q.Things = doc.ThingsOf(short(row, 64))
	}
	return nil
}

// exportLogbook gives the whole logbook as a table (RFC 4180), a page after the other.
func (s *Server) exportLogbook(c *gin.Context) {
	id := c.Param("id")
	doc, _, err := s.desk.Document(c.Request.Context(), id)
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Content-Type", "text/csv; charset=utf-8")
	c.Header("Content-Disposition", disposition(doc.Name+" logbook.csv"))
	w := csv.NewWriter(c.Writer)
	if err := w.Write([]string{"revision", "time", "by", "kind", "what", "taken back"}); err != nil {
		return
	}
	for q := (store.LogQuery{Limit: 1000}); ; {
		list, err := s.store.Log(c.Request.Context(), id, q)
		if err != nil {
			slog.Error("a logbook broke off", "project", id, "error", err)
			panic(http.ErrAbortHandler) // the answer is under way: the download fails
		}
		for _, e := range list {
			back := ""
			if e.Spent && e.Kind != "undo" {
				back = "yes"
			}
			if err := w.Write([]string{strconv.FormatInt(e.Revision, 10), e.Time, harmless(e.Name), e.Kind, harmless(e.Label), back}); err != nil {
				return
			}
		}
		w.Flush()
		if len(list) < q.Limit {
			return
		}
		q.Before = list[len(list)-1].Revision
	}
}

// harmless keeps a program that opens a table from taking a text for something to work out.
func harmless(text string) string {
	if text != "" && (text[0] == '=' || text[0] == '+' || text[0] == '-' || text[0] == '@') {
		return "'" + text
	}
	return text
}
