package printing

import (
	"math"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/project"
)

// shared is a song of three rows, two of them in a group, and two returns, the first of which sends to the second.
func shared(t *testing.T) (*project.Project, *audiofile.Folder) {
	p, folder := pair(t)
	horn, bell, hall, main := p.Channels[0], p.Channels[1], p.Channels[2], p.MainChannel()
	group := project.NewChannel(project.Group, "Boats", main.ID)
	rope := project.NewChannel(project.Track, "Rope", group.ID)
	clip := *horn.Clips[0]
	clip.ID, clip.Start = project.NewID(), 12000
	rope.Clips, rope.Fader = []*project.Clip{&clip}, -3
	bell.Output = group.ID
	echo := project.NewChannel(project.Return, "Echo", main.ID)
	echo.Chain.Nodes = []*project.Node{
		stage("delay", map[string]float64{"sync": 0, "time": 80, "feedback": 30}), stage("limiter", map[string]float64{"input": 24}),
	}
	hall.Chain.Nodes = append(hall.Chain.Nodes, stage("compressor", map[string]float64{"threshold": -30, "ratio": 6}))
	hall.Sends = []*project.Send{{ID: project.NewID(), To: echo.ID, Pre: true, Level: -3}}
	rope.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: 0}, {ID: project.NewID(), To: echo.ID, Level: -9}}
	group.Sends = []*project.Send{{ID: project.NewID(), To: echo.ID, Level: -12}}
	p.Channels = []*project.Channel{horn, bell, rope, group, hall, echo, main}
	p.Lines = append(p.Lines,
		&project.Line{Owner: horn.Sends[0].ID, Name: "level", Points: ramp(-30, 0)},
		&project.Line{Owner: hall.ID, Name: "pan", Points: ramp(-0.5, 0.8)})
	p.Movers = append(p.Movers, &project.Mover{ID: project.NewID(), Name: "Swing", Shape: "sine", Rate: 3,
		Targets: []project.MoverTarget{{Owner: echo.Chain.Nodes[0].Stage.ID, Name: "time", Depth: 0.05}}})
	return p, folder
}

func ramp(from, to float64) []project.Point {
	return []project.Point{{Value: from, Shape: project.Ramp}, {Tick: 1920, Value: to, Shape: project.Ramp}}
}

// stemsOf renders stems and gives their left sides, by what they are.
func stemsOf(t *testing.T, p *project.Project, folder *audiofile.Folder, spec Spec) (map[string][]float64, []SheetFile) {
	t.Helper()
	dir := t.TempDir()
	files, err := RenderStems(t.Context(), p, folder, spec, Printer{"Ines", 7}, dir, nil)
	require.NoError(t, err)
	out := map[string][]float64{}
	for _, f := range files {
		if f.Name != "" {
			_, x := read(t, filepath.Join(dir, f.Name))
			out[f.Row] = x[0]
		}
	}
	return out, files
}

// into is what comes into main: it has no stages, and its fader stands at 0.
func into(t *testing.T, p *project.Project, folder *audiofile.Folder, shares map[string][]float64) []float64 {
	t.Helper()
	mix := render(t, p, folder, Spec{Channel: p.MainChannel().ID, To: 96000})
	require.Greater(t, loudest(mix), 0.05)
	for _, x := range shares {
		for i, v := range x {
			mix[i] -= v
		}
	}
	return mix
}

func TestRowsWithTheirSharesSumToTheMix(t *testing.T) {
	p, folder := shared(t)
	shares, files := stemsOf(t, p, folder, stemSpec(p, StemShare, Stems{}))
	require.Len(t, files, 3, "the group, the row beside it, and the rest: returns have no share")
	require.Less(t, loudest(into(t, p, folder, shares)), 1e-6, "compressor and limiter hear all rows")
	require.Contains(t, files[2].Says, "sum by themselves")
	require.Len(t, shares, 2)
	horn := shares["Horn"]
	alone := render(t, p, folder, Spec{Channel: p.Channels[0].ID, To: 96000})
	more := 0.0
	for i, v := range horn {
		more = math.Max(more, math.Abs(v-alone[i]))
	}
	require.Greater(t, more, 0.01, "its hall is in it")
}

// What does not sum is in a stem of its own, so that all of them together still do.
func TestWhatDoesNotSumIsTheRest(t *testing.T) {
	p, folder := shared(t)
	hall := p.Channels[4]
	hall.Chain.Nodes = append(hall.Chain.Nodes, stage("saturation", map[string]float64{"drive": 24}))
	shares, files := stemsOf(t, p, folder, stemSpec(p, StemShare, Stems{}))
	require.Len(t, files, 3)
	require.Equal(t, "The rest", files[2].Row)
	require.Empty(t, files[2].Says)
	require.Greater(t, loudest(shares["The rest"]), 0.003)
	require.Less(t, loudest(into(t, p, folder, shares)), 1e-6)
}

// Of a few rows there are shares, but no rest; and the document is as it was.
func TestSharesOfSomeRows(t *testing.T) {
	p, folder := shared(t)
	before := project.Clone(p)
	spec := Spec{Channel: p.MainChannel().ID, To: 48000, Target: "stems", Format: "wav32f",
		Stems: &Stems{Rows: []Stem{{p.Channels[2].ID, StemShare}, {p.Channels[2].ID, StemHeard}, {p.Channels[5].ID, StemShare}}}}
	st, _, _, _ := desk(t)
	w := works(t, st, folder, &oneDesk{doc: p})
	plan := w.PlanStems(p, spec)
	require.Empty(t, plan.Wrong)
	require.Len(t, plan.Files, 2)
	require.Contains(t, plan.Says[len(plan.Says)-2], "Horn, Boats also feed Main")
	require.Contains(t, plan.Says[len(plan.Says)-1], "No files of their own: Echo")
	both := spec
	both.Stems = &Stems{Rows: append(stemSpec(p, StemShare, Stems{}).Stems.Rows, Stem{p.Channels[2].ID, StemShare})}
	says := w.PlanStems(p, both).Says
	require.Contains(t, says[len(says)-1], "is there too: Rope")
	_, files := stemsOf(t, p, folder, spec)
	require.Len(t, files, 2)
	require.Equal(t, before, project.Clone(p))
	spec.Stems.Rows = spec.Stems.Rows[2:]
	require.ErrorContains(t, spec.Check(p), "no share of their own")
	spec.Stems.Rows = []Stem{{p.MainChannel().ID, StemRest}}
	require.ErrorContains(t, spec.Check(p), "can be chosen")
}
