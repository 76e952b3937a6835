// Package passage makes passages of the kinds that ship: what each kind moves, and the stages that it
// places for that where they are missing.
package passage

import (
	"fmt"
	"slices"
	"strings"

	"shoal/internal/effect"
	"shoal/internal/project"
)

// Kind is a kind of passage.
type Kind struct {
	ID   string `json:"id" required:"true"`
	Name string `json:"name" required:"true"`
	Says string `json:"says" required:"true"`
	Tags string `json:"tags" required:"true"`
	Tail string `json:"tail" required:"true"` // its usual tail rule

	sends   bool // it moves what rows send
	stages  []placed
	courses []moved
}

type set = map[string]float64

// placed is a stage that a kind needs at the end of each row's chain. An idle one does nothing by itself:
// it stands there switched on, and one that the row has already serves as well. All others stand
// switched off, and the passage switches them on.
type placed struct {
	effect, name string
	idle         bool
	law          string // of the mix; empty: the effect's own
	params       set
}

// moved is a course.
type moved struct {
	name    string
	points  []project.Point
	targets []target
}

// target is a parameter of the stage so many, or of the row's strip or send.
type target struct {
	stage    int
	name     string
	from, to float64
	how      how
}

type how int

const (
	plain  how = iota
	here       // from where it stands
	length     // its value is nearly how long the passage lasts: what stops has stopped before its end
)

func (h how) part() float64 {
	if h == length {
		return 0.92
	}
	return 0
}

const (
	strip  = -1
	toSend = -2
)

// Kinds lists all kinds, in the order in which they are offered.
func Kinds() []*Kind {
	for _, k := range kinds {
		if k.Tail == "" {
			k.Tail = project.TailRing
		}
	}
	return kinds
}

// Find finds a kind.
func Find(id string) (*Kind, bool) {
	i := slices.IndexFunc(Kinds(), func(k *Kind) bool { return k.ID == id })
	if i < 0 {
		return nil, false
	}
	return kinds[i], true
}

// Spec says what passage is to be made.
type Spec struct {
	ID   string   `json:"id,omitempty"` // of the new passage
	Kind string   `json:"kind" required:"true"`
	From int64    `json:"from" required:"true"` // song frames
	To   int64    `json:"to" required:"true"`
	Snap int64    `json:"snap"` // grid in ticks; 0: none
	Rows []string `json:"rows" required:"true"`
}

// maker makes one passage.
type maker struct {
	doc    *project.Project
	kind   *Kind
	x      *project.Passage
	list   []project.Change
	placed map[string][]string // rows on which something was placed, by what
	order  []string
}

// Make works out the changes that make a passage, and says in words what it places.
func Make(doc *project.Project, spec Spec) (list []project.Change, says string, err error) {
	kind, ok := Find(spec.Kind)
	if !ok {
		return nil, "", fmt.Errorf("there is no kind of passage %q", spec.Kind)
	}
	if len(spec.Rows) == 0 {
		return nil, "", fmt.Errorf("choose at least one row on which %s is to happen", kind.Name)
	}
	clock := doc.Clock()
	m := &maker{doc: doc, kind: kind, placed: map[string][]string{}, x: &project.Passage{
		ID:   spec.ID,
		Name: kind.Name,
		Kind: kind.ID,
		From: clock.Snapped(
			spec.From,
			spec.Snap,
		),
		To:   clock.Snapped(spec.To, spec.Snap),
		Rows: spec.Rows,
		Tail: kind.Tail,
		Fade: 2 * project.TicksPerQuarter,
	}}
	if m.x.ID == "" {
		m.x.ID = project.NewID()
	}
	if m.x.To <= m.x.From {
		return nil, "", fmt.Errorf("select a range on the ruler first: a passage needs at least one step of the grid")
	}
	for _, c := range kind.courses {
		m.x.Courses = append(m.x.Courses, &project.Course{Name: c.name, Points: slices.Clone(c.points)})
	}
	for _, id := range spec.Rows {
		row, ok := doc.Channel(id)
		if !ok {
			return nil, "", fmt.Errorf("one of the rows is no longer there: somebody has removed it")
		}
		if err := m.row(row); err != nil {
			return nil, "", err
		}
	}
	return append(m.list, &project.PutPassage{Passage: m.x}), m.says(), nil
}

// row places what a row needs, on its trials as well as on its chain, so that whichever is heard has the
// passage; and lets the courses move it.
func (m *maker) row(row *project.Channel) error {
	name := row.Name
	if len(row.Trials) > 0 {
		name += " " + row.Letter
	}
	owners := [][]string{m.chain(row.ID, &row.Chain, name)} // of the stages, by chain
	for _, t := range row.Trials {
		owners = append(owners, m.chain(t.ID, &t.Chain, row.Name+" "+t.Letter))
	}
	var sends []string
	if m.kind.sends {
		var err error
		if sends, err = m.sendsOf(row); err != nil {
			return err
		}
	}
	for i, c := range m.kind.courses {
		for _, t := range c.targets {
			on := []string{row.ID}
			switch {
			case t.stage == toSend:
				on = sends
			case t.stage >= 0:
				on = nil
				for _, stages := range owners {
					on = append(on, stages[t.stage])
				}
			}
			for _, id := range on {
				m.x.Courses[i].Targets = append(m.x.Courses[i].Targets,
					project.CourseTarget{Owner: id, Name: t.name, From: t.from, To: t.to, Here: t.how == here, Length: t.how.part()})
			}
		}
	}
	return nil
}

// chain gives the stages of the kind that stand in a chain, or are placed there.
func (m *maker) chain(owner string, c *project.Chain, name string) (stages []string) {
	at := len(c.Nodes)
	for _, p := range m.kind.stages {
		id := m.there(c, p)
		if id == "" {
			id = m.place(owner, p, at, name)
			at++
		}
		stages = append(stages, id)
	}
	return stages
}

// there finds a stage in a chain that serves: an idle one of this effect, or what another passage brought.
func (m *maker) there(c *project.Chain, p placed) string {
	for _, n := range c.Nodes {
		s := n.Stage
		if s == nil || s.Effect != p.effect {
			continue
		}
		brought := slices.ContainsFunc(m.doc.Passages, func(x *project.Passage) bool { return slices.Contains(x.Brought, s.ID) })
		if p.idle && !s.Bypass || brought && s.Name == p.name {
			return s.ID
		}
	}
	return ""
}

func (m *maker) place(owner string, p placed, index int, name string) string {
	k, ok := effect.Find(p.effect)
	if !ok {
		panic("passage: no effect " + p.effect)
	}
	s := project.NewStage(k.ID, k.Version, 100, k.MixLaw)
	s.Name, s.Bypass, s.RingOut = p.name, !p.idle, !p.idle
	if p.law != "" {
		s.MixLaw = p.law
	}
	for n, v := range p.params {
		s.Params[n] = v
	}
	m.list = append(m.list, &project.AddNode{Owner: owner, Index: index, Node: &project.Node{Stage: s}})
	m.x.Brought = append(m.x.Brought, s.ID)
	m.note(fmt.Sprintf("%s (%s)", p.name, strings.ToLower(k.Name)), "at the end of the chain of", name)
	return s.ID
}

// sendsOf are a row's sends; where it has none, one to the first return is put down, silent.
func (m *maker) sendsOf(row *project.Channel) ([]string, error) {
	var ids []string
	for _, s := range row.Sends {
		if !s.Mute {
			ids = append(ids, s.ID)
		}
	}
	if len(ids) > 0 {
		return ids, nil
	}
	if row.Kind == project.Main {
		return nil, fmt.Errorf("%s sends nowhere: choose the rows, not the main output", row.Name)
	}
	for _, to := range m.doc.Channels {
		if to.Kind == project.Return && to.ID != row.ID {
			s := &project.Send{ID: project.NewID(), To: to.ID, Level: -120, Pre: true}
			m.list = append(m.list, &project.AddSend{Channel: row.ID, Index: len(row.Sends), Send: s})
			m.x.Brought = append(m.x.Brought, s.ID)
			m.note("a send to "+to.Name, "on", row.Name)
			return []string{s.ID}, nil
		}
	}
	return nil, fmt.Errorf("there is no return into which %s could wash out: make one first, with S on a row", row.Name)
}

func (m *maker) note(what, where, row string) {
	key := what + " " + where
	if m.placed[key] == nil {
		m.order = append(m.order, key)
	}
	m.placed[key] = append(m.placed[key], row)
}

// says tells what was placed.
func (m *maker) says() string {
	var parts []string
	for _, key := range m.order {
		parts = append(parts, key+" "+inWords(m.placed[key]))
	}
	if len(parts) == 0 {
		return ""
	}
	return "Placed: " + strings.Join(parts, "; ") + "."
}

func inWords(names []string) string {
	if len(names) == 1 {
		return names[0]
	}
	return strings.Join(names[:len(names)-1], ", ") + " and " + names[len(names)-1]
}
