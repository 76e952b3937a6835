package printing

import (
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// Kinds of records.
const (
	OfFile    = "file"      // a row or the main output was written to a file
	OfRow     = "row"       // a row was printed to a new track
	OfPoint   = "point"     // one point of a row's signal, or what comes back of it
	InItsRow  = "place"     // clips were printed where they stood, through their row
	Permanent = "permanent" // what the treatments of clips make of them
)

// Record is where a sound that was printed comes from: it lies beside the sound, and goes with it into bundles.
type Record struct {
	Kind     string   `json:"kind"`
	Project  string   `json:"project"`
	Revision int64    `json:"revision"`
	Channel  string   `json:"channel"`
	Row      string   `json:"row"` // the channel's name then
	Clips    []string `json:"clips,omitempty"`
	From     int64    `json:"from"` // song frames
	To       int64    `json:"to"`
	Tail     bool     `json:"tail,omitempty"`
	By       string   `json:"by,omitempty"` // a person's name
	At       string   `json:"at"`           // RFC 3339
	Key      string   `json:"key,omitempty"`
	Input    string   `json:"input,omitempty"` // what it was recorded from, in words
	Point    Point    `json:"point"`           // where its signal was taken
	// Made is all that it was made from, and nothing else of the project.
	Made *project.Project `json:"made"`
}

// Printer is who prints, and at which revision.
type Printer struct {
	Name     string
	Revision int64
}

// kind is the kind of record that a spec's print has.
func (s Spec) kind() string {
	switch {
	case s.Point.set():
		return OfPoint
	case s.Target == "track":
		return OfRow
	}
	return OfFile
}

// NewRecord notes what is rendered of a row behind its chain, or, as it is heard, of its output: the main output is.
func NewRecord(doc *project.Project, by Printer, spec Spec, kind string, heard bool) Record {
	at := project.Tap{Channel: spec.Channel, Point: "pre"}
	if heard || spec.Channel == doc.MainChannel().ID {
		at.Point = "post"
	}
	if spec.Point.set() {
		made, _ := project.Origin{Channel: spec.Channel, Tap: spec.Point.Tap, Share: spec.Point.Share, To: spec.To}.Makings(doc)
		return by.of(kind, doc, spec, made)
	}
	made, _ := doc.MakingsUntil(at, spec.To)
	return by.of(kind, doc, spec, made)
}

// of makes a record of makings.
func (p Printer) of(kind string, doc *project.Project, spec Spec, made project.Makings) Record {
	ch, _ := doc.Channel(spec.Channel)
	return Record{
		Kind: kind, Project: doc.Name, Revision: p.Revision, Channel: ch.ID, Row: ch.Name, From: spec.From, To: spec.To, Tail: spec.Tail,
		By: p.Name, At: time.Now().UTC().Format(time.RFC3339), Key: made.Key(engine.EffectInfo), Made: made.Project, Point: spec.Point,
	}
}

// Words tells it in one line, for a file's coding history.
func (r Record) Words() string {
	s := fmt.Sprintf("%s, %s revision %d, frames %d to %d", r.Row, r.Project, r.Revision, r.From, r.To)
	if r.Input != "" {
		s += ", recorded from " + r.Input
	}
	if r.By != "" {
		s += ", by " + r.By
	}
	ch, ok := r.Made.Channel(r.Channel)
	if !ok || len(ch.Chain.Nodes) == 0 {
		return s + ": no stages\r\n"
	}
	var names []string
	for _, n := range ch.Chain.Nodes {
		name := nodeName(n)
		if n.Stage != nil && n.Stage.Bypass || n.Fork != nil && n.Fork.Bypass || ch.Chain.Bypass {
			name = "(" + name + ")"
		}
		names = append(names, name)
	}
	s += ": " + strings.Join(names, " > ")
	for _, x := range []struct {
		n    int
		what string
	}{{len(r.Made.Lines), "lines"}, {len(r.Made.Movers), "movers"}, {len(r.Made.Passages), "passages"}} {
		if x.n > 0 {
			s += fmt.Sprintf("; %d %s", x.n, x.what)
		}
	}
	return s + "\r\n"
}

// Note is it as a file carries it: in words, and as JSON.
func (r Record) Note() *audiofile.Note {
	n := &audiofile.Note{Description: r.Row, Originator: "Shoal", Reference: r.From, History: r.Words()}
	if at, err := time.Parse(time.RFC3339, r.At); err == nil {
		n.Date, n.Time = at.Format("2006-01-02"), at.Format("15:04:05")
	}
	n.JSON, _ = json.Marshal(r)
	return n
}

// keep writes it beside its sound.
func (r Record) keep(folder *audiofile.Folder, hash string) error {
	b, err := json.Marshal(r)
	if err != nil {
		return err
	}
	return folder.PutLineage(hash, b)
}

// RecordOf reads where a sound comes from; false: nothing is known of it, as of what was imported.
func RecordOf(folder *audiofile.Folder, hash string) (Record, bool, error) {
	b, ok := folder.Lineage(hash)
	if !ok {
		return Record{}, false, nil
	}
	r, err := readRecord(b)
	if err != nil {
		return Record{}, false, fmt.Errorf("read where the sound %.12s comes from: %w", hash, err)
	}
	return r, true, nil
}

// CheckRecord refuses what is no record.
func CheckRecord(b []byte) error {
	_, err := readRecord(b)
	return err
}

func readRecord(b []byte) (r Record, err error) {
	if err := json.Unmarshal(b, &r); err != nil {
		return r, err
	}
	if r.Made == nil {
		return r, fmt.Errorf("it does not say what it was made from")
	}
	return r, r.Made.Whole()
}
