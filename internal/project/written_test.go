package project_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// Written row by row a document is what it is written whole, and two of them touch what they touch in full.
func TestADocumentWrittenRowByRowIsTheSame(t *testing.T) {
	for seed := range uint64(10) {
		r := rand.New(rand.NewPCG(seed, 5))
		p := rowsOf(4)
		was, err := p.Write(nil, nil)
		require.NoError(t, err)
		made := 0
		for range 60 {
			next, _, err := project.Apply(p, []project.Change{projecttest.RandomChange(r, p)}, engine.EffectInfo)
			if err != nil {
				continue
			}
			made++
			now, err := next.Write(p, was)
			require.NoError(t, err)
			whole, err := next.Bare()
			require.NoError(t, err)
			require.Equal(t, string(whole), string(now.Bytes()))
			anew, err := next.Write(nil, nil)
			require.NoError(t, err)
			require.Equal(t, anew.Hash(nil), now.Hash(nil))
			touched, err := project.TouchedBetween(p, was, next, now)
			require.NoError(t, err)
			require.Equal(t, touchedInFull(t, p, was, next, now), touched)
			p, was = next, now
		}
		require.Greater(t, made, 10)
	}
}

func rowsOf(n int) *project.Project {
	p := project.New("Weir", 48000, 120, 4, 4)
	for i := range n {
		p.Channels = append([]*project.Channel{project.NewChannel(project.Track, fmt.Sprint("Row ", i), p.MainChannel().ID)}, p.Channels...)
	}
	return p
}

func touchedInFull(t *testing.T, p *project.Project, was *project.Written, next *project.Project, now *project.Written) []string {
	a, err := project.FacetsOf(was.Bytes(), p.Lines)
	require.NoError(t, err)
	b, err := project.FacetsOf(now.Bytes(), next.Lines)
	require.NoError(t, err)
	return project.Touched(a, b)
}

func TestOnlyTheRowsThatDifferAreCompared(t *testing.T) {
	p := rowsOf(5)
	was, err := p.Write(nil, nil)
	require.NoError(t, err)
	change := func(c project.Change) *project.Written {
		next, _, err := project.Apply(p, []project.Change{c}, engine.EffectInfo)
		require.NoError(t, err)
		now, err := next.Write(p, was)
		require.NoError(t, err)
		return now
	}
	x, y, at := project.Differing(was, change(&project.SetParam{Owner: p.Channels[3].ID, Name: "pan", Value: 0.5}))
	assert.Equal(t, []int{3}, at)
	for _, b := range [][]byte{x, y} {
		var d project.Project
		require.NoError(t, json.Unmarshal(b, &d))
		require.Len(t, d.Channels, 1)
		assert.Equal(t, p.Channels[3].ID, d.Channels[0].ID)
	}
	_, y, at = project.Differing(was, change(&project.RemoveChannel{ID: p.Channels[3].ID}))
	assert.Nil(t, at, "where a row went, all are compared")
	assert.Contains(t, string(y), p.Channels[0].ID)
	_, _, at = project.Differing(was, was)
	assert.Empty(t, at)
	assert.NotNil(t, at)
}
