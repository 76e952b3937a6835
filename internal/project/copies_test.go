package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// lively is a document in which a line, a mover, a handle and a passage work on a stage.
func lively(t *testing.T) (*Project, *Channel, *Stage) {
	p := sample(t)
	ch := p.Channels[0]
	s := ch.Chain.Nodes[0].Stage
	next, _, err := Apply(p, []Change{
		&PutMover{Mover: &Mover{ID: "m", Name: "Sway", Shape: "sine", Rate: 1, Targets: []MoverTarget{{s.ID, "mix", 0.2}}}},
		&PutHandle{Handle: &Handle{ID: "h", Name: "Inshore", Targets: []HandleTarget{{Owner: s.ID, Name: "gain", From: -12, To: 0}}}},
		&PutPassage{Passage: &Passage{
			ID:   "p",
			Name: "Down",
			From: 960,
			To:   1920,
			Rows: []string{ch.ID},
			Courses: []*Course{
				{
					Name:    "Down",
					Points:  []Point{{Value: 1, Shape: Ramp}},
					Targets: []CourseTarget{{Owner: s.ID, Name: "gain", From: 0, To: -24}},
				},
			},
		}},
	}, fakeEffects)
	require.NoError(t, err)
	return next, ch, s
}

// moved counts what works on a stage: lines, movers, handles and passages.
func moved(p *Project, id string) (n [4]int) {
	for _, l := range p.Lines {
		if l.Owner == id {
			n[0]++
		}
	}
	for _, m := range p.Movers {
		for _, t := range m.Targets {
			if t.Owner == id {
				n[1]++
			}
		}
	}
	for _, h := range p.Handles {
		for _, t := range h.Targets {
			if t.Owner == id {
				n[2]++
			}
		}
	}
	for _, x := range p.Passages {
		if x.moves(id) {
			n[3]++
		}
	}
	return n
}

// A copy moves as what it is a copy of, however it was made; undone, nothing of it is left.
func TestCopiesMoveAsWhatTheyAreCopiesOf(t *testing.T) {
	start, ch, s := lively(t)
	require.Equal(t, [4]int{1, 1, 1, 1}, moved(start, s.ID))
	forked, _, err := Apply(start, []Change{&MakeFork{ID: "f", Kind: Bands, Bands: 2, Owner: ch.ID}}, fakeEffects)
	require.NoError(t, err)
	f, _, _ := forked.ForkByID("f")
	forked, _, err = Apply(forked, []Change{&MoveNode{ID: s.ID, Owner: f.Paths[0].ID}}, fakeEffects)
	require.NoError(t, err)
	for _, c := range []struct {
		name string
		from *Project
		do   Change
	}{
		{"a stage twice", start, &DuplicateStage{s.ID}},
		{"a trial", start, &AddTrial{Channel: ch.ID}},
		{"a row twice", start, &DuplicateChannel{ID: ch.ID}},
		{"a band divided", forked, &DivideBand{Path: f.Paths[0].ID}},
	} {
		before := asJSON(t, c.from)
		next, undo, err := Apply(c.from, []Change{c.do}, fakeEffects)
		require.NoError(t, err, c.name)
		copies := 0
		for _, x := range next.Channels {
			if x.Name == "B" {
				continue
			}
			x.Walk(func(_ *Chain, _ int, n *Node) bool {
				if n.Stage != nil && n.Stage.ID != s.ID && n.Stage.Effect == "trim" {
					copies++
					require.Equal(t, [4]int{1, 1, 1, 1}, moved(next, n.Stage.ID), c.name)
				}
				return true
			})
		}
		require.Equal(t, 1, copies, c.name)
		require.Equal(t, before, asJSON(t, c.from), "%s: the revision before is as it was", c.name)
		back, _, err := Apply(next, undo, fakeEffects)
		require.NoError(t, err, c.name)
		require.Equal(t, before, asJSON(t, back), c.name)
	}
}
