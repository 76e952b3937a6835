package server

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	jsonpatch "github.com/evanphx/json-patch/v5"
	"github.com/stretchr/testify/require"
	"github.com/wI2L/jsondiff"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// song has so many lines with so many points each.
func song(tb testing.TB, lines, points int) *project.Project {
	p := project.New("Test", 48000, 120, 4, 4)
	main := p.MainChannel().ID
	for i := range (lines + 1) / 2 {
		c := project.NewChannel(project.Track, fmt.Sprint("Row ", i), main)
		p.Channels = append([]*project.Channel{c}, p.Channels...)
		for _, name := range []string{"fader", "pan"} {
			l := &project.Line{Owner: c.ID, Name: name}
			for k := range points {
				l.Points = append(l.Points, project.Point{Tick: int64(k * 120), Value: float64(k%7)/10 - 0.3, Shape: project.Ramp})
			}
			p.Lines = append(p.Lines, l)
		}
	}
	require.NoError(tb, p.Validate(engine.EffectInfo))
	return p
}

// A patch says what has changed of the lines, and no more.
func TestAPatchHoldsOnlyTheLinesThatChanged(t *testing.T) {
	p := song(t, 6, 4)
	written, err := p.Write(nil, nil)
	require.NoError(t, err)
	look := func(want string, changes ...project.Change) {
		t.Helper()
		next, _, err := project.Apply(p, changes, engine.EffectInfo)
		require.NoError(t, err)
		patch, _, err := patchOf(p, written, next)
		require.NoError(t, err)
		var got string
		for _, op := range patch {
			got += op.Type + " " + op.Path + "; "
		}
		require.Equal(t, want, got)
		// what is stored of the lines makes the new list of the old one
		lines, err := changedLines(p.Lines, next.Lines)
		require.NoError(t, err)
		kept := append(slices.Clone(p.Lines), make([]*project.Line, len(next.Lines))...)[:lines.Count]
		for place, b := range lines.Changed {
			kept[place] = &project.Line{}
			require.NoError(t, json.Unmarshal(b, kept[place]))
		}
		require.Equal(t, next.Lines, kept)
		require.LessOrEqual(t, len(lines.Changed), len(next.Lines))
		if !strings.HasPrefix(want, "replace /lines;") {
			require.Len(t, lines.Changed, strings.Count(want, "/lines/"))
		}
	}
	row := p.Channels[0].ID
	look("replace /lines/4; ", &project.EditLine{Owner: row, Name: "fader", From: 100, To: 130, Points: nil})
	look("replace /channels/0/fader; ", &project.SetParam{Owner: row, Name: "fader", Value: -3})
	look("replace /lines; ", &project.SetLine{Owner: row, Name: "fader"})
	look("replace /lines; ", &project.SetLine{Owner: row, Name: "fader"}, &project.SetLine{Owner: row, Name: "pan"})
	main := p.MainChannel().ID
	look("add /lines/-; ", &project.SetLine{Owner: main, Name: "fader", Points: []project.Point{{Shape: project.Hold}}})
	look("")
	// rows that come, go or move leave the others alone
	last := p.Channels[2].ID
	look("add /channels/0; ", &project.AddChannel{Channel: project.NewChannel(project.Track, "New", main)})
	look("remove /channels/0; replace /lines; ", &project.RemoveChannel{ID: row})
	look("move /channels/0; ", &project.MoveChannel{ID: last, Index: 0})
	look("move /channels/0; replace /channels/0/pan; ", &project.MoveChannel{ID: last, Index: 0}, &project.SetParam{Owner: last, Name: "pan", Value: 1})
}

func BenchmarkEditAmong100000Points(b *testing.B) {
	p := song(b, 200, 500)
	written, err := p.Write(nil, nil)
	require.NoError(b, err)
	row := p.Channels[0].ID
	var patch jsondiff.Patch
	for i := 0; b.Loop(); i++ {
		next, _, err := project.Apply(
			p,
			[]project.Change{
				&project.EditLine{
					Owner:  row,
					Name:   "fader",
					From:   100,
					To:     130,
					Points: []project.Point{{Tick: 120, Value: float64(i % 10), Shape: project.Ramp}},
				},
			},
			engine.EffectInfo,
		)
		if err != nil {
			b.Fatal(err)
		}
		if patch, written, err = patchOf(p, written, next); err != nil || len(patch) != 1 {
			b.Fatal(err, len(patch))
		}
		p = next
	}
}

// Whoever applies the patches has, byte for byte, the document that the server has, and its hash.
func TestPatchesLeadToTheSameBytesAndHash(t *testing.T) {
	for seed := range uint64(12) {
		r := rand.New(rand.NewPCG(seed, 21))
		p := song(t, 6, 4)
		p.Sections = []project.Section{{ID: "one", Name: "One"}, {ID: "two", Name: "Two", Tick: 7680}}
		written, err := p.Write(nil, nil)
		require.NoError(t, err)
		sums, err := p.LineSums()
		require.NoError(t, err)
		window, err := json.Marshal(p)
		require.NoError(t, err)
		made := 0
		for range 60 {
			next, _, err := project.Apply(p, []project.Change{projecttest.RandomChange(r, p)}, engine.EffectInfo)
			if err != nil {
				continue
			}
			made++
			patch, nextWritten, err := patchOf(p, written, next)
			require.NoError(t, err)
			lines, err := changedLines(p.Lines, next.Lines)
			require.NoError(t, err)
			sums = sumsAfter(sums, lines)
			window = patched(t, window, patch)
			p, written = next, nextWritten
			want, err := project.Canonical(p)
			require.NoError(t, err)
			got, err := project.Canonical(json.RawMessage(window))
			require.NoError(t, err)
			require.Equal(t, string(want), string(got))
			whole, err := p.LineSums()
			require.NoError(t, err)
			require.Equal(t, whole, sums)
		}
		require.Greater(t, made, 10)
	}
}

func patched(t *testing.T, document []byte, patch jsondiff.Patch) []byte {
	b, err := json.Marshal(patch)
	require.NoError(t, err)
	list, err := jsonpatch.DecodePatch(b)
	require.NoError(t, err)
	out, err := list.Apply(document)
	require.NoError(t, err)
	return out
}
