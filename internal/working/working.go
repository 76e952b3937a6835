// Package working works out what needs the whole of a piece before it can be played: everything of its treatment up to
// the last whole-sound step. What comes of it is a cache in the audio folder, named by a key over all that it depends on.
package working

import (
	"context"
	"fmt"
	"math"
	"slices"
	"sync"

	"shoal/internal/audiofile"
	"shoal/internal/effect"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/stretch"
)

// Longest is how long a piece can be worked out, in seconds: all of it is held at once.
const Longest = 600

// Needed lists what must be worked out for a document, once each: first what clips play, then what is printed of rows.
func Needed(doc *project.Project) (list []Need) {
	list = ofClips(doc)
	for _, row := range doc.Channels {
		if w := engine.WaterlineOf(doc, row); w != nil {
			list = append(list, Need{Key: w.Key, line: w, whenAsked: row.PrintWhenAsked})
		}
	}
	return list
}

// ofClips lists what clips play, with the clips that do.
func ofClips(doc *project.Project) (list []Need) {
	clock := doc.Clock()
	at := map[string]int{}
	for _, row := range doc.Channels {
		for _, x := range row.Clips {
			w, _ := engine.WorkOf(doc, x, clock)
			if w == nil {
				continue
			}
			i, ok := at[w.Key]
			if !ok {
				i = len(list)
				at[w.Key] = i
				list = append(list, Need{Key: w.Key, work: w, whenAsked: doc.WorkWhenAsked})
			}
			list[i].Clips = append(list[i].Clips, x.ID)
		}
	}
	return list
}

// Need is something to be worked out: for the clips that play it, or of a row as far as its line.
type Need struct {
	Key       string
	Clips     []string
	work      *engine.Work
	line      *engine.Waterline
	whenAsked bool
}

// out works it out, unless it is there.
func (n Need) out(ctx context.Context, doc *project.Project, folder *audiofile.Folder, progress func(float64)) error {
	if n.line != nil {
		return Print(ctx, doc, folder, n.line, progress)
	}
	return Out(ctx, doc, folder, n.work, progress)
}

// There are the keys of what a document needs, as far as it has been worked out.
func There(doc *project.Project, folder *audiofile.Folder) []string {
	keys := []string{}
	for _, n := range Needed(doc) {
		if folder.HasWorked(n.Key) {
			keys = append(keys, n.Key)
		}
	}
	return keys
}

// All works out what the clips of a document need and is not there yet.
func All(ctx context.Context, doc *project.Project, folder *audiofile.Folder, progress func(float64)) error {
	return outAll(ctx, doc, folder, ofClips(doc), progress)
}

// Everything works out all that a document needs and is not there yet, what is printed of rows too.
func Everything(ctx context.Context, doc *project.Project, folder *audiofile.Folder) error {
	return outAll(ctx, doc, folder, Needed(doc), nil)
}

func outAll(ctx context.Context, doc *project.Project, folder *audiofile.Folder, list []Need, progress func(float64)) error {
	for i, n := range list {
		if err := n.out(ctx, doc, folder, engine.PartOf(progress, i, len(list))); err != nil {
			return err
		}
	}
	return nil
}

// running are the keys that are being worked out, so that nobody does it twice at once.
var running sync.Map // string to *sync.Mutex

// alone waits until nobody else works a key out; what it returns lets others.
func alone(key string) func() {
	lock, _ := running.LoadOrStore(key, &sync.Mutex{})
	lock.(*sync.Mutex).Lock()
	return lock.(*sync.Mutex).Unlock
}

// Out works one out, unless it is there. Nothing half-done is ever left.
func Out(ctx context.Context, doc *project.Project, folder *audiofile.Folder, w *engine.Work, progress func(float64)) error {
	defer alone(w.Key)()
	if folder.HasWorked(w.Key) {
		return nil
	}
	if most := max(w.To-w.From, w.Frames()); most > Longest*int64(w.Rate) {
		return fmt.Errorf("the piece is %.0f minutes long: up to %d minutes can be worked out at once; cut it first",
			float64(most)/float64(w.Rate)/60, Longest/60)
	}
	sides, err := folder.Sides(w.Source, w.From, w.To)
	if err != nil {
		return err
	}
	for i := range w.Steps {
		if sides, err = step(ctx, doc, folder, w, &w.Steps[i], sides, engine.PartOf(progress, i, len(w.Steps))); err != nil {
			return err
		}
	}
	if len(sides) != w.Channels || int64(len(sides[0])) != w.Frames() {
		return fmt.Errorf("a mistake of Shoal's: %d frames were to be worked out, and there are %d", w.Frames(), len(sides[0]))
	}
	return keep(ctx, folder, w, sides)
}

// step does one step.
func step(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, w *engine.Work, s *engine.WorkStep, sides [][]float64,
	progress func(float64),
) ([][]float64, error) {
	if s.Chain != nil {
		return run(ctx, doc, folder, w, s, sides, progress)
	}
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	rate := float64(w.Rate)
	how := stretch.How{Progress: progress}
	switch s.Effect {
	case project.Backwards:
		out := make([][]float64, len(sides))
		for c := range sides {
			out[c] = slices.Clone(sides[c])
			slices.Reverse(out[c])
		}
		return out, nil
	case project.PitchStep:
		how.Formants, how.Character = s.Values[2] != 0, stretch.Character(s.Values[3])
		return stretch.Pitch(ctx, sides, rate, effect.PitchRatio(s.Values), how)
	case project.LengthStep:
		if s.Values[3] != 0 {
			return stretch.Speed(ctx, sides, s.Map)
		}
		how.Character = stretch.Character(s.Values[4])
		return stretch.Length(ctx, sides, rate, s.Map, how)
	}
	return nil, fmt.Errorf("there is no whole-sound step %q", s.Effect)
}

// input names what a running chain gets.
const input = "the piece so far"

// run sends a sound through a chain, with its tail.
func run(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, w *engine.Work, s *engine.WorkStep, sides [][]float64,
	progress func(float64),
) ([][]float64, error) {
	frames := int64(len(sides[0]))
	clip := &project.Clip{ID: "piece", Name: "Piece", Audio: input, Frames: frames, Exact: true}
	p := engine.PieceDocument(doc, w.Tempo, *s.Chain, clip)
	p.Audio = append(slices.Clone(doc.Audio), project.Audio{Hash: input, Name: "Piece", Frames: frames, Channels: len(sides)})
	lib := pages.New(0).AllWorked()
	load := func(_ context.Context, need []pages.Missing) error {
		for _, m := range need {
			page, err := pageOf(folder, m, sides)
			if err != nil {
				return err
			}
			lib.Put(m.Hash, m.Page, page)
		}
		return nil
	}
	out := [][]float64{make([]float64, 0, frames+s.Tail), make([]float64, 0, frames+s.Tail)}
	job := engine.Job{Channel: p.Channels[0].ID, To: frames + s.Tail}
	err := engine.Offline(ctx, p, lib, job, load, func(l, r []float64) error {
		out[0], out[1] = append(out[0], l...), append(out[1], r...)
		return nil
	}, progress)
	return out, err
}

func pageOf(folder *audiofile.Folder, m pages.Missing, sides [][]float64) (pages.Page, error) {
	if m.Hash != input {
		return folder.Page(m.Hash, m.Page, pages.Frames)
	}
	from := m.Page * pages.Frames
	to := min(from+pages.Frames, len(sides[0]))
	page := make(pages.Page, len(sides))
	for c := range sides {
		page[c] = make([]float32, to-from)
		for i, v := range sides[c][from:to] {
			page[c][i] = float32(v)
		}
	}
	return page, nil
}

// keep writes what was worked out.
func keep(ctx context.Context, folder *audiofile.Folder, w *engine.Work, sides [][]float64) error {
	d, err := folder.Draft(w.Rate, len(sides), 32, nil)
	if err != nil {
		return err
	}
	defer d.Drop()
	for c := range sides {
		for i, v := range sides[c] {
			if math.IsNaN(v) || math.IsInf(v, 0) {
				sides[c][i] = 0
			}
		}
	}
	block := make([][]float64, len(sides))
	for at := 0; at < len(sides[0]); at += 1 << 16 {
		for c := range sides {
			block[c] = sides[c][at:min(at+1<<16, len(sides[c]))]
		}
		if err := d.Write(block); err != nil {
			return fmt.Errorf("keep what was worked out: %w", err)
		}
	}
	if err := ctx.Err(); err != nil {
		return err
	}
	return d.KeepWorked(w.Key)
}
