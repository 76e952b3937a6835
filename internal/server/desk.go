package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"strings"
	"sync"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/printing"
	"shoal/internal/project"
	"shoal/internal/store"
	"shoal/internal/working"
)

// desk holds the newest revision of the open projects and applies changes to
// them, one at a time for each.
type desk struct {
	store  *store.Store
	hub    *hub
	folder *audiofile.Folder
	works  *working.Desk
	// mayUse reports whether somebody may put a sound into a project by its hash; nil: whatever is here.
	mayUse func(ctx context.Context, id, person, hash string) (bool, error)
	mu     sync.Mutex
	open   map[string]*opened
}

type opened struct {
	mu       sync.Mutex
	doc      *project.Project
	written  *project.Written
	sums     []project.Sum // of its lines
	revision int64
}

func newDesk(s *store.Store, f *audiofile.Folder, h *hub) *desk {
	return &desk{store: s, folder: f, hub: h, open: map[string]*opened{}}
}

// take returns a project, locked.
func (d *desk) take(ctx context.Context, id string) (*opened, error) {
	d.mu.Lock()
	o, ok := d.open[id]
	if !ok {
		o = &opened{}
		d.open[id] = o
	}
	d.mu.Unlock()
	o.mu.Lock()
	if o.doc != nil {
		return o, nil
	}
	b, revision, err := d.store.Project(ctx, id)
	if err == nil {
		o.doc, err = project.Read(b, engine.EffectInfo)
	}
	if err == nil {
		o.written, err = o.doc.Write(nil, nil)
	}
	if err == nil {
		o.sums, err = o.doc.LineSums()
	}
	if err != nil {
		o.mu.Unlock()
		d.mu.Lock()
		delete(d.open, id)
		d.mu.Unlock()
		return nil, fmt.Errorf("open project: %w", err)
	}
	o.revision = revision
	return o, nil
}

// Document gives the newest revision. It must not be changed.
func (d *desk) Document(ctx context.Context, id string) (*project.Project, int64, error) {
	o, err := d.take(ctx, id)
	if err != nil {
		return nil, 0, err
	}
	defer o.mu.Unlock()
	return o.doc, o.revision, nil
}

// Change makes a batch from the newest revision and applies it.
func (d *desk) Change(ctx context.Context, id, author, label string, make func(doc *project.Project) []project.Change) error {
	o, err := d.take(ctx, id)
	if err != nil {
		return err
	}
	defer o.mu.Unlock()
	batch := make(o.doc)
	if len(batch) == 0 {
		return nil
	}
	_, err = d.apply(ctx, id, o, made{author: author, label: label, kind: "do", batch: batch})
	return err
}

// Printing tells everybody in the project how a print stands.
func (d *desk) Printing(id string, s printing.Status) { d.hub.send(id, Message{Print: &s}) }

// undo takes back the author's last change, or (redo) makes it again. A change that no longer can be, or upon which
// somebody else has built, is passed over for good: passed says why, once.
func (d *desk) undo(ctx context.Context, id, author string, redo bool) (rev int64, label string, passed []string, err error) {
	o, err := d.take(ctx, id)
	if err != nil {
		return 0, "", nil, err
	}
	defer o.mu.Unlock()
	return d.takeBack(ctx, id, author, o, redo)
}

// Undoing says what undo, or redo, would take back, before it does.
type Undoing struct {
	Label string `json:"label" required:"true"` // of the change; empty: there is nothing of one's own
	Time  string `json:"time" required:"true"`
	// Passed says what it would pass over, and why: somebody has built on it since.
	Passed []string `json:"passed" required:"true"`
}

// undoing says what undo or redo would take back.
func (d *desk) undoing(ctx context.Context, id, author string, redo bool) (Undoing, error) {
	u := Undoing{Passed: []string{}}
	o, err := d.take(ctx, id)
	if err != nil {
		return u, err
	}
	defer o.mu.Unlock()
	find := d.store.LastToUndo
	if redo {
		find = d.store.LastToRedo
	}
	e, err := find(ctx, id, author)
	if errors.Is(err, store.ErrNone) {
		return u, nil
	}
	if err != nil {
		return u, err
	}
	whole, err := d.gestureOf(ctx, id, author, e)
	if err != nil {
		return u, err
	}
	_, reason, err := d.stillFits(ctx, id, author, o, whole)
	if err != nil {
		return u, err
	}
	u.Label, u.Time = e.Label, e.Time
	if reason != "" {
		u.Passed = append(u.Passed, reason)
	}
	return u, nil
}

func (d *desk) takeBack(
	ctx context.Context, id, author string, o *opened, redo bool,
) (rev int64, label string, passed []string, err error) {
	find, kind := d.store.LastToUndo, "undo"
	if redo {
		find, kind = d.store.LastToRedo, "redo"
	}
	for {
		e, err := find(ctx, id, author)
		if errors.Is(err, store.ErrNone) {
			return 0, "", nil, refuse(errors.New(strings.Join(append(passed, "there is nothing "+also(passed)+"of yours to "+kind), "; ")))
		}
		if err != nil {
			return 0, "", nil, err
		}
		whole, err := d.gestureOf(ctx, id, author, e)
		if err != nil {
			return 0, "", nil, err
		}
		batch, reason, err := d.stillFits(ctx, id, author, o, whole)
		if err != nil {
			return 0, "", nil, err
		}
		if reason != "" {
			passed = append(passed, fmt.Sprintf("%q is passed over: %s", e.Label, reason))
			if err := d.store.PassOver(ctx, id, revisions(whole)); err != nil {
				return 0, "", nil, err
			}
			continue
		}
		rev, err := d.apply(ctx, id, o, made{author: author, label: e.Label, kind: kind, batch: batch, spends: revisions(whole)})
		return rev, e.Label, passed, err
	}
}

// gestureOf are the changes of the gesture that one belongs to, the newest first.
func (d *desk) gestureOf(ctx context.Context, id, author string, e store.Entry) ([]store.Entry, error) {
	if e.Gesture == "" || e.Kind != "do" {
		return []store.Entry{e}, nil
	}
	return d.store.OfGesture(ctx, id, author, e.Gesture)
}

func also(passed []string) string {
	if len(passed) > 0 {
		return "else "
	}
	return ""
}

func revisions(list []store.Entry) (out []int64) {
	for _, e := range list {
		out = append(out, e.Revision)
	}
	return out
}

// stillFits gives the changes that take entries back, the newest first, or the reason why that cannot be.
func (d *desk) stillFits(
	ctx context.Context,
	id, author string,
	o *opened,
	entries []store.Entry,
) (batch []project.Change, reason string, err error) {
	for _, e := range entries {
		var wire []project.Wire
		if err := json.Unmarshal([]byte(e.Undo), &wire); err != nil {
			return nil, "", fmt.Errorf("read change %d: %w", e.Revision, err)
		}
		list, err := project.Decode(wire)
		if err != nil {
			return nil, err.Error(), nil // an older program's
		}
		batch = append(batch, list...)
	}
	next, _, err := project.Apply(o.doc, batch, engine.EffectInfo)
	if err != nil {
		return nil, err.Error(), nil
	}
	written, err := next.Write(o.doc, o.written)
	if err != nil {
		return nil, "", err
	}
	touches, err := project.TouchedBetween(o.doc, o.written, next, written)
	if err != nil {
		return nil, "", err
	}
	others, err := d.store.OthersSince(ctx, id, author, entries[len(entries)-1].Revision)
	if err != nil {
		return nil, "", err
	}
	for _, other := range others {
		var touched []string
		if err := json.Unmarshal([]byte(other.Touched), &touched); err != nil {
			return nil, "", fmt.Errorf("read change %d: %w", other.Revision, err)
		}
		if project.Meet(touches, touched) {
			return nil, fmt.Sprintf("%s has built on it since (%s)", other.Name, other.Label), nil
		}
	}
	return batch, "", nil
}

// made is a batch that somebody makes.
type made struct {
	author, label, kind string
	gesture             string
	batch               []project.Change
	spends              []int64 // the revisions that it takes back
	anyway              bool    // rows that are in somebody's hand are changed too
	asked               bool    // it came as it is from outside: what it names is not taken on trust
}

// apply stores and broadcasts a batch; the project is locked.
func (d *desk) apply(ctx context.Context, id string, o *opened, m made) (int64, error) {
	next, undo, err := project.Apply(o.doc, m.batch, engine.EffectInfo)
	if err != nil {
		return 0, refuse(err)
	}
	fresh, err := d.freshSounds(ctx, id, o.doc, next, m)
	if err != nil {
		return 0, err
	}
	patch, written, err := patchOf(o.doc, o.written, next)
	if err != nil {
		return 0, err
	}
	lines, err := changedLines(o.doc.Lines, next.Lines)
	if err != nil {
		return 0, err
	}
	if m.asked && !m.anyway {
		if err := inHand(o, next, written, lines, m.author); err != nil {
			return 0, err
		}
	}
	touched, err := project.TouchedBetween(o.doc, o.written, next, written)
	if err != nil {
		return 0, err
	}
	sums := sumsAfter(o.sums, lines)
	e := store.Entry{
		Revision: o.revision + 1, Author: m.author, Label: project.ShortLabel(m.label), Kind: m.kind, Gesture: m.gesture, Time: store.Now(),
		Hash: written.Hash(sums), Sounds: fresh,
	}
	for _, part := range []struct {
		to *string
		v  any
	}{{&e.Batch, mustEncode(m.batch)}, {&e.Undo, mustEncode(undo)}, {&e.Patch, patch}, {&e.Touched, touched}} {
		b, err := json.Marshal(part.v)
		if err != nil {
			return 0, err
		}
		*part.to = string(b)
	}
	if err := d.store.Commit(ctx, id, next.Name, written.Bytes(), lines, e, m.spends); err != nil {
		return 0, err
	}
	o.doc, o.written, o.sums, o.revision = next, written, sums, e.Revision
	person, err := d.store.Person(ctx, m.author)
	if err != nil { // the change is made: it is told without a name rather than not at all
		slog.Warn("the author of a change is not known", "project", id, "revision", e.Revision, "error", err)
		person = store.Person{ID: m.author}
	}
	told := messageOf(e, person)
	d.hub.send(id, Message{Change: &told})
	if d.works != nil {
		d.works.Changed(ctx, id)
	}
	return e.Revision, nil
}

// freshSounds are the hashes of sounds that come with a change; each is here, and whoever makes the change may use it.
func (d *desk) freshSounds(ctx context.Context, id string, old, next *project.Project, m made) (fresh []string, err error) {
	for _, a := range next.Audio {
		if _, known := old.AudioByHash(a.Hash); known {
			continue
		}
		may := d.folder.Has(a.Hash)
		if may && m.asked && d.mayUse != nil {
			if may, err = d.mayUse(ctx, id, m.author, a.Hash); err != nil {
				return nil, err
			}
		}
		if !may {
			return nil, refuse(fmt.Errorf("the sound %s (%.12s) is not in Shoal's folder: import its file first", a.Name, a.Hash))
		}
		fresh = append(fresh, a.Hash)
	}
	return fresh, nil
}

func mustEncode(batch []project.Change) []project.Wire {
	w, err := project.Encode(batch)
	if err != nil {
		panic(err) // every change is in the registry
	}
	return w
}
