package engine

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// worked is a song with a clip of noise whose treatment turns it round, and the work that this asks for. It is not there.
func worked(t *testing.T) (s *song, x *project.Clip, w *Work, noisy []float64) {
	t.Helper()
	s, noisy = newSong(t), noise(rate, 5)
	_, x = s.piece("noise", noisy)
	x.ID, x.Exact = "x", true
	s.change(&project.TreatClips{Clips: []string{"x"}, Effect: "backwards"})
	x, _ = s.doc.ClipByID("x")
	w, live := WorkOf(s.doc, x, s.doc.Clock())
	require.NotNil(t, w)
	require.Empty(t, live.Nodes)
	return s, x, w, noisy
}

// bring puts pages of a sound into the library.
func (s *song) bring(key string, x []float64) {
	s.lib.Sound(key, int64(len(x)), 1)
	for i := 0; i*pages.Frames < len(x); i++ {
		var page []float32
		for _, v := range x[i*pages.Frames : min(len(x), (i+1)*pages.Frames)] {
			page = append(page, float32(v))
		}
		s.lib.Put(key, i, pages.Page{page})
	}
}

func TestTheOldResultIsHeardUntilTheNewOneIsThere(t *testing.T) {
	s, _, w, x := worked(t)
	plain, _, err := project.Apply(s.doc, []project.Change{&project.GiveTreatment{Clips: []string{"x"}}}, EffectInfo)
	require.NoError(t, err)
	turned := s.doc
	s.doc = plain
	e := s.engine()
	e.Play()
	out := []float64{}
	more := func(frames int) {
		l, _ := play(t, e, frames, Block)
		out = append(out, l...)
	}
	more(4096)
	require.NoError(t, e.SetDocument(turned))
	more(4096)
	for i := 1000; i < 8192; i++ {
		require.InDelta(t, x[i], out[i], 1e-6, "nothing is worked out: it goes on as it was")
	}
	require.Empty(t, e.Ahead(rate), "nobody knows of it yet")
	e.Worked([]string{w.Key})
	need := e.Ahead(8 * rate)
	require.NotEmpty(t, need)
	require.Equal(t, w.Key, need[0].Hash)
	more(4096)
	back := slices.Clone(x)
	slices.Reverse(back)
	s.bring(w.Key, back)
	require.Empty(t, e.Ahead(rate))
	from := len(out)
	more(4096)
	for i := from + 600; i < len(out); i++ {
		require.InDelta(t, back[i], out[i], 1e-6, "it is taken, with a cross-fade")
	}
	for i := from - 100; i < from+600; i++ {
		require.Less(t, out[i]*out[i], 1.1)
	}
}

// A treatment that goes on behind what is worked out runs live, and a strip takes what is new.
func TestWhatFollowsRunsLiveOnWhatIsWorkedOut(t *testing.T) {
	s, _, w, x := worked(t)
	s.change(&project.TreatClips{Clips: []string{"x"}, Effect: "saturation"})
	back := slices.Clone(x)
	slices.Reverse(back)
	s.bring(w.Key, back)
	s.lib.AllWorked()
	plain := newSong(t)
	row := plain.track("turned", back)
	node, _ := s.doc.TreatmentByID(s.doc.Treatments[0].ID)
	row.Chain.Nodes = node.Chain.Nodes[1:]
	same(t, plain.heard(len(x)), s.heard(len(x)))
}

// Where a clip rings on, what lies before and behind its extent is heard.
func TestTailsLieOnBothSidesOfAPieceThatRings(t *testing.T) {
	s, _, _, _ := worked(t)
	s.change(&project.TreatClips{Clips: []string{"x"}, Effect: "delay"}, &project.TreatClips{Clips: []string{"x"}, Effect: "backwards"},
		&project.SetClip{ID: "x", Start: ptrTo(int64(3 * rate))})
	x, _ := s.doc.ClipByID("x")
	w, _ := WorkOf(s.doc, x, s.doc.Clock())
	require.Positive(t, w.Lead)
	made := make([]float64, w.Frames())
	for i := range made {
		made[i] = 0.25
	}
	w.Channels = 1
	s.lib.Sound(w.Key, w.Frames(), 2)
	for i := 0; i*pages.Frames < len(made); i++ {
		page := make([]float32, min(pages.Frames, len(made)-i*pages.Frames))
		for k := range page {
			page[k] = 0.25
		}
		s.lib.Put(w.Key, i, pages.Page{page, page})
	}
	s.lib.AllWorked()
	require.Zero(t, peakOf(s.heard(3*rate)), "it keeps to its edges")
	s.change(&project.SetClip{ID: "x", Rings: ptrTo(true)})
	out := s.heard(5 * rate)
	first := 3*rate - int(w.Lead)
	require.Zero(t, peakOf(out[:max(0, first)]))
	require.InDelta(t, 0.25, out[3*rate-10], 1e-6)
	require.Zero(t, peakOf(out[4*rate:]))
}

func ptrTo[T any](v T) *T { return &v }

// A clip that enters behind the chain is only late with it: what stands there does nothing to it.
func TestAClipCanEnterItsRowBehindTheChain(t *testing.T) {
	s := newSong(t)
	x := noise(rate/4, 8)
	row := s.track("noise", x)
	row.Fader = -3
	plain := s.heard(len(x))
	row.Chain.Nodes = []*project.Node{stage("limiter", map[string]float64{"ahead": 3}), stage("saturation", map[string]float64{"drive": 30})}
	require.NotEqual(t, plain, s.heard(len(x)))
	row.Clips[0].Enters = project.EntersBehind
	same(t, plain, s.heard(len(x)), "behind the chain")
	// beside one that goes through it, cut in two, and edited while it plays
	row.Clips[0].Enters = ""
	through := s.heard(len(x))
	dry := *row.Clips[0]
	dry.ID, dry.Enters = "dry", project.EntersBehind
	row.Clips = append(row.Clips, &dry)
	s.change(&project.SplitClips{IDs: []string{"dry"}, At: []int64{5000}})
	both := s.heard(len(x))
	for i := range both {
		require.InDelta(t, through[i]+plain[i], both[i], 1e-9)
	}
	e := s.engine()
	e.Play()
	play(t, e, 2048, Block)
	made := e.plansMade
	next, _, err := project.Apply(s.doc, []project.Change{&project.SetClip{ID: "dry", Mute: ptrTo(true)}}, EffectInfo)
	require.NoError(t, err)
	require.NoError(t, e.SetDocument(next))
	play(t, e, 2048, Block)
	require.Equal(t, made, e.plansMade, "nothing is compiled")
}
