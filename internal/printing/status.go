package printing

import (
	"context"
	"encoding/json"
	"path/filepath"
	"time"

	"shoal/internal/project"
	"shoal/internal/store"
)

// Status is how a print stands, for those who watch it.
type Status struct {
	ID       string  `json:"id" required:"true"`
	Author   string  `json:"author" required:"true"`
	Channel  string  `json:"channel" required:"true"`
	Target   string  `json:"target" required:"true"`
	State    string  `json:"state" required:"true" enum:"waiting,running,done,failed,cancelled"`
	Progress float64 `json:"progress" required:"true"`
	Error    string  `json:"error,omitempty"`
	Name     string  `json:"name" required:"true"`
	File     string  `json:"file,omitempty"` // name under which an export can be fetched
	Created  string  `json:"created" required:"true"`
	// Left is about how many seconds it still takes; 0: nobody knows.
	Left float64 `json:"left,omitempty"`
	// Files are those that stems have become, besides the one that holds them all.
	Files []string `json:"files,omitempty"`
}

// List gives a project's newest prints.
func (w *Works) List(ctx context.Context, projectID string) ([]Status, error) {
	doc, _, err := w.desk.Document(ctx, projectID)
	if err != nil {
		return nil, err
	}
	prints, err := w.store.Prints(ctx, projectID, 50)
	if err != nil {
		return nil, err
	}
	list := []Status{}
	for _, p := range prints {
		list = append(list, w.status(p, doc))
	}
	return list, nil
}

// File gives the path of an exported file and the name it should be saved under.
func (w *Works) File(ctx context.Context, id string) (path, name string, err error) {
	p, err := w.store.Print(ctx, id)
	if err != nil {
		return "", "", err
	}
	if p.State != "done" || p.Result == "" {
		return "", "", store.ErrNone
	}
	var spec Spec
	if err := json.Unmarshal([]byte(p.Spec), &spec); err != nil || spec.Target == "track" {
		return "", "", store.ErrNone
	}
	doc, _, err := w.desk.Document(ctx, p.Project)
	if err != nil {
		return "", "", err
	}
	ext, _ := Extension(spec.Format)
	if spec.Target == "stems" {
		ext = "zip"
	}
	return filepath.Join(w.exports, p.Result), FileName(w.status(p, doc).Name) + "." + ext, nil
}

func (w *Works) status(p store.Print, doc *project.Project) Status {
	var spec Spec
	_ = json.Unmarshal([]byte(p.Spec), &spec)
	s := Status{
		ID:      p.ID,
		Author:  p.Author,
		Channel: spec.Channel,
		Target:  spec.Target,
		State:   p.State,
		Error:   p.Error,
		Created: p.Created,
		Name:    doc.Name,
	}
	if spec.Stems != nil {
		s.Name = doc.Name + " - stems"
	} else if ch, ok := doc.Channel(spec.Channel); ok {
		s.Name = doc.Name + " - " + ch.Name
		if spec.Out {
			s.Name += ", to work on"
		}
	}
	w.mu.Lock()
	s.Progress = w.progress[p.ID]
	if begun, ok := w.begun[p.ID]; ok && s.Progress > enoughToTell {
		s.Left = time.Since(begun).Seconds() * (1 - s.Progress) / s.Progress
	}
	w.mu.Unlock()
	if p.State == "done" {
		s.Progress = 1
		if spec.Target != "track" {
			s.File = p.ID
		}
		if spec.Stems != nil {
			s.Files = w.filesOf(p.Result)
		}
	}
	return s
}

// enoughToTell is the part of a print that must be done before it is said how long the rest takes.
const enoughToTell = 0.03
