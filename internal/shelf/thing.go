// Package shelf keeps sounds for other projects: what clips were, with their treatments, and some that ship with Shoal.
package shelf

import (
	"fmt"
	"strings"

	"shoal/internal/project"
)

// Kinds of things.
const (
	Sound  = "sound"  // a clip of a recording, or one that ships
	Print  = "print"  // a clip of something that was printed
	Slices = "slices" // several clips, as far from each other as they lay
)

// Thing is what stands on the shelf.
type Thing struct {
	ID   string   `json:"id" required:"true"`
	Kind string   `json:"kind" required:"true" enum:"sound,print,slices"`
	Name string   `json:"name" required:"true"`
	Says string   `json:"says" required:"true"` // what it is, in a sentence
	Tags []string `json:"tags" required:"true"`
	// Pitch is the note it sounds, where it has one.
	Pitch string `json:"pitch,omitempty"`
	// Tempo is that of the song it was taken from, in quarters a minute; 0: it has none.
	Tempo   float64 `json:"tempo,omitempty"`
	Shipped bool    `json:"shipped" required:"true"`
	// From says where it came from.
	From From `json:"from" required:"true"`
	// Heard is the sound by which it is heard and drawn by itself: with its treatment, as it lies.
	Heard  string `json:"heard" required:"true"`
	Frames int64  `json:"frames" required:"true"` // of Heard
	// Kept is what comes of it on a row.
	Kept project.Copied `json:"kept" required:"true"`
}

// From is where a thing came from.
type From struct {
	Project string `json:"project,omitempty"` // names, as they were
	Row     string `json:"row,omitempty"`
	Author  string `json:"author,omitempty"`
	Time    string `json:"time,omitempty"` // RFC 3339
}

// Check refuses words that do not do, and says why.
func (t *Thing) Check() error {
	t.Name, t.Says = strings.TrimSpace(t.Name), strings.TrimSpace(t.Says)
	if err := project.CheckWords("what stands on the shelf", t.Name, t.Says, t.Tags); err != nil {
		return err
	}
	if t.Tags == nil {
		t.Tags = []string{}
	}
	return nil
}

// New takes clips of a project for the shelf, as they lie: the first of them in front. What mutes them there, or lets
// them in behind a chain, stays there.
func New(doc *project.Project, ids []string) (*Thing, error) {
	if len(ids) == 0 {
		return nil, fmt.Errorf("select clips to put on the shelf")
	}
	kept, err := doc.CopyClips(ids)
	if err != nil {
		return nil, err
	}
	t := &Thing{ID: project.NewID(), Kind: kindOf(doc, ids), From: From{Project: doc.Name}, Kept: kept}
	for i := range t.Kept.Clips {
		x := &t.Kept.Clips[i].Clip
		if t.Kept.Clips[i].By == 0 && t.Name == "" {
			row, _, _ := doc.RowOfClip(x.ID)
			clock := doc.Clock()
			t.Name, t.From.Row, t.Tempo = x.Name, row.Name, clock.Tempo(x.BeginsAt(clock))
		}
		x.Enters, x.Made, x.Mute = "", nil, false
	}
	return t, nil
}

// kindOf says what clips are together.
func kindOf(doc *project.Project, ids []string) string {
	if len(ids) > 1 {
		return Slices
	}
	row, x, ok := doc.RowOfClip(ids[0])
	if ok && (x.Made != nil || x.Enters != "" || row.PrintOf != nil) {
		return Print
	}
	return Sound
}

// Put is what puts a thing down on a track at a song frame. Its frames must be those of the project: see At.
func (t *Thing) Put(row string, at int64, snap project.Snap) *project.PasteClips {
	return &project.PasteClips{Row: row, At: at, Snap: snap, Copied: t.Kept}
}
