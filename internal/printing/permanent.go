package printing

import (
	"context"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/gentle"
	"shoal/internal/project"
)

// MakePermanent prints what the treatments of clips make of them, before gain and swell, and returns what lets the
// clips play that instead. keep is told of every sound that has come into the folder.
func MakePermanent(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, by Printer, ids []string,
	keep func(audiofile.Entry, string) error, progress func(float64),
) ([]project.Change, error) {
	return gentle.Do(func() ([]project.Change, error) {
		var list []project.Change
		for i, id := range ids {
			x, ok := doc.ClipByID(id)
			if !ok {
				return nil, project.Gone("the clip")
			}
			if x.Treatment == "" {
				continue
			}
			c, e, err := permanent(ctx, doc, folder, by, x, engine.PartOf(progress, i, len(ids)))
			if err != nil {
				return nil, fmt.Errorf("make %s permanent: %w", x.Name, err)
			}
			if err := keep(e, c.Audio.Name); err != nil {
				return nil, err
			}
			list = append(list, c)
		}
		if len(list) == 0 {
			return nil, fmt.Errorf("none of these clips has a treatment that could be made permanent")
		}
		return list, nil
	})
}

func permanent(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, by Printer, x *project.Clip, progress func(float64),
) (*project.MakePermanent, audiofile.Entry, error) {
	none := audiofile.Entry{}
	p, row := alone(doc, x)
	n := row.Clips[0]
	n.Gain, n.Swell = 0, nil
	spec, lead := Spec{Channel: row.ID, To: x.Frames, Tail: x.Rings}, int64(0)
	if !x.Rings {
		n.FadeIn, n.FadeOut, n.Exact = 0, 0, true // they stay on the clip
	} else if w, _ := engine.WorkOf(doc, x, doc.Clock()); w != nil {
		if x.Offset == w.From {
			lead = w.Lead
		}
		n.Start = lead
		if spec.To += lead; x.Offset+x.Frames == w.From+w.Body {
			spec.To += w.Trail
		}
	}
	d, err := folder.Draft(doc.SampleRate, 2, 32, &audiofile.Note{Description: x.Name, Originator: "Shoal"})
	if err != nil {
		return nil, none, err
	}
	defer d.Drop()
	if err := Render(ctx, p, folder, spec, d.Write, progress); err != nil {
		return nil, none, err
	}
	if err := ctx.Err(); err != nil {
		return nil, none, err
	}
	e, err := d.Keep()
	if err != nil {
		return nil, none, err
	}
	made, _ := p.MakingsOf(project.Tap{Channel: row.ID, Point: "input"})
	record := by.of(Permanent, p, spec, made)
	record.Clips = []string{x.ID}
	if err := record.keep(folder, e.Hash); err != nil {
		return nil, none, err
	}
	a := project.Audio{Hash: e.Hash, Name: project.ShortName(x.Name + ", made permanent"), Frames: e.Frames, Channels: e.Channels}
	return &project.MakePermanent{ID: x.ID, Audio: a, Lead: lead}, e, nil
}
