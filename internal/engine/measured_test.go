package engine

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/param"
	"shoal/internal/project"
)

// What a stage has learnt of the noise that it heard are values for its own parameters: white noise is as loud in every
// hertz, so that the profile rises with the width of its bands, and 20 dB more noise is 20 dB more of it.
func TestAStageLearnsFromWhatPlays(t *testing.T) {
	learn := func(gain float64) map[string]float64 {
		s := newSong(t)
		x := noise(3*48000, 60)
		for i := range x {
			x[i] *= gain
		}
		a := s.track("a", x)
		a.Chain.Nodes = []*project.Node{stage("denoise", nil), stage("trim", nil)}
		e := s.engine()
		e.Play()
		play(t, e, 2*48000, Block)
		learnt, err := e.Learn(a.Chain.Nodes[0].ID())
		require.NoError(t, err)
		_, err = e.Learn(a.Chain.Nodes[1].ID())
		require.ErrorContains(t, err, "learns nothing")
		_, err = e.Learn("nowhere")
		require.ErrorContains(t, err, "no stage")
		return learnt
	}
	loud, soft := learn(0.1), learn(0.01)
	k, _ := effect.Find("denoise")
	for name, v := range loud {
		i := k.Index(name)
		require.GreaterOrEqualf(t, i, 0, name)
		require.NoErrorf(t, k.Params[i].Check(v), name)
		require.InDeltaf(t, 20, v-soft[name], 0.5, name)
	}
	require.Len(t, loud, 24)
}

// The picture of bands is what their crossovers do, with the values as they are under the hand.
func TestAForksPictureShowsItsBands(t *testing.T) {
	s := newSong(t)
	a := s.track("a", noise(48000, 61))
	f, err := project.NewFork(project.Bands, 3)
	require.NoError(t, err)
	f.Crossovers = []float64{300, 3000}
	a.Chain.Nodes = []*project.Node{{Fork: f}}
	e := s.engine()
	draw := func() (pic effect.Picture) {
		b, err := e.Draw(f.ID)
		require.NoError(t, err)
		require.NoError(t, json.Unmarshal(b, &pic))
		return pic
	}
	at := func(c effect.Curve, hz float64) float64 {
		best := 0
		for i := range c.X {
			if math.Abs(math.Log(c.X[i]/hz)) < math.Abs(math.Log(c.X[best]/hz)) {
				best = i
			}
		}
		return c.Y[best]
	}
	pic := draw()
	require.Len(t, pic.Curves, 3)
	require.Len(t, pic.Handles, 2)
	for b, c := range pic.Curves {
		require.InDeltaf(t, 0, at(c, []float64{40, 950, 15000}[b]), 0.3, "band %d is whole in its middle", b)
	}
	require.InDelta(t, -6, at(pic.Curves[0], 300), 0.6, "at a crossover both are half")
	require.InDelta(t, -6, at(pic.Curves[1], 300), 0.6)
	require.Less(t, at(pic.Curves[0], 3000), -50.0)
	require.LessOrEqual(t, pic.Handles[0].MaxX, 3000.0, "a crossover does not pass its neighbour")

	require.True(t, e.Move(f.Paths[1].ID, "level", -9))
	require.True(t, e.Move(f.ID, param.CrossoverName(1), 600))
	pic = draw()
	require.InDelta(t, -9, at(pic.Curves[1], 1400), 0.8)
	require.InDelta(t, 600, pic.Handles[0].X, 1)
	f.Paths[2].Mute = true
	require.NoError(t, e.SetDocument(project.Clone(s.doc)))
	require.InDelta(t, -60, at(draw().Curves[2], 15000), 0.01)
	_, err = e.Draw("nowhere")
	require.ErrorContains(t, err, "to draw")
}

// What is measured while it plays is what plays; figures of two windows ago are forgotten.
func TestTheSurveyIsOfTheLastWhile(t *testing.T) {
	s := newSong(t)
	x := noise(50*48000, 62)
	for i := range x {
		x[i] *= 0.5
		if i > 48000 {
			x[i] /= 16
		}
	}
	peak := dsp.Decibels(dsp.Peak(x, x))
	a := s.track("a", x)
	b := s.track("b", x)
	b.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"polarity": 3, "gain": -1})}
	e := s.engine()
	require.Zero(t, e.Survey().Seconds)
	e.Play()
	levels := make([]float32, 64)
	play(t, e, 2*48000, Block)
	e.Levels(levels) // somebody looks at the figures, as a page does all the time
	got := e.Survey()
	require.InDelta(t, 2, got.Seconds, 0.1)
	require.InDelta(t, peak, got.Peaks["post "+a.ID], 0.2)
	require.Len(t, got.Sums, 1)
	sum := got.Sums[0]
	require.Equal(t, s.main().ID, sum.Channel)
	require.ElementsMatch(t, []string{a.ID, b.ID}, []string{sum.Loudest, sum.Second})
	require.True(t, sum.Turned)
	require.Zero(t, sum.Lag)
	require.InDelta(t, 1, sum.Alike, 0.001)
	left := 20 * math.Log10(1-math.Pow(10, -1.0/20)) // of a, when b takes away what is 1 dB softer
	require.InDelta(t, left, sum.Sum-sum.Part, 0.1)
	require.InDelta(t, peak+left, got.TruePeak, 6) // between the samples of noise it is higher
	for range 2 * surveySeconds {
		play(t, e, 48000, Block)
		e.Levels(levels)
	}
	got = e.Survey()
	require.InDelta(t, peak-24, got.Peaks["post "+a.ID], 0.3)
	require.InDelta(t, peak, got.Ever["post "+a.ID], 0.2)
	require.Less(t, got.TruePeak, peak-30)
}
