package printing

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// song is a project with one track of two seconds of a tone.
func song(t *testing.T) (*project.Project, *project.Channel, *audiofile.Folder) {
	folder, err := audiofile.NewFolder(t.TempDir())
	require.NoError(t, err)
	d, err := folder.Draft(48000, 1, 32, nil)
	require.NoError(t, err)
	x := make([]float64, 96000)
	for i := range x {
		x[i] = 0.2 * math.Sin(float64(i)*0.05)
	}
	require.NoError(t, d.Write([][]float64{x}))
	e, err := d.Keep()
	require.NoError(t, err)
	p := project.New("Rope", 48000, 120, 4, 4)
	ch := project.NewChannel(project.Track, "Horn", p.MainChannel().ID)
	ch.Fader = -5
	ch.Clips = []*project.Clip{{ID: project.NewID(), Name: "Horn", Audio: e.Hash, Frames: 96000}}
	p.Audio = []project.Audio{{Hash: e.Hash, Name: "Horn", Frames: 96000, Channels: 1}}
	p.Channels = append([]*project.Channel{ch}, p.Channels...)
	return p, ch, folder
}

func stage(effect string, params map[string]float64) *project.Node {
	n := &project.Node{Stage: project.NewStage(effect, 1, 100, "blend")}
	n.Stage.Params = params
	return n
}

func render(t *testing.T, p *project.Project, folder *audiofile.Folder, spec Spec) (l []float64) {
	require.NoError(t, p.Validate(engine.EffectInfo))
	require.NoError(t, Render(t.Context(), p, folder, spec, func(src [][]float64) error {
		l = append(l, src[0]...)
		return nil
	}, nil))
	return l
}

func TestARangeIsCutFromARenderOfTheWhole(t *testing.T) {
	p, ch, folder := song(t)
	ch.Chain.Nodes = []*project.Node{stage("delay", map[string]float64{"sync": 1, "time": 100}), stage("limiter", map[string]float64{"ahead": 3})}
	whole := render(t, p, folder, Spec{Channel: ch.ID, To: 96000})
	part := render(t, p, folder, Spec{Channel: ch.ID, From: 40000, To: 60000})
	require.Equal(t, whole[40000:60000], part)
}

func TestTrialsAndListeningAreNeverPrinted(t *testing.T) {
	p, ch, folder := song(t)
	ch.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": -3})}
	plain := render(t, p, folder, Spec{Channel: p.MainChannel().ID, To: 48000})
	ch.Trials = []*project.Trial{{ID: "b", Letter: "B", Chain: project.Chain{Nodes: []*project.Node{stage("trim", map[string]float64{"gain": 12}), stage("limiter", map[string]float64{"ahead": 3})}}}}
	require.Equal(t, plain, render(t, p, folder, Spec{Channel: p.MainChannel().ID, To: 48000}))
}

func TestAPrintPlacedBesideItsSourceLeavesTheMixAlone(t *testing.T) {
	p, ch, folder := song(t)
	ch.Chain.Nodes = []*project.Node{stage("saturation", map[string]float64{"drive": 12}), stage("chorus", map[string]float64{"depth": 3})}
	main := Spec{Channel: p.MainChannel().ID, To: 96000}
	before := render(t, p, folder, main)
	d, err := folder.Draft(48000, 2, 32, nil)
	require.NoError(t, err)
	require.NoError(t, Render(t.Context(), p, folder, Spec{Channel: ch.ID, To: 96000}, func(src [][]float64) error { return d.Write(src) }, nil))
	e, err := d.Keep()
	require.NoError(t, err)
	q := project.Clone(p)
	src := q.Channels[0]
	printed := project.NewChannel(project.Track, "Horn print", src.Output)
	printed.Fader, printed.Pan = src.Fader, src.Pan
	printed.Clips = []*project.Clip{{ID: project.NewID(), Name: "print", Audio: e.Hash, Frames: 96000, Exact: true}}
	src.Mute = true
	q.Audio = append(q.Audio, project.Audio{Hash: e.Hash, Name: "print", Frames: 96000, Channels: 2})
	q.Channels = append([]*project.Channel{printed}, q.Channels...)
	after := render(t, q, folder, main)
	worst := 0.0
	for i := range before {
		worst = math.Max(worst, math.Abs(before[i]-after[i]))
	}
	require.Less(t, 20*math.Log10(worst+1e-12), -140.0)
}

func TestALineageSaysInWordsWhatAPrintWasMadeFrom(t *testing.T) {
	p, ch, _ := song(t)
	off := stage("gate", nil)
	off.Stage.Bypass = true
	ch.Chain.Nodes = []*project.Node{off, stage("reverb", nil)}
	l := NewLineage(p, 7, Spec{Channel: ch.ID, From: 10, To: 20})
	require.Equal(t, "Horn, Rope revision 7, frames 10 to 20: (gate) > reverb\r\n", l.Words())
	ch.Chain.Nodes = nil
	require.Contains(t, NewLineage(p, 7, Spec{Channel: ch.ID, To: 20}).Words(), "no stages")
}

func TestASpecThatMakesNoSenseIsRefused(t *testing.T) {
	p, ch, _ := song(t)
	for want, s := range map[string]Spec{
		"does not exist":         {Channel: "gone", To: 5, Target: "track"},
		"is empty":               {Channel: ch.ID, From: 5, To: 5, Target: "track"},
		"longer than four hours": {Channel: ch.ID, To: 48000 * 3600 * 5, Target: "track"},
		"only a track is":        {Channel: p.MainChannel().ID, To: 5, Target: "track"},
		`unknown format "ogg"`:   {Channel: ch.ID, To: 5, Target: "file", Format: "ogg"},
		`unknown target "disc"`:  {Channel: ch.ID, To: 5, Target: "disc"},
	} {
		require.ErrorContains(t, s.Check(p), want)
	}
	require.NoError(t, Spec{Channel: ch.ID, To: 5, Target: "file", Format: "flac"}.Check(p))
}
