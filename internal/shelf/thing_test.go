package shelf

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/printing"
	"shoal/internal/project"
)

const rate = 48000

// song has a tone on each of two rows, from 1 s and from 1.5 s on, both through one treatment.
func song(t testing.TB) (*project.Project, []string, *audiofile.Folder) {
	t.Helper()
	folder, err := audiofile.NewFolder(t.TempDir())
	require.NoError(t, err)
	d, err := folder.Draft(rate, 1, 32, nil)
	require.NoError(t, err)
	tone := make([]float64, rate)
	for i := range tone {
		tone[i] = 0.25 * math.Sin(2*math.Pi*441*float64(i)/rate)
	}
	require.NoError(t, d.Write([][]float64{tone}))
	e, err := d.Keep()
	require.NoError(t, err)
	p := project.New("Quay", rate, 90, 4, 4)
	main := p.MainChannel().ID
	p.Audio = []project.Audio{{Hash: e.Hash, Name: "tone.wav", Frames: e.Frames, Channels: 1}}
	for i, name := range []string{"Low", "High"} {
		row := project.NewChannel(project.Track, name, main)
		row.Clips = []*project.Clip{{ID: name, Name: name + " tone", Audio: e.Hash, Start: rate + int64(i)*rate/2,
			Offset: 4800, Frames: rate / 2, FadeIn: 480, FadeOut: 960, Gain: -3}}
		p.Channels = append(p.Channels, row)
	}
	p, _, err = project.Apply(p, []project.Change{
		&project.TreatClips{Clips: []string{"Low", "High"}, Effect: "trim"},
	}, engine.EffectInfo)
	require.NoError(t, err)
	stage := p.Treatments[0].Chain.Nodes[0].Stage
	p, _, err = project.Apply(p, []project.Change{&project.SetParam{Owner: stage.ID, Name: "gain", Value: 4}}, engine.EffectInfo)
	require.NoError(t, err)
	return p, []string{"Low", "High"}, folder
}

func rendered(t *testing.T, p *project.Project, folder *audiofile.Folder, from, to int64) (l []float64) {
	t.Helper()
	spec := printing.Spec{Channel: p.MainChannel().ID, From: from, To: to}
	require.NoError(t, printing.Render(t.Context(), p, folder, spec, func(src [][]float64) error {
		l = append(l, src[0]...)
		return nil
	}, nil))
	return l
}

func TestWhatStandsOnTheShelfSoundsAsItLay(t *testing.T) {
	p, ids, folder := song(t)
	x, err := New(p, ids)
	require.NoError(t, err)
	require.NoError(t, x.Check())
	assert.Equal(t, Slices, x.Kind)
	assert.Equal(t, From{Project: "Quay", Row: "Low"}, x.From)
	assert.InDelta(t, 90, x.Tempo, 1e-9)
	require.NoError(t, x.Hear(t.Context(), folder))
	want := rendered(t, p, folder, rate, 2*rate)
	sides, err := folder.Sides(x.Heard, 0, x.Frames)
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(sides[0]), len(want))
	for i, v := range want {
		require.InDelta(t, v, sides[0][i], 1e-7, "frame %d", i)
	}

	// put down in another song it is the same once more, wherever
	q := project.New("Shore", rate, 120, 4, 4)
	for range 2 {
		q.Channels = append(q.Channels, project.NewChannel(project.Track, "Row", q.MainChannel().ID))
	}
	q, _, err = project.Apply(q, []project.Change{x.Put(q.Channels[1].ID, 7000, project.Snap{})}, engine.EffectInfo)
	require.NoError(t, err)
	for i, v := range rendered(t, q, folder, 7000, 7000+int64(len(want))) {
		require.InDelta(t, want[i], v, 1e-7, "frame %d", i)
	}
	require.Len(t, q.Treatments, 1)
}

func TestAThingComesToAnotherRate(t *testing.T) {
	p, ids, folder := song(t)
	x, err := New(p, ids[1:])
	require.NoError(t, err)
	assert.Equal(t, Sound, x.Kind)
	same, err := x.At(t.Context(), rate, folder)
	require.NoError(t, err)
	assert.Same(t, x, same)
	y, err := x.At(t.Context(), 44100, folder)
	require.NoError(t, err)
	clip := y.Kept.Clips[0].Clip
	assert.Equal(t, int64(22050), clip.Frames)
	assert.Equal(t, int64(4410), clip.Offset)
	assert.Equal(t, int64(441), clip.FadeIn)
	assert.Equal(t, int64(rate/2), x.Kept.Clips[0].Clip.Frames, "the thing itself stays as it is")
	q := project.New("Shore", 44100, 120, 4, 4)
	q.Channels = append(q.Channels, project.NewChannel(project.Track, "Row", q.MainChannel().ID))
	_, _, err = project.Apply(q, []project.Change{x.Put(q.Channels[1].ID, 0, project.Snap{})}, engine.EffectInfo)
	require.ErrorContains(t, err, "48000 Hz")
	q, _, err = project.Apply(q, []project.Change{y.Put(q.Channels[1].ID, 0, project.Snap{})}, engine.EffectInfo)
	require.NoError(t, err)
	// a tone of 441 Hz stays one: 220 periods in its half second, as many upward crossings
	ups, l := 0, rendered(t, q, folder, 0, 22050)
	for i := 1; i < len(l); i++ {
		if l[i-1] < 0 && l[i] >= 0 {
			ups++
		}
	}
	assert.InDelta(t, 220, ups, 2)
}

func TestWhatIsNoThingIsRefused(t *testing.T) {
	p, ids, _ := song(t)
	_, err := New(p, nil)
	require.ErrorContains(t, err, "select clips")
	_, err = New(p, []string{"gone"})
	require.Error(t, err)
	x, err := New(p, ids[:1])
	require.NoError(t, err)
	for want, spoil := range map[string]func(*Thing){
		"1 to 80 letters": func(x *Thing) { x.Name = " " },
		"300 letters":     func(x *Thing) { x.Says = string(make([]rune, 301)) },
		"at most 12 tags": func(x *Thing) { x.Tags = make([]string, 13) },
		"40 letters":      func(x *Thing) { x.Tags = []string{string(make([]rune, 41))} },
	} {
		y := *x
		spoil(&y)
		require.ErrorContains(t, y.Check(), want)
	}
}

func TestAPrintIsKnownAsOne(t *testing.T) {
	p, ids, _ := song(t)
	row, x, _ := p.RowOfClip(ids[0])
	x.Enters = project.EntersBehind
	thing, err := New(p, ids[:1])
	require.NoError(t, err)
	assert.Equal(t, Print, thing.Kind)
	assert.Empty(t, thing.Kept.Clips[0].Clip.Enters, "elsewhere it passes the chain")
	x.Enters, row.PrintOf = "", &project.Origin{}
	thing, err = New(p, ids[:1])
	require.NoError(t, err)
	assert.Equal(t, Print, thing.Kind)
}

func TestWhatShipsIsMadeOnce(t *testing.T) {
	folder, err := audiofile.NewFolder(t.TempDir())
	require.NoError(t, err)
	list, err := Stocked(t.Context(), folder, nil)
	require.NoError(t, err)
	have := map[string]*Thing{}
	for _, x := range list {
		have[x.ID] = x
		require.True(t, folder.Has(x.Heard))
	}
	again, err := Stocked(t.Context(), folder, have)
	require.NoError(t, err)
	for i := range list {
		require.Same(t, list[i], again[i])
	}
	require.NoError(t, folder.Remove(list[3].Heard))
	third, err := Stocked(t.Context(), folder, have)
	require.NoError(t, err)
	require.Equal(t, list[3].Heard, third[3].Heard)
	require.True(t, folder.Has(list[3].Heard), "what is missing is made again, the same")
}
