package server

import (
	"encoding/json"
	"sync"

	"shoal/internal/printing"
	"shoal/internal/store"
	"shoal/internal/working"
)

// Message is what the live connection carries; exactly one part is set.
type Message struct {
	Change   *ChangeMessage   `json:"change,omitempty"`
	Presence []Presence       `json:"presence,omitempty"`
	Print    *printing.Status `json:"print,omitempty"`
	Import   *ImportMessage   `json:"import,omitempty"`
	Work     *WorkMessage     `json:"work,omitempty"`
	Worked   []working.Status `json:"worked,omitempty"`
	Gap      bool             `json:"gap,omitempty"` // too much was missed: take the document anew
}

// ChangeMessage is a new revision.
type ChangeMessage struct {
	Revision int64           `json:"revision" required:"true"`
	Author   store.Person    `json:"author" required:"true"`
	Label    string          `json:"label" required:"true"`
	Kind     string          `json:"kind" required:"true" enum:"do,undo,redo"`
	Patch    json.RawMessage `json:"patch" required:"true"` // RFC 6902
	Time     string          `json:"time" required:"true"`
	// Hash tells the document at this revision from any other (see project.Hash); empty in what is older.
	Hash string `json:"hash" required:"true"`
}

func messageOf(e store.Entry, author store.Person) ChangeMessage {
	return ChangeMessage{
		Revision: e.Revision, Author: author, Label: e.Label, Kind: e.Kind, Patch: json.RawMessage(e.Patch), Time: e.Time, Hash: e.Hash,
	}
}

// Presence is somebody in the project, in one window.
type Presence struct {
	Window string       `json:"window" required:"true"`
	Person store.Person `json:"person" required:"true"`
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
	rooms map[string]map[*listener]bool
}

type listener struct {
	presence Presence
	out      chan []byte
	once     sync.Once
}

func (l *listener) cut() { l.once.Do(func() { close(l.out) }) }

func newHub() *hub { return &hub{rooms: map[string]map[*listener]bool{}} }

func (h *hub) join(project string, l *listener) {
	h.mu.Lock()
	if h.rooms[project] == nil {
		h.rooms[project] = map[*listener]bool{}
	}
	h.rooms[project][l] = true
	h.mu.Unlock()
	h.tellPresence(project)
}

func (h *hub) leave(project string, l *listener) {
	h.mu.Lock()
	delete(h.rooms[project], l)
	l.cut()
	h.mu.Unlock()
	h.tellPresence(project)
}

func (h *hub) tellPresence(project string) {
	h.mu.Lock()
	list := []Presence{}
	for l := range h.rooms[project] {
		list = append(list, l.presence)
	}
	h.mu.Unlock()
	if len(list) > 0 {
		h.send(project, Message{Presence: list})
	}
}

func (h *hub) send(project string, m Message) {
	b, err := json.Marshal(m)
	if err != nil {
		panic(err) // plain data always marshals
	}
	h.mu.Lock()
	defer h.mu.Unlock()
	for l := range h.rooms[project] {
		select {
		case l.out <- b:
		default:
			delete(h.rooms[project], l)
			l.cut()
		}
	}
}
