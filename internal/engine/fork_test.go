package engine

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

// matrix is what a linear stage does to left and right.
type matrix [2][2]float64

var unity = matrix{{1, 0}, {0, 1}}

func (m matrix) times(n matrix) (out matrix) {
	for i := range 2 {
		for j := range 2 {
			out[i][j] = m[i][0]*n[0][j] + m[i][1]*n[1][j]
		}
	}
	return out
}

func (m matrix) plus(n matrix, gain float64) matrix {
	for i := range 2 {
		for j := range 2 {
			m[i][j] += gain * n[i][j]
		}
	}
	return m
}

var parts = map[string][2]matrix{
	project.LeftRight: {{{1, 0}, {0, 0}}, {{0, 0}, {0, 1}}},
	project.MidSide:   {{{0.5, 0.5}, {0.5, 0.5}}, {{0.5, -0.5}, {-0.5, 0.5}}},
}

// randomChain draws stages that leave the signal as it is, some of them late, and forks of them;
// it returns what the whole must do.
func randomChain(r *rand.Rand, depth int) (nodes []*project.Node, is matrix) {
	is = unity
	for range 1 + r.IntN(3) {
		switch k := r.IntN(6); {
		case k == 0:
			nodes = append(nodes, stage("trim", nil))
		case k == 1:
			nodes = append(nodes, stage("limiter", map[string]float64{"ahead": float64(r.IntN(4)), "ceiling": 0}))
		case depth > 0:
			n, m := randomFork(r, depth)
			nodes, is = append(nodes, n), m.times(is)
		}
	}
	return nodes, is
}

func randomFork(r *rand.Rand, depth int) (*project.Node, matrix) {
	kind := []string{project.Copies, project.LeftRight, project.MidSide, project.Bands}[r.IntN(4)]
	if kind == project.Bands && depth < 3 {
		kind = project.Copies
	}
	n := forked(kind)
	f := n.Fork
	if kind == project.Copies {
		for range r.IntN(3) {
			f.Paths = append(f.Paths, project.NewPath("more"))
		}
	}
	f.Linear = kind == project.Bands
	wet := matrix{}
	for i, p := range f.Paths {
		p.Mute = false
		if f.Linear { // divided differently, bands no longer add up: they hold nothing
			wet = unity
			continue
		}
		var m matrix
		p.Chain.Nodes, m = randomChain(r, depth-1)
		p.Chain.Nodes = append([]*project.Node{}, p.Chain.Nodes...)
		p.Level, p.Invert, p.Mute, p.Width = -12*r.Float64(), r.IntN(3) == 0, r.IntN(6) == 0, float64(r.IntN(3)*100)
		gain := dsp.Gain(p.Level)
		if p.Invert {
			gain = -gain
		}
		if p.Mute {
			gain = 0
		}
		w := p.Width / 100
		m = matrix{{(1 + w) / 2, (1 - w) / 2}, {(1 - w) / 2, (1 + w) / 2}}.times(m)
		if split, ok := parts[kind]; ok {
			m = m.times(split[i])
		}
		wet = wet.plus(m, gain)
	}
	f.Trim = -6 * r.Float64()
	f.Mix, f.Bypass = float64(r.IntN(101)), r.IntN(5) == 0
	if r.IntN(3) == 0 {
		f.MixLaw = "add"
	}
	mix, dry := f.Mix/100, 1-f.Mix/100
	if f.MixLaw == "add" {
		dry = 1
	}
	if f.Bypass {
		return n, unity
	}
	return n, matrix{}.plus(unity, dry).plus(wet, mix*dsp.Gain(f.Trim))
}

// Random forks in forks, of stages that change nothing, do to the signal what their levels,
// polarities, widths, mutes and mixes say, whatever is late on any path.
func TestRandomNestedForksAreExact(t *testing.T) {
	for seed := range uint64(60) {
		r := rand.New(rand.NewPCG(seed, 5))
		s := newSong(t)
		x := noise(2000, seed+1)
		a := s.track("a", x)
		skew := forked(project.LeftRight)
		skew.Fork.Paths[1].Level = -3.5
		nodes, is := randomChain(r, 4)
		a.Chain.Nodes = append([]*project.Node{skew}, nodes...)
		l, rr := s.print(Job{To: 2000})
		right := dsp.Gain(-3.5)
		wantL, wantR := make([]float64, len(x)), make([]float64, len(x))
		for i, v := range x {
			wantL[i] = is[0][0]*v + is[0][1]*v*right
			wantR[i] = is[1][0]*v + is[1][1]*v*right
		}
		require.Less(t, worst(wantL, l), -200.0, "seed %d", seed)
		require.Less(t, worst(wantR, rr), -200.0, "seed %d", seed)
	}
}

// The dry and the bypassed signal of a fork of bands is the sum of its bands: with nothing on them,
// mix and bypass change nothing at all.
func TestTheDrySideOfBandsIsTheirSum(t *testing.T) {
	heard := func(set func(f *project.Fork)) []float64 {
		s := newSong(t)
		a := s.track("a", noise(6000, 4))
		n := forked(project.Bands, project.NewPath("1"), project.NewPath("2"), project.NewPath("3"))
		set(n.Fork)
		a.Chain.Nodes = []*project.Node{n}
		l, _ := s.print(Job{To: 6000})
		return l
	}
	want := heard(func(*project.Fork) {})
	same(t, want, heard(func(f *project.Fork) { f.Bypass = true }))
	half := heard(func(f *project.Fork) { f.Mix = 50 })
	require.Less(t, worst(want, half), -250.0)
}

func TestLinearBandsArriveWithTheRest(t *testing.T) {
	s := newSong(t)
	x := noise(9000, 4)
	a := s.track("a", x)
	n := forked(project.Bands, project.NewPath("1"), project.NewPath("2"))
	n.Fork.Linear = true
	a.Chain.Nodes = []*project.Node{n}
	b := s.track("b", x)
	b.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"polarity": 3})}
	e := s.engine()
	require.Equal(t, dsp.LinearLatency(rate), e.Latency())
	e.Play()
	l, _ := play(t, e, 9000, 128)
	require.Less(t, worst(make([]float64, len(l)), l), -240.0, "the other track takes it away entirely")
}

// splash is the level of what is above a frequency, in dB, of a stretch around a change.
func splash(l []float64, hz float64) float64 {
	const size = 8192
	wave := make([]float64, size)
	for i := range wave { // Blackman-Harris
		p := 2 * math.Pi * float64(i) / size
		wave[i] = l[i] * (0.35875 - 0.48829*math.Cos(p) + 0.14128*math.Cos(2*p) - 0.01168*math.Cos(3*p)) / (0.35875 * size / 2)
	}
	bins := make([]complex128, size/2+1)
	dsp.NewFFT(size).Coefficients(bins, wave)
	most := 0.0
	for i, c := range bins {
		if float64(i)*rate/size > hz {
			most = max(most, math.Hypot(real(c), imag(c)))
		}
	}
	return 20 * math.Log10(most)
}

// A crossover moved by hand over a sine, a band added, a band taken out, and the slope changed:
// nothing clicks.
func TestBandsChangeWithoutAClick(t *testing.T) {
	for name, change := range map[string]func(e *Engine, doc *project.Project, f *project.Fork){
		"moved":  func(e *Engine, _ *project.Project, f *project.Fork) { e.Move(f.ID, "x1", 2000) },
		"pushed": func(e *Engine, _ *project.Project, f *project.Fork) { e.Move(f.ID, "x1", 9000) },
		"added": func(e *Engine, doc *project.Project, f *project.Fork) {
			f.Paths, f.Crossovers = append(f.Paths, project.NewPath("4")), append(f.Crossovers, 9000)
			require.NoError(t, e.SetDocument(doc))
		},
		"added below": func(e *Engine, doc *project.Project, f *project.Fork) {
			f.Paths, f.Crossovers = append(f.Paths, project.NewPath("0")), append([]float64{60}, f.Crossovers...)
			require.NoError(t, e.SetDocument(doc))
		},
		"taken out": func(e *Engine, doc *project.Project, f *project.Fork) {
			f.Paths, f.Crossovers = f.Paths[1:], f.Crossovers[1:]
			require.NoError(t, e.SetDocument(doc))
		},
		"steeper": func(e *Engine, doc *project.Project, f *project.Fork) {
			f.Slope = 48
			require.NoError(t, e.SetDocument(doc))
		},
		"linear and moved": func(e *Engine, doc *project.Project, f *project.Fork) {
			f.Crossovers[0] = 900
			require.NoError(t, e.SetDocument(doc))
		},
	} {
		s := newSong(t)
		a := s.track("a", sine(60000, 440, -6))
		n := forked(project.Bands, project.NewPath("1"), project.NewPath("2"), project.NewPath("3"))
		n.Fork.Crossovers = []float64{200, 3000}
		n.Fork.Linear = name == "linear and moved"
		a.Chain.Nodes = []*project.Node{n}
		e := s.engine()
		e.Play()
		play(t, e, 20000, 128)
		doc := project.Clone(s.doc)
		ch, _ := doc.Channel(a.ID)
		change(e, doc, ch.Chain.Nodes[0].Fork)
		l, _ := play(t, e, 8192, 128)
		require.Less(t, splash(l, 4000), -80.0, name)
		require.Less(t, dsp.Peak(l, l), 0.75, name)
	}
}

func TestListeningToPaths(t *testing.T) {
	s := newSong(t)
	x := noise(30000, 3)
	a := s.track("a", x)
	n := forked(project.Copies, project.NewPath("one"), project.NewPath("two", stage("limiter", nil)), project.NewPath("three"))
	f := n.Fork
	f.Paths[0].Level, f.Paths[1].Level, f.Paths[1].Mute = -6, -12, true
	a.Chain.Nodes = []*project.Node{n}
	s.track("b", noise(30000, 9))
	hear := func(gain float64, ids ...string) {
		e := s.engine()
		require.NoError(t, e.Listen(Listening{Paths: ids}))
		e.Play()
		l, _ := play(t, e, 20000, 128)
		want := make([]float64, 10000)
		for i := range want {
			want[i] = gain * x[10000+i]
		}
		require.Less(t, worst(want, l[10000:20000]), -240.0)
	}
	hear(dsp.Gain(-6), f.Paths[0].ID)
	hear(dsp.Gain(-6)+dsp.Gain(-12), f.Paths[0].ID, f.Paths[1].ID) // muted, late, and heard all the same
}

// A path feeds a side track behind its level and mute; paths spread to rows make the mix that the
// fork made.
func TestPathsSpreadToRowsNull(t *testing.T) {
	s := newSong(t)
	a := s.track("a", noise(20000, 3))
	hall := s.ret("hall")
	hall.Chain.Nodes = []*project.Node{stage("delay", nil)}
	n := forked(project.Bands, project.NewPath("low"), project.NewPath("mids", stage("limiter", nil)), project.NewPath("high"))
	f := n.Fork
	f.Paths[1].Level, f.Paths[2].Mute, f.Trim = -3, true, 1.5
	a.Chain.Nodes = []*project.Node{n, stage("compressor", nil)}
	a.Fader, a.Pan = -2, 0.3
	a.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -8}}
	wantL, wantR := s.print(Job{To: 20000})
	next, _, err := project.Apply(s.doc, []project.Change{&project.SpreadPaths{Fork: f.ID}}, EffectInfo)
	require.NoError(t, err)
	s.doc = next
	l, r := s.print(Job{To: 20000})
	require.Less(t, worst(wantL, l), -140.0)
	require.Less(t, worst(wantR, r), -140.0)
}

func TestASendAndAKeyFromAPath(t *testing.T) {
	s := newSong(t)
	x := noise(4000, 3)
	a := s.track("a", x)
	ret := s.ret("direct")
	n := forked(project.Copies, project.NewPath("one"), project.NewPath("two"))
	n.Fork.Paths[1].Level = -6
	a.Chain.Nodes = []*project.Node{n}
	none := ""
	a.Output = none
	a.Sends = []*project.Send{{ID: project.NewID(), To: ret.ID, After: n.Fork.Paths[1].ID}}
	l, _ := s.print(Job{To: 4000})
	want := make([]float64, len(x))
	for i, v := range x {
		want[i] = v * dsp.Gain(-6)
	}
	require.Less(t, worst(want, l), -240.0)
}

// Forks eight deep, and one of 64 paths at the bottom of them, add up as they must, and cost
// memory only once: playing allocates nothing.
func TestDeepAndWideForks(t *testing.T) {
	s := newSong(t)
	x := noise(4000, 3)
	a := s.track("a", x)
	var paths []*project.Path
	for range project.MaxPaths {
		p := project.NewPath("one of many")
		p.Level = -36.1236 // 64 of them are one
		paths = append(paths, p)
	}
	n := forked(project.Copies, paths...)
	for range 8 {
		n = forked(project.Copies, project.NewPath("dry"), project.NewPath("deeper", stage("limiter", nil), n))
		n.Fork.Paths[0].Mute = true
	}
	a.Chain.Nodes = []*project.Node{n}
	e := s.engine()
	e.Play()
	l, _ := play(t, e, 4000, 128)
	want := make([]float64, len(x))
	for i, v := range x {
		want[i] = v * 64 * dsp.Gain(-36.1236)
	}
	require.Less(t, worst(want, l), -200.0)
	require.Zero(t, testing.AllocsPerRun(50, func() { e.Render(Block) }))
}

// The picture of a fork shows what is set by hand, and says so where something else moves in it.
func TestAForksPictureSaysWhatItLeavesOut(t *testing.T) {
	s := newSong(t)
	a := s.track("a", noise(1000, 1))
	wet := project.NewPath("wet", stage("trim", nil))
	fork := forked(project.Copies, project.NewPath("dry"), wet)
	a.Chain.Nodes = []*project.Node{fork}
	says := func() string {
		b, err := s.engine().Draw(fork.ID())
		require.NoError(t, err)
		return string(b)
	}
	require.NotContains(t, says(), "left out")
	s.doc.Lines = []*project.Line{{Owner: wet.ID, Name: "level", Points: []project.Point{{Tick: 0, Value: -3, Shape: project.Ramp}}}}
	require.Contains(t, says(), "As set by hand: lines, handles and movers are left out.")
}
