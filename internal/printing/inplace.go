package printing

import (
	"context"
	"fmt"
	"slices"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/gentle"
	"shoal/internal/project"
)

// PlaceSpec says which clips are printed where they stand: with a range only what lies inside it; Empty takes the stages
// of their row away then.
type PlaceSpec struct {
	Clips  []string           `json:"clips" required:"true"`
	Within *project.ClipRange `json:"within,omitempty"`
	Empty  bool               `json:"empty,omitempty"`
	Level  Level              `json:"level"`
	// Slice cuts prints where sounds begin in them.
	Slice bool `json:"slice,omitempty"`
}

// InPlace prints clips where they stand: what of them comes out of their row's chain, with its tail, and returns what
// puts that in their place, behind the chain. With a range they are cut at its ends first, and only what lies inside is
// printed. Clips of several rows are printed row by row. keep is told of every sound that has come into the folder.
func InPlace(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, by Printer, spec PlaceSpec,
	keep func(audiofile.Entry, string) error, progress func(float64),
) ([]project.Change, error) {
	var rows []*project.Channel
	ids, within := spec.Clips, spec.Within
	for _, id := range ids {
		if _, ok := doc.ClipByID(id); !ok {
			return nil, project.Gone("the clip")
		}
	}
	if err := spec.Level.check(); err != nil {
		return nil, err
	}
	asked := ids
	if within != nil {
		var err error
		if doc, ids, err = project.CutOut(doc, ids, *within, engine.EffectInfo); err != nil {
			return nil, err
		}
	}
	for _, ch := range doc.Channels {
		if slices.ContainsFunc(ch.Clips, func(x *project.Clip) bool { return slices.Contains(ids, x.ID) }) {
			rows = append(rows, ch)
		}
	}
	if len(rows) == 0 {
		return nil, fmt.Errorf("select the clips that are to be printed")
	}
	return gentle.Do(func() ([]project.Change, error) {
		var list []project.Change
		for i, row := range rows {
			c, cuts, err := inPlace(ctx, doc, folder, by, row, ids, spec, keep, engine.PartOf(progress, i, len(rows)))
			if err != nil {
				return nil, fmt.Errorf("print on %s: %w", row.Name, err)
			}
			c.Empty = spec.Empty
			if c.Within = within; within != nil { // their parts have other ids by then
				c.Clips = slices.DeleteFunc(slices.Clone(asked), func(id string) bool {
					return !slices.ContainsFunc(row.Clips, func(x *project.Clip) bool { return x.ID == id })
				})
			}
			list = append(list, c)
			if len(cuts) > 0 {
				list = append(list, &project.SplitClips{IDs: []string{c.ID}, At: cuts})
			}
		}
		return list, nil
	})
}

func inPlace(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, by Printer, row *project.Channel, ids []string,
	how PlaceSpec, keep func(audiofile.Entry, string) error, progress func(float64),
) (c *project.PrintClips, cuts []int64, err error) {
	only, clips, spec := onlyClips(doc, row, ids)
	made, ok := doc.Remade(row.ID, doc.MadeFrom(clips, 0))
	if !ok {
		return nil, nil, project.Gone("the row")
	}
	record := by.of(InItsRow, doc, spec, made)
	d, err := folder.Draft(doc.SampleRate, 2, 32, record.Note())
	if err != nil {
		return nil, nil, err
	}
	defer d.Drop()
	sides, err := rendered(ctx, only, folder, spec, progress)
	if err != nil {
		return nil, nil, err
	}
	if seams(doc, row, ids) {
		if sides, err = whatTheyAdd(ctx, doc, folder, row, ids, spec, len(sides[0])); err != nil {
			return nil, nil, err
		}
	}
	gain, err := how.Level.gain(ctx, only, folder, spec, sides)
	if err != nil {
		return nil, nil, err
	}
	if err := d.Write(sides); err != nil {
		return nil, nil, err
	}
	if err := ctx.Err(); err != nil {
		return nil, nil, err
	}
	e, err := d.Keep()
	if err != nil {
		return nil, nil, err
	}
	a := project.Audio{Hash: e.Hash, Name: project.ShortName(printedName(row, clips[0])), Frames: e.Frames, Channels: e.Channels}
	if err := keep(e, a.Name); err != nil {
		return nil, nil, err
	}
	c = &project.PrintClips{ID: project.NewID(), Audio: a, Start: spec.From, Key: record.Key, Gain: gain}
	for _, x := range clips {
		c.Clips = append(c.Clips, x.ID)
	}
	record.Clips = c.Clips
	if how.Slice {
		cuts = beginnings(sides, doc.SampleRate, spec.From)
	}
	return c, cuts, record.keep(folder, e.Hash)
}

// rendered renders what a document has, on two sides.
func rendered(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, spec Spec, progress func(float64),
) ([][]float64, error) {
	sides := [][]float64{nil, nil}
	err := Render(ctx, doc, folder, spec, func(src [][]float64) error {
		if len(sides[0])+len(src[0]) > longestInPlace*doc.SampleRate {
			return fmt.Errorf("it lasts more than %d minutes: print the row to a new track instead", longestInPlace/60)
		}
		for c := range sides {
			sides[c] = append(sides[c], src[c]...)
		}
		return nil
	}, progress)
	if err == nil && len(sides[0]) == 0 {
		err = fmt.Errorf("nothing comes out of it")
	}
	return sides, err
}

// longestInPlace is how many seconds are printed in place at most: all of them are held at once.
const longestInPlace = 600

// seams reports whether the clips that stay would begin or end otherwise without those that are printed: where one
// sound goes on in the next, or one covers or crosses the other.
func seams(doc *project.Project, row *project.Channel, ids []string) bool {
	clock := doc.Clock()
	stay := without(row, ids)
	var before []project.Laid
	for _, x := range doc.Laid(row, clock) {
		if !slices.Contains(ids, x.Clip.ID) {
			before = append(before, x)
		}
	}
	after := doc.Laid(stay, clock)
	return !slices.EqualFunc(before, after, func(a, b project.Laid) bool {
		return a.Clip.ID == b.Clip.ID && a.From == b.From && a.To == b.To && a.In == b.In && a.Out == b.Out
	})
}

func without(row *project.Channel, ids []string) *project.Channel {
	stay := *row
	stay.Clips = slices.DeleteFunc(slices.Clone(row.Clips), func(x *project.Clip) bool { return slices.Contains(ids, x.ID) })
	return &stay
}

// whatTheyAdd is what clips add to their row beside those that stay: what is heard with them less what is heard without.
// So both together are what was heard, also where the edges of those that stay change.
func whatTheyAdd(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, row *project.Channel, ids []string, spec Spec, frames int,
) ([][]float64, error) {
	spec.Tail, spec.To = false, spec.From+int64(frames)
	sides, err := rendered(ctx, doc, folder, spec, nil)
	if err != nil {
		return nil, err
	}
	less, err := rendered(ctx, replaced(doc, row, without(row, ids)), folder, spec, nil)
	if err != nil {
		return nil, err
	}
	for c := range sides {
		for i := range sides[c] {
			sides[c][i] -= less[c][i]
		}
	}
	return sides, nil
}

// replaced is a document with another row in the place of one. It shares everything else.
func replaced(doc *project.Project, row, by *project.Channel) *project.Project {
	p := *doc
	p.Channels = slices.Clone(doc.Channels)
	p.Channels[slices.Index(doc.Channels, row)] = by
	return &p
}

// onlyClips is a document in which a row holds nothing but some of its clips, and what of it has to be rendered.
func onlyClips(doc *project.Project, row *project.Channel, ids []string) (*project.Project, []*project.Clip, Spec) {
	clock := doc.Clock()
	bare := *row
	bare.Clips = nil
	spec := Spec{Channel: row.ID, From: -1, Tail: true}
	for _, x := range row.Clips {
		if !slices.Contains(ids, x.ID) {
			continue
		}
		bare.Clips = append(bare.Clips, x)
		if begin := x.BeginsAt(clock); spec.From < 0 || begin < spec.From {
			spec.From = begin
		}
		spec.To = max(spec.To, x.BeginsAt(clock)+x.Frames)
	}
	bare.Input = nil // what else comes into the row is no part of the clips
	return replaced(doc, row, &bare), bare.Clips, spec
}

// printedName is what a print in place is called: by its first clip, its row's last stage, and how often that was done.
func printedName(row *project.Channel, x *project.Clip) string {
	round := 1
	for m := x.Made; m != nil && len(m.Clips) > 0; m = m.Clips[0].Made {
		round++
	}
	base := x.Name
	for m := x.Made; m != nil && len(m.Clips) > 0; m = m.Clips[0].Made {
		base = m.Clips[0].Name
	}
	last := "print"
	if n := len(row.Chain.Nodes); n > 0 && x.Enters == "" {
		last = nodeName(row.Chain.Nodes[n-1])
	}
	if round > 1 {
		return fmt.Sprintf("%s, %s %d", base, last, round)
	}
	return fmt.Sprintf("%s, %s", base, last)
}

func nodeName(n *project.Node) string {
	switch {
	case n.Fork != nil:
		return n.Fork.Title()
	case n.Stage.Name != "":
		return n.Stage.Name
	}
	info, _ := engine.EffectInfo(n.Stage.Effect, n.Stage.Version)
	return info.Name
}
