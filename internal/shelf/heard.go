package shelf

import (
	"context"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// Hear makes the sound by which a thing is heard and drawn: what its clips give with their treatments, and their tails.
func (t *Thing) Hear(ctx context.Context, folder *audiofile.Folder) error {
	alone, err := t.alone()
	if err != nil {
		return err
	}
	d, err := folder.Draft(t.Kept.Rate, 2, 32, nil)
	if err != nil {
		return err
	}
	defer d.Drop()
	spec := printing.Spec{Channel: alone.MainChannel().ID, To: t.length(), Tail: true}
	if err := printing.Render(ctx, alone, folder, spec, d.Write, nil); err != nil {
		return fmt.Errorf("hear %s: %w", t.Name, err)
	}
	e, err := d.Keep()
	t.Heard, t.Frames = e.Hash, e.Frames
	return err
}

// alone is a project in which nothing but the thing sounds, from frame 0 on.
func (t *Thing) alone() (*project.Project, error) {
	tempo := t.Tempo
	if tempo == 0 {
		tempo = 120
	}
	p := project.New(t.Name, t.Kept.Rate, tempo, 4, 4)
	main, down := p.MainChannel(), 0
	for _, c := range t.Kept.Clips {
		down = max(down, c.Down)
	}
	var rows []*project.Channel
	for range down + 1 {
		rows = append(rows, project.NewChannel(project.Track, t.Name, main.ID))
	}
	p.Channels = append(rows, p.Channels...)
	p, _, err := project.Apply(p, []project.Change{t.Put(rows[0].ID, 0, project.Snap{})}, engine.EffectInfo)
	return p, err
}

// length is how long its clips last.
func (t *Thing) length() (frames int64) {
	for _, c := range t.Kept.Clips {
		frames = max(frames, c.By+c.Clip.Frames)
	}
	return frames
}
