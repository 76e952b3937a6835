package server

import (
	"reflect"
	"slices"
	"time"

	"shoal/internal/store"
)

// Presence is somebody in the project, in one window.
type Presence struct {
	Window string       `json:"window" required:"true"`
	Person store.Person `json:"person" required:"true"`
	Whereabouts
}

// Whereabouts is what a window says of itself: where it is, and what is heard there.
type Whereabouts struct {
	At    string `json:"at" required:"true"`    // the row that is selected in it; empty: none
	Stage string `json:"stage" required:"true"` // what is on its bench: a stage, a fork, a path, a send
	// Heard is missing where nothing has been heard yet.
	Heard *Heard `json:"heard,omitempty"`
}

// Heard is what somebody hears, so that others hear the same from their own engines.
type Heard struct {
	Playing bool  `json:"playing" required:"true"`
	Song    int64 `json:"song" required:"true"` // the song frame at which it is when this is said
	From    int64 `json:"from" required:"true"` // the loop; to is 0: there is none
	To      int64 `json:"to" required:"true"`
	// Solo are rows heard alone; Dry and Share one without its returns, or only its share of them.
	Solo  []string `json:"solo" required:"true"`
	Dry   string   `json:"dry" required:"true"`
	Share string   `json:"share" required:"true"`
	Mono  bool     `json:"mono" required:"true"`
	// Listening is the point that is listened to in place of the main output.
	Listening *Point `json:"listening,omitempty"`
	// Trials are rows of which another alternative than their own chain is heard.
	Trials []TrialHeard `json:"trials,omitempty"`
}

// TrialHeard is an alternative of a row's chain that somebody hears, turned up by so many dB to be as loud as the chain.
type TrialHeard struct {
	Row   string  `json:"row" required:"true"`
	Trial string  `json:"trial" required:"true"`
	Match float64 `json:"match" required:"true"`
}

// Point is a point of the plan that somebody listens to (see engine.Listening).
type Point struct {
	Node   string   `json:"node,omitempty"`
	Change bool     `json:"change,omitempty"`
	Key    bool     `json:"key,omitempty"`
	Paths  []string `json:"paths,omitempty"`
}

// gathered is how long comings and goings are gathered: a room is told of them ten times a second at most, and of what differs
// only, so that many windows at once do not drown each other.
const gathered = 100 * time.Millisecond

func (h *hub) join(project string, l *listener) {
	h.mu.Lock()
	defer h.mu.Unlock()
	r := h.rooms[project]
	if r == nil {
		r = &room{here: map[*listener]bool{}, told: map[string]Presence{}}
		h.rooms[project] = r
	}
	r.here[l] = true
	r.new = append(r.new, l)
	h.soon(project, r)
}

func (h *hub) leave(project string, l *listener) {
	h.mu.Lock()
	defer h.mu.Unlock()
	l.cut()
	r := h.rooms[project]
	if r == nil {
		return
	}
	delete(r.here, l)
	r.new = slices.DeleteFunc(r.new, func(x *listener) bool { return x == l })
	if len(r.here) == 0 {
		delete(h.rooms, project)
		return
	}
	h.soon(project, r)
}

// move says where a window is, and what is heard there.
func (h *hub) move(project string, l *listener, now Whereabouts) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if r := h.rooms[project]; r != nil && r.here[l] && !reflect.DeepEqual(l.presence.Whereabouts, now) {
		l.presence.Whereabouts = now
		h.soon(project, r)
	}
}

// soon lets a room be told shortly; the hub is locked.
func (h *hub) soon(project string, r *room) {
	if !r.due {
		r.due = true
		time.AfterFunc(gathered, func() { h.tell(project, r) })
	}
}

// tell tells who came, moved and left to those who know the rest, and everything to those who are new.
func (h *hub) tell(project string, r *room) {
	h.mu.Lock()
	defer h.mu.Unlock()
	r.due = false
	if h.rooms[project] != r {
		return
	}
	now := map[string]Presence{}
	differs, whole := Message{}, Message{}
	for l := range r.here {
		p := l.presence
		now[p.Window] = p
		whole.Presence = append(whole.Presence, p)
		if before, known := r.told[p.Window]; !known || !reflect.DeepEqual(before, p) {
			differs.Came = append(differs.Came, p)
		}
	}
	for window := range r.told {
		if _, here := now[window]; !here {
			differs.Left = append(differs.Left, window)
		}
	}
	fresh := r.new
	r.told, r.new = now, nil
	if len(fresh) > 0 {
		b := encoded(whole)
		for _, l := range fresh {
			r.give(l, b)
		}
	}
	if len(differs.Came)+len(differs.Left) == 0 {
		return
	}
	b := encoded(differs)
	for l := range r.here {
		if !slices.Contains(fresh, l) {
			r.give(l, b)
		}
	}
}

// windowsOf counts those of one person.
func (h *hub) windowsOf(person string) (n int) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for _, r := range h.rooms {
		for l := range r.here {
			if l.presence.Person.ID == person {
				n++
			}
		}
	}
	return n
}

// people are those with a window open on a project.
func (h *hub) people(project string) (list []store.Person) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if r := h.rooms[project]; r != nil {
		for l := range r.here {
			list = append(list, l.presence.Person)
		}
	}
	return list
}

// windows counts those that are open on projects.
func (h *hub) windows() float64 {
	h.mu.Lock()
	defer h.mu.Unlock()
	n := 0
	for _, r := range h.rooms {
		n += len(r.here)
	}
	return float64(n)
}
