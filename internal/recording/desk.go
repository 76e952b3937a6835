package recording

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"sync"
	"time"

	"shoal/internal/audiofile"
	"shoal/internal/disk"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// silence is for how long a window may be silent before what it records ends, and yields after how long its rows can be had
// by somebody else.
const (
	silence = 30 * time.Second
	yields  = 10 * time.Second
)

// Why a recording ended early, in words.
const (
	EndedWindow = "ended early: the window was closed"
	EndedServer = "ended early: Shoal was stopped"
	EndedLate   = "ended early: the window was closed, or the connection was gone"
	EndedInput  = "ended early: the input was unplugged"
)

// ErrOver says of a recording that it has ended: what comes late of it can be recorded anew.
var ErrOver = errors.New("this recording has ended already")

// ErrNoRoom says that no more of the disk can be used. What has been recorded waits where it is until there is room.
var ErrNoRoom = errors.New("there is almost no room left on the disk")

// Documents are the projects in which takes land.
type Documents interface {
	Document(ctx context.Context, id string) (*project.Project, int64, error)
	Change(ctx context.Context, id, author, label string, make func(doc *project.Project) []project.Change) error
}

// Desk takes in what is recorded. Each recording has a folder of its own, until it has landed.
type Desk struct {
	dir    string
	folder *audiofile.Folder
	docs   Documents
	// known tells that a sound is among those that are kept.
	known func(ctx context.Context, e audiofile.Entry, name, origin string) error
	// Keep is how many bytes of the disk are left free: a database that cannot be written is worse than a take that waits.
	Keep int64

	mu   sync.Mutex
	open map[string]*session
}

// session is a recording under way.
type session struct {
	mu sync.Mutex
	about
	dir   string
	tapes map[string]*tape
	ways  map[string]string // what stood before the marks when it began, by row
	seen  time.Time
	over  bool
}

// New makes a desk whose tapes lie in a folder.
func New(
	dir string, folder *audiofile.Folder, docs Documents, known func(ctx context.Context, e audiofile.Entry, name, origin string) error,
) (*Desk, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("make a folder for what is recorded: %w", err)
	}
	return &Desk{dir: dir, folder: folder, docs: docs, known: known, open: map[string]*session{}}, nil
}

// Begin begins to record for a person. A row on which somebody records already is refused.
func (d *Desk) Begin(ctx context.Context, in, person, name string, plan Plan) (string, error) {
	doc, revision, err := d.docs.Document(ctx, in)
	if err != nil {
		return "", err
	}
	a := about{Plan: plan, ID: project.NewID(), Project: in, Person: person, By: name, Rate: doc.SampleRate, Begun: time.Now().UTC(),
		Revision: revision, Named: map[string]string{}, Inputs: map[string]string{}}
	if len(plan.Rows) == 0 {
		return "", fmt.Errorf("no row is ready to be recorded: choose what a track is recorded from, and make it ready")
	}
	for _, r := range plan.Rows {
		ch, ok := doc.Channel(r.ID)
		if !ok {
			return "", project.Gone("a row that is to be recorded")
		}
		if ch.Kind != project.Track || ch.Records == "" {
			return "", fmt.Errorf("%s is recorded from nothing: choose its input first", ch.Name)
		}
		a.Named[r.ID], a.Inputs[r.ID] = ch.Name, ch.Records
	}
	if d.full() {
		return "", ErrNoRoom
	}
	d.endSilent(ctx, time.Now().Add(-yields), func(s *session) bool { return s.takes(plan) != "" })
	d.mu.Lock()
	defer d.mu.Unlock()
	for _, s := range d.open {
		if row := s.takes(plan); row != "" {
			return "", fmt.Errorf("%s records on %s: two cannot record on one row at once", s.By, row)
		}
	}
	s := &session{about: a, dir: filepath.Join(d.dir, a.ID), tapes: map[string]*tape{}, ways: map[string]string{}, seen: time.Now()}
	for _, r := range plan.Rows {
		s.ways[r.ID] = way(doc, r.ID)
	}
	b, err := json.Marshal(a)
	if err != nil {
		return "", err
	}
	if err = os.MkdirAll(s.dir, 0o700); err == nil {
		err = replace(filepath.Join(s.dir, aboutFile), b)
	}
	if err != nil {
		return "", fmt.Errorf("begin to record: %w", err)
	}
	d.open[a.ID] = s
	return a.ID, nil
}

const aboutFile = "about.json"

// full reports whether no more of the disk can be used.
func (d *Desk) full() bool {
	free := disk.Free(d.dir)
	return free >= 0 && free < d.Keep
}

// takes names a row that is recorded on and is among those of a plan; empty: none is.
func (s *session) takes(plan Plan) string {
	for _, r := range plan.Rows {
		if name, ok := s.Named[r.ID]; ok {
			return name
		}
	}
	return ""
}

func (d *Desk) session(id string) (*session, error) {
	d.mu.Lock()
	defer d.mu.Unlock()
	if s, ok := d.open[id]; ok {
		return s, nil
	}
	return nil, ErrOver
}

// Of says in which project a recording is made, and by whom (their id).
func (d *Desk) Of(id string) (project, person string, err error) {
	s, err := d.session(id)
	if err != nil {
		return "", "", err
	}
	return s.Project, s.Person, nil // they stay as they are
}

// Put takes in what has arrived of a row, and returns how many frames of it are on disk: what a window has sent and is not
// among them it must send again.
func (d *Desk) Put(id, row string, p Part, data []byte) (int64, error) {
	s, err := d.session(id)
	if err != nil {
		return 0, err
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.over {
		return 0, ErrOver
	}
	s.seen = time.Now()
	t, ok := s.tapes[row]
	if !ok {
		at := slices.IndexFunc(s.Rows, func(r Row) bool { return r.ID == row })
		if at < 0 {
			return 0, fmt.Errorf("this row is not being recorded")
		}
		if t, err = openTape(s.dir, at); err != nil {
			return 0, err
		}
		s.tapes[row] = t
	}
	if d.full() {
		return t.frames, ErrNoRoom
	}
	safe, err := t.put(p, data)
	s.noteChange(d.docs, row, t)
	return safe, err
}

// noteChange notes where in the song a row's way in was touched for the first time.
func (s *session) noteChange(docs Documents, row string, t *tape) {
	if t.changed != nil || len(t.part.Runs) == 0 {
		return
	}
	doc, _, err := docs.Document(context.Background(), s.Project)
	if err != nil || way(doc, row) == s.ways[row] {
		return
	}
	last := t.part.Runs[len(t.part.Runs)-1]
	at := last.Song + last.Frames
	t.changed = &at
}

// way is what stands before a row's mark, to tell whether it has changed.
func way(doc *project.Project, row string) string {
	ch, ok := doc.Channel(row)
	if !ok {
		return ""
	}
	b, _ := json.Marshal([]any{ch.WayIn, printing.WayIn(ch)}) // plain data always marshals
	return string(b)
}

// Ending says how a recording ends.
type Ending struct {
	// To is the song frame that was heard when it was ended; what came after it is kept, and can be drawn out of the clip.
	To int64 `json:"to,omitempty"`
	// Late says that it was sent after it was over: the connection had gone.
	Late bool `json:"late,omitempty"`
}

// End ends a recording and lands what there is of it. It returns the ids of the takes when they lie on their rows.
func (d *Desk) End(ctx context.Context, id string, how Ending) ([]string, error) {
	s, err := d.session(id)
	if err != nil {
		return nil, err
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.over {
		return nil, ErrOver
	}
	if s.To == 0 || how.To > 0 && how.To < s.To {
		s.To = how.To
	}
	ended := ""
	if how.Late {
		ended = EndedLate
	}
	return d.end(ctx, s, ended)
}

func (d *Desk) end(ctx context.Context, s *session, ended string) ([]string, error) {
	takes, err := d.land(ctx, s, ended)
	if err != nil {
		return nil, fmt.Errorf("what was recorded is kept, and lands when Shoal starts again: %w", err)
	}
	s.over = true
	for _, t := range s.tapes {
		_ = t.file.Close()
	}
	d.mu.Lock()
	delete(d.open, s.ID)
	d.mu.Unlock()
	return takes, os.RemoveAll(s.dir)
}

// Work ends recordings of which nothing has been heard for a while, until the context ends. First it lands what was under
// way when Shoal was stopped.
func (d *Desk) Work(ctx context.Context) {
	d.recover(ctx)
	every := time.NewTicker(time.Second)
	defer every.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-every.C:
			d.endSilent(ctx, time.Now().Add(-silence), all)
		}
	}
}

func all(*session) bool { return true }

// endSilent ends what of some recordings has been silent since a time.
func (d *Desk) endSilent(ctx context.Context, since time.Time, which func(*session) bool) {
	d.mu.Lock()
	var list []*session
	for _, s := range d.open {
		if which(s) {
			list = append(list, s)
		}
	}
	d.mu.Unlock()
	for _, s := range list {
		s.mu.Lock()
		if !s.over && s.seen.Before(since) {
			if _, err := d.end(ctx, s, EndedWindow); err != nil {
				slog.Error("a recording does not land", "recording", s.ID, "error", err)
				s.seen = time.Now() // it is tried again
			}
		}
		s.mu.Unlock()
	}
}

// recover lands what lies there from before.
func (d *Desk) recover(ctx context.Context) {
	list, err := os.ReadDir(d.dir)
	if err != nil {
		slog.Error("what was recorded cannot be looked through", "error", err)
		return
	}
	for _, e := range list {
		d.mu.Lock()
		_, open := d.open[e.Name()]
		d.mu.Unlock()
		if open {
			continue
		}
		s, err := readSession(filepath.Join(d.dir, e.Name()))
		if err == nil {
			s.mu.Lock()
			_, err = d.end(ctx, s, EndedServer)
			s.mu.Unlock()
		}
		if err != nil {
			slog.Error("a recording does not land", "recording", e.Name(), "error", err)
		}
	}
}

func readSession(dir string) (*session, error) {
	b, err := os.ReadFile(filepath.Join(dir, aboutFile))
	if err != nil {
		return nil, fmt.Errorf("read what was recorded: %w", err)
	}
	s := &session{dir: dir, tapes: map[string]*tape{}}
	if err := json.Unmarshal(b, &s.about); err != nil {
		return nil, fmt.Errorf("read what was recorded: %w", err)
	}
	for i, r := range s.Rows {
		if _, err := os.Stat(filepath.Join(dir, strconv.Itoa(i)+".f32")); err != nil {
			continue
		}
		if s.tapes[r.ID], err = openTape(dir, i); err != nil {
			return nil, err
		}
	}
	return s, nil
}
