package demo

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/project"
	"shoal/internal/store"
	"shoal/internal/working"
)

// Add makes the demo and stores it, unless it is there. With all it also does what a server would do behind the music: it
// works out and prints. progress, from 0 to 1, may be nil.
func Add(ctx context.Context, st *store.Store, folder *audiofile.Folder, all bool, progress func(float64)) error {
	if _, _, err := st.Project(ctx, ID); !errors.Is(err, store.ErrNone) {
		return err
	}
	if progress == nil {
		progress = func(float64) {}
	}
	p, err := Make(ctx, folder, progress)
	if err == nil {
		err = ctx.Err()
	}
	if err != nil {
		return fmt.Errorf("make demo: %w", err)
	}
	if all {
		if err := working.Everything(ctx, p, folder); err != nil {
			return fmt.Errorf("work out the demo's pieces: %w", err)
		}
	}
	return put(ctx, st, p)
}

func put(ctx context.Context, st *store.Store, p *project.Project) error {
	for _, a := range p.Audio {
		if err := st.PutAudio(ctx, a.Hash, a.Name, a.Frames, a.Channels, p.SampleRate, 24, "demo"); err != nil {
			return err
		}
	}
	b, err := json.Marshal(p)
	if err != nil {
		return err
	}
	return st.AddProject(ctx, p.ID, p.Name, b)
}
