package demo

import (
	"context"
	"fmt"
	"math"
	"sync"

	"shoal/internal/audiofile"
	"shoal/internal/effect"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// ID is the id of the demo project.
const ID = "slackwater"

// voice is one track: how it is played, where, and what stands on it.
type voice struct {
	name  string
	play  func(stretch) *take
	where []stretch
	tint  int
	fader float64
	pan   float64
	chain []*project.Node
	send  float64 // to the hall, dB
	pre   bool
	order []int // the same stages in another order, kept as a trial
}

func stage(id, name string, mix float64, params map[string]float64) *project.Node {
	k, ok := effect.Find(id)
	if !ok {
		panic("demo: no effect " + id)
	}
	s := project.NewStage(id, k.Version, k.Mix, k.MixLaw)
	s.Name = name
	if mix > 0 {
		s.Mix = mix
	}
	for n, v := range params {
		s.Params[n] = v
	}
	return &project.Node{Stage: s}
}

type set = map[string]float64

func voices() []voice {
	return []voice{
		{
			name:  "Marimba",
			play:  marimba,
			where: []stretch{{0, 16, 2}, {18, 30, 2}, {30, 50, 2}, {50, 66, 3}},
			tint:  1,
			fader: -4,
			pan:   -0.18,
			send:  -16,
			chain: []*project.Node{
				stage(
					"equaliser",
					"",
					0,
					set{"on1": 1, "freq1": 70, "freq3": 380, "gain3": -2.5, "freq5": 2600, "gain5": 2.5, "gain7": 1.5},
				),
				stage("compressor", "", 0, set{"threshold": -34, "ratio": 4, "attack": 12, "release": 260, "makeup": 6}),
				stage("delay", "Dotted echo", 26, set{"note": 7, "feedback": 45, "route": 2, "highcut": 4200}),
			},
			order: []int{0, 2, 1},
		}, // does the compressor hold the echoes down too?
		{
			name:  "Handbells",
			play:  handbells,
			where: []stretch{{16, 30, 4}, {42, 68, 4}},
			tint:  2,
			fader: -9,
			pan:   0.32,
			send:  -7,
			chain: []*project.Node{
				stage("equaliser", "", 0, set{"on1": 1, "freq1": 220, "freq4": 1100, "gain4": -2, "gain7": -2}),
				stage("deesser", "Sting", 0, set{"freq": 4200, "q": 0.9, "threshold": -30, "range": -6, "release": 80}),
				stage("phaser", "Halo", 28, set{"stages": 1, "freq": 3200, "depth": 1, "rate": 0.5}),
				stage("delay", "", 22, set{"note": 10, "feedback": 42, "route": 1, "damping": 25}),
			},
		},
		{
			name:  "Low horn",
			play:  lowHorn,
			where: []stretch{{8, 16, 1}, {30, 50, 1}, {50, 66, 1}},
			tint:  3,
			fader: -7,
			pan:   0.08,
			send:  -13,
			chain: []*project.Node{
				stage("compressor", "", 0, set{"threshold": -28, "ratio": 3, "attack": 30, "release": 250, "makeup": 3, "detector": 1}),
				hull(),
				stage("equaliser", "", 0, set{"freq3": 240, "gain3": -2, "freq5": 1500, "gain5": 2}),
			},
		},
		{
			name:  "Frame drum",
			play:  frameDrum,
			where: []stretch{{12, 16, 1}, {30, 49, 1}, {50, 64, 1}},
			tint:  4,
			fader: -5,
			send:  -19,
			chain: []*project.Node{
				stage("gate", "", 0, set{"threshold": -46, "range": -24, "hold": 70, "release": 160}),
				stage("equaliser", "", 0, set{"on1": 1, "freq1": 38, "gain2": 2.5, "freq3": 340, "gain3": -4, "freq5": 3200, "gain5": 3}),
				stage("transient", "Fingers", 0, set{"attack": 4, "sustain": -1}),
				crush(),
			},
		},
		{
			name:  "Choir",
			play:  choir,
			where: []stretch{{20, 30, 2}, {42, 50, 2}, {50, 66, 3}},
			tint:  5,
			fader: -7,
			send:  -6,
			chain: []*project.Node{
				stage("equaliser", "", 0, set{"on1": 1, "freq1": 120, "freq4": 900, "gain4": -1.5, "gain7": 3}),
				stage("chorus", "Two more voices", 30, set{"voices": 3, "depth": 1.5, "rate": 0.3}),
				offing(),
			},
		},
		{name: "Harbour", play: harbour, where: []stretch{{0, 34, 0}, {60, 68, 0}}, tint: 6, fader: -12, send: -120, chain: []*project.Node{
			stage("equaliser", "", 0, set{"on1": 1, "freq1": 90, "gain7": -3}),
			stage("filter", "Slow water", 0, set{"freq": 5200, "resonance": 20, "depth": 0.9, "rate": 0.07, "wave": 5, "sides": 60}),
		}},
		{
			name:  "Bell buoy",
			play:  buoy,
			where: []stretch{{0, 14, 0}, {16, 30, 0}, {60, 68, 0}},
			tint:  7,
			fader: -13,
			pan:   -0.5,
			send:  -9,
			pre:   true,
			chain: []*project.Node{
				stage("equaliser", "", 0, set{"on8": 1, "freq8": 5200}),
				stage("convolver", "Under the pier", 30, set{"space": 3, "highcut": 7000}),
			},
		},
		{
			name:  "Tide table",
			play:  tideTable,
			where: []stretch{{4, 11, 0}, {20, 27, 0}, {36, 42, 0}, {58, 64, 0}},
			tint:  8,
			fader: -8,
			pan:   -0.1,
			send:  -17,
			chain: []*project.Node{
				stage("gate", "Between words", 0, set{"threshold": -50, "range": -14, "ratio": 3, "hold": 120, "release": 260}),
				stage(
					"equaliser",
					"",
					0,
					set{"on1": 1, "freq1": 110, "slope1": 3, "freq4": 480, "gain4": -3, "freq6": 3600, "on6": 1, "gain6": 3},
				),
				stage("compressor", "Even out", 0, set{"threshold": -30, "ratio": 4, "attack": 4, "release": 110, "makeup": 6}),
				stage("deesser", "", 0, set{"freq": 6200, "threshold": -32, "range": -7}),
				stage("limiter", "", 0, set{"ceiling": -6}),
			},
		},
	}
}

// Make synthesises the demo's sounds into the folder and returns its project.
// progress is given the part done. The same call always gives the same sounds.
func Make(ctx context.Context, folder *audiofile.Folder, progress func(float64)) (*project.Project, error) {
	p := project.New("Slack Water", rate, tempo, 6, 8)
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
	return pass(p)
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
				e, err := keep(folder, w.v.play(w.v.where[w.n]))
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

func keep(folder *audiofile.Folder, t *take) (audiofile.Entry, error) {
	chans := [][]float64{t.l}
	if t.r != nil {
		chans = append(chans, t.r)
	}
	d, err := folder.Draft(rate, len(chans), 24, nil)
	if err != nil {
		return audiofile.Entry{}, err
	}
	defer d.Drop()
	if err := d.Write(chans); err != nil {
		return audiofile.Entry{}, err
	}
	return d.Keep()
}
