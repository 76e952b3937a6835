package engine

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/dsp/fourier"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

const rate = 48000

// song is a project under construction, with its sounds.
type song struct {
	t   *testing.T
	doc *project.Project
	lib *pages.Library
}

func newSong(t *testing.T) *song {
	return &song{t, project.New("Test", rate, 120, 4, 4), pages.New(0)}
}

func (s *song) main() *project.Channel { return s.doc.MainChannel() }

// track adds a stereo track that plays x from frame 0.
func (s *song) track(name string, x []float64) *project.Channel {
	ch := project.NewChannel(project.Track, name, s.main().ID)
	s.doc.Channels = append([]*project.Channel{ch}, s.doc.Channels...)
	s.doc.Audio = append(s.doc.Audio, project.Audio{Hash: projecttest.Hash(name), Name: name, Frames: int64(len(x)), Channels: 1})
	ch.Clips = []*project.Clip{{ID: project.NewID(), Name: name, Audio: projecttest.Hash(name), Frames: int64(len(x)), Exact: true}}
	s.lib.Sound(projecttest.Hash(name), int64(len(x)), 1)
	for i := 0; i*pages.Frames < len(x); i++ {
		var page []float32
		for _, v := range x[i*pages.Frames : min(len(x), (i+1)*pages.Frames)] {
			page = append(page, float32(v))
		}
		s.lib.Put(projecttest.Hash(name), i, pages.Page{page})
	}
	return ch
}

func (s *song) ret(name string) *project.Channel {
	ch := project.NewChannel(project.Return, name, s.main().ID)
	s.doc.Channels = append(s.doc.Channels, ch)
	return ch
}

func stage(effect string, params map[string]float64) *project.Node {
	n := &project.Node{Stage: project.NewStage(effect, 1, 100, "blend")}
	if params != nil {
		n.Stage.Params = params
	}
	return n
}

// forked is a fork without a name.
func forked(kind string, paths ...*project.Path) *project.Node {
	return project.Forked(kind, "", paths...)
}

func (s *song) engine() *Engine {
	require.NoError(s.t, s.doc.Validate(EffectInfo))
	e, err := New(s.doc, s.lib)
	require.NoError(s.t, err)
	return e
}

// play renders so many frames in blocks of the given size.
func play(t *testing.T, e *Engine, frames, block int) (l, r []float64) {
	for len(l) < frames {
		n := e.Render(min(block, frames-len(l)))
		require.Positive(t, n)
		l, r = append(l, e.L[:n]...), append(r, e.R[:n]...)
	}
	return l, r
}

func (s *song) print(job Job) (l, r []float64) {
	err := Offline(context.Background(), s.doc, s.lib, job, nil, func(a, b []float64) error {
		l, r = append(l, a...), append(r, b...)
		return nil
	}, nil)
	require.NoError(s.t, err)
	return l, r
}

func sine(n int, freq, db float64) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = dsp.Gain(db) * math.Sin(2*math.Pi*freq*float64(i)/rate)
	}
	return x
}

func noise(n int, seed uint64) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = float64(float32(0.1 * dsp.White(seed, int64(i))))
	}
	return x
}

// same fails without printing thousands of samples.
func same(t *testing.T, want, got []float64, about ...any) {
	t.Helper()
	require.Len(t, got, len(want), about...)
	for i := range want {
		if want[i] != got[i] {
			require.Failf(t, "not the same", "frame %d: %g for %g; worst %.1f dB %v", i, got[i], want[i], worst(want, got), about)
		}
	}
}

// worst is the largest difference in dB.
// sameEverywhere checks that a song sounds the same at any block size and in a print, and that rendering does
// not allocate. It returns what was heard.
func sameEverywhere(t *testing.T, s *song) []float64 {
	t.Helper()
	e := s.engine()
	e.Play()
	want, _ := play(t, e, 50000, 128)
	for _, block := range []int{1, 33, 100} {
		e := s.engine()
		e.Play()
		l, _ := play(t, e, 50000, block)
		same(t, want, l, "blocks of %d", block)
	}
	l, _ := s.print(Job{To: 50000})
	same(t, want, l)
	require.Zero(t, testing.AllocsPerRun(50, func() { e.Render(Block) }))
	return want
}

func worst(a, b []float64) float64 {
	w := 0.0
	for i := range a {
		w = max(w, math.Abs(a[i]-b[i]))
	}
	return 20 * math.Log10(w+1e-20)
}

func TestAnUntouchedTrackPassesUnchanged(t *testing.T) {
	s := newSong(t)
	x := noise(20000, 1)
	s.track("a", x)
	e := s.engine()
	e.Play()
	l, r := play(t, e, 20000, 128)
	same(t, x, l)
	same(t, x, r)
}

// busy is a song with everything on it.
func busy(t *testing.T) *song {
	s := newSong(t)
	a := s.track("a", noise(100000, 1))
	b := s.track("b", noise(100000, 2))
	hall := s.ret("hall")
	hall.Chain.Nodes = []*project.Node{stage("reverb", nil)}
	a.Chain.Nodes = []*project.Node{
		stage("equaliser", map[string]float64{"gain3": 6}),
		stage("compressor", nil),
		stage("delay", nil),
		stage("limiter", nil),
	}
	a.Chain.Nodes[2].Stage.Mix, a.Chain.Nodes[2].Stage.MixLaw = 30, "add"
	a.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -6}}
	b.Chain.Nodes = []*project.Node{
		stage("compressor", nil),
		forked(project.MidSide, project.NewPath("mid", stage("limiter", nil)), project.NewPath("side")),
		forked(project.Bands, project.NewPath("low"), project.NewPath("mids", stage("compressor", nil)), project.NewPath("high")),
	}
	b.Chain.Nodes[0].Stage.Key = &project.Tap{Channel: a.ID, Point: "after", Node: a.Chain.Nodes[1].ID()}
	b.Chain.Nodes[0].Stage.ActsOn = "mid"
	s.main().Chain.Nodes = []*project.Node{stage("equaliser", nil), stage("limiter", nil)}
	s.doc.Lines = []*project.Line{
		{
			Owner: a.ID,
			Name:  "fader",
			Points: []project.Point{
				{Tick: 0, Value: -12, Shape: "ramp"},
				{Tick: 960, Value: 0, Shape: "step"},
				{Tick: 1300, Value: -3, Shape: "ramp"},
			},
		},
		{
			Owner:  b.Chain.Nodes[2].ID(),
			Name:   "x1",
			Points: []project.Point{{Tick: 100, Value: 100, Shape: "ramp"}, {Tick: 1200, Value: 2900, Shape: "ramp"}},
		},
		{
			Owner: a.Chain.Nodes[0].ID(),
			Name:  "gain3",
			Points: []project.Point{
				{Tick: 100, Value: 0, Shape: "step"},
				{Tick: 777, Value: 9, Shape: "ramp"},
				{Tick: 1500, Value: -9, Shape: "ramp"},
			},
		},
	}
	return s
}

func TestBlockSizeDoesNotMatter(t *testing.T) {
	s := busy(t)
	e := s.engine()
	e.Play()
	wantL, wantR := play(t, e, 60000, 128)
	for _, block := range []int{1, 33, 64, 127} {
		e := s.engine()
		e.Play()
		l, r := play(t, e, 60000, block)
		same(t, wantL, l, "blocks of %d", block)
		same(t, wantR, r, "blocks of %d", block)
	}
}

func TestAPrintIsWhatIsHeard(t *testing.T) {
	s := busy(t)
	e := s.engine()
	e.Play()
	l, r := play(t, e, 50000, 128)
	pl, pr := s.print(Job{To: 50000})
	same(t, l, pl)
	same(t, r, pr)
	cut, _ := s.print(Job{From: 20000, To: 50000})
	same(t, pl[20000:], cut)
}

func TestParallelSignalsMeetInTime(t *testing.T) {
	s := newSong(t)
	x := noise(30000, 3)
	a := s.track("a", x)
	a.Chain.Nodes = []*project.Node{forked(project.Copies, project.NewPath("one"), project.NewPath("two", stage("limiter", nil)))}
	ret := s.ret("late")
	ret.Chain.Nodes = []*project.Node{stage("limiter", map[string]float64{"ahead": 3})}
	a.Sends = []*project.Send{{ID: project.NewID(), To: ret.ID}}
	e := s.engine()
	require.Equal(t, 72+288, e.Latency())
	e.Play()
	l, _ := play(t, e, 30000, 128)
	want := make([]float64, len(x))
	for i, v := range x {
		want[i] = 4 * v // two paths, and the same again through the return: +12.04 dB
	}
	require.Less(t, worst(want, l), -250.0)
}

func TestForksSumBack(t *testing.T) {
	for _, kind := range []string{"leftright", "midside"} {
		s := newSong(t)
		x := noise(5000, 4)
		a := s.track("a", x)
		a.Pan = 0
		a.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"sides": 3}), forked(kind)}
		e := s.engine()
		e.Play()
		l, _ := play(t, e, 5000, 128)
		require.Less(t, worst(x, l), -200.0, kind)
	}
}

func TestMixLaws(t *testing.T) {
	for _, c := range []struct {
		law  string
		want float64
	}{{"blend", 0.5 + 0.5*0.25}, {"add", 1 + 0.5*0.25}} {
		s := newSong(t)
		x := noise(3000, 5)
		a := s.track("a", x)
		n := stage("trim", map[string]float64{"gain": 20 * math.Log10(0.25)})
		n.Stage.Mix, n.Stage.MixLaw = 50, c.law
		a.Chain.Nodes = []*project.Node{n}
		e := s.engine()
		e.Play()
		l, _ := play(t, e, 3000, 128)
		for i := range l {
			require.InDelta(t, x[i]*c.want, l[i], 1e-12)
		}
	}
}

func TestPanLaws(t *testing.T) {
	for _, c := range []struct {
		stereo bool
		pan    float64
		l, r   float64
	}{{true, 0, 1, 1}, {true, 0.5, 0.5, 1}, {true, -1, 1, 0}, {false, 0, math.Sqrt2 / 2, math.Sqrt2 / 2}, {false, 1, 0, 1}} {
		s := newSong(t)
		x := noise(1000, 6)
		a := s.track("a", x)
		a.Stereo, a.Pan = c.stereo, c.pan
		e := s.engine()
		e.Play()
		l, r := play(t, e, 1000, 128)
		for i := range x {
			require.InDelta(t, x[i]*c.l, l[i], 1e-12)
			require.InDelta(t, x[i]*c.r, r[i], 1e-12)
		}
	}
}

func TestStepsInALineLandOnTheirFrameAndRampsAreExact(t *testing.T) {
	s := newSong(t)
	x := make([]float64, 100000)
	for i := range x {
		x[i] = 0.25
	}
	a := s.track("a", x)
	s.doc.Lines = []*project.Line{{Owner: a.ID, Name: "fader", Points: []project.Point{
		{Tick: 0, Value: 0, Shape: "step"}, {Tick: 1001, Value: -6, Shape: "ramp"}, {Tick: 1961, Value: -18, Shape: "ramp"}}}}
	s.main().Chain.Nodes = []*project.Node{stage("limiter", nil)} // lag on the way must not move it
	e := s.engine()
	e.Play()
	l, _ := play(t, e, 60000, 128)
	at := int(s.doc.Clock().Frame(1001))
	require.InDelta(t, 0.25, l[at-1], 1e-12)
	require.InDelta(t, 0.25*dsp.Gain(-6), l[at], 1e-6)
	half := int(s.doc.Clock().Frame(1481))
	require.InDelta(t, -12, dsp.Decibels(l[half]/0.25), 0.01)
}

// spectrum is the level in dBFS over frequency (Blackman-Harris, full scale sine = 0).
func spectrum(x []float64) []float64 {
	n := len(x)
	w := make([]float64, n)
	sum := 0.0
	for i := range w {
		a := 2 * math.Pi * float64(i) / float64(n)
		k := 0.35875 - 0.48829*math.Cos(a) + 0.14128*math.Cos(2*a) - 0.01168*math.Cos(3*a)
		w[i] = x[i] * k
		sum += k
	}
	c := fourier.NewFFT(n).Coefficients(nil, w)
	out := make([]float64, len(c))
	for i, v := range c {
		out[i] = 20 * math.Log10(2*math.Hypot(real(v), imag(v))/sum+1e-20)
	}
	return out
}

func above(spec []float64, n int, hz float64) float64 {
	top := -300.0
	for i, v := range spec {
		if float64(i)*rate/float64(n) > hz {
			top = max(top, v)
		}
	}
	return top
}

func TestAHandMakesNoClick(t *testing.T) {
	const n = 8192
	for name, move := range map[string]func(s *song, e *Engine){
		"fader":     func(s *song, e *Engine) { e.Move(s.doc.Channels[0].ID, "fader", -12) },
		"trim":      func(s *song, e *Engine) { e.Move(s.doc.Channels[0].Chain.Nodes[0].ID(), "gain", -12) },
		"equaliser": func(s *song, e *Engine) { e.Move(s.doc.Channels[0].Chain.Nodes[1].ID(), "gain3", -12) },
	} {
		s := newSong(t)
		a := s.track("a", sine(100000, 1000, -6))
		a.Chain.Nodes = []*project.Node{stage("trim", nil), stage("equaliser", map[string]float64{"freq3": 1000})}
		e := s.engine()
		e.Play()
		play(t, e, 9600, 128)
		var l []float64
		l, _ = play(t, e, 3500, 128)
		move(s, e)
		m, _ := play(t, e, n-3500, 128)
		got := above(spectrum(append(l, m...)), n, 2000)
		t.Logf("%s: %.1f dBFS", name, got)
		require.Less(t, got, -80.0, name)
	}
}

// A change of structure while a sine plays must not click: nothing far above
// the sine may rise out of the cross-fade.
func TestStructureChangesDoNotClick(t *testing.T) {
	const n = 8192
	for name, change := range map[string]func(s *song) project.Change{
		"insert": func(s *song) project.Change {
			return &project.AddNode{Owner: s.doc.Channels[0].ID, Index: 0, Node: stage("trim", map[string]float64{"gain": -6})}
		},
		"insert with latency": func(s *song) project.Change {
			return &project.AddNode{Owner: s.doc.Channels[0].ID, Index: 0, Node: stage("limiter", nil)}
		},
		"reorder": func(s *song) project.Change {
			return &project.MoveNode{ID: s.doc.Channels[0].Chain.Nodes[0].ID(), Owner: s.doc.Channels[0].ID, Index: 1}
		},
		"remove":         func(s *song) project.Change { return &project.RemoveNode{ID: s.doc.Channels[0].Chain.Nodes[1].ID()} },
		"remove latency": func(s *song) project.Change { return &project.RemoveNode{ID: s.main().Chain.Nodes[0].ID()} },
	} {
		s := newSong(t)
		a := s.track("a", sine(200000, 1000, -6))
		a.Chain.Nodes = []*project.Node{stage("equaliser", map[string]float64{"gain3": 6}), stage("trim", map[string]float64{"gain": -3})}
		s.main().Chain.Nodes = []*project.Node{stage("limiter", nil)}
		e := s.engine()
		e.Play()
		play(t, e, 48000, 128)
		before := e.Position()
		l, _ := play(t, e, 3500, 128)
		next, _, err := project.Apply(s.doc, []project.Change{change(s)}, EffectInfo)
		require.NoError(t, err)
		require.NoError(t, e.SetDocument(next))
		m, _ := play(t, e, n-3500, 128)
		got := above(spectrum(append(l, m...)), n, 3000)
		t.Logf("%s: %.1f dBFS", name, got)
		require.Less(t, got, -80.0, name)
		require.Equal(t, before+n, e.Position(), name)
	}
}

func TestASwapThatChangesNothingIsInaudible(t *testing.T) {
	s := busy(t)
	e := s.engine()
	e.Play()
	want, _ := play(t, e, 40000, 128)
	e = s.engine()
	e.Play()
	l, _ := play(t, e, 20000, 128)
	// a channel that plays nothing changes the structure and not the sound
	next, _, err := project.Apply(
		s.doc,
		[]project.Change{&project.AddChannel{Channel: project.NewChannel(project.Track, "empty", s.main().ID)}},
		EffectInfo,
	)
	require.NoError(t, err)
	require.NoError(t, e.SetDocument(next))
	m, _ := play(t, e, 20000, 128)
	require.Less(t, worst(want, append(l, m...)), -119.0)
}

func TestSoloTable(t *testing.T) {
	build := func() (*song, map[string]*project.Channel) {
		s := newSong(t)
		group := project.NewChannel(project.Group, "group", s.main().ID)
		s.doc.Channels = append(s.doc.Channels, group)
		hall := s.ret("hall")
		a, b := s.track("a", []float64{0.25}), s.track("b", []float64{0.5})
		a.Output = group.ID
		for _, c := range []*project.Channel{a, b} {
			c.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Pre: true, Level: 20 * math.Log10(0.01)}}
			c.Clips[0].Frames = 1
		}
		return s, map[string]*project.Channel{"a": a, "b": b, "group": group, "hall": hall}
	}
	for _, c := range []struct {
		solo []string
		want float64 // of a (.25 dry, .0025 sent) and b (.5, .005)
	}{
		{nil, 0.7575}, {[]string{"a"}, 0.2525}, {[]string{"b"}, 0.505}, {[]string{"a", "b"}, 0.7575},
		{[]string{"group"}, 0.2525}, {[]string{"hall"}, 0.0075},
	} {
		s, ch := build()
		e := s.engine()
		var ids []string
		for _, n := range c.solo {
			ids = append(ids, ch[n].ID)
		}
		e.Solo(ids)
		for range 10 { // let the gates close while the song stands
			e.Render(128)
		}
		e.Play()
		l, _ := play(t, e, 10, 128)
		require.InDelta(t, c.want, l[0], 1e-9, "%v", c.solo)
	}
}

func TestMuteSilencesPostFaderSendsAndByChoiceThePreFaderOnes(t *testing.T) {
	for _, c := range []struct {
		pre, mutePre bool
		want         float64
	}{{false, false, 0}, {true, false, 0.5}, {true, true, 0}} {
		s := newSong(t)
		hall := s.ret("hall")
		a := s.track("a", []float64{0.5})
		a.Mute, a.MutePre = true, c.mutePre
		a.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Pre: c.pre}}
		e := s.engine()
		e.Play()
		l, _ := play(t, e, 2, 128)
		require.Equal(t, c.want, l[0], "%+v", c)
	}
}

func TestAMissingPageStopsTheSongAndNeverPlaysSilence(t *testing.T) {
	s := newSong(t)
	x := noise(pages.Frames+1000, 8)
	s.track("a", x)
	sound, _ := s.lib.Find(projecttest.Hash("a"))
	page := sound.Page(1)
	s.lib.Drop(projecttest.Hash("a"), 1)
	e := s.engine()
	e.Play()
	require.Equal(t, []pages.Missing{{Hash: projecttest.Hash("a"), Page: 1}}, e.Ahead(pages.Frames+500))
	l, _ := play(t, e, pages.Frames, 128)
	require.Zero(t, e.Render(128))
	require.Equal(t, Waiting, e.State())
	require.Equal(t, []pages.Missing{{Hash: projecttest.Hash("a"), Page: 1}}, e.Missing())
	s.lib.Put(projecttest.Hash("a"), 1, page)
	m, _ := play(t, e, 1000, 128)
	require.Equal(t, Playing, e.State())
	same(t, x, append(l, m...))
}

func TestALoopWrapsWithoutLosingAFrame(t *testing.T) {
	s := newSong(t)
	x := noise(10000, 9)
	s.track("a", x)
	s.main().Chain.Nodes = []*project.Node{stage("limiter", nil)}
	e := s.engine()
	e.Loop(1000, 3000)
	e.GoTo(1000)
	e.Play()
	l, _ := play(t, e, 6000, 128)
	require.Less(t, worst(append(append(append([]float64{}, x[1000:3000]...), x[1000:3000]...), x[1000:3000]...), l), -250.0)
	require.EqualValues(t, 1000, e.Position())
}

func TestStopLetsTailsRingAndASecondStopCutsThem(t *testing.T) {
	s := newSong(t)
	a := s.track("a", noise(100000, 10))
	a.Chain.Nodes = []*project.Node{stage("reverb", nil)}
	e := s.engine()
	e.Play()
	play(t, e, 20000, 128)
	e.Stop()
	at := e.Position()
	l, _ := play(t, e, 9600, 128)
	require.Greater(t, math.Abs(l[9000]), 1e-6)
	require.Equal(t, at, e.Position())
	e.Stop()
	l, _ = play(t, e, 1000, 128)
	require.Zero(t, l[500])
}

func TestAPrintKeepsItsTailAndTrimsTheSilence(t *testing.T) {
	s := newSong(t)
	a := s.track("a", noise(60000, 11))
	a.Chain.Nodes = []*project.Node{stage("reverb", map[string]float64{"decay": 1})}
	dry, _ := s.print(Job{Channel: a.ID, To: 24000})
	require.Len(t, dry, 24000)
	wet, _ := s.print(Job{Channel: a.ID, To: 24000, Tail: true})
	same(t, dry, wet[:24000])
	require.Greater(t, len(wet), 24000+rate)
	require.Less(t, len(wet), 24000+4*rate)
	last := wet[len(wet)-1]
	require.Less(t, dsp.Decibels(last), -60.0)
	require.Greater(t, dsp.Decibels(last), -110.0)
}

func TestRenderingDoesNotAllocate(t *testing.T) {
	s := busy(t)
	e := s.engine()
	e.Loop(0, 90000)
	e.Play()
	play(t, e, 5000, 128)
	e.Move(s.doc.Channels[0].ID, "fader", -3)
	levels := make([]float32, 4096)
	require.Zero(t, testing.AllocsPerRun(200, func() { e.Render(128); e.Levels(levels) }))
}

func TestAStageThatMakesNaNIsSilencedAndTheRestPlaysOn(t *testing.T) {
	s := newSong(t)
	a := s.track("a", noise(5000, 12))
	b := noise(5000, 13)
	s.track("b", b)
	a.Chain.Nodes = []*project.Node{stage("trim", nil), stage("equaliser", map[string]float64{"gain3": 3})}
	sound, _ := s.lib.Find(projecttest.Hash("a"))
	page := sound.Page(0)
	page[0][100] = float32(math.NaN())
	e := s.engine()
	e.Play()
	l, _ := play(t, e, 2000, 128)
	for i := 256; i < 2000; i++ {
		require.True(t, dsp.Finite(l[i]))
	}
	require.NotEmpty(t, e.Broken())
}
