package preset

import (
	"context"
	"encoding/json"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// played is what a row gives out behind its chain, for a quarter of a second.
func played(t *testing.T, doc *project.Project, row string) (out []float64) {
	t.Helper()
	lib := pages.New(0)
	for _, a := range doc.Audio {
		lib.Sound(a.Hash, a.Frames, a.Channels)
		page := make([]float32, a.Frames)
		for i := range page {
			page[i] = float32(0.3*math.Sin(float64(i)*0.07) + 0.1*math.Sin(float64(i*i%977)))
		}
		lib.Put(a.Hash, 0, pages.Page{page})
	}
	require.NoError(t, engine.Offline(context.Background(), doc, lib, engine.Job{Channel: row, To: 12000}, nil, func(l, r []float64) error {
		out = append(append(out, l...), r...)
		return nil
	}, nil))
	return out
}

// withSound lets every track play the same sound from the beginning.
func withSound(p *project.Project) {
	p.Audio = []project.Audio{{Hash: projecttest.Hash("rope"), Name: "rope", Frames: 12000, Channels: 1}}
	for _, c := range p.Channels {
		if c.Kind == project.Track {
			c.Clips = []*project.Clip{{ID: project.NewID(), Name: "rope", Audio: p.Audio[0].Hash, Frames: 12000, Exact: true}}
		}
	}
}

// Whatever stands on a row with whatever moves it: saved and put elsewhere, in this project or another, it sounds the
// same, and taken back nothing of it is left.
func TestAPresetSoundsTheSameElsewhere(t *testing.T) {
	moved := 0
	for seed := range uint64(25) {
		r := rand.New(rand.NewPCG(seed, 17))
		p, ch := document(
			t,
			link{effect: "trim"}.node(),
			project.Forked(project.Copies, "Two", project.NewPath("dry"), project.NewPath("wet", link{effect: "delay"}.node())),
		)
		p.Sections = []project.Section{{ID: project.NewID(), Name: "One"}}
		withSound(p)
		for range 30 {
			if next, _, err := project.Apply(p, []project.Change{projecttest.RandomChange(r, p)}, engine.EffectInfo); err == nil {
				p = next
			}
		}
		var owners []string
		ch, ok := p.Channel(ch.ID)
		if !ok {
			continue
		}
		for id := range project.Owners(ch.Chain.Nodes) {
			owners = append(owners, id)
		}
		for _, id := range owners { // handles and movers on what random changes seldom reach
			for _, c := range []project.Change{
				&project.Hang{Owner: id, Name: "level"}, &project.AddMover{Owner: id, Name: "mix"}, &project.Hang{Owner: id, Name: "gain"},
			} {
				if next, _, err := project.Apply(p, []project.Change{c}, engine.EffectInfo); err == nil {
					p = next
				}
			}
		}
		p = alone(t, p, ch.ID)
		ch, _ = p.Channel(ch.ID)
		there := project.NewChannel(project.Track, "There", p.MainChannel().ID)
		p.Channels = append([]*project.Channel{there}, p.Channels...)
		withSound(p)
		p, _, err := project.Apply(p, nil, engine.EffectInfo) // without treatments that no clip names any more
		require.NoError(t, err)
		want := played(t, p, ch.ID)
		for _, kind := range []string{Chain, Channel} {
			saved, err := From(p, kind, ch.ID)
			require.NoError(t, err)
			if saved.Body.Moves != nil {
				moved++
			}
			saved.Name = "Mine"
			require.NoError(t, saved.Check())
			batch, err := saved.Take(p, there.ID)
			require.NoError(t, err)
			next, undo, err := project.Apply(p, batch, engine.EffectInfo)
			require.NoError(t, err, "seed %d", seed)
			require.Equal(t, want, played(t, next, there.ID), "seed %d", seed)
			back, _, err := project.Apply(next, undo, engine.EffectInfo)
			require.NoError(t, err)
			require.Equal(t, p, back, "seed %d", seed)

			other, row := document(t)
			other.Tempo, other.Meter = p.Tempo, p.Meter
			withSound(other)
			batch, err = saved.Take(other, row.ID)
			require.NoError(t, err)
			other, _, err = project.Apply(other, batch, engine.EffectInfo)
			require.NoError(t, err)
			require.Equal(t, want, played(t, other, row.ID), "seed %d, in another project", seed)
		}
	}
	require.Greater(t, moved, 10)
}

// alone takes off a row what a preset does not carry: what comes from and goes to other rows, lines and passages.
func alone(t *testing.T, p *project.Project, row string) *project.Project {
	t.Helper()
	p = project.Clone(p)
	p.Lines, p.Passages = []*project.Line{}, nil
	for _, c := range p.Channels {
		c.Input = nil
		c.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
			if n.Stage != nil {
				n.Stage.Key = nil
			}
			return true
		})
	}
	for _, m := range p.Movers {
		if m.Follow != nil && m.Follow.Tap != nil && m.Follow.Tap.Channel != row {
			m.Follow.Tap = nil
		}
	}
	ch, _ := p.Channel(row)
	ch.Chain.Bypass = false
	require.NoError(t, p.Validate(engine.EffectInfo))
	return p
}

// A fork by itself keeps its paths' levels, and what a handle makes of them.
func TestAForkIsAPresetByItself(t *testing.T) {
	wet := project.NewPath("wet", link{effect: "delay"}.node()).At(-12)
	fork := project.Forked(project.Copies, "Two", project.NewPath("dry"), wet)
	doc, ch := document(t, fork)
	doc.Handles = []*project.Handle{
		{
			ID:      "grip",
			Name:    "Grip",
			Value:   25,
			Home:    fork.Fork.ID,
			Shown:   true,
			Targets: []project.HandleTarget{{Owner: wet.ID, Name: "level", From: -60, To: -6}},
		},
	}
	withSound(doc)
	require.NoError(t, doc.Validate(engine.EffectInfo))
	saved, err := From(doc, Fork, fork.ID())
	require.NoError(t, err)
	saved.Name = "Mine"
	require.NoError(t, saved.Check())

	other, row := document(t, project.Forked(project.MidSide, "There", project.NewPath("m"), project.NewPath("s")))
	withSound(other)
	there := row.Chain.Nodes[0].ID()
	row.Sends = []*project.Send{}
	batch, err := saved.Take(other, there)
	require.NoError(t, err)
	next, undo, err := project.Apply(other, batch, engine.EffectInfo)
	require.NoError(t, err)
	f := next.Channels[0].Chain.Nodes[0].Fork
	require.Equal(t, there, f.ID, "it stands in the other's place, under its id")
	require.InDelta(t, -12, f.Paths[1].Level, 0)
	require.Len(t, next.Handles, 1)
	require.Equal(t, f.ID, next.Handles[0].Home)
	require.Equal(t, f.Paths[1].ID, next.Handles[0].Targets[0].Owner)
	require.Equal(t, played(t, doc, ch.ID), played(t, next, row.ID))
	back, _, err := project.Apply(next, undo, engine.EffectInfo)
	require.NoError(t, err)
	asJSON := func(p *project.Project) string {
		b, err := json.Marshal(p)
		require.NoError(t, err)
		return string(b)
	}
	require.Equal(t, asJSON(other), asJSON(back))
}
