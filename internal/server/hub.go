package server

import (
	"encoding/json"
	"sync"

	"shoal/internal/printing"
	"shoal/internal/store"
	"shoal/internal/working"
)

// Message is what the live connection carries; one part is set, or who came and who left together.
type Message struct {
	Change   *ChangeMessage   `json:"change,omitempty"`
	Presence []Presence       `json:"presence,omitempty"` // all who are here
	Came     []Presence       `json:"came,omitempty"`     // who has come since, or gone to another row
	Left     []string         `json:"left,omitempty"`     // windows that have gone since
	Print    *printing.Status `json:"print,omitempty"`
	Import   *ImportMessage   `json:"import,omitempty"`
	Work     *WorkMessage     `json:"work,omitempty"`
	Worked   []working.Status `json:"worked,omitempty"`
	Gap      bool             `json:"gap,omitempty"`  // too much was missed: take the document anew
	Crew     bool             `json:"crew,omitempty"` // who is in the project, or what they may, has changed
	Gone     string           `json:"gone,omitempty"` // why this window may no longer be here
}

// ChangeMessage is a new revision.
type ChangeMessage struct {
	Revision int64           `json:"revision" required:"true"`
	Author   store.Person    `json:"author" required:"true"`
	Label    string          `json:"label" required:"true"`
	Kind     string          `json:"kind" required:"true" enum:"do,undo,redo"`
	Patch    json.RawMessage `json:"patch" required:"true"` // RFC 6902
	Time     string          `json:"time" required:"true"`
	// Hash tells the document at this revision from any other (see project.Written.Hash); empty in what is older.
	Hash string `json:"hash" required:"true"`
}

func messageOf(e store.Entry, author store.Person) ChangeMessage {
	return ChangeMessage{
		Revision: e.Revision, Author: author, Label: e.Label, Kind: e.Kind, Patch: json.RawMessage(e.Patch), Time: e.Time, Hash: e.Hash,
	}
}

// ImportMessage tells how far a file's conversion is.
type ImportMessage struct {
	Name     string  `json:"name" required:"true"`
	Progress float64 `json:"progress" required:"true"`
}

// WorkMessage tells how far something is that a window waits for; others need not care.
type WorkMessage struct {
	ID       string  `json:"id" required:"true"` // as the window named it
	Progress float64 `json:"progress" required:"true"`
}

// hub passes messages to everybody in a project. A listener that does not
// keep up is cut off: it comes back and asks for what it missed.
type hub struct {
	mu    sync.Mutex
	rooms map[string]*room
}

// room is who listens in a project.
type room struct {
	here map[*listener]bool
	told map[string]Presence // by window, as the room has it
	new  []*listener         // whom nothing was told yet
	due  bool                // it will be told shortly
}

type listener struct {
	presence Presence
	out      chan []byte
	once     sync.Once
}

func (l *listener) cut() { l.once.Do(func() { close(l.out) }) }

func newHub() *hub { return &hub{rooms: map[string]*room{}} }

func (h *hub) send(project string, m Message) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if r := h.rooms[project]; r != nil {
		b := encoded(m)
		for l := range r.here {
			r.give(l, b)
		}
	}
}

// dismiss ends the windows of somebody, in one project or (empty) in all, and says why; without a reason they may come back, if
// they still can.
func (h *hub) dismiss(project, person, why string) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for id, r := range h.rooms {
		if project != "" && id != project {
			continue
		}
		for l := range r.here {
			if l.presence.Person.ID != person {
				continue
			}
			if why != "" {
				r.give(l, encoded(Message{Gone: why}))
			}
			delete(r.here, l)
			l.cut()
			h.soon(id, r)
		}
	}
}

func encoded(m Message) []byte {
	b, err := json.Marshal(m)
	if err != nil {
		panic(err) // plain data always marshals
	}
	return b
}

func (r *room) give(l *listener, b []byte) {
	select {
	case l.out <- b:
	default:
		delete(r.here, l)
		l.cut()
	}
}
