package figures

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// A sine of 997 Hz on both sides has its mean square's loudness, by BS.1770: its level is that of the sine, 3.01 dB
// below its peak on each side, both added, less 0.691 dB, plus what the weighting gives at 997 Hz, 0.69 dB.
func TestAForkIsWeighedAtItsPoints(t *testing.T) {
	loud, soft, off := project.NewPath("loud"), project.NewPath("soft"), project.NewPath("off")
	soft.Level, off.Mute = -12, true
	n := project.Forked(project.Copies, "", loud, soft, off)
	n.Fork.Trim = -3
	doc, lib := row(t, sine(997, 3), n)
	var told []float64
	w, err := Weigh(t.Context(), doc, lib, n.Fork.ID, 48000, 96000, nil, func(part float64) { told = append(told, part) })
	require.NoError(t, err)
	// a mono clip stands on both sides at its own level
	in := 20*math.Log10(0.25) - 3.01 + 3.01
	assert.InDelta(t, in, w.In, 0.05)
	assert.InDelta(t, in, w.Paths[loud.ID], 0.05)
	assert.InDelta(t, in-12, w.Paths[soft.ID], 0.05)
	assert.Less(t, w.Paths[off.ID], -100.0)
	assert.InDelta(t, in+20*math.Log10(1+math.Pow(10, -12.0/20))-3, w.Out, 0.05)
	assert.IsNonDecreasing(t, told)

	_, err = Weigh(t.Context(), doc, lib, "nowhere", 0, 48000, nil, nil)
	assert.ErrorContains(t, err, "no longer there")
	ended, end := context.WithCancel(t.Context())
	end()
	_, err = Weigh(ended, doc, lib, n.Fork.ID, 0, 48000, nil, nil)
	assert.ErrorIs(t, err, context.Canceled)
}

// A fork of a trial is weighed as if the trial were the chain.
func TestAForkOfATrialIsWeighed(t *testing.T) {
	doc, lib := row(t, sine(997, 2), stage("trim", map[string]float64{"gain": -40}))
	n := project.Forked(project.Copies, "", project.NewPath("one"))
	doc.Channels[0].Trials = []*project.Trial{{ID: "b", Letter: "B", Chain: project.Chain{Nodes: []*project.Node{n}}}}
	w, err := Weigh(t.Context(), doc, lib, n.Fork.ID, 0, 96000, nil, nil)
	require.NoError(t, err)
	assert.InDelta(t, 20*math.Log10(0.25), w.In, 0.1, "the stage of the chain does not stand before it")
}
