package server

import (
	"errors"
	"maps"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/project"
	"shoal/internal/store"
)

// Crew is who is in a project.
type Crew struct {
	Accounts bool           `json:"accounts" required:"true"` // false: everybody on this machine may do everything
	Role     string         `json:"role" required:"true" enum:"listener,engineer,owner"`
	Exports  bool           `json:"exports" required:"true"` // listeners may export
	People   []store.Member `json:"people" required:"true"`
	Links    []OpenLink     `json:"links" required:"true"` // that bring others in; owners see them
	// Tellable are those to whom something can be said: who is in the project, who is here, and who has said something.
	Tellable []project.Speaker `json:"tellable" required:"true"`
}

// OpenLink is a link into a project that still opens something.
type OpenLink struct {
	ID    string `json:"id" required:"true"`
	Role  string `json:"role" required:"true" enum:"listener,engineer,owner"`
	By    string `json:"by" required:"true"`
	Uses  int    `json:"uses" required:"true"` // how often it can be used; 0: as often as wanted
	Used  int    `json:"used" required:"true"`
	Until string `json:"until" required:"true"`
}

// NewRole gives somebody a role.
type NewRole struct {
	Role string `json:"role" required:"true" enum:"listener,engineer,owner"`
}

// CrewRules are what holds for all of a kind in a project.
type CrewRules struct {
	Exports bool `json:"exports" required:"true"` // listeners may export
}

type inMember struct {
	inProject
	Person string `path:"person"`
}

// ofCrew are the operations of who is in a project.
func ofCrew() []route {
	return []route{
		{"GET", "/api/projects/:id/crew", "Who is in a project.", (*Server).crew, inProject{}, Crew{}},
		{"PUT", "/api/projects/:id/crew", "Say whether listeners may export.", (*Server).setCrew, struct {
			inProject
			CrewRules
		}{}, Health{}},
		{"PUT", "/api/projects/:id/crew/:person", "Give somebody another role.", (*Server).setRole, struct {
			inMember
			NewRole
		}{}, Health{}},
		{"DELETE", "/api/projects/:id/crew/:person", "Take somebody out of a project, or leave it.", (*Server).removeMember, inMember{},
			Health{}},
		{"POST", "/api/projects/:id/links", "Make a link that brings somebody in.", (*Server).invite, struct {
			inProject
			Invite
		}{}, HandedOver{}},
		{"DELETE", "/api/projects/:id/links/:link", "Take a link back.", (*Server).endInvite, struct {
			inProject
			Link string `path:"link"`
		}{}, Health{}},
	}
}

// roleOf is the role of who asks in a project; on this machine everybody is an owner.
func (s *Server) roleOf(c *gin.Context, id string) (string, bool, error) {
	if s.house == nil {
		return string(crew.Owner), true, nil
	}
	return s.store.Standing(c.Request.Context(), id, s.account(c).ID)
}

func (s *Server) crew(c *gin.Context) {
	id, ctx := c.Param("id"), c.Request.Context()
	x := Crew{Accounts: s.house != nil, People: []store.Member{}, Links: []OpenLink{}}
	var err error
	if x.Role, x.Exports, err = s.roleOf(c, id); err == nil && x.Accounts {
		x.People, err = s.store.Members(ctx, id)
	}
	if err == nil && x.Accounts && crew.Role(x.Role) == crew.Owner {
		var links []store.Link
		links, err = s.store.LinksInto(ctx, id)
		for _, l := range links {
			if l.Holds(time.Now()) == nil {
				x.Links = append(x.Links, OpenLink{l.ID, string(l.Role), l.By.Name, l.Uses, l.Used, l.Until.UTC().Format(time.RFC3339)})
			}
		}
	}
	if err == nil {
		x.Tellable, err = s.tellable(c, id, x.People)
	}
	answer(c, x, err)
}

// tellable are those to whom whoever asks can say something: not themselves.
func (s *Server) tellable(c *gin.Context, id string, people []store.Member) ([]project.Speaker, error) {
	doc, _, err := s.desk.Document(c.Request.Context(), id)
	if err != nil {
		return nil, err
	}
	names := map[string]string{}
	for _, r := range doc.Remarks {
		for _, x := range r.Said {
			names[x.By.ID] = x.By.Name
		}
	}
	for _, p := range s.hub.people(id) {
		names[p.ID] = p.Name
	}
	for _, m := range people {
		names[m.Person.ID] = m.Person.Name
	}
	delete(names, "")
	delete(names, s.person(c).ID)
	list := []project.Speaker{}
	for _, person := range slices.Sorted(maps.Keys(names)) {
		list = append(list, project.Speaker{ID: person, Name: names[person]})
	}
	slices.SortStableFunc(list, func(a, b project.Speaker) int { return strings.Compare(a.Name, b.Name) })
	return list, nil
}

func (s *Server) setCrew(c *gin.Context) {
	var r CrewRules
	if !s.withAccounts(c) {
		return
	}
	if err := body(c, &r); err != nil {
		fail(c, err)
		return
	}
	err := s.store.LetListenersExport(c.Request.Context(), c.Param("id"), r.Exports)
	says := "listeners do not export"
	if r.Exports {
		says = "listeners may export"
	}
	s.crewChanged(c, "changed what listeners may", says, err)
}

func (s *Server) setRole(c *gin.Context) {
	var r NewRole
	if !s.withAccounts(c) {
		return
	}
	if err := body(c, &r); err != nil {
		fail(c, err)
		return
	}
	if err := crew.Role(r.Role).Check(); err != nil {
		fail(c, refuse(err))
		return
	}
	id, person := c.Param("id"), c.Param("person")
	was, _, err := s.store.Standing(c.Request.Context(), id, person)
	if err == nil && was == "" {
		err = &refusal{http.StatusNotFound, errors.New("they are not in this project: give them a link")}
	}
	if err == nil {
		err = s.store.PutMember(c.Request.Context(), id, person, r.Role, "")
	}
	s.crewChanged(c, "changed a role", s.called(c, person)+": "+was+" to "+r.Role, err)
}

func (s *Server) removeMember(c *gin.Context) {
	if !s.withAccounts(c) {
		return
	}
	id, person := c.Param("id"), c.Param("person")
	leaves := person == s.account(c).ID
	if !leaves {
		if err := s.may(c, id, crew.Own); err != nil {
			fail(c, err)
			return
		}
	}
	err := s.store.RemoveMember(c.Request.Context(), id, person)
	if err == nil {
		why := s.person(c).Name + " has taken you out of this project"
		if leaves {
			why = "you have left this project"
		}
		s.hub.dismiss(id, person, why)
	}
	s.crewChanged(c, "took somebody out", s.called(c, person), err)
}

func (s *Server) called(c *gin.Context, person string) string {
	p, err := s.store.Person(c.Request.Context(), person)
	if err != nil {
		return person
	}
	return p.Name
}

// crewChanged answers, writes down what was done, and lets every window of the project know.
func (s *Server) crewChanged(c *gin.Context, what, says string, err error) {
	if errors.Is(err, store.ErrLastOwner) {
		err = refuse(err)
	}
	if err == nil {
		s.notes(c, c.Param("id"), what, says)
		s.hub.send(c.Param("id"), Message{Crew: true})
	}
	answer(c, Health{true}, err)
}
