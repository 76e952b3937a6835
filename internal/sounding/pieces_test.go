package sounding

import (
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// twoClips is a session whose row A holds two clips of different sounds that overlap by a second.
func twoClips(t *testing.T) *session {
	t.Helper()
	s := newSession()
	for i, name := range []string{"first", "second"} {
		s.doc.Audio = append(s.doc.Audio, project.Audio{Hash: projecttest.Hash(name), Name: name, Frames: 10 * rate, Channels: 1})
		s.a.Clips = append(
			s.a.Clips, &project.Clip{ID: name, Name: name, Audio: projecttest.Hash(name), Start: int64(i * 9 * rate), Frames: 10 * rate},
		)
	}
	require.NoError(t, s.doc.Validate(engine.EffectInfo))
	return s
}

func says(s *session, rule string, sample func(string, int64) (float64, bool)) (out []Sounding) {
	for _, x := range Look(&Survey{Doc: s.doc, Sample: sample}) {
		if x.Rule == rule {
			out = append(out, x)
		}
	}
	return out
}

// mended is the session with the first fix of a sounding.
func (s *session) mended(t *testing.T, x Sounding) {
	t.Helper()
	list, err := project.Decode(x.Fixes[0].Changes)
	require.NoError(t, err)
	s.doc, _, err = project.Apply(s.doc, list, engine.EffectInfo)
	require.NoError(t, err)
}

func TestACrossFadeAtEvenGainDips(t *testing.T) {
	s := twoClips(t)
	require.Empty(t, says(s, "cross-fade-dips", nil), "nothing fades there")
	s.a.Clips[0].FadeOut, s.a.Clips[1].FadeIn = rate, rate
	found := says(s, "cross-fade-dips", nil)
	require.Len(t, found, 1)
	require.Contains(t, found[0].Says, "1000 ms")
	same := *s.a.Clips[1]
	s.a.Clips[1].Audio = s.a.Clips[0].Audio
	require.Empty(t, says(s, "cross-fade-dips", nil), "the same sound adds up by gain")
	*s.a.Clips[1] = same
	s.mended(t, found[0])
	require.Empty(t, says(s, "cross-fade-dips", nil))
}

func TestAVoiceThatIsStretchedFarIsSaid(t *testing.T) {
	s := twoClips(t)
	var err error
	s.doc, _, err = project.Apply(s.doc, []project.Change{
		&project.TreatClips{Clips: []string{"first"}, Effect: project.LengthStep, ID: "long"},
		&project.SetParam{Owner: "long", Name: "percent", Value: 140},
	}, engine.EffectInfo)
	require.NoError(t, err)
	require.Empty(t, says(s, "far-stretched", nil), "nobody said that it is a voice")
	s.doc, _, err = project.Apply(
		s.doc, []project.Change{&project.SetParam{Owner: "long", Name: "character", Value: oneVoice}}, engine.EffectInfo,
	)
	require.NoError(t, err)
	found := says(s, "far-stretched", nil)
	require.Len(t, found, 1)
	require.Contains(t, found[0].Says, "140 %")
	s.mended(t, found[0])
	require.Empty(t, says(s, "far-stretched", nil))
}

func TestAHardEdgeThatClicksIsMeasured(t *testing.T) {
	s := twoClips(t)
	level := 0.5
	sample := func(string, int64) (float64, bool) { return level, true }
	require.Empty(t, says(s, "hard-edge", sample), "every edge fades")
	s.a.Clips[0].Exact = true
	require.Empty(t, says(s, "hard-edge", nil), "nothing is measured")
	found := says(s, "hard-edge", sample)
	require.Len(t, found, 2)
	require.Contains(t, found[0].Says, "-6 dBFS")
	s.mended(t, found[0])
	s.mended(t, found[1])
	require.Empty(t, says(s, "hard-edge", sample))
	level = 0.001
	s = twoClips(t)
	s.a.Clips[0].Exact = true
	require.Empty(t, says(s, "hard-edge", sample), "near zero nothing clicks")
}
