package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"sync"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/printing"
	"shoal/internal/project"
	"shoal/internal/store"
)

// desk holds the newest revision of the open projects and applies changes to
// them, one at a time for each.
type desk struct {
	store  *store.Store
	hub    *hub
	folder *audiofile.Folder
	mu     sync.Mutex
	open   map[string]*opened
}

type opened struct {
	mu       sync.Mutex
	doc      *project.Project
	rest     []byte // the document as JSON, without its lines
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
		o.rest, err = bare(o.doc)
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
	_, err = d.apply(ctx, id, o, author, label, "do", batch, 0)
	return err
}

// Printing tells everybody in the project how a print stands.
func (d *desk) Printing(id string, s printing.Status) { d.hub.send(id, Message{Print: &s}) }

// undo takes back the author's last change, or (redo) makes it again.
func (d *desk) undo(ctx context.Context, id, author string, redo bool) (int64, string, error) {
	o, err := d.take(ctx, id)
	if err != nil {
		return 0, "", err
	}
	defer o.mu.Unlock()
	find, kind, nothing := d.store.LastToUndo, "undo", "there is nothing of yours to undo"
	if redo {
		find, kind, nothing = d.store.LastToRedo, "redo", "there is nothing of yours to redo"
	}
	e, err := find(ctx, id, author)
	if errors.Is(err, store.ErrNone) {
		return 0, "", refuse(errors.New(nothing))
	}
	if err != nil {
		return 0, "", err
	}
	var wire []project.Wire
	if err := json.Unmarshal([]byte(e.Undo), &wire); err != nil {
		return 0, "", fmt.Errorf("read change %d: %w", e.Revision, err)
	}
	batch, err := project.Decode(wire)
	if err != nil {
		return 0, "", fmt.Errorf("read change %d: %w", e.Revision, err)
	}
	rev, err := d.apply(ctx, id, o, author, e.Label, kind, batch, e.Revision)
	if err != nil {
		return 0, "", refuse(fmt.Errorf("%q cannot be taken back: %w", e.Label, err))
	}
	return rev, e.Label, nil
}

// apply stores and broadcasts a batch; the project is locked.
func (d *desk) apply(ctx context.Context, id string, o *opened, author, label, kind string, batch []project.Change, spends int64) (int64, error) {
	next, undo, err := project.Apply(o.doc, batch, engine.EffectInfo)
	if err != nil {
		return 0, refuse(err)
	}
	for _, a := range next.Audio {
		if _, known := o.doc.AudioByHash(a.Hash); !known && !d.folder.Has(a.Hash) {
			return 0, refuse(fmt.Errorf("the sound %s (%.12s) is not in Shoal's folder: import its file first", a.Name, a.Hash))
		}
	}
	patch, rest, err := patchOf(o.doc, o.rest, next)
	if err != nil {
		return 0, err
	}
	lines, err := changedLines(o.doc.Lines, next.Lines)
	if err != nil {
		return 0, err
	}
	e := store.Entry{Revision: o.revision + 1, Author: author, Label: label, Kind: kind}
	for _, part := range []struct {
		to *string
		v  any
	}{{&e.Batch, mustEncode(batch)}, {&e.Undo, mustEncode(undo)}, {&e.Patch, patch}} {
		b, err := json.Marshal(part.v)
		if err != nil {
			return 0, err
		}
		*part.to = string(b)
	}
	if err := d.store.Commit(ctx, id, next.Name, rest, lines, e, spends); err != nil {
		return 0, err
	}
	o.doc, o.rest, o.revision = next, rest, e.Revision
	person, _ := d.store.Person(ctx, author)
	d.hub.send(id, Message{Change: &ChangeMessage{Revision: e.Revision, Author: person, Label: label, Kind: kind, Patch: json.RawMessage(e.Patch)}})
	return e.Revision, nil
}

func mustEncode(batch []project.Change) []project.Wire {
	w, err := project.Encode(batch)
	if err != nil {
		panic(err) // every change is in the registry
	}
	return w
}
