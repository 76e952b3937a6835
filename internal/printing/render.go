// Package printing turns channels into audio: print jobs that survive a
// restart, exports to files, and the lineage of what was made.
package printing

import (
	"context"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/working"
)

// Spec says what to print and what becomes of it.
type Spec struct {
	Channel string `json:"channel" required:"true"` // id; the main channel's id for the main output
	From    int64  `json:"from" required:"true"`    // song frames
	To      int64  `json:"to" required:"true"`
	Tail    bool   `json:"tail" required:"true"`
	Target  string `json:"target" required:"true" enum:"track,file,stems"`
	Format  string `json:"format,omitempty" enum:"wav16,wav16shaped,wav24,wav32f,flac16,flac16shaped,flac24"` // of a file
	Mute    bool   `json:"mute"`                                                                              // mute the source of a new track
	Stems   *Stems `json:"stems,omitempty"`                                                                   // several files at once
	// Out is for work elsewhere: what comes into the row before its chain, with a mark of where it belongs; with Clips only
	// these of it.
	Out   bool     `json:"out,omitempty"`
	Clips []string `json:"clips,omitempty"`
	// Point is what is printed to a new track in place of the row behind its chain.
	Point Point `json:"point"`
}

// Check refuses a spec that makes no sense for a document.
func (s Spec) Check(doc *project.Project) error {
	ch, ok := doc.Channel(s.Channel)
	if !ok {
		return fmt.Errorf("the row to print does not exist")
	}
	if s.From < 0 || s.To <= s.From {
		return fmt.Errorf("the range to print is empty: it goes from frame %d to %d", s.From, s.To)
	}
	if limit := int64(doc.SampleRate) * 3600 * 4; s.To-s.From > limit {
		return fmt.Errorf("the range to print is longer than four hours")
	}
	if s.Out {
		if err := s.checkOut(ch); err != nil {
			return err
		}
	}
	switch s.Target {
	case "track":
		if s.Point.set() {
			_, _, err := s.source(doc)
			return err
		}
		if ch.Kind != project.Track {
			return fmt.Errorf("only a track is printed to a new track; %s is the %s output", ch.Name, ch.Kind)
		}
	case "file":
		if _, ok := formats[s.Format]; !ok {
			return unknownFormat(s.Format)
		}
	case "stems":
		if _, ok := formats[s.Format]; !ok {
			return unknownFormat(s.Format)
		}
		if s.Stems == nil {
			return fmt.Errorf("choose the rows that are to become files")
		}
		return s.Stems.check(doc, s.Format)
	default:
		return fmt.Errorf("unknown target %q: it must be track, file or stems", s.Target)
	}
	return nil
}

// Cues are the sections of a song that lie in a range.
func Cues(doc *project.Project, from, to int64) []audiofile.Cue {
	var cues []audiofile.Cue
	clock := doc.Clock()
	for _, s := range doc.Sections {
		if f := clock.Frame(s.Tick); f >= from && f < to {
			cues = append(cues, audiofile.Cue{Frame: f - from, Name: s.Name})
		}
	}
	return cues
}

// Pages loads pages for an offline render from the audio folder.
func Pages(folder *audiofile.Folder, lib *pages.Library) engine.Loader {
	return working.Pages(folder, lib)
}

// Library is an empty one for rendering a document: what clips need worked out is worked out first.
func Library(ctx context.Context, doc *project.Project, folder *audiofile.Folder) (*pages.Library, error) {
	if err := working.All(ctx, doc, folder, nil); err != nil {
		return nil, err
	}
	return pages.New(working.Room(doc)).AllWorked(), nil
}

// Render prints into a sink. What clips need worked out is worked out first.
func Render(
	ctx context.Context,
	doc *project.Project,
	folder *audiofile.Folder,
	spec Spec,
	write func(src [][]float64) error,
	progress func(float64),
) error {
	doc, spec, err := spec.source(doc)
	if err != nil {
		return err
	}
	lib, err := Library(ctx, doc, folder)
	if err != nil {
		return err
	}
	return RenderFrom(ctx, doc, lib, Pages(folder, lib), spec, write, progress)
}

// RenderFrom prints into a sink what somebody else brings the audio of.
func RenderFrom(
	ctx context.Context,
	doc *project.Project,
	lib *pages.Library,
	load engine.Loader,
	spec Spec,
	write func(src [][]float64) error,
	progress func(float64),
) error {
	job := engine.Job{Channel: spec.Channel, From: spec.From, To: spec.To, Tail: spec.Tail}
	src := make([][]float64, 2)
	return engine.Offline(ctx, doc, lib, job, load, func(l, r []float64) error {
		src[0], src[1] = l, r
		return write(src)
	}, progress)
}
