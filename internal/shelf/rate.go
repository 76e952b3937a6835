package shelf

import (
	"context"
	"fmt"
	"math"
	"os"
	"slices"

	"shoal/internal/audiofile"
	"shoal/internal/project"
)

// At is the thing in a project of a sample rate: its sounds are resampled and kept, and its frames counted in it. At its
// own rate it is the same one.
func (t *Thing) At(ctx context.Context, rate int, folder *audiofile.Folder) (*Thing, error) {
	if rate == t.Kept.Rate {
		return t, nil
	}
	n := *t
	n.Kept.Rate = rate
	scale := func(frames int64) int64 {
		return int64(math.Round(float64(frames) * float64(rate) / float64(t.Kept.Rate)))
	}
	sounds := map[string]project.Audio{}
	n.Kept.Audio = nil
	for _, a := range t.Kept.Audio {
		b, err := resampled(ctx, a, rate, folder)
		if err != nil {
			return nil, err
		}
		sounds[a.Hash] = b
		n.Kept.Audio = append(n.Kept.Audio, b)
	}
	n.Kept.Clips = slices.Clone(t.Kept.Clips)
	for i := range n.Kept.Clips {
		c := &n.Kept.Clips[i]
		c.By = scale(c.By)
		c.Clip = inRate(c.Clip, sounds[c.Clip.Audio], scale)
	}
	return &n, nil
}

func resampled(ctx context.Context, a project.Audio, rate int, folder *audiofile.Folder) (project.Audio, error) {
	f, err := os.Open(folder.Path(a.Hash))
	if err != nil {
		return a, fmt.Errorf("the sound of %s is missing: %w", a.Name, err)
	}
	defer f.Close()
	e, _, err := folder.Import(ctx, f, rate, nil)
	a.Hash, a.Frames, a.Channels = e.Hash, e.Frames, e.Channels
	return a, err
}

// inRate is a clip over a resampled sound: no frame of it lies beyond the sound's end.
func inRate(x project.Clip, a project.Audio, scale func(int64) int64) project.Clip {
	x.Audio = a.Hash
	x.Offset, x.Frames, x.FadeIn, x.FadeOut = scale(x.Offset), scale(x.Frames), scale(x.FadeIn), scale(x.FadeOut)
	x.Swell = slices.Clone(x.Swell)
	for i := range x.Swell {
		x.Swell[i].At = scale(x.Swell[i].At)
	}
	if x.Origin != nil {
		o := scale(*x.Origin)
		x.Origin = &o
	}
	if x.Extent != nil {
		x.Extent = &project.Extent{From: scale(x.Extent.From), To: min(scale(x.Extent.To), a.Frames), Frames: scale(x.Extent.Frames)}
		return x
	}
	x.Offset = min(x.Offset, a.Frames-1)
	x.Frames = min(x.Frames, a.Frames-x.Offset)
	return x
}
