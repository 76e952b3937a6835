package printing

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
)

func made(t *testing.T, p *project.Project, list ...project.Change) *project.Project {
	t.Helper()
	next, _, err := project.Apply(p, list, engine.EffectInfo)
	require.NoError(t, err)
	return next
}

func loudest(x []float64) (most float64) {
	for _, v := range x {
		most = max(most, math.Abs(v))
	}
	return most
}

// What is made permanent sounds as it did, sample for sample, whatever the treatment, and is brought back.
func TestWhatIsMadePermanentSoundsTheSame(t *testing.T) {
	for name, effects := range map[string][]string{
		"live":             {"saturation", "limiter"},
		"whole":            {"pitch"},
		"whole, then live": {"delay", "backwards", "saturation"},
		"longer":           {"length", "delay"},
		"moved by a line":  {"trim"},
	} {
		for _, rings := range []bool{false, true} {
			t.Run(fmt.Sprint(name, rings), func(t *testing.T) {
				p, row, folder := song(t)
				id, yes, gain, fade := row.Clips[0].ID, rings, -4.0, int64(3000)
				p = made(t, p, &project.MoveClip{ID: id, By: 480000}, &project.TrimClip{ID: id, Edge: "begin", By: 20000},
					&project.SetClip{
						ID: id, Rings: &yes, Gain: &gain, FadeIn: &fade, FadeOut: &fade,
						Swell: &[]project.Swell{{At: 30000, Gain: -9}, {At: 50000}},
					})
				for _, e := range effects {
					stage := project.NewID()
					p = made(t, p, &project.TreatClips{Clips: []string{id}, Effect: e, ID: stage})
					switch e {
					case "trim":
						p = made(t, p, &project.SetLine{Owner: stage, Name: "gain", Points: []project.Point{
							{Tick: 100, Value: 0, Shape: project.Ramp}, {Tick: 1500, Value: -30, Shape: project.Hold}}})
					case "pitch":
						p = made(t, p, &project.SetParam{Owner: stage, Name: "semitones", Value: -5})
					case "length":
						p = made(t, p, &project.SetParam{Owner: stage, Name: "percent", Value: 80})
					}
				}
				spec := Spec{Channel: p.MainChannel().ID, To: 900000}
				before := render(t, p, folder, spec)
				require.Greater(t, loudest(before), 0.01)
				list, err := MakePermanent(
					t.Context(), p, folder, Printer{"Ines", 7}, []string{id}, func(audiofile.Entry, string) error { return nil }, nil,
				)
				require.NoError(t, err)
				q := made(t, p, list...)
				require.Empty(t, q.Treatments)
				after := render(t, q, folder, spec)
				for i := range before {
					before[i] -= after[i]
				}
				if rings { // the swell stands behind what rings, and its place in the print is the same only where it stands still
					require.Less(t, loudest(before), 1e-4)
				} else {
					require.Less(t, loudest(before), 1e-7, "below -140 dBFS")
				}
				back := render(t, made(t, q, &project.BringBack{ID: id}), folder, spec)
				again := render(t, p, folder, spec)
				require.Equal(t, again, back)
			})
		}
	}
}

func TestOnlyWhatIsTreatedCanBeMadePermanent(t *testing.T) {
	p, row, folder := song(t)
	keep := func(audiofile.Entry, string) error { return nil }
	_, err := MakePermanent(t.Context(), p, folder, Printer{"Ines", 7}, []string{row.Clips[0].ID}, keep, nil)
	require.ErrorContains(t, err, "none of these clips has a treatment")
	_, err = MakePermanent(t.Context(), p, folder, Printer{"Ines", 7}, []string{"gone"}, keep, nil)
	require.ErrorContains(t, err, "no longer there")
}

// Onsets of what was turned round are where they are heard.
func TestMarksAreThoseOfWhatIsHeard(t *testing.T) {
	p, row, folder := song(t)
	x := make([]float64, 96000)
	for i := range 4000 {
		x[20000+i] = 0.6 * math.Exp(-float64(i)/600) * math.Sin(float64(i*i%977))
		x[70000+i] = x[20000+i]
	}
	d, err := folder.Draft(48000, 1, 32, nil)
	require.NoError(t, err)
	require.NoError(t, d.Write([][]float64{x}))
	e, err := d.Keep()
	require.NoError(t, err)
	p.Audio = append(p.Audio, project.Audio{Hash: e.Hash, Name: "Strokes", Frames: 96000, Channels: 1})
	row.Clips[0].Audio = e.Hash
	id := row.Clips[0].ID
	p = made(
		t, p, &project.TreatClips{Clips: []string{id}, Effect: "length", ID: "long"},
		&project.SetParam{Owner: "long", Name: "percent", Value: 200},
	)
	marks, err := FindMarks(t.Context(), p, folder, MarkSpec{Clip: id, By: "onsets"})
	require.NoError(t, err)
	require.Len(t, marks.Marks, 2)
	require.InDelta(t, 40000, marks.Marks[0].At, 500)
	require.InDelta(t, 140000, marks.Marks[1].At, 500)
}
