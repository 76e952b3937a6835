package printing

import (
	"context"
	"fmt"
	"math"

	"shoal/internal/audiofile"
	"shoal/internal/engine/figures"
	"shoal/internal/gentle"
	"shoal/internal/param"
	"shoal/internal/project"
)

// What LevelFork can level.
const (
	LevelPaths  = "paths"  // all paths become equally loud, and stay as loud together
	LevelOutput = "output" // the fork becomes as loud as what goes into it
)

// LevelFork measures a fork over a range of song frames and returns what levels it.
func LevelFork(
	ctx context.Context,
	doc *project.Project,
	folder *audiofile.Folder,
	fork, what string,
	from, to int64,
	progress func(float64),
) ([]project.Change, error) {
	if from < 0 || to <= from {
		return nil, fmt.Errorf("the range to measure over is empty: frames %d to %d", from, to)
	}
	return gentle.Do(func() ([]project.Change, error) { return levelFork(ctx, doc, folder, fork, what, from, to, progress) })
}

func levelFork(
	ctx context.Context,
	doc *project.Project,
	folder *audiofile.Folder,
	fork, what string,
	from, to int64,
	progress func(float64),
) ([]project.Change, error) {
	left := 1.0 // how many looks it takes is not known: each is half of what is left, where there may be more
	weigh := func(d *project.Project) (*figures.Weights, error) {
		before := left
		lib, err := Library(ctx, d, folder)
		if err != nil {
			return nil, err
		}
		if what == LevelOutput {
			left /= 2
		} else {
			left = 0
		}
		return figures.Weigh(ctx, d, lib, fork, from, to, Pages(folder, lib), func(part float64) {
			if progress != nil {
				progress(1 - before + part*(before-left))
			}
		})
	}
	w, err := weigh(doc)
	if err != nil {
		return nil, err
	}
	f, _, ok := doc.ForkByID(fork)
	if !ok {
		return nil, fmt.Errorf("the fork is no longer there")
	}
	if w.In < silent {
		return nil, fmt.Errorf("nothing comes into %s in this range: play to where it sounds, or loop that", f.Title())
	}
	switch what {
	case LevelPaths:
		return equal(f, w)
	case LevelOutput:
		return keepLevel(doc, f, w, weigh)
	}
	return nil, fmt.Errorf("%q cannot be levelled: it must be %s or %s", what, LevelPaths, LevelOutput)
}

// silent is the loudness in LUFS below which there is nothing to level.
const silent = -80.0

// equal brings all paths that are heard to one loudness, at which their powers add up as before.
func equal(f *project.Fork, w *figures.Weights) ([]project.Change, error) {
	power, count := 0.0, 0
	for _, p := range f.Paths {
		if l := w.Paths[p.ID]; !p.Mute && l > silent {
			power += math.Pow(10, l/10)
			count++
		}
	}
	if count < 2 {
		return nil, fmt.Errorf("only %d of the paths of %s can be heard in this range: there is nothing to level", count, f.Title())
	}
	goal := 10 * math.Log10(power/float64(count))
	var list []project.Change
	for _, p := range f.Paths {
		if l := w.Paths[p.ID]; !p.Mute && l > silent {
			v := math.Round((p.Level+goal-l)*10) / 10
			list = append(list, &project.SetParam{Owner: p.ID, Name: "level", Value: param.Path.Clamp(v)})
		}
	}
	return list, nil
}

// keepLevel trims the output until it is as loud as the input; where a dry part is mixed in, that
// takes more than one look.
func keepLevel(
	doc *project.Project,
	f *project.Fork,
	w *figures.Weights,
	weigh func(*project.Project) (*figures.Weights, error),
) ([]project.Change, error) {
	if w.Out < silent {
		return nil, fmt.Errorf("nothing comes out of %s in this range: its paths are muted or down", f.Title())
	}
	trim, slope := f.Trim, 1.0 // by how much the output rises for each dB of trim
	for range 6 {
		gap := w.In - w.Out
		if math.Abs(gap) < 0.05 {
			break
		}
		old := trim
		trim = param.Joined.Clamp(trim + gap/slope)
		if f.Mix == 100 && f.MixLaw == "blend" && !f.Bypass || trim == old {
			break
		}
		d := project.Clone(doc)
		x, _, _ := d.ForkByID(f.ID)
		x.Trim = trim
		var err error
		if w, err = weigh(d); err != nil {
			return nil, err
		}
		slope = max(0.1, min(1, (gap-(w.In-w.Out))/(trim-old)))
	}
	return []project.Change{&project.SetParam{Owner: f.ID, Name: "trim", Value: math.Round(trim*10) / 10}}, nil
}
