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
func song(t testing.TB) (*project.Project, *project.Channel, *audiofile.Folder) {
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
	ch.Chain.Nodes = []*project.Node{
		stage("delay", map[string]float64{"sync": 1, "time": 100}),
		stage("limiter", map[string]float64{"ahead": 3}),
	}
	whole := render(t, p, folder, Spec{Channel: ch.ID, To: 96000})
	part := render(t, p, folder, Spec{Channel: ch.ID, From: 40000, To: 60000})
	require.Equal(t, whole[40000:60000], part)
}

func TestTrialsAndListeningAreNeverPrinted(t *testing.T) {
	p, ch, folder := song(t)
	ch.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": -3})}
	plain := render(t, p, folder, Spec{Channel: p.MainChannel().ID, To: 48000})
	ch.Trials = []*project.Trial{
		{
			ID:     "b",
			Letter: "B",
			Chain: project.Chain{
				Nodes: []*project.Node{stage("trim", map[string]float64{"gain": 12}), stage("limiter", map[string]float64{"ahead": 3})},
			},
		},
	}
	require.Equal(t, plain, render(t, p, folder, Spec{Channel: p.MainChannel().ID, To: 48000}))
}

// With everything on the row that a row can have, the mix stays as it is when its print takes its place.
func TestAPrintPlacedBesideItsSourceLeavesTheMixAlone(t *testing.T) {
	p, ch, folder := song(t)
	hall := project.NewChannel(project.Return, "Hall", ch.Output)
	hall.Chain.Nodes = []*project.Node{stage("delay", map[string]float64{"sync": 0, "time": 40})}
	other := project.NewChannel(project.Track, "Other", ch.Output)
	other.Clips = []*project.Clip{{ID: project.NewID(), Name: "o", Audio: ch.Clips[0].Audio, Start: 300, Frames: 90000}}
	keyed := stage("compressor", map[string]float64{"threshold": -40, "ratio": 8})
	keyed.Stage.Key = &project.Tap{Channel: ch.ID, Point: "post"}
	other.Chain.Nodes = []*project.Node{keyed}
	p.Channels = append(p.Channels[:1:1], append([]*project.Channel{other, hall}, p.Channels[1:]...)...)
	drive := stage("saturation", map[string]float64{"drive": 12})
	wet := project.NewPath("wet", stage("chorus", map[string]float64{"depth": 3}))
	ch.Chain.Nodes = []*project.Node{drive, project.Forked(project.Copies, "", project.NewPath("dry"), wet)}
	ch.Clips[0].Frames = 50000
	ch.Clips = append(ch.Clips, &project.Clip{ID: project.NewID(), Name: "again", Audio: ch.Clips[0].Audio, Start: 80000, Frames: 16000})
	var post *project.Send
	for i, s := range []*project.Send{{Pre: true}, {}, {After: drive.ID()}, {After: wet.ID}, {After: "input"}} {
		s.ID, s.To, s.Level = project.NewID(), hall.ID, -6-float64(i)
		ch.Sends = append(ch.Sends, s)
		if i == 1 {
			post = s
		}
	}
	pre := ch.Sends[0]
	points := func(a, b float64) []project.Point {
		return []project.Point{{Tick: 100, Value: a, Shape: project.Ramp}, {Tick: 1500, Value: b, Shape: project.Ramp}}
	}
	switches := []project.Point{
		{Tick: 0, Value: 0, Shape: project.Hold},
		{Tick: 900, Value: 1, Shape: project.Hold},
		{Tick: 1100, Value: 0, Shape: project.Hold},
	}
	next, _, err := project.Apply(p, []project.Change{
		&project.SetLine{Owner: ch.ID, Name: "fader", Points: points(-12, 0)},
		&project.SetLine{Owner: ch.ID, Name: "mute", Points: switches},
		&project.SetLine{Owner: pre.ID, Name: "mute", Points: switches},
		&project.SetLine{Owner: post.ID, Name: "level", Points: points(-3, -30)},
		&project.PutMover{
			Mover: &project.Mover{
				ID:      "sway",
				Name:    "Sway",
				Shape:   "sine",
				Rate:    3,
				Targets: []project.MoverTarget{{Owner: ch.ID, Name: "pan", Depth: 0.4}, {Owner: drive.ID(), Name: "drive", Depth: 0.3}},
			},
		},
		&project.PutHandle{
			Handle: &project.Handle{
				ID:      "grip",
				Name:    "Grip",
				Value:   40,
				Targets: []project.HandleTarget{{Owner: pre.ID, Name: "level", From: -20, To: 0}},
			},
		},
		&project.PutPassage{
			Passage: &project.Passage{
				ID:    "ebb",
				Name:  "Ebb",
				From:  1200,
				To:    2000,
				Rows:  []string{ch.ID},
				Tail:  project.TailCut,
				Reach: true,
				Courses: []*project.Course{
					{
						Name: "Down",
						Points: []project.Point{
							{Tick: 0, Shape: project.Ramp},
							{Tick: project.CourseParts, Value: 1, Shape: project.Ramp},
						},
						Targets: []project.CourseTarget{{Owner: ch.ID, Name: "fader", To: -20, Here: true}},
					},
				},
			},
		},
	}, engine.EffectInfo)
	require.NoError(t, err)
	p = next
	main := Spec{Channel: p.MainChannel().ID, To: 96000}
	before := render(t, p, folder, main)
	d, err := folder.Draft(48000, 2, 32, nil)
	require.NoError(t, err)
	spec := Spec{Channel: ch.ID, To: 96000, Target: "track", Mute: true}
	require.NoError(t, Render(t.Context(), p, folder, spec, func(src [][]float64) error { return d.Write(src) }, nil))
	e, err := d.Keep()
	require.NoError(t, err)
	q, undo, err := project.Apply(p, Place("print", spec, e, ""), engine.EffectInfo)
	require.NoError(t, err)
	require.Equal(t, "Horn print", q.Channels[1].Name)
	require.True(t, q.Channels[0].Mute)
	after := render(t, q, folder, main)
	worst, loud := 0.0, 0.0
	for i := range before {
		worst, loud = math.Max(worst, math.Abs(before[i]-after[i])), math.Max(loud, math.Abs(before[i]))
	}
	require.Greater(t, loud, 0.05, "there is something to hear")
	require.Less(
		t,
		20*math.Log10(worst+1e-12),
		-120.0,
		"the mix nulls",
	) // the print holds 32 bit floats, which a keyed compressor and two sends add up
	back, _, err := project.Apply(q, undo, engine.EffectInfo)
	require.NoError(t, err)
	require.Equal(t, p, back)
}

// A row that was removed while it was printed does not take its print with it.
func TestAPrintOutlivesItsSource(t *testing.T) {
	p, ch, folder := song(t)
	d, err := folder.Draft(48000, 2, 32, nil)
	require.NoError(t, err)
	require.NoError(t, d.Write([][]float64{make([]float64, 10), make([]float64, 10)}))
	e, err := d.Keep()
	require.NoError(t, err)
	p, _, err = project.Apply(p, []project.Change{&project.RemoveChannel{ID: ch.ID}}, engine.EffectInfo)
	require.NoError(t, err)
	q, _, err := project.Apply(p, Place("print", Spec{Channel: ch.ID, To: 10, Target: "track", Mute: true}, e, ""), engine.EffectInfo)
	require.NoError(t, err)
	require.Equal(t, "Lost row print", q.Channels[0].Name)
}

func TestALineageSaysInWordsWhatAPrintWasMadeFrom(t *testing.T) {
	p, ch, _ := song(t)
	off := stage("gate", nil)
	off.Stage.Bypass = true
	ch.Chain.Nodes = []*project.Node{off, stage("reverb", nil)}
	by := Printer{"Ines", 7}
	l := NewRecord(p, by, Spec{Channel: ch.ID, From: 10, To: 20}, OfFile, false)
	require.Equal(t, "Horn, Rope revision 7, frames 10 to 20, by Ines: (Gate) > Reverb\r\n", l.Words())
	ch.Chain.Nodes = nil
	require.Contains(t, NewRecord(p, by, Spec{Channel: ch.ID, To: 20}, OfFile, false).Words(), "no stages")
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
