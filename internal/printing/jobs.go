package printing

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"runtime/debug"
	"sync"
	"time"

	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riversqlite"
	"github.com/riverqueue/river/rivermigrate"

	"shoal/internal/audiofile"
	"shoal/internal/gentle"
	"shoal/internal/project"
	"shoal/internal/store"
)

// Desk is what printing needs of whoever holds the projects.
type Desk interface {
	// Document gives the newest revision.
	Document(ctx context.Context, id string) (*project.Project, int64, error)
	// Change makes a batch from the newest revision and applies it.
	Change(ctx context.Context, id, author, label string, make func(doc *project.Project) []project.Change) error
	// Printing tells everybody in the project how a print stands.
	Printing(project string, s Status)
}

// args is a job as River keeps it.
type args struct {
	Print string `json:"print"`
}

// Kind names the job in the queue.
func (args) Kind() string { return "print" }

// Works runs print jobs, two at a time at most, and keeps them over a restart.
type Works struct {
	store   *store.Store
	folder  *audiofile.Folder
	exports string
	desk    Desk
	client  *river.Client[*sql.Tx]
	unwatch func() // ends what looks after the clock

	mu       sync.Mutex
	progress map[string]float64
	begun    map[string]time.Time
	running  map[string]context.CancelFunc // by print: SQLite cannot tell a worker that its job was cancelled
}

// New prepares the works.
func New(ctx context.Context, st *store.Store, folder *audiofile.Folder, exports string, desk Desk, log *slog.Logger) (*Works, error) {
	if err := os.MkdirAll(exports, 0o755); err != nil {
		return nil, fmt.Errorf("make export folder: %w", err)
	}
	if err := clearPartial(exports); err != nil {
		return nil, err
	}
	driver := riversqlite.New(st.DB)
	m, err := rivermigrate.New(driver, &rivermigrate.Config{Logger: log})
	if err != nil {
		return nil, fmt.Errorf("prepare job queue: %w", err)
	}
	if _, err := m.Migrate(ctx, rivermigrate.DirectionUp, nil); err != nil {
		return nil, fmt.Errorf("migrate job queue: %w", err)
	}
	w := &Works{
		store:    st,
		folder:   folder,
		exports:  exports,
		desk:     desk,
		progress: map[string]float64{},
		begun:    map[string]time.Time{},
		running:  map[string]context.CancelFunc{},
	}
	workers := river.NewWorkers()
	river.AddWorker(workers, &worker{works: w})
	w.client, err = river.NewClient(driver, &river.Config{
		Queues: map[string]river.QueueConfig{river.QueueDefault: {MaxWorkers: 1}}, Workers: workers, Logger: log,
		FetchCooldown: 50 * time.Millisecond, FetchPollInterval: 200 * time.Millisecond, MaxAttempts: 3, JobTimeout: -1,
	})
	if err != nil {
		return nil, fmt.Errorf("make job queue: %w", err)
	}
	return w, nil
}

// queue makes the job of a print within a transaction: there is never one without the other.
func (w *Works) queue(ctx context.Context, id string) func(tx *sql.Tx) (int64, error) {
	return func(tx *sql.Tx) (int64, error) {
		res, err := w.client.InsertTx(ctx, tx, args{id}, nil)
		if err != nil {
			return 0, err
		}
		return res.Job.ID, nil
	}
}

// reconcile brings together what a killed process may have left apart: a print without a job gets one, and one whose
// job has ended without it has failed.
func (w *Works) reconcile(ctx context.Context) error {
	prints, err := w.store.Unfinished(ctx)
	if err != nil {
		return fmt.Errorf("look for unfinished prints: %w", err)
	}
	for _, p := range prints {
		job, err := w.client.JobGet(ctx, p.Job)
		switch {
		case errors.Is(err, river.ErrNotFound):
			err = w.store.Requeue(ctx, p.ID, w.queue(ctx, p.ID))
		case err == nil && job.FinalizedAt != nil:
			p.State, p.Error = "failed", "Shoal was ended while this was being made. Print it again."
			err = w.store.SetPrint(ctx, p)
		}
		if err != nil {
			return fmt.Errorf("take up the print %s: %w", p.ID, err)
		}
	}
	return nil
}

// Start begins to work. Jobs that a killed process left running start again. Where the disk has no room for that, it can be tried
// again.
func (w *Works) Start(ctx context.Context) error {
	if err := w.takeUp(ctx); err != nil {
		return err
	}
	if err := w.reconcile(ctx); err != nil {
		return err
	}
	if err := w.client.Start(ctx); err != nil {
		return err
	}
	watch, stop := context.WithCancel(ctx)
	w.unwatch = stop
	go w.watchClock(watch)
	return nil
}

// Stop ends the works; a running print starts again next time.
func (w *Works) Stop(ctx context.Context) error {
	if w.unwatch != nil {
		w.unwatch()
	}
	return w.client.StopAndCancel(ctx)
}

// Add queues a print.
func (w *Works) Add(ctx context.Context, projectID, author string, spec Spec) (Status, error) {
	doc, _, err := w.desk.Document(ctx, projectID)
	if err != nil {
		return Status{}, err
	}
	if err := spec.Check(doc); err != nil {
		return Status{}, err
	}
	if spec.Stems != nil {
		if err := w.room(doc, spec); err != nil {
			return Status{}, err
		}
	}
	b, err := json.Marshal(spec)
	if err != nil {
		return Status{}, err
	}
	p := store.Print{ID: project.NewID(), Project: projectID, Author: author, Spec: string(b)}
	if p, err = w.store.AddPrint(ctx, p, w.queue(ctx, p.ID)); err != nil {
		return Status{}, fmt.Errorf("queue print: %w", err)
	}
	s := w.status(p, doc)
	w.desk.Printing(projectID, s)
	return s, nil
}

// Cancel stops a print. What it had made is thrown away.
func (w *Works) Cancel(ctx context.Context, id string) error {
	p, err := w.store.Print(ctx, id)
	if err != nil {
		return err
	}
	if p.State != "waiting" && p.State != "running" {
		return fmt.Errorf("the print has ended already (%s)", p.State)
	}
	p.State = "cancelled"
	if err := w.store.SetPrint(ctx, p); err != nil {
		return err
	}
	w.mu.Lock()
	if stop := w.running[id]; stop != nil {
		stop()
	}
	w.mu.Unlock()
	if _, err := w.client.JobCancel(ctx, p.Job); err != nil {
		return fmt.Errorf("cancel print: %w", err)
	}
	doc, _, err := w.desk.Document(ctx, p.Project)
	if err == nil {
		w.desk.Printing(p.Project, w.status(p, doc))
	}
	return nil
}

type worker struct {
	river.WorkerDefaults[args]
	works *Works
}

// Work makes one print.
func (k *worker) Work(ctx context.Context, job *river.Job[args]) error {
	w := k.works
	gentle.Thread()
	p, err := w.store.Print(ctx, job.Args.Print)
	if errors.Is(err, store.ErrNone) {
		return river.JobCancel(fmt.Errorf("the print was removed"))
	}
	if err != nil {
		return err
	}
	if p.State == "cancelled" || p.State == "done" {
		return nil
	}
	own, stop := context.WithCancel(ctx)
	w.mu.Lock()
	w.running[p.ID] = stop
	w.mu.Unlock()
	defer func() {
		w.mu.Lock()
		delete(w.running, p.ID)
		w.mu.Unlock()
		stop()
	}()
	err = w.guarded(own, &p)
	switch {
	case err == nil:
		return nil
	case ctx.Err() != nil: // the server is stopping: it starts again, and this was no attempt
		return river.JobSnooze(0)
	case own.Err() != nil: // somebody cancelled it, and it is marked so
		return river.JobCancel(own.Err())
	}
	p.State, p.Error = "failed", err.Error()
	if e := w.store.SetPrint(context.WithoutCancel(ctx), p); e != nil {
		return e
	}
	if doc, _, e := w.desk.Document(ctx, p.Project); e == nil {
		w.desk.Printing(p.Project, w.status(p, doc))
	}
	return river.JobCancel(err)
}

// guarded makes a print; a panic is a failure in words, not one more attempt.
func (w *Works) guarded(ctx context.Context, p *store.Print) (err error) {
	defer func() {
		if r := recover(); r != nil {
			slog.Error("a print panicked", "print", p.ID, "panic", r, "stack", string(debug.Stack()))
			err = fmt.Errorf("a mistake of Shoal's ended it (%v); nothing was changed", r)
		}
	}()
	return w.work(ctx, p)
}

func (w *Works) work(ctx context.Context, p *store.Print) error {
	var spec Spec
	if err := json.Unmarshal([]byte(p.Spec), &spec); err != nil {
		return fmt.Errorf("read print: %w", err)
	}
	doc, revision, err := w.desk.Document(ctx, p.Project)
	if err != nil {
		return err
	}
	if err := spec.Check(doc); err != nil {
		return err
	}
	record := NewRecord(doc, w.printer(ctx, p, revision), spec, spec.kind(), false)
	b, err := json.Marshal(record)
	if err != nil {
		return err
	}
	p.State, p.Lineage = "running", string(b)
	if err := w.store.SetPrint(ctx, *p); err != nil {
		return err
	}
	if now, err := w.store.Print(ctx, p.ID); err != nil || now.State != "running" {
		return errors.Join(err, context.Canceled) // cancelled in the moment before
	}
	w.mu.Lock()
	w.begun[p.ID] = time.Now()
	w.mu.Unlock()
	last := time.Now()
	tell := func(part float64) {
		w.mu.Lock()
		w.progress[p.ID] = part
		w.mu.Unlock()
		if time.Since(last) > 100*time.Millisecond && ctx.Err() == nil {
			last = time.Now()
			w.desk.Printing(p.Project, w.status(*p, doc))
		}
	}
	w.desk.Printing(p.Project, w.status(*p, doc))
	defer func() {
		w.mu.Lock()
		delete(w.progress, p.ID)
		delete(w.begun, p.ID)
		w.mu.Unlock()
	}()
	switch spec.Target {
	case "stems":
		p.Result, err = w.toFiles(ctx, doc, record, spec, p.ID, tell)
	case "file":
		note := record.Note()
		if spec.Out {
			note.Belongs = spec.Mark(doc)
		}
		p.Result, err = w.toFile(ctx, doc, spec, note, p.ID, tell)
	default:
		err = w.toTrack(ctx, doc, record, spec, p, tell)
	}
	if err != nil {
		return err
	}
	p.State = "done"
	if err := w.store.SetPrint(ctx, *p); err != nil {
		return err
	}
	w.desk.Printing(p.Project, w.status(*p, doc))
	return nil
}

func (w *Works) toTrack(
	ctx context.Context,
	doc *project.Project,
	record Record,
	spec Spec,
	p *store.Print,
	tell func(float64),
) error {
	d, err := w.folder.Draft(doc.SampleRate, 2, 32, record.Note())
	if err != nil {
		return err
	}
	defer d.Drop()
	if err := Render(ctx, doc, w.folder, spec, d.Write, tell); err != nil {
		return err
	}
	if err := ctx.Err(); err != nil {
		return err
	}
	sound, err := d.Keep()
	if err != nil {
		return err
	}
	ch, _ := doc.Channel(spec.Channel)
	name := ch.Name + " print"
	if spec.Point.set() {
		name = spec.Point.name(ch.Name)
	}
	if err := w.store.PutAudio(
		ctx,
		sound.Hash,
		name,
		sound.Frames,
		sound.Channels,
		sound.Rate,
		sound.Bits,
		"print",
	); err != nil {
		return err
	}
	p.Result = sound.Hash
	if err := record.keep(w.folder, sound.Hash); err != nil {
		return err
	}
	// a restart between this change and the end of the job must not place the track twice
	return w.desk.Change(ctx, p.Project, p.Author, "Print "+ch.Name, func(newest *project.Project) []project.Change {
		if spec.Point.set() {
			a := project.Audio{Hash: sound.Hash, Name: name, Frames: sound.Frames, Channels: sound.Channels}
			return spec.placed(p.ID, record.Key, newest, a)
		}
		for _, c := range newest.Channels {
			if c.PrintOf != nil && c.PrintOf.Print == p.ID {
				return nil
			}
		}
		return Place(p.ID, spec, sound, record.Key)
	})
}

// printer is who a print is for.
func (w *Works) printer(ctx context.Context, p *store.Print, revision int64) Printer {
	who, err := w.store.Person(ctx, p.Author)
	if err != nil { // the print is made all the same
		slog.Warn("who prints is not known", "print", p.ID, "error", err)
	}
	return Printer{who.Name, revision}
}

func (w *Works) toFile(
	ctx context.Context,
	doc *project.Project,
	spec Spec,
	note *audiofile.Note,
	id string,
	tell func(float64),
) (string, error) {
	ext, _ := Extension(spec.Format)
	name := id + "." + ext
	f, err := os.CreateTemp(w.exports, "*.partial")
	if err != nil {
		return "", fmt.Errorf("begin export: %w", err)
	}
	defer os.Remove(f.Name())
	defer f.Close()
	sink, err := NewFile(f, spec.Format, doc.SampleRate, note, Cues(doc, spec.From, spec.To))
	if err != nil {
		return "", err
	}
	render := Render
	if spec.Out {
		render = renderOut
	}
	if err := render(ctx, doc, w.folder, spec, sink.Write, tell); err != nil {
		return "", err
	}
	if err := sink.Close(); err != nil {
		return "", fmt.Errorf("finish export: %w", err)
	}
	_ = f.Sync()
	return name, os.Rename(f.Name(), filepath.Join(w.exports, name))
}
