package figures

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

func figuresOf(t *testing.T, n *project.Node) *Fork {
	doc, lib := row(t, sine(100, 1), n)
	f, err := OfFork(t.Context(), doc, lib, n.Fork.ID, nil)
	require.NoError(t, err)
	return f
}

func near(f *Fork, hz float64) int {
	best := 0
	for i, x := range f.Hz {
		if math.Abs(math.Log(x/hz)) < math.Abs(math.Log(f.Hz[best]/hz)) {
			best = i
		}
	}
	return best
}

func TestFiguresOfCopies(t *testing.T) {
	f := figuresOf(t, project.Forked(project.Copies, "", project.NewPath("one"), project.NewPath("two")))
	assert.False(t, f.Measured)
	assert.InDelta(t, 6.02, f.Gain, 0.01)
	for i := range f.Hz {
		assert.InDelta(t, 6.02, f.Sum[i], 0.01)
		assert.InDelta(t, 0, f.Each[0].Level[i], 0.01)
	}
	assert.InDelta(t, 0.5, f.Each[0].Part, 1e-6)
	assert.Zero(t, f.Cancel)
}

func TestFiguresOfBands(t *testing.T) {
	n := project.Forked(
		project.Bands,
		"",
		project.NewPath("low"),
		project.NewPath("mids", stage("equaliser", map[string]float64{"gain3": 6})),
		project.NewPath("high"),
	)
	n.Fork.Paths[2].Mute = true
	f := figuresOf(t, n)
	assert.InDelta(t, 0, f.Sum[near(f, 40)], 0.1)
	assert.InDelta(t, -6.02, f.Each[0].Level[near(f, 200)], 0.5)
	assert.Less(t, f.Sum[near(f, 12000)], -40.0)
	assert.Zero(t, f.Each[2].Part)
}

func TestFiguresFindWherePathsCancel(t *testing.T) {
	two := project.NewPath(
		"turned",
		stage("equaliser", map[string]float64{"on3": 1, "shape3": 0, "freq3": 500, "gain3": -12}),
		stage("limiter", nil),
	)
	two.Invert = true
	n := project.Forked(project.Copies, "", project.NewPath("dry"), two)
	f := figuresOf(t, n)
	assert.True(t, f.Measured, "a limiter is not linear")
	assert.Greater(t, f.Cancel, 15.0)
	assert.True(t, f.At < 250 || f.At > 1000, "far from the dip they take each other away: %g Hz", f.At)
	n.Fork.Paths[1].Invert = false
	assert.Zero(t, figuresOf(t, n).Cancel)
}

func TestFiguresOfWhatIsLate(t *testing.T) {
	n := project.Forked(project.Bands, "")
	n.Fork.Linear = true
	n.Fork.Paths[1].Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": -6})}
	f := figuresOf(t, n)
	assert.InDelta(t, 0, f.Sum[near(f, 60)], 0.1)
	assert.InDelta(t, -6, f.Sum[near(f, 10000)], 0.1)
	assert.Equal(t, 4095+1024, f.Latency)
}
