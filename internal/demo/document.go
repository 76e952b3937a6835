package demo

import (
	"context"
	"fmt"
	"math"
	"sync"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// ID and Name are those of the demo project.
const (
	ID   = "slackwater"
	Name = "Slack Water"
)

// Make synthesises the demo's sounds into the folder and returns its project.
// progress is given the part done. The same call always gives the same sounds.
func Make(ctx context.Context, folder *audiofile.Folder, progress func(float64)) (*project.Project, error) {
	p := project.New(Name, rate, tempo, 6, 8)
	p.ID = ID
	main := p.MainChannel()
	main.Chain.Nodes = []*project.Node{
		stage("equaliser", "", 0, set{"on1": 1, "freq1": 28, "gain7": 1}),
		stage("compressor", "Together", 0, set{"threshold": -20, "ratio": 1.6, "attack": 30, "release": 200, "makeup": 2.5, "detector": 1}),
		stage("limiter", "", 0, set{"input": 5, "ceiling": -1.5}),
	}
	hall := project.NewChannel(project.Return, "Stone hall", main.ID)
	hall.Fader = -3
	hall.Chain.Nodes = []*project.Node{
		stage("equaliser", "", 0, set{"on1": 1, "freq1": 180, "slope1": 1}),
		stage("reverb", "", 100, set{"decay": 3.1, "size": 130, "predelay": 28, "lowfactor": 0.85, "highfactor": 0.4, "early": -14}),
	}
	hall.Chain.Nodes[1].Stage.MixLaw = "blend"
	for _, s := range song {
		p.Sections = append(p.Sections, project.Section{ID: project.NewID(), Name: s.name, Tick: p.Clock().Bar(s.first)})
	}
	vs := voices()
	var jobs []*work
	var rows []*project.Channel
	for _, v := range vs {
		ch := project.NewChannel(project.Track, v.name, main.ID)
		ch.Tint, ch.Fader, ch.Pan = v.tint, v.fader, v.pan
		ch.Chain.Nodes = v.chain
		if v.send > -120 {
			ch.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Pre: v.pre, Level: v.send}}
		}
		rows = append(rows, ch)
		for n := range v.where {
			jobs = append(jobs, &work{ch: ch, v: v, n: n})
		}
	}
	if err := playAll(ctx, folder, jobs, progress); err != nil {
		return nil, err
	}
	place(p, jobs)
	p.Channels = append(rows, hall, main)
	route(p, hall)
	move(p)
	p, err := playIn(p)
	if err != nil {
		return nil, err
	}
	var trials []project.Change
	for i, v := range vs {
		if v.order != nil {
			trials = append(trials, &project.AddTrial{Channel: rows[i].ID, Order: v.order})
		}
	}
	if p, _, err = project.Apply(p, trials, engine.EffectInfo); err != nil {
		return nil, err
	}
	if p, err = pass(p); err != nil {
		return nil, err
	}
	if p, err = pieces(p); err != nil {
		return nil, err
	}
	return settled(ctx, p, folder)
}

// work is one stretch of a voice to be played.
type work struct {
	ch *project.Channel
	v  voice
	n  int
	e  audiofile.Entry
}

// playAll plays every stretch and keeps its sound, on two processors.
func playAll(ctx context.Context, folder *audiofile.Folder, jobs []*work, progress func(float64)) error {
	var mu sync.Mutex
	done := 0
	var firstErr error
	queue := make(chan *work)
	var wg sync.WaitGroup
	for range 2 {
		wg.Add(1)
		go func() {
			defer wg.Done()
			for w := range queue {
				e, err := w.v.play(w.v.where[w.n]).Keep(folder)
				mu.Lock()
				if err != nil && firstErr == nil {
					firstErr = fmt.Errorf("make %s: %w", w.v.name, err)
				}
				w.e = e
				done++
				progress(float64(done) / float64(len(jobs)))
				mu.Unlock()
			}
		}()
	}
	for _, w := range jobs {
		if ctx.Err() != nil {
			break
		}
		queue <- w
	}
	close(queue)
	wg.Wait()
	if err := ctx.Err(); err != nil {
		return err
	}
	return firstErr
}

// place puts the stretches that were played on their rows.
func place(p *project.Project, jobs []*work) {
	for _, w := range jobs {
		name := w.v.name
		if len(w.v.where) > 1 {
			name = fmt.Sprintf("%s %s", w.v.name, song[partAt(w.v.where[w.n].from)].name)
		}
		if _, ok := p.AudioByHash(w.e.Hash); !ok { // the same stretch played twice is one sound
			p.Audio = append(p.Audio, project.Audio{Hash: w.e.Hash, Name: name, Frames: w.e.Frames, Channels: w.e.Channels})
		}
		start := p.Clock().Bar(w.v.where[w.n].from)
		clip := &project.Clip{
			ID:      project.NewID(),
			Name:    name,
			Audio:   w.e.Hash,
			Follows: true,
			Start:   start,
			Frames:  w.e.Frames,
			FadeOut: int64(math.Min(0.4*rate, float64(w.e.Frames)/4)),
		}
		w.ch.Clips = append(w.ch.Clips, clip)
	}
}
