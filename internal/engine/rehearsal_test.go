package engine

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// A rehearsal drives everything that is in the project, though no page of audio is there.
func TestARehearsalDrivesEveryStage(t *testing.T) {
	s, a := phrases(t)
	s.lib = pages.New(0)
	r, err := NewRehearsal(s.doc, 0)
	require.NoError(t, err)
	hot := 0.0
	for r.Run() {
		if r.made > 100 {
			require.Zero(t, r.engine.resting())
		}
		hot = max(hot, dsp.Peak(r.engine.L, r.engine.R))
	}
	require.Greater(t, hot, 0.1)
	require.Empty(t, r.engine.Broken())
	require.Equal(t, rehearsalBlocks, r.made)
	for _, n := range a.Chain.Nodes {
		require.Truef(t, r.Effects[n.Stage.Effect], n.Stage.Effect)
	}
	squeezed := false
	for _, st := range r.engine.now.reports {
		st.reporter.Report(st.report)
		for _, v := range st.report {
			squeezed = squeezed || v < -1
		}
	}
	require.True(t, squeezed, "the compressor works")
}

func TestWhatHasBeenRehearsedIsNotAgain(t *testing.T) {
	s, a := phrases(t)
	r, err := NewRehearsal(s.doc, 0)
	require.NoError(t, err)
	require.True(t, Unrehearsed(s.doc, nil))
	require.False(t, Unrehearsed(s.doc, r.Effects))
	a.Chain.Nodes = append(a.Chain.Nodes, stage("chorus", nil))
	require.True(t, Unrehearsed(s.doc, r.Effects))
	a.Chain.Nodes[0].Stage.Effect = "no such effect"
	_, err = NewRehearsal(project.Clone(s.doc), 0)
	require.Error(t, err)
}

// Of many tracks with the same effects one is played, for longer.
func TestARehearsalLeavesOutWhatIsThereTwice(t *testing.T) {
	s, a := phrases(t)
	for i := range 5 {
		more := s.track(string(rune('b'+i)), noise(9000, 4))
		more.Chain.Nodes = []*project.Node{stage("compressor", nil), stage("limiter", nil)}
	}
	s.doc.Lines = []*project.Line{
		{Owner: s.doc.Channels[3].ID, Name: "fader", Points: []project.Point{point(0, -12, "ramp"), point(2400, 0, "ramp")}},
	}
	r, err := NewRehearsal(s.doc, 0)
	require.NoError(t, err)
	require.Len(t, r.engine.now.doc.Channels, 4)
	require.NotNil(t, r.engine.now.strips[a.ID])
	require.Equal(t, rehearsalBlocks*(8/4), r.left)
	require.Len(t, s.doc.Channels, 8, "the project is as it was")
}
