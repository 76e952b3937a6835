package shelf

import (
	"context"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/project"
	"shoal/internal/synth"
)

// Stocked makes the sounds that ship and are not there yet, and lists them all. have are those that are there, by id.
func Stocked(ctx context.Context, folder *audiofile.Folder, have map[string]*Thing) ([]*Thing, error) {
	var list []*Thing
	for _, s := range stock() {
		if t, ok := have[s.id]; ok && folder.Has(t.Heard) {
			list = append(list, t)
			continue
		}
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		t, err := s.thing(folder)
		if err != nil {
			return nil, fmt.Errorf("make %s: %w", s.name, err)
		}
		list = append(list, t)
	}
	return list, nil
}

// thing plays a sound and keeps it.
func (s sound) thing(folder *audiofile.Folder) (*Thing, error) {
	e, err := s.play().Keep(folder)
	if err != nil {
		return nil, err
	}
	t := &Thing{
		ID: s.id, Kind: Sound, Name: s.name, Says: s.says, Tags: s.tags, Pitch: noteOf(s.pitch), Shipped: true,
		Heard: e.Hash, Frames: e.Frames,
		Kept: project.Copied{
			Rate:  synth.Rate,
			Clips: []project.CopiedClip{{Clip: project.Clip{ID: s.id, Name: s.name, Audio: e.Hash, Follows: true, Frames: e.Frames}}},
			Audio: []project.Audio{{Hash: e.Hash, Name: s.name, Frames: e.Frames, Channels: e.Channels}},
		},
	}
	return t, t.Check()
}
