package project_test

import (
	"encoding/json"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// said is what a window tells its engine of a revision: of rows and lines which are elsewhere, and which are other objects.
func said(t *testing.T, was, now *project.Project) []byte {
	rest := *now
	rest.Channels, rest.Lines = []*project.Channel{}, []*project.Line{}
	b, err := json.Marshal(&rest)
	require.NoError(t, err)
	r := project.Revision{Rest: b, Rows: others(was.Channels, now.Channels), Lines: others(was.Lines, now.Lines)}
	whole, err := json.Marshal(r)
	require.NoError(t, err)
	return whole
}

func others[T any](was, now []*T) (o project.Others[*T]) {
	o.Count = len(now)
	for i, x := range now {
		if i < len(was) && was[i] == x {
			continue
		}
		if k := slices.Index(was, x); k >= 0 {
			o.Changed = append(o.Changed, project.Other[*T]{At: i, Was: &k})
		} else {
			o.Changed = append(o.Changed, project.Other[*T]{At: i, Is: x})
		}
	}
	return o
}

// An engine that is told only what has changed has the same document as one that is told all of it, whatever people do.
func TestARevisionReadIsTheDocumentItWasMadeOf(t *testing.T) {
	made, kept := 0, 0
	for seed := range uint64(40) {
		r := rand.New(rand.NewPCG(seed, 31))
		p := project.Sample(t)
		heard := p
		for range 60 {
			next, _, err := project.Apply(p, []project.Change{projecttest.RandomChange(r, p)}, project.FakeEffects)
			if err != nil {
				continue
			}
			was := heard
			heard, err = project.ReadRevision(heard, said(t, p, next), project.FakeEffects)
			require.NoError(t, err)
			require.JSONEq(t, project.AsJSON(t, next), project.AsJSON(t, heard))
			for i, c := range heard.Channels {
				if i < len(was.Channels) && c == was.Channels[i] {
					kept++
				}
			}
			p = next
			made++
		}
	}
	require.Greater(t, made, 1000)
	require.Greater(t, kept, made, "rows that nothing has happened to are not read anew")
}

// A new row moves all others to other places, and none of them is told or read anew.
func TestRowsAtOtherPlacesAreWhatTheyWere(t *testing.T) {
	p := project.Sample(t)
	next, _, err := project.Apply(p, []project.Change{&project.AddChannel{Channel: project.NewChannel(project.Track, "New", p.MainChannel().ID), Index: 0}}, project.FakeEffects)
	require.NoError(t, err)
	got, err := project.ReadRevision(p, said(t, p, next), project.FakeEffects)
	require.NoError(t, err)
	require.Equal(t, "New", got.Channels[0].Name)
	for i, c := range p.Channels {
		require.Same(t, c, got.Channels[i+1])
	}
}

func TestARevisionThatDoesNotFitIsRefusedInWords(t *testing.T) {
	p := project.Sample(t)
	read := func(change func(*project.Revision)) error {
		var r project.Revision
		require.NoError(t, json.Unmarshal(said(t, p, p), &r))
		change(&r)
		b, err := json.Marshal(r)
		require.NoError(t, err)
		_, err = project.ReadRevision(p, b, project.FakeEffects)
		return err
	}
	require.NoError(t, read(func(*project.Revision) {}))
	more := read(func(r *project.Revision) { r.Rows.Count++ })
	require.ErrorContains(t, more, "rows: there cannot be 5 of them: there were 4, and 0 are brought")
	require.ErrorContains(t, read(func(r *project.Revision) { r.Rows.Count-- }), "does not exist")
	require.ErrorContains(t, read(func(r *project.Revision) {
		r.Lines.Changed = []project.Other[*project.Line]{{At: 9, Is: p.Lines[0]}}
	}), "lines: there is no place 9 among 2")
	require.ErrorContains(t, read(func(r *project.Revision) {
		r.Rows.Changed = []project.Other[*project.Channel]{{At: 0}}
	}), "rows: one is missing")
	nowhere := 7
	require.ErrorContains(t, read(func(r *project.Revision) {
		r.Rows.Changed = []project.Other[*project.Channel]{{At: 0, Was: &nowhere}}
	}), "rows: there was no place 7 among 4")
	require.ErrorContains(t, read(func(r *project.Revision) { r.Rest = json.RawMessage(`{"rows":[]}`) }), "unknown field")
	_, err := project.ReadRevision(p, []byte("{"), project.FakeEffects)
	require.ErrorContains(t, err, "read revision")
}
