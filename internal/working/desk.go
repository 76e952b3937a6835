package working

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"runtime/debug"
	"slices"
	"sync"
	"time"

	"shoal/internal/audiofile"
	"shoal/internal/gentle"
	"shoal/internal/project"
)

// rest is how long nothing may change before anything is begun, and calm before a row is printed anew.
const (
	rest = 500 * time.Millisecond
	calm = 2 * time.Second
)

// Kept is how many bytes of what was worked out are kept: what nobody has needed for the longest is thrown away, and made
// again when it is needed.
const Kept = 8 << 30

// tellEvery is how often it is told at most how far something is.
const tellEvery = 150 * time.Millisecond

// Desk works out what the open projects need, one after another. What is needed follows from the documents, so nothing
// of its queue need be kept: after a restart it looks again.
type Desk struct {
	folder   *audiofile.Folder
	document func(ctx context.Context, id string) (*project.Project, int64, error)
	tell     func(project string, list []Status)

	telling  sync.Mutex // what is told is never older than what was told before it
	mu       sync.Mutex
	projects map[string]*watched
	wake     chan struct{}
	now      string // key that is being worked out
	stop     context.CancelFunc
	progress float64
}

// watched is what is known of a project's works.
type watched struct {
	timer  *time.Timer
	calmed *time.Timer
	busy   bool // it has changed a moment ago: rows are not printed yet
	doc    *project.Project
	needs  []Need
	known  map[string]bool // whatever it has needed since the desk was made
	done   map[string]bool
	asked  map[string]bool   // begun although the project waits to be asked
	called map[string]bool   // called off
	failed map[string]string // why
}

// NewDesk makes a desk and begins to work until the context ends.
func NewDesk(
	ctx context.Context, folder *audiofile.Folder, document func(ctx context.Context, id string) (*project.Project, int64, error),
	tell func(project string, list []Status),
) *Desk {
	d := &Desk{folder: folder, document: document, tell: tell, projects: map[string]*watched{}, wake: make(chan struct{}, 1)}
	go d.work(ctx)
	return d
}

func (d *Desk) watched(id string) *watched {
	w, ok := d.projects[id]
	if !ok {
		w = &watched{
			known: map[string]bool{}, done: map[string]bool{}, asked: map[string]bool{}, called: map[string]bool{}, failed: map[string]string{},
		}
		d.projects[id] = w
	}
	return w
}

// Changed looks at a project once nothing has changed for a moment.
func (d *Desk) Changed(ctx context.Context, id string) {
	d.mu.Lock()
	defer d.mu.Unlock()
	w := d.watched(id)
	if w.timer != nil {
		w.timer.Stop()
	}
	w.timer = time.AfterFunc(rest, func() { _, _ = d.Look(context.WithoutCancel(ctx), id) })
	if w.calmed != nil {
		w.calmed.Stop()
	}
	w.busy = true
	w.calmed = time.AfterFunc(calm, func() {
		d.mu.Lock()
		w.busy = false
		d.mu.Unlock()
		d.rouse()
	})
}

// Look finds what a project needs now, lets it be worked out, and says how that stands.
func (d *Desk) Look(ctx context.Context, id string) ([]Status, error) {
	doc, _, err := d.document(ctx, id)
	if err != nil {
		return nil, err
	}
	needs := Needed(doc)
	d.mu.Lock()
	w := d.watched(id)
	w.doc, w.needs = doc, needs
	w.done = map[string]bool{}
	for _, n := range needs {
		w.known[n.Key] = true
		w.done[n.Key] = d.folder.HasWorked(n.Key)
	}
	if d.now != "" && !d.wanted(d.now) {
		d.stop() // nobody needs it any more
	}
	d.mu.Unlock()
	d.rouse()
	return d.tellOne(id), nil
}

// Know lets what another revision of a project needs be fetched, as far as it is there.
func (d *Desk) Know(id string, doc *project.Project) {
	needs := Needed(doc)
	d.mu.Lock()
	defer d.mu.Unlock()
	for _, n := range needs {
		d.watched(id).known[n.Key] = true
	}
}

// For reports whether a key is of something that is, or was, worked out for a project.
func (d *Desk) For(ctx context.Context, id, key string) (bool, error) {
	known := func() bool {
		d.mu.Lock()
		defer d.mu.Unlock()
		return d.watched(id).known[key]
	}
	if known() {
		return true, nil
	}
	doc, _, err := d.document(ctx, id)
	return err == nil && slices.ContainsFunc(Needed(doc), func(n Need) bool { return n.Key == key }), err
}

// tellOne tells how things stand in a project now.
func (d *Desk) tellOne(id string) []Status {
	d.telling.Lock()
	defer d.telling.Unlock()
	d.mu.Lock()
	list := d.statuses(d.watched(id))
	d.mu.Unlock()
	d.tell(id, list)
	return list
}

// wanted reports whether any project still needs a key.
func (d *Desk) wanted(key string) bool {
	for _, w := range d.projects {
		if !w.called[key] && slices.ContainsFunc(w.needs, func(n Need) bool { return n.Key == key }) {
			return true
		}
	}
	return false
}

// Cancel calls something off, until it is asked for again or its treatment changes.
func (d *Desk) Cancel(id, key string) error {
	return d.set(id, key, func(w *watched) error {
		if w.done[key] {
			return errors.New("it has been worked out already")
		}
		w.called[key] = true
		if d.now == key && !d.wanted(key) {
			d.stop()
		}
		return nil
	})
}

// Ask lets something be worked out that was called off, has failed, or waits to be asked for.
func (d *Desk) Ask(id, key string) error {
	return d.set(id, key, func(w *watched) error {
		delete(w.called, key)
		delete(w.failed, key)
		w.asked[key] = true
		return nil
	})
}

func (d *Desk) set(id, key string, do func(w *watched) error) error {
	d.mu.Lock()
	w := d.watched(id)
	if !slices.ContainsFunc(w.needs, func(n Need) bool { return n.Key == key }) {
		d.mu.Unlock()
		return errors.New("nobody needs this any more: what it is made from has changed")
	}
	err := do(w)
	d.mu.Unlock()
	if err != nil {
		return err
	}
	d.rouse()
	d.tellOne(id)
	return nil
}

func (d *Desk) rouse() {
	select {
	case d.wake <- struct{}{}:
	default:
	}
}

// next is what is worked out next.
func (d *Desk) next() (doc *project.Project, n Need, ok bool) {
	d.mu.Lock()
	defer d.mu.Unlock()
	for _, w := range d.projects {
		for _, s := range d.statuses(w) {
			if s.State == Waiting && (s.Row == "" || !w.busy) {
				i := slices.IndexFunc(w.needs, func(n Need) bool { return n.Key == s.Key })
				return w.doc, w.needs[i], true
			}
		}
	}
	return nil, Need{}, false
}

func (d *Desk) work(ctx context.Context) {
	gentle.Thread()
	for {
		doc, n, ok := d.next()
		if !ok {
			select {
			case <-d.wake:
				continue
			case <-ctx.Done():
				return
			}
		}
		own, stop := context.WithCancel(ctx)
		d.mu.Lock()
		d.now, d.stop, d.progress = n.Key, stop, 0
		d.mu.Unlock()
		d.tellAll(n.Key)
		err := d.guarded(own, doc, n)
		called := own.Err() != nil
		stop()
		d.ended(n.Key, err, called)
		if ctx.Err() != nil {
			return
		}
	}
}

// guarded works one out; a panic is a failure in words.
func (d *Desk) guarded(ctx context.Context, doc *project.Project, n Need) (err error) {
	defer func() {
		if r := recover(); r != nil {
			slog.Error("working out a piece panicked", "key", n.Key, "panic", r, "stack", string(debug.Stack()))
			err = fmt.Errorf("a mistake of Shoal's ended it (%v); nothing was changed", r)
		}
	}()
	last := time.Now()
	return n.out(ctx, doc, d.folder, func(part float64) {
		d.mu.Lock()
		d.progress = part
		d.mu.Unlock()
		if time.Since(last) > tellEvery {
			last = time.Now()
			d.tellAll(n.Key)
		}
	})
}

// ended writes down how it ended, for all projects that need it.
func (d *Desk) ended(key string, err error, called bool) {
	if err == nil {
		if err := d.folder.TrimWorked(Kept); err != nil {
			slog.Warn("what is not needed could not be thrown away", "error", err)
		}
	}
	d.mu.Lock()
	d.now = ""
	for _, w := range d.projects {
		if _, needed := w.done[key]; !needed {
			continue
		}
		switch {
		case err == nil:
			w.done[key] = true
		case !called:
			w.failed[key] = err.Error()
		}
	}
	d.mu.Unlock()
	d.tellAll(key)
}

// tellAll tells how things stand in every project that needs a key.
func (d *Desk) tellAll(key string) {
	d.mu.Lock()
	var ids []string
	for id, w := range d.projects {
		if _, needed := w.done[key]; needed {
			ids = append(ids, id)
		}
	}
	d.mu.Unlock()
	for _, id := range ids {
		d.tellOne(id)
	}
}
