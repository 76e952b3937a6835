package printing

import (
	"context"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/gentle"
	"shoal/internal/onset"
	"shoal/internal/project"
	"shoal/internal/working"
)

// Mark is a place in a clip at which it could be cut.
type Mark struct {
	At       int64   `json:"at" required:"true"`       // song frame
	Strength float64 `json:"strength" required:"true"` // 0 to 1: how much it stands out; of a grid always 1
}

// MarkSpec says which places of a clip are asked for.
type MarkSpec struct {
	Clip string `json:"clip" required:"true"`
	By   string `json:"by" required:"true" enum:"onsets,grid,sections"`
	Grid int64  `json:"grid,omitempty"` // ticks
}

// Marks are places at which a clip could be cut: where sounds begin in it, where the grid lies, where sections begin.
type Marks struct {
	Marks []Mark `json:"marks" required:"true"`
	// Usual is the strength from which on an onset counts where nobody says how many are wanted.
	Usual float64 `json:"usual" required:"true"`
}

// firstSlice is how short the first slice may be: so many fit into a second.
const firstSlice = 50

// maxMarks is how many slices a clip is cut into at most.
const maxMarks = 2000

// FindMarks finds them.
func FindMarks(ctx context.Context, doc *project.Project, folder *audiofile.Folder, s MarkSpec) (Marks, error) {
	x, ok := doc.ClipByID(s.Clip)
	if !ok {
		return Marks{}, project.Gone("the clip")
	}
	out := Marks{Marks: []Mark{}, Usual: onset.Usual}
	clock := doc.Clock()
	start := x.BeginsAt(clock)
	inside := func(at int64, strength float64) {
		if at > start && at < start+x.Frames && len(out.Marks) < maxMarks {
			out.Marks = append(out.Marks, Mark{at, strength})
		}
	}
	switch s.By {
	case "sections":
		for _, sec := range doc.Sections {
			inside(clock.Frame(sec.Tick), 1)
		}
	case "grid":
		if s.Grid < 30 {
			return Marks{}, fmt.Errorf("a grid of %d ticks is too fine to cut at: choose one from a 128th on", s.Grid)
		}
		first := (int64(clock.Tick(start))/s.Grid + 1) * s.Grid
		for tick := first; clock.Frame(tick) < start+x.Frames && len(out.Marks) < maxMarks; tick += s.Grid {
			inside(clock.Frame(tick), 1)
		}
	case "onsets":
		found, err := gentle.Do(func() ([]onset.Onset, error) { return onsetsOf(ctx, doc, folder, x) })
		if err != nil {
			return Marks{}, err
		}
		for _, o := range found {
			if o.Frame-x.Offset > int64(doc.SampleRate)/firstSlice { // with what begins there the clip begins
				inside(o.Frame-x.Offset+start, o.Strength)
			}
		}
	default:
		return Marks{}, fmt.Errorf("%q: a clip is cut at onsets, at the grid or at sections", s.By)
	}
	return out, nil
}

// beginnings are the places of a sound at which something begins that stands out, in song frames: its own begin is none.
func beginnings(sides [][]float64, rate int, from int64) (at []int64) {
	for _, o := range onset.Find(sides, float64(rate)) {
		if o.Strength >= onset.Usual && o.Frame > int64(rate)/firstSlice && o.Frame < int64(len(sides[0])) && len(at) < maxMarks {
			at = append(at, from+o.Frame)
		}
	}
	return at
}

// onsetsOf finds the onsets of what a clip shows, of its source or of what was worked out, in frames as the clip counts
// them.
func onsetsOf(ctx context.Context, doc *project.Project, folder *audiofile.Folder, x *project.Clip) ([]onset.Onset, error) {
	if w, _ := engine.WorkOf(doc, x, doc.Clock()); w != nil {
		return onsetsOfWork(ctx, doc, folder, x, w)
	}
	sides, err := folder.Sides(x.Audio, x.Offset, x.Offset+x.Frames)
	if err != nil {
		return nil, fmt.Errorf("read the sound of %s: %w", x.Name, err)
	}
	list := onset.Find(sides, float64(doc.SampleRate))
	for i := range list {
		list[i].Frame += x.Offset
	}
	return list, nil
}

// onsetsOfWork finds the onsets of what was worked out for a clip.
func onsetsOfWork(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, x *project.Clip, w *engine.Work,
) ([]onset.Onset, error) {
	if err := working.Out(ctx, doc, folder, w, nil); err != nil {
		return nil, err
	}
	from := x.Offset - w.From + w.Lead
	sides, err := folder.Sides(w.Key, from, from+x.Frames)
	if err != nil {
		return nil, fmt.Errorf("read what was worked out for %s: %w", x.Name, err)
	}
	list := onset.Find(sides, float64(doc.SampleRate))
	for i := range list {
		list[i].Frame += x.Offset
	}
	return list, nil
}
