package engine

import (
	"context"
	"errors"
	"math/rand/v2"
	"runtime"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// with renders on so many cores.
func with(t *testing.T, cores int, f func()) {
	t.Helper()
	before := runtime.GOMAXPROCS(cores)
	defer runtime.GOMAXPROCS(before)
	f()
}

// Whatever a song holds, it is the same from one core and from several, sample for sample.
func TestLanesGiveWhatOneCoreGives(t *testing.T) {
	rendered, lanes := 0, 0
	for seed := range 10 {
		r := rand.New(rand.NewPCG(uint64(seed), 4711))
		s := drawnSong(t)
		for range 40 {
			next, _, err := project.Apply(s.doc, []project.Change{projecttest.RandomChange(r, s.doc)}, EffectInfo)
			if err != nil {
				continue
			}
			s.doc = next
		}
		bring(s.lib, s.doc)
		p, err := compile(s.doc, s.lib, &capture{apart: true}, Listening{})
		require.NoError(t, err)
		lanes += len(p.lanes)
		pass := Pass{Points: []project.Tap{{Channel: s.main().ID, Point: "post"}, {Channel: s.doc.Channels[0].ID, Point: "pre"}},
			From: 700, To: rate, Tail: seed%2 == 0}
		render := func() (out []float64, err error) {
			sides := make([][]float64, 2)
			err = Stems(t.Context(), s.doc, s.lib, pass, nil, func(i int, l, r []float64) error {
				sides[i] = append(append(sides[i], l...), r...)
				return nil
			}, nil)
			return append(sides[0], sides[1]...), err
		}
		var one, many []float64
		var errOne, errMany error
		with(t, 1, func() { one, errOne = render() })
		with(t, 4, func() { many, errMany = render() })
		require.Equal(t, errOne == nil, errMany == nil, "%v; %v", errOne, errMany)
		if errOne != nil {
			continue // what has to be worked out is not there
		}
		rendered++
		same(t, one, many, "seed %d", seed)
	}
	t.Logf("%d rendered, %d lanes", rendered, lanes)
	require.Greater(t, rendered, 4)
	require.Greater(t, lanes, 20)
}

// Rows that hang on each other in a circle are one lane; a key alone parts nothing that is heard.
func TestWhatDependsOnEachOtherIsOneLane(t *testing.T) {
	s, rows := band(t)
	named := map[string]*project.Channel{}
	for _, ch := range rows {
		named[ch.Name] = ch
	}
	a, b, c := named["a"], named["b"], named["c"]
	a.Chain.Nodes[0].Stage.Key = &project.Tap{Channel: b.ID, Point: "pre"}
	lanesOf := func() map[string]int {
		p, err := compile(s.doc, s.lib, &capture{apart: true}, Listening{})
		require.NoError(t, err)
		out := map[string]int{}
		for i, l := range p.lanes {
			for _, st := range l.steps {
				if x, ok := st.(*strip); ok {
					out[x.id] = i
				}
			}
		}
		return out
	}
	apart := lanesOf()
	require.Len(t, apart, 6)
	require.NotEqual(t, apart[a.ID], apart[b.ID])
	require.NotEqual(t, apart[b.ID], apart[c.ID])

	b.Chain.Nodes = []*project.Node{stage("gate", nil)}
	b.Chain.Nodes[0].Stage.Key = &project.Tap{Channel: a.ID, Point: "input"}
	apart = lanesOf()
	require.Equal(t, apart[a.ID], apart[b.ID], "each is driven by the other")
	require.NotEqual(t, apart[b.ID], apart[c.ID])

	var one, many []float64
	with(t, 1, func() { one, _ = s.print(Job{To: 20000}) })
	with(t, 3, func() { many, _ = s.print(Job{To: 20000}) })
	same(t, one, many)
}

// Whoever stops it, whoever writes and whoever brings pages is heard, and nothing is left running.
func TestLanesStopAndSayWhy(t *testing.T) {
	s, _ := band(t)
	before := runtime.NumGoroutine()
	broken := errors.New("the disk is full")
	with(t, 3, func() {
		ctx, cancel := context.WithCancel(t.Context())
		blocks := 0
		err := Offline(ctx, s.doc, s.lib, Job{To: 20000}, nil, func(_, _ []float64) error {
			if blocks++; blocks == 20 {
				cancel()
			}
			return nil
		}, nil)
		require.ErrorIs(t, err, context.Canceled)
		err = Offline(t.Context(), s.doc, s.lib, Job{To: 20000}, nil, func(_, _ []float64) error { return broken }, nil)
		require.ErrorIs(t, err, broken)
		empty := pages.New(0)
		err = Offline(t.Context(), s.doc, empty, Job{To: 20000}, func(context.Context, []pages.Missing) error { return broken },
			func(_, _ []float64) error { return nil }, nil)
		require.ErrorIs(t, err, broken)
		err = Offline(t.Context(), s.doc, empty, Job{To: 20000}, nil, func(_, _ []float64) error { return nil }, nil)
		require.ErrorContains(t, err, "is not there")
	})
	require.Eventually(t, func() bool { return runtime.NumGoroutine() <= before+1 }, 2*time.Minute, time.Millisecond)
}

// Strips of pieces are built and given back while their rows run side by side.
func TestLanesWithPieces(t *testing.T) {
	s := newSong(t)
	for i := range 4 {
		ch := s.track(string(rune('a'+i)), noise(rate/8, uint64(i)))
		clip := ch.Clips[0]
		for k := range 3 {
			again := *clip
			again.ID, again.Start = project.NewID(), int64(k+1)*rate/6+int64(i)*777
			ch.Clips = append(ch.Clips, &again)
		}
		for _, x := range ch.Clips {
			x.Rings = true
			s.treat(x, stage("delay", map[string]float64{"sync": 1, "time": 40}), stage("limiter", nil))
		}
	}
	var one, many []float64
	with(t, 1, func() { one, _ = s.print(Job{To: rate * 2 / 3, Tail: true}) })
	with(t, 4, func() { many, _ = s.print(Job{To: rate * 2 / 3, Tail: true}) })
	same(t, one, many)
}
