package working

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/engine"
	"shoal/internal/project"
)

const frames = 24000

// sound is a project with a clip of noise that dies away: frames 1000 on of 30000, at frame 4800 of the song.
func sound(t *testing.T) (*project.Project, *audiofile.Folder, []float64) {
	t.Helper()
	folder, err := audiofile.NewFolder(t.TempDir())
	require.NoError(t, err)
	d, err := folder.Draft(48000, 1, 32, nil)
	require.NoError(t, err)
	x := make([]float64, 30000)
	for i := range x {
		x[i] = float64(float32(0.4 * dsp.White(3, int64(i)) * math.Exp(-float64(i)/9000)))
	}
	require.NoError(t, d.Write([][]float64{x}))
	e, err := d.Keep()
	require.NoError(t, err)
	p := project.New("Rope", 48000, 120, 4, 4)
	row := project.NewChannel(project.Track, "Bell", p.MainChannel().ID)
	row.ID = "row"
	row.Clips = []*project.Clip{{ID: "x", Name: "Bell", Audio: e.Hash, Start: 4800, Offset: 1000, Frames: frames, Exact: true}}
	p.Audio = []project.Audio{{Hash: e.Hash, Name: "Bell", Frames: 30000, Channels: 1}}
	p.Channels = append([]*project.Channel{row}, p.Channels...)
	require.NoError(t, p.Validate(engine.EffectInfo))
	return p, folder, x
}

func change(t *testing.T, p *project.Project, list ...project.Change) *project.Project {
	t.Helper()
	next, _, err := project.Apply(p, list, engine.EffectInfo)
	require.NoError(t, err)
	return next
}

// treated puts effects at the end of the clip's treatment, with parameters.
func treated(t *testing.T, p *project.Project, effect string, params map[string]float64) *project.Project {
	t.Helper()
	id := project.NewID()
	p = change(t, p, &project.TreatClips{Clips: []string{"x"}, Effect: effect, ID: id})
	for name, v := range params {
		p = change(t, p, &project.SetParam{Owner: id, Name: name, Value: v})
	}
	return p
}

// made is what is worked out for the clip.
func made(t *testing.T, p *project.Project, folder *audiofile.Folder) (*engine.Work, [][]float64) {
	t.Helper()
	list := Needed(p)
	require.Len(t, list, 1)
	w := list[0].work
	require.NoError(t, Out(context.Background(), p, folder, w, nil))
	sides, err := folder.Sides(w.Key, 0, w.Frames())
	require.NoError(t, err)
	return w, sides
}

func TestBackwardsTwiceIsTheSourceBitForBit(t *testing.T) {
	p, folder, x := sound(t)
	p = treated(t, p, "backwards", nil)
	_, once := made(t, p, folder)
	require.Len(t, once, 1, "a mono source stays mono")
	for i, v := range once[0] {
		require.Equal(t, x[1000+frames-1-i], v)
	}
	p = treated(t, p, "backwards", nil)
	_, twice := made(t, p, folder)
	require.Equal(t, x[1000:1000+frames], twice[0])
}

// An echo that is then turned round comes before its sound, which keeps its place.
func TestATailThatIsTurnedLiesBeforeTheSound(t *testing.T) {
	p, folder, x := sound(t)
	p = treated(t, p, "delay", map[string]float64{"sync": 1, "time": 200, "feedback": 40})
	p = treated(t, p, "backwards", nil)
	w, sides := made(t, p, folder)
	require.Greater(t, w.Lead, int64(9600))
	require.Zero(t, w.Trail)
	require.Equal(t, int64(frames), w.Body)
	first := 0.0 // what was the first 200 ms is now the last, and has no echo in it
	for i := range 9600 {
		first = max(first, math.Abs(sides[0][int(w.Lead)+frames-1-i]-x[1000+i]))
	}
	require.Less(t, first, 1e-6)
	before := 0.0
	for _, v := range sides[0][w.Lead-9600 : w.Lead] {
		before = max(before, math.Abs(v))
	}
	require.Greater(t, before, 0.001)
}

func TestStepsComeInTheirOrder(t *testing.T) {
	p, folder, _ := sound(t)
	p = treated(t, p, "length", map[string]float64{"percent": 150})
	p = treated(t, p, "backwards", nil)
	p = treated(t, p, "pitch", map[string]float64{"semitones": -12})
	w, sides := made(t, p, folder)
	require.Equal(t, int64(36000), w.Frames())
	require.Len(t, sides[0], 36000)
	head, tail := 0.0, 0.0 // what died away comes up
	for i := range 6000 {
		head, tail = head+sides[0][i]*sides[0][i], tail+sides[0][30000+i]*sides[0][30000+i]
	}
	require.Greater(t, tail, 10*head)
}

// The key says all that the result depends on, and nothing else.
func TestTheKeyTurnsWithWhatIsHeardOnly(t *testing.T) {
	p, _, _ := sound(t)
	p = treated(t, p, "pitch", map[string]float64{"semitones": 3})
	key := func(p *project.Project) string { return Needed(p)[0].Key }
	was := key(p)
	tr := p.Treatments[0]
	for what, c := range map[string]project.Change{
		"moved":         &project.MoveClip{ID: "x", By: 9600},
		"louder":        &project.SetClip{ID: "x", Gain: ptr(-6.0)},
		"cut shorter":   &project.TrimClip{ID: "x", Edge: "end", By: -5000},
		"another tempo": &project.PutTempo{At: 0, BPM: 90},
	} {
		require.Equal(t, was, key(change(t, p, c)), what)
	}
	later := treated(t, p, "saturation", nil)
	require.Equal(t, was, key(later), "what runs live behind it plays no role")
	for what, c := range map[string]project.Change{
		"higher": &project.SetParam{Owner: tr.Chain.Nodes[0].ID(), Name: "semitones", Value: 4},
		"wider":  &project.TrimClip{ID: "x", Edge: "end", By: 2000},
	} {
		require.NotEqual(t, was, key(change(t, p, c)), what)
	}
	off := true
	require.Empty(t, Needed(change(t, p, &project.SetNode{ID: tr.Chain.Nodes[0].ID(), Bypass: &off})))
	notes := treated(t, treated(t, p, "delay", nil), "backwards", nil)
	require.NotEqual(t, key(notes), key(change(t, notes, &project.PutTempo{At: 0, BPM: 90})), "its echoes follow the tempo")
}

func ptr[T any](v T) *T { return &v }

// What is cut looks into one work, and two clips that share it need it once.
func TestACutNeedsNothingNew(t *testing.T) {
	p, _, _ := sound(t)
	p = treated(t, p, "backwards", nil)
	was := Needed(p)[0].Key
	p = change(t, p, &project.SplitClips{IDs: []string{"x"}, At: []int64{9000, 12000}})
	list := Needed(p)
	require.Len(t, list, 1)
	require.Equal(t, was, list[0].Key)
	require.Len(t, list[0].Clips, 3)
}

func TestWhatIsCalledOffLeavesNothing(t *testing.T) {
	p, folder, _ := sound(t)
	p = treated(t, p, "pitch", map[string]float64{"semitones": 5})
	ctx, stop := context.WithCancel(context.Background())
	stop()
	w := Needed(p)[0].work
	require.ErrorIs(t, Out(ctx, p, folder, w, nil), context.Canceled)
	require.False(t, folder.HasWorked(w.Key))
	told := 0.0
	require.NoError(t, Out(context.Background(), p, folder, w, func(part float64) { told = max(told, part) }))
	require.True(t, folder.HasWorked(w.Key))
	require.Greater(t, told, 0.5)
	require.NoError(t, folder.TrimWorked(0))
	require.False(t, folder.HasWorked(w.Key), "a cache can be thrown away")
	require.NoError(t, Out(context.Background(), p, folder, w, nil))
}

func TestWhatCannotBeWorkedOutSaysWhy(t *testing.T) {
	p, folder, _ := sound(t)
	p = treated(t, p, "backwards", nil)
	w := *Needed(p)[0].work
	w.Key, w.Source = "other", "missing"
	require.ErrorContains(t, Out(context.Background(), p, folder, &w, nil), "is not there")
	w.Body = 48000 * 700
	require.ErrorContains(t, Out(context.Background(), p, folder, &w, nil), "cut it first")
}

func TestEveryWholeSoundStepIsKnownHere(t *testing.T) {
	p, folder, _ := sound(t)
	for _, k := range effect.Whole() {
		_, sides := made(t, treated(t, p, k.ID, nil), folder)
		require.Len(t, sides[0], frames, k.ID)
	}
}

// A piece of one frame, and one of silence, pass every step.
func TestWhatIsNearlyNothingIsWorkedOutToo(t *testing.T) {
	for _, k := range effect.Whole() {
		p, folder, _ := sound(t)
		p = change(t, p, &project.TrimClip{ID: "x", Edge: "end", By: -(frames - 1)})
		p = treated(t, treated(t, p, "delay", nil), k.ID, nil)
		if k.ID == "length" {
			p = treated(t, p, k.ID, map[string]float64{"percent": 1000})
		}
		w, sides := made(t, p, folder)
		require.Equal(t, w.Frames(), int64(len(sides[0])), k.ID)
	}
}
