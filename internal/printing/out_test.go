package printing

import (
	"io"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/project"
)

// outFile writes what goes out of a spec into a file.
func outFile(t *testing.T, p *project.Project, folder *audiofile.Folder, spec Spec) *os.File {
	t.Helper()
	require.NoError(t, spec.Check(p))
	f, err := os.Create(filepath.Join(t.TempDir(), "out.wav"))
	require.NoError(t, err)
	note := NewRecord(p, Printer{"Ines", 3}, spec, OfFile, false).Note()
	note.Belongs = spec.Mark(p)
	w, err := NewFile(f, spec.Format, p.SampleRate, note, nil)
	require.NoError(t, err)
	require.NoError(t, renderOut(t.Context(), p, folder, spec, w.Write, nil))
	require.NoError(t, w.Close())
	_, err = f.Seek(0, io.SeekStart)
	require.NoError(t, err)
	return f
}

// What goes out and comes back as it was sounds as it did, where it was.
func TestWhatGoesOutComesBackWhereItBelongs(t *testing.T) {
	p, ch, folder := song(t)
	p = made(t, p, &project.AddNode{Owner: ch.ID, Node: stage("trim", map[string]float64{"gain": -3})})
	main := Spec{Channel: p.MainChannel().ID, To: 90000}
	before := render(t, p, folder, main)
	spec := Spec{Channel: ch.ID, From: 20000, To: 50000, Target: "file", Format: "wav32f", Out: true}
	f := outFile(t, p, folder, spec)
	src, err := audiofile.Open(f)
	require.NoError(t, err)
	form := src.Format()
	require.Equal(t, int64(20000), form.Time)
	to, ok := BelongsTo(p, form.Belongs)
	require.True(t, ok)
	require.Equal(t, Belonging{ch.ID, 30000, false}, to)

	_, err = f.Seek(0, 0)
	require.NoError(t, err)
	e, _, err := folder.Import(t.Context(), f, p.SampleRate, nil)
	require.NoError(t, err)
	require.NoError(t, Landed(p, Printer{"Odo", 4}, to.Row, form.Time, e, folder))
	audio := project.Audio{Hash: e.Hash, Name: "out", Frames: e.Frames, Channels: e.Channels}
	q := made(t, p, &project.LandSound{Row: to.Row, ID: "back", Name: "Horn", Audio: audio, Start: form.Time})
	row, _ := q.Channel(ch.ID)
	require.Len(t, row.Clips, 2, "what was there is kept")
	after := render(t, q, folder, main)
	for i := range before {
		if k := i % 90000; k < 19700 || k >= 20600 && k < 49400 || k >= 51000 { // but for the cross-fades at its ends
			require.InDelta(t, before[i], after[i], 1e-6, "frame %d", i)
		}
	}
	s, err := StepsOf(q, folder, e.Hash, nobody)
	require.NoError(t, err)
	require.Equal(t, "Worked on outside, from Horn", s.Title)
	require.Equal(t, "Odo", s.By)
	require.Equal(t, Holds, s.State)
	require.Len(t, s.Of, 1)
	require.Equal(t, Source, s.Of[0].Kind)
	keep := func(audiofile.Entry, string) error { return nil }
	_, err = Again(t.Context(), q, folder, Printer{}, e.Hash, keep, nil)
	require.ErrorContains(t, err, "worked on outside")
}

// Clips that enter behind the chain go out too, and come back there.
func TestClipsBehindTheChainComeBackThere(t *testing.T) {
	p, ch, folder := song(t)
	behind := project.EntersBehind
	p = made(t, p, &project.SetClip{ID: ch.Clips[0].ID, Enters: &behind})
	spec := Spec{Channel: ch.ID, To: 1000, Target: "file", Format: "wav32f", Out: true, Clips: []string{ch.Clips[0].ID}}
	f := outFile(t, p, folder, spec)
	src, err := audiofile.Open(f)
	require.NoError(t, err)
	to, ok := BelongsTo(p, src.Format().Belongs)
	require.True(t, ok)
	require.True(t, to.Behind)
	sides := [][]float64{make([]float64, 1000), make([]float64, 1000)}
	_, err = src.Read(sides)
	require.NoError(t, err)
	loud := 0.0
	for _, v := range sides[0] {
		loud = max(loud, v)
	}
	require.Positive(t, loud)
}

func TestWhatBelongsElsewhereDoesNotLand(t *testing.T) {
	p, ch, _ := song(t)
	for _, mark := range []string{
		"", "x/y/z", "other/" + ch.ID + "/a", p.ID + "/gone/a", p.ID + "/" + ch.ID + "/!", p.ID + "/" + p.MainChannel().ID + "/a",
	} {
		_, ok := BelongsTo(p, mark)
		require.False(t, ok, mark)
	}
	spec := Spec{Channel: ch.ID, To: 10, Target: "file", Format: "flac24", Out: true}
	require.ErrorContains(t, spec.Check(p), "WAV")
	spec.Format, spec.Clips = "wav24", []string{"gone"}
	require.ErrorContains(t, spec.Check(p), "no longer there")
	spec.Clips, spec.Channel = nil, p.MainChannel().ID
	require.ErrorContains(t, spec.Check(p), "on a track")
}
