package printing

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// Work elsewhere: what comes into a row goes out as a file that says where it belongs, and comes back there.

// Outside is the kind of the record of a sound that was worked on outside.
const Outside = "outside"

func (s Spec) checkOut(ch *project.Channel) error {
	switch {
	case s.Target != "file" || !strings.HasPrefix(s.Format, "wav"):
		return fmt.Errorf("what is worked on elsewhere goes out as a WAV file: only that says where it belongs")
	case ch.Kind != project.Track:
		return fmt.Errorf("only what lies on a track is worked on elsewhere; %s is a %s", ch.Name, ch.Kind)
	}
	for _, id := range s.Clips {
		if !slices.ContainsFunc(ch.Clips, func(x *project.Clip) bool { return x.ID == id }) {
			return project.Gone("the clip")
		}
	}
	return nil
}

// outDocument is the document of which the row's input is what goes out, and whether that enters the row behind its chain.
func (s Spec) outDocument(doc *project.Project) (*project.Project, bool) {
	row, _ := doc.Channel(s.Channel)
	out := *row
	if len(s.Clips) > 0 {
		out.Clips = nil
		for _, x := range row.Clips {
			if slices.Contains(s.Clips, x.ID) {
				out.Clips = append(out.Clips, x)
			}
		}
		out.Input = nil
	}
	behind := len(out.Clips) > 0 && !slices.ContainsFunc(out.Clips, func(x *project.Clip) bool { return x.Enters != project.EntersBehind })
	if behind { // the file is taken before the chain: there they come in
		clips := make([]*project.Clip, len(out.Clips))
		for i, x := range out.Clips {
			y := *x
			y.Enters, clips[i] = "", &y
		}
		out.Clips = clips
	}
	return replaced(doc, row, &out), behind
}

// renderOut renders what goes out.
func renderOut(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, s Spec, write func(src [][]float64) error, progress func(float64),
) error {
	out, _ := s.outDocument(doc)
	lib, err := Library(ctx, out, folder)
	if err != nil {
		return err
	}
	pass := engine.Pass{Points: []project.Tap{{Channel: s.Channel, Point: "input"}}, From: s.From, To: s.To, Tail: s.Tail}
	sides := make([][]float64, 2)
	return engine.Stems(ctx, out, lib, pass, Pages(folder, lib), func(_ int, l, r []float64) error {
		sides[0], sides[1] = l, r
		return write(sides)
	}, progress)
}

// behindMark ends a mark of what enters its row behind the chain.
const behindMark = "b"

// Mark says where a file belongs that goes out: the project, the row, how long it is, and whether it enters behind the
// chain. Empty: there is no room for it.
func (s Spec) Mark(doc *project.Project) string {
	mark := doc.ID + "/" + s.Channel + "/" + strconv.FormatInt(s.To-s.From, 36)
	if _, behind := s.outDocument(doc); behind {
		mark += "/" + behindMark
	}
	if len(mark) > audiofile.MarkLength {
		return ""
	}
	return mark
}

// Belonging is where a file belongs.
type Belonging struct {
	Row    string
	Frames int64 // that went out
	Behind bool
}

// BelongsTo reads the mark of a file; false: it does not belong to the project, or its row has gone.
func BelongsTo(doc *project.Project, mark string) (Belonging, bool) {
	parts := strings.Split(mark, "/")
	if len(parts) < 3 || parts[0] != doc.ID {
		return Belonging{}, false
	}
	ch, ok := doc.Channel(parts[1])
	frames, err := strconv.ParseInt(parts[2], 36, 64)
	return Belonging{parts[1], frames, len(parts) > 3 && parts[3] == behindMark}, ok && ch.Kind == project.Track && err == nil && frames > 0
}

// Landed is the record of a sound that was worked on outside and has come back to a row: it was made from what lies there.
func Landed(doc *project.Project, by Printer, row string, from int64, e audiofile.Entry, folder *audiofile.Folder) error {
	to := from + e.Frames
	made, _ := doc.MakingsUntil(project.Tap{Channel: row, Point: "input"}, to)
	clock := doc.Clock()
	for i, c := range made.Channels {
		d := *c
		d.Clips = slices.DeleteFunc(slices.Clone(c.Clips), func(x *project.Clip) bool { return x.BeginsAt(clock)+x.Frames <= from })
		made.Channels[i] = &d
	}
	return by.of(Outside, doc, Spec{Channel: row, From: from, To: to}, made).keep(folder, e.Hash)
}
