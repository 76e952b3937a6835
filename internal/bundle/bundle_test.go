package bundle

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// small is a project of one short sound, with the folder that holds it.
func small(t testing.TB) (*project.Project, *audiofile.Folder) {
	folder, err := audiofile.NewFolder(t.TempDir())
	require.NoError(t, err)
	d, err := folder.Draft(48000, 1, 32, nil)
	require.NoError(t, err)
	x := make([]float64, 1000)
	for i := range x {
		x[i] = float64(i) / 2000
	}
	require.NoError(t, d.Write([][]float64{x}))
	e, err := d.Keep()
	require.NoError(t, err)
	p := project.New("Small", 48000, 100, 4, 4)
	ch := project.NewChannel(project.Track, "Rope", p.MainChannel().ID)
	ch.Clips = []*project.Clip{{ID: project.NewID(), Name: "Rope", Audio: e.Hash, Frames: 1000}}
	p.Audio = []project.Audio{{Hash: e.Hash, Name: "Rope", Frames: 1000, Channels: 1}}
	p.Channels = append([]*project.Channel{ch}, p.Channels...)
	require.NoError(t, p.Validate(engine.EffectInfo))
	return p, folder
}

func read(t testing.TB, b []byte) (*project.Project, error) {
	dir := t.TempDir()
	folder, err := audiofile.NewFolder(dir)
	require.NoError(t, err)
	p, err := Read(context.Background(), bytes.NewReader(b), int64(len(b)), folder)
	if err != nil {
		left, _ := os.ReadDir(dir)
		require.Empty(t, left, "a refused bundle leaves nothing behind")
	}
	return p, err
}

func TestABundleComesBackWhole(t *testing.T) {
	p, folder := small(t)
	f, err := project.NewFork(project.Bands, 3)
	require.NoError(t, err)
	f.Linear, f.Slope, f.Trim = true, 48, -1.5
	f.Paths[1].Width, f.Paths[1].Invert = 130, true
	inner, err := project.NewFork(project.MidSide, 0)
	require.NoError(t, err)
	f.Paths[2].Chain.Nodes = []*project.Node{{Fork: inner}}
	p.Channels[0].Chain.Nodes = []*project.Node{{Fork: f}}
	var b bytes.Buffer
	require.NoError(t, Write(context.Background(), &b, p, folder))
	q, err := read(t, b.Bytes())
	require.NoError(t, err)
	require.Equal(t, p, q)
}

func TestBadBundlesAreRefusedInWords(t *testing.T) {
	p, folder := small(t)
	sound, err := os.ReadFile(folder.Path(p.Audio[0].Hash))
	require.NoError(t, err)
	pack := func(files map[string][]byte) []byte {
		var b bytes.Buffer
		z := zip.NewWriter(&b)
		for name, body := range files {
			f, err := z.Create(name)
			require.NoError(t, err)
			_, err = f.Write(body)
			require.NoError(t, err)
		}
		require.NoError(t, z.Close())
		return b.Bytes()
	}
	document := func(change func(*project.Project)) []byte {
		q := project.Clone(p)
		change(q)
		b, err := json.Marshal(q)
		require.NoError(t, err)
		return b
	}
	audio := "audio/" + p.Audio[0].Hash + ".wav"
	good := document(func(*project.Project) {})
	for want, b := range map[string][]byte{
		"not a readable zip":   []byte("PK, so it says"),
		"has no project.json":  pack(map[string][]byte{audio: sound}),
		"climbs out of it":     pack(map[string][]byte{"project.json": good, "../" + audio: sound}),
		"lacks the audio Rope": pack(map[string][]byte{"project.json": good}),
		"audio Rope":           pack(map[string][]byte{"project.json": good, audio: sound[:len(sound)-8]}),
		`no effect "lantern"`: pack(map[string][]byte{audio: sound, "project.json": document(func(q *project.Project) {
			q.Channels[0].Chain.Nodes = []*project.Node{{Stage: project.NewStage("lantern", 1, 100, "blend")}}
		})}),
		`its output "nowhere" does not`: pack(
			map[string][]byte{audio: sound, "project.json": document(func(q *project.Project) { q.Channels[0].Output = "nowhere" })},
		),
		"is outside": pack(
			map[string][]byte{audio: sound, "project.json": document(func(q *project.Project) { q.Channels[0].Fader = 40 })},
		),
		"this program reads version": pack(
			map[string][]byte{audio: sound, "project.json": document(func(q *project.Project) { q.Version = 99 })},
		),
		"must be 44100, 48000, 88200 or": pack(
			map[string][]byte{audio: sound, "project.json": document(func(q *project.Project) { q.SampleRate = 0 })},
		),
	} {
		_, err := read(t, b)
		require.ErrorContains(t, err, want)
	}
}

func FuzzRead(f *testing.F) {
	p, folder := small(f)
	var b bytes.Buffer
	require.NoError(f, Write(context.Background(), &b, p, folder))
	f.Add(b.Bytes())
	f.Add(b.Bytes()[:b.Len()/2])
	f.Fuzz(func(t *testing.T, b []byte) {
		if p, err := read(t, b); err == nil {
			require.NoError(t, p.Validate(engine.EffectInfo))
		}
	})
}
