package engine

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/effect"
	"shoal/internal/project"
)

// A document with an older sound plays it; renewed while it plays, it is cross-faded to what a document
// with the newest plays.
func TestAnOlderSoundPlaysUntilItIsRenewed(t *testing.T) {
	song := func(version int) *song {
		s := newSong(t)
		a := s.track("a", sine(200000, 1000, -6))
		n := stage("vibrato", map[string]float64{"depth": 200, "rate": 2})
		n.Stage.Version = version
		n.Stage.ID = "swing"
		a.Chain.Nodes = []*project.Node{n}
		return s
	}
	newest, _ := effect.Find("vibrato")
	older, newer := song(1), song(newest.Version)
	was, _ := older.print(Job{To: 100000})
	is, _ := newer.print(Job{To: 100000})
	require.Greater(t, worst(was, is), -20.0, "they are heard to differ")

	e := older.engine()
	e.Play()
	l, _ := play(t, e, 48000, 128)
	same(t, was[:48000], l)
	next, _, err := project.Apply(older.doc, []project.Change{&project.RenewStage{ID: "swing"}}, EffectInfo)
	require.NoError(t, err)
	require.NoError(t, e.SetDocument(next))
	m, _ := play(t, e, 52000, 128)
	require.Less(t, worst(is[60000:], m[12000:]), -100.0, "what is new has taken over")
}
