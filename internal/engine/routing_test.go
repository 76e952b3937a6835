package engine

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/project"
	"shoal/internal/routing"
)

// level renders a few frames and gives what comes out, for tracks that play a constant.
func (s *song) level(t *testing.T) float64 {
	e := s.engine()
	for range 10 { // let gates close while the song stands
		e.Render(128)
	}
	e.Play()
	l, _ := play(t, e, 400, 128)
	return l[399]
}

func constant(v float64) []float64 {
	x := make([]float64, 600)
	for i := range x {
		x[i] = v
	}
	return x
}

func (s *song) exact() {
	for _, c := range s.doc.Channels {
		for _, x := range c.Clips {
			x.Exact = true
		}
	}
}

// Random routings of trims, faders, sends at every tap, groups, nested returns and side tracks:
// what comes out is what the trace says.
func TestTheTraceIsWhatIsHeard(t *testing.T) {
	for seed := range uint64(150) {
		r := rand.New(rand.NewPCG(seed, 3))
		s := newSong(t)
		main := s.main()
		db := func() float64 { return math.Round(float64(r.IntN(240))-180) / 10 }
		far, near := s.ret("far"), s.ret("near")
		near.Sends = []*project.Send{{ID: project.NewID(), To: far.ID, Pre: r.IntN(2) == 0, Level: db()}}
		group := project.NewChannel(project.Group, "group", main.ID)
		s.doc.Channels = append(s.doc.Channels, group)
		group.Sends = []*project.Send{{ID: project.NewID(), To: near.ID, Level: db()}}
		a := s.track("a", constant(0.01))
		side := project.NewChannel(project.Track, "side", main.ID)
		s.doc.Channels = append(s.doc.Channels, side)
		for _, c := range []*project.Channel{a, side, group, near, far, main} {
			c.Fader = db()
			c.Mute = c != main && r.IntN(9) == 0
			c.MutePre = r.IntN(2) == 0
			for range r.IntN(3) {
				c.Chain.Nodes = append(c.Chain.Nodes, stage("trim", map[string]float64{"gain": db()}))
				c.Chain.Nodes[len(c.Chain.Nodes)-1].Stage.Bypass = r.IntN(4) == 0
			}
		}
		if r.IntN(2) == 0 {
			a.Output = group.ID
		}
		points := []string{"", "input"}
		for _, n := range a.Chain.Nodes {
			points = append(points, n.ID())
		}
		for _, to := range []*project.Channel{near, far} {
			a.Sends = append(
				a.Sends,
				&project.Send{
					ID:    project.NewID(),
					To:    to.ID,
					Pre:   r.IntN(2) == 0,
					After: points[r.IntN(len(points))],
					Level: db(),
					Mute:  r.IntN(6) == 0,
				},
			)
		}
		side.Input = &project.Tap{Channel: a.ID, Point: []string{"input", "pre", "post"}[r.IntN(3)]}
		if n := len(a.Chain.Nodes); n > 0 && r.IntN(2) == 0 {
			side.Input = &project.Tap{Channel: a.ID, Point: []string{"before", "after"}[r.IntN(2)], Node: a.Chain.Nodes[r.IntN(n)].ID()}
		}
		s.exact()
		tr, err := routing.From(s.doc, a.ID, main.ID)
		require.NoError(t, err)
		want := 0.0
		for _, w := range tr.Ways {
			if w.Total > -120 {
				want += 0.01 * dsp.Gain(w.Total)
			}
		}
		got := s.level(t)
		require.InDelta(t, want, got, math.Max(1e-9, want*2e-3), "seed %d: %s", seed, tr.Says)
	}
}

// Every case of hearing: what is open for a track with a return, a group, a nested return and
// a side track. Each part of the sum has a decimal place of its own.
func TestHearingTable(t *testing.T) {
	for _, c := range []struct {
		name string
		h    func(id map[string]string) Hearing
		want float64
	}{
		// a: 0.1 dry, 0.01 to the hall (post); hall sends 0.001 on to far; side takes 0.0001 of a
		// b: 0.2 dry through the group, 0.02 to the hall (pre), so 0.002 to far
		{"all", func(map[string]string) Hearing { return Hearing{} }, 0.1 + 0.01 + 0.001 + 0.0001 + 0.2 + 0.02 + 0.002},
		{"a", func(id map[string]string) Hearing { return Hearing{Solo: map[string]bool{id["a"]: true}} }, 0.1 + 0.01 + 0.001},
		{"b", func(id map[string]string) Hearing { return Hearing{Solo: map[string]bool{id["b"]: true}} }, 0.2 + 0.02 + 0.002},
		{"a and b", func(id map[string]string) Hearing {
			return Hearing{Solo: map[string]bool{id["a"]: true, id["b"]: true}}
		}, 0.1 + 0.01 + 0.001 + 0.2 + 0.02 + 0.002},
		{"group", func(id map[string]string) Hearing { return Hearing{Solo: map[string]bool{id["group"]: true}} }, 0.2 + 0.02 + 0.002},
		{
			"hall: sources without their dry signal",
			func(id map[string]string) Hearing { return Hearing{Solo: map[string]bool{id["hall"]: true}} }, 0.01 + 0.02 + 0.001 + 0.002,
		},
		{
			"far: through the hall, which is not heard itself",
			func(id map[string]string) Hearing { return Hearing{Solo: map[string]bool{id["far"]: true}} }, 0.001 + 0.002,
		},
		{"side: taps flow", func(id map[string]string) Hearing { return Hearing{Solo: map[string]bool{id["side"]: true}} }, 0.0001},
		{"a without its returns", func(id map[string]string) Hearing { return Hearing{Dry: id["a"]} }, 0.1},
		{"b without its returns, through its group", func(id map[string]string) Hearing { return Hearing{Dry: id["b"]} }, 0.2},
		{"the share of a", func(id map[string]string) Hearing { return Hearing{Share: id["a"]} }, 0.01 + 0.001},
		{"the share of b", func(id map[string]string) Hearing { return Hearing{Share: id["b"]} }, 0.02 + 0.002},
		{"what goes into the hall, without it", func(id map[string]string) Hearing { return Hearing{Dry: id["hall"]} }, 0.1 + 0.2},
		{"what goes into far, without it: through the hall", func(id map[string]string) Hearing { return Hearing{Dry: id["far"]} }, 0.01 + 0.02},
		{"what the hall brings back", func(id map[string]string) Hearing { return Hearing{Share: id["hall"]} }, 0.01 + 0.02 + 0.001 + 0.002},
		{"what far brings back", func(id map[string]string) Hearing { return Hearing{Share: id["far"]} }, 0.001 + 0.002},
		{"the group without its returns", func(id map[string]string) Hearing { return Hearing{Dry: id["group"]} }, 0.2},
	} {
		s := newSong(t)
		main := s.main()
		far, hall := s.ret("far"), s.ret("hall")
		hall.Sends = []*project.Send{{ID: project.NewID(), To: far.ID, Level: -20}}
		group := project.NewChannel(project.Group, "group", main.ID)
		s.doc.Channels = append(s.doc.Channels, group)
		a, b := s.track("a", constant(0.1)), s.track("b", constant(0.2))
		a.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -20}}
		b.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Pre: true, Level: -20}}
		b.Output = group.ID
		side := project.NewChannel(project.Track, "side", main.ID)
		side.Input, side.Fader = &project.Tap{Channel: a.ID, Point: "pre"}, -60
		s.doc.Channels = append(s.doc.Channels, side)
		s.exact()
		id := map[string]string{"a": a.ID, "b": b.ID, "group": group.ID, "hall": hall.ID, "far": far.ID, "side": side.ID}
		e := s.engine()
		e.Hear(c.h(id))
		for range 10 {
			e.Render(128)
		}
		e.Play()
		l, _ := play(t, e, 400, 128)
		assert.InDelta(t, c.want, l[399], 1e-7, c.name)
	}
}

func TestSoloSafeRowsAndTheMonoCheck(t *testing.T) {
	s := newSong(t)
	a, b := s.track("a", constant(0.1)), s.track("b", constant(0.2))
	b.SoloSafe = true
	b.Pan = 1
	e := s.engine()
	e.Hear(Hearing{Solo: map[string]bool{a.ID: true}, Mono: true})
	e.Play()
	l, r := play(t, e, 500, 128)
	assert.InDelta(t, 0.1+0.1, l[499], 1e-7, "a in the middle and half of what b has at the right")
	assert.Equal(t, l[499], r[499])
}

// A signal and its inverse over routes of unlike latency leave nothing.
func TestRoutesOfUnlikeLatencyNull(t *testing.T) {
	ahead := func() *project.Node { return stage("limiter", map[string]float64{"ahead": 3, "ceiling": 0}) }
	for name, build := range map[string]func(s *song, a *project.Channel){
		"return": func(s *song, a *project.Channel) {
			hall := s.ret("hall")
			hall.Chain.Nodes = []*project.Node{ahead(), ahead()}
			a.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, After: "input"}}
		},
		"return of a return": func(s *song, a *project.Channel) {
			far := s.ret("far")
			hall := s.ret("hall")
			hall.Output, hall.Sends = "", []*project.Send{{ID: project.NewID(), To: far.ID, Pre: true}}
			hall.Chain.Nodes, far.Chain.Nodes = []*project.Node{ahead()}, []*project.Node{ahead()}
			a.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, After: "input"}}
		},
		"side track": func(s *song, a *project.Channel) {
			side := project.NewChannel(project.Track, "side", s.main().ID)
			side.Input = &project.Tap{Channel: a.ID, Point: "input"}
			side.Chain.Nodes = []*project.Node{ahead()}
			s.doc.Channels = append(s.doc.Channels, side)
		},
		"group": func(s *song, a *project.Channel) {
			b := s.track("b", noise(8000, 5))
			group := project.NewChannel(project.Group, "group", s.main().ID)
			group.Chain.Nodes = []*project.Node{ahead(), ahead()}
			s.doc.Channels = append(s.doc.Channels, group)
			b.Output = group.ID
		},
	} {
		s := newSong(t)
		a := s.track("a", noise(8000, 5))
		a.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"polarity": 3}), ahead()}
		build(s, a)
		s.exact()
		e := s.engine()
		e.Play()
		l, r := play(t, e, 8000, 128)
		silence := make([]float64, 8000)
		assert.Less(t, worst(silence, l), -140.0, name)
		assert.Less(t, worst(silence, r), -140.0, name)
		w := e.Waits()
		assert.Equal(t, e.Latency(), w.Frames)
		sum := 0
		for _, d := range w.Stages {
			sum += d.Frames
		}
		assert.Equal(t, w.Frames, sum, "%s: the stages named make up the wait", name)
	}
}

// Routing that changes under a playing sine leaves nothing above 2 kHz.
func TestChangesOfRoutingDoNotClick(t *testing.T) {
	s := newSong(t)
	hall := s.ret("hall")
	a := s.track("a", sine(120000, 200, -12))
	a.Chain.Nodes = []*project.Node{stage("trim", nil)}
	send := &project.Send{ID: project.NewID(), To: hall.ID, Level: -6}
	group := project.NewChannel(project.Group, "group", s.main().ID)
	none := ""
	after := a.Chain.Nodes[0].ID()
	yes := true
	side := project.NewChannel(project.Track, "side", s.main().ID)
	changes := [][]project.Change{
		{&project.AddSend{Channel: a.ID, Send: send}},
		{&project.SetSend{ID: send.ID, Pre: &yes}},
		{&project.SetSend{ID: send.ID, After: &after}},
		{&project.AddChannel{Channel: group}, &project.SetChannel{ID: a.ID, Output: &group.ID}},
		{&project.AddChannel{Channel: side}, &project.SetInput{Channel: side.ID, Input: &project.Tap{Channel: a.ID, Point: "pre"}}},
		{&project.SetChannel{ID: a.ID, Output: &none}},
		{&project.RemoveChannel{ID: hall.ID}},
	}
	e := s.engine()
	e.Play()
	doc := s.doc
	play(t, e, 8192, 128)
	for i, c := range changes {
		next, _, err := project.Apply(doc, c, EffectInfo)
		require.NoError(t, err)
		require.NoError(t, e.SetDocument(next))
		doc = next
		m, _ := play(t, e, 8192, 128)
		assert.Less(t, above(spectrum(m), 8192, 2000), -80.0, "change %d", i)
	}
	e.Hear(Hearing{Solo: map[string]bool{side.ID: true}})
	m, _ := play(t, e, 8192, 128)
	assert.Less(t, above(spectrum(m), 8192, 2000), -80.0, "solo")
}

// wide is a session of so many tracks and returns with five sends from each track.
func wide(tracks, returns, sends int) *song {
	s := benchSong()
	var rets []*project.Channel
	for i := range returns {
		rets = append(rets, s.ret(fmt.Sprint("return ", i)))
	}
	for i := range tracks {
		a := s.track(fmt.Sprint("track ", i), noise(50000, uint64(i)))
		for k := range sends {
			a.Sends = append(a.Sends, &project.Send{ID: project.NewID(), To: rets[(i+k)%returns].ID, Level: -30})
		}
	}
	return s
}

func TestTwoHundredChannelsWithAThousandSends(t *testing.T) {
	s := wide(189, 10, 5)
	for i, c := range s.doc.Channels { // and some more from a few
		if c.Kind == project.Track && i < 55 {
			c.Sends = append(c.Sends, &project.Send{ID: project.NewID(), To: c.Sends[0].To, Level: -40})
		}
	}
	s.doc.Channels = append(
		s.doc.Channels[len(s.doc.Channels)-11:],
		s.doc.Channels[:len(s.doc.Channels)-11]...) // returns first: order must not matter
	require.NoError(t, s.doc.Validate(EffectInfo))
	sends := 0
	for _, c := range s.doc.Channels {
		sends += len(c.Sends)
	}
	require.Len(t, s.doc.Channels, 200)
	require.Equal(t, 1000, sends)
	begun := time.Now()
	p, err := compile(s.doc, s.lib, nil, Listening{})
	require.NoError(t, err)
	t.Logf("compiled in %v", time.Since(begun))
	// every sum runs after all that flows into it
	at := map[any]int{}
	for i, st := range p.steps {
		switch x := st.(type) {
		case *sendStep:
			at["to "+x.target] = max(at["to "+x.target], i)
		case *sum:
			at["sum "+x.id] = i
		}
	}
	for _, c := range s.doc.Channels {
		if c.Kind == project.Return {
			assert.Greater(t, at["sum "+c.ID], at["to "+c.ID], c.Name)
		}
	}
}

func BenchmarkSends(b *testing.B) {
	for _, n := range []int{1, 2, 5, 10} {
		b.Run(fmt.Sprint(100*n), func(b *testing.B) { perFrame(b, wide(100, 10, n).playing(b)) })
	}
}

func BenchmarkChannels(b *testing.B) {
	for _, n := range []int{25, 50, 100, 200} {
		b.Run(fmt.Sprint(n), func(b *testing.B) { perFrame(b, wide(n, 10, 5).playing(b)) })
	}
}

func BenchmarkCompile(b *testing.B) {
	s := wide(190, 10, 5)
	for b.Loop() {
		if _, err := compile(s.doc, s.lib, nil, Listening{}); err != nil {
			b.Fatal(err)
		}
	}
}
