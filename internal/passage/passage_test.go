package passage

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// song is two rows of a pulsed chord, four bars long, with a return, at 120 quarter notes a minute.
func song(t *testing.T) (*project.Project, *pages.Library) {
	t.Helper()
	lib := pages.New(100)
	n := 8 * 48000
	x := make([]float32, n)
	for i := range x {
		env := 0.2 + 0.8*math.Exp(-float64(i%12000)/4000)
		for _, hz := range []float64{110, 330, 880, 2200, 5200} {
			x[i] += float32(0.09 * env * math.Sin(2*math.Pi*hz*float64(i)/48000))
		}
	}
	lib.Sound(projecttest.Hash("chord"), int64(n), 1)
	for i := 0; i*pages.Frames < n; i++ {
		page := make([]float32, pages.Frames)
		copy(page, x[i*pages.Frames:])
		lib.Put(projecttest.Hash("chord"), i, pages.Page{page})
	}
	p := project.New("Test", 48000, 120, 4, 4)
	main := p.MainChannel().ID
	hall := project.NewChannel(project.Return, "Hall", main)
	k := project.NewStage("reverb", 1, 100, "blend")
	hall.Chain.Nodes = []*project.Node{{Stage: k}}
	p.Audio = []project.Audio{{Hash: projecttest.Hash("chord"), Name: "chord", Frames: int64(n), Channels: 1}}
	for _, name := range []string{"A", "B"} {
		c := project.NewChannel(project.Track, name, main)
		c.Clips = []*project.Clip{{ID: project.NewID(), Name: name, Audio: projecttest.Hash("chord"), Frames: int64(n), Exact: true}}
		p.Channels = append([]*project.Channel{c}, p.Channels...)
	}
	p.Channels = append(p.Channels, hall)
	require.NoError(t, p.Validate(engine.EffectInfo))
	return p, lib
}

func render(t *testing.T, p *project.Project, lib *pages.Library, channel string) []float64 {
	t.Helper()
	var out []float64
	job := engine.Job{Channel: channel, To: 8 * 48000}
	require.NoError(t, engine.Offline(context.Background(), p, lib, job, nil, func(l, _ []float64) error {
		out = append(out, l...)
		return nil
	}, nil))
	return out
}

func rms(x []float64) float64 {
	sum := 0.0
	for _, v := range x {
		sum += v * v
	}
	return dsp.Decibels(math.Sqrt(sum / float64(len(x))))
}

// Every kind can be made, is heard, leaves what comes before it and after it as it was, and goes with all
// that it brought.
func TestEveryKindIsHeardAndGoesWithoutATrace(t *testing.T) {
	require.GreaterOrEqual(t, len(Kinds()), 11)
	from, to := 2*48000, 5*48000
	for _, k := range Kinds() {
		p, lib := song(t)
		a, b := p.Channels[0], p.Channels[1]
		list, says, err := Make(p, Spec{ID: "x", Kind: k.ID, From: int64(from), To: int64(to), Snap: 240, Rows: []string{a.ID, b.ID}})
		require.NoError(t, err, k.ID)
		next, undo, err := project.Apply(p, list, engine.EffectInfo)
		require.NoError(t, err, k.ID)
		if len(k.stages) > 0 || k.sends {
			require.Contains(t, says, "B and A", "%s says what it placed", k.ID)
		}
		back, _, err := project.Apply(next, undo, engine.EffectInfo)
		require.NoError(t, err, k.ID)
		back.Passages = nil
		require.Equal(t, p, back, k.ID)
		gone, _, err := project.Apply(next, []project.Change{&project.RemovePassage{ID: "x"}}, engine.EffectInfo)
		require.NoError(t, err, k.ID)
		require.Len(t, gone.Passages, 0)
		gone.Passages = nil
		require.Equal(t, p, gone, k.ID)

		before, after := render(t, p, lib, ""), render(t, next, lib, "")
		require.Len(t, after, len(before), k.ID)
		for i := range before[:from-64] {
			require.InDelta(t, before[i], after[i], 1e-7, "%s: frame %d, before it begins", k.ID, i)
		}
		diff := make([]float64, to-from)
		for i := range diff {
			diff[i] = after[from+i] - before[from+i]
		}
		if k.ID == "empty" {
			require.Less(t, rms(diff), -100.0)
			continue
		}
		require.Greater(t, rms(diff), -45.0, "%s is heard", k.ID)
		end := after[to-4800 : to]
		require.Less(t, dsp.Peak(after, after), 1.3*dsp.Peak(before, before), "%s does not get much louder", k.ID)
		switch k.Tail {
		case project.TailHold:
			require.Less(
				t,
				rms(after[to+36000:to+84000]),
				rms(before[to+36000:to+84000])-12,
				"%s: it is held, nothing begins after it",
				k.ID,
			)
		case project.TailRing: // as before, but for what rings
			require.Greater(t, rms(after[to+24000:]), rms(before[to+24000:])-0.5, k.ID)
		}
		if k.ID == "stop" {
			require.Less(t, rms(end), -25.0)
			require.Less(t, rms(after[to+1000:]), -100.0)
		}
		if k.ID == "swell" {
			require.Less(t, rms(after[from+480:from+4800]), rms(before[from+480:from+4800])-35)
			require.Greater(t, rms(end[3800:]), rms(before[to-1000:to])-3)
		}
	}
}

func TestStagesThatAreThereServe(t *testing.T) {
	p, _ := song(t)
	a := p.Channels[0]
	brake := project.NewStage("spindown", 1, 100, "blend")
	a.Chain.Nodes = []*project.Node{{Stage: brake}}
	list, says, err := Make(p, Spec{Kind: "stop", From: 0, To: 96000, Rows: []string{a.ID}})
	require.NoError(t, err)
	require.Empty(t, says)
	require.Len(t, list, 1, "only the passage")
	// a second filter passage uses what the first one brought
	list, _, err = Make(p, Spec{Kind: "close", From: 0, To: 96000, Rows: []string{a.ID}})
	require.NoError(t, err)
	next, _, err := project.Apply(p, list, engine.EffectInfo)
	require.NoError(t, err)
	list, says, err = Make(next, Spec{Kind: "close", From: 200000, To: 296000, Rows: []string{a.ID}})
	require.NoError(t, err)
	require.Empty(t, says)
	require.Len(t, list, 1)
}

func TestWhatCannotBeMadeIsSaid(t *testing.T) {
	p, _ := song(t)
	a := p.Channels[0]
	refused := func(want string, s Spec) {
		t.Helper()
		_, _, err := Make(p, s)
		require.ErrorContains(t, err, want)
	}
	refused("no kind of passage", Spec{Kind: "leap", To: 48000, Rows: []string{a.ID}})
	refused("at least one row", Spec{Kind: "stop", To: 48000})
	refused("select a range", Spec{Kind: "stop", From: 10, To: 20, Snap: 960, Rows: []string{a.ID}})
	refused("no longer there", Spec{Kind: "stop", To: 48000, Rows: []string{"gone"}})
	refused("sends nowhere", Spec{Kind: "wash", To: 48000, Rows: []string{p.MainChannel().ID}})
	p.Channels = p.Channels[:len(p.Channels)-1]
	refused("no return into which B", Spec{Kind: "wash", To: 48000, Rows: []string{a.ID}})
}

// Whichever trial of a row is heard, it has the passage: what is needed is placed on each of them, one that is
// made later has it from the chain that it is a copy of, and all of it goes with the passage.
func TestAPassageReachesIntoTrials(t *testing.T) {
	p, lib := song(t)
	a := p.Channels[0]
	before, _, err := project.Apply(p, []project.Change{&project.AddTrial{ID: "b", Channel: a.ID}}, engine.EffectInfo)
	require.NoError(t, err)
	list, says, err := Make(before, Spec{ID: "x", Kind: "stop", From: 2 * 48000, To: 5 * 48000, Rows: []string{a.ID}})
	require.NoError(t, err)
	require.Contains(t, says, "B A and B B")
	list = append(list, &project.AddTrial{ID: "c", Channel: a.ID, From: "b"})
	next, _, err := project.Apply(before, list, engine.EffectInfo)
	require.NoError(t, err)
	plain := render(t, p, lib, a.ID)
	for _, trial := range []string{"", "b", "c"} {
		heard := next
		if trial != "" {
			heard, _, err = project.Apply(next, []project.Change{&project.TakeTrial{ID: trial}}, engine.EffectInfo)
			require.NoError(t, err)
		}
		out := render(t, heard, lib, a.ID)
		late := 5*48000 - 2400
		require.Less(t, rms(out[late:5*48000]), rms(plain[late:5*48000])-20, "trial %q has stopped", trial)
		require.InDelta(t, rms(plain[48000:90000]), rms(out[48000:90000]), 0.1)
	}
	require.Len(t, next.Passages[0].Brought, 3)
	gone, _, err := project.Apply(next, []project.Change{&project.RemovePassage{ID: "x"}}, engine.EffectInfo)
	require.NoError(t, err)
	row, _ := gone.Channel(a.ID)
	for _, trial := range row.Trials {
		require.Empty(t, trial.Chain.Nodes)
	}
	require.Empty(t, row.Chain.Nodes)
}
