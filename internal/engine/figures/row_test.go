package figures

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// row is a project at 48 kHz and 120 with one mono track that plays x from its first frame, and nodes in its chain.
func row(t *testing.T, x []float32, nodes ...*project.Node) (*project.Project, *pages.Library) {
	doc, lib := project.New("Test", 48000, 120, 4, 4), pages.New(0)
	hash, frames := projecttest.Hash("row"), int64(len(x))
	ch := project.NewChannel(project.Track, "Row", doc.MainChannel().ID)
	ch.Chain.Nodes = nodes
	ch.Clips = []*project.Clip{{ID: project.NewID(), Name: "x", Audio: hash, Frames: frames, Exact: true}}
	doc.Channels = append([]*project.Channel{ch}, doc.Channels...)
	doc.Audio = []project.Audio{{Hash: hash, Name: "x", Frames: frames, Channels: 1}}
	lib.Sound(hash, frames, 1)
	for i := 0; i*pages.Frames < len(x); i++ {
		lib.Put(hash, i, pages.Page{x[i*pages.Frames : min(len(x), (i+1)*pages.Frames)]})
	}
	require.NoError(t, doc.Validate(engine.EffectInfo))
	return doc, lib
}

func sine(hz, seconds float64) []float32 {
	x := make([]float32, int(seconds*48000))
	for i := range x {
		x[i] = float32(0.25 * math.Sin(2*math.Pi*hz*float64(i)/48000))
	}
	return x
}

func stage(effect string, params map[string]float64) *project.Node {
	n := &project.Node{Stage: project.NewStage(effect, 1, 100, "blend")}
	if params != nil {
		n.Stage.Params = params
	}
	return n
}
