package engine

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/input"
	"shoal/internal/project"
)

// comes is what a stand-in gives over a stretch of a song, in 32 bits.
func comes(t *testing.T, doc *project.Project, id string, from, frames int64) (l, r []float32) {
	t.Helper()
	kind, ok := input.Find(id)
	require.True(t, ok)
	a, b := make([]float64, frames), make([]float64, frames)
	kind.New(input.SettingOf(doc)).Read(a, b, from)
	for i := range a {
		l, r = append(l, float32(a[i])), append(r, float32(b[i]))
	}
	return l, r
}

// recordings gathers what is recorded on rows, as a window does.
type recordings struct {
	runs map[string][]project.Run
	data map[string][]float32
	gone map[string]bool
}

func newRecordings() *recordings {
	return &recordings{map[string][]project.Run{}, map[string][]float32{}, map[string]bool{}}
}

func (x *recordings) fetch(t *testing.T, e *Engine, rows ...string) {
	t.Helper()
	for _, id := range rows {
		got, data, ok := e.Taken(id)
		require.True(t, ok)
		require.EqualValues(t, len(x.data[id])/2, got.At, "nothing is missing and nothing is given twice")
		x.data[id] = append(x.data[id], data...)
		x.runs[id], x.gone[id] = append([]project.Run(nil), got.Runs...), got.Gone
	}
}

// holds checks that each run is what the stand-in gave there.
func (x *recordings) holds(t *testing.T, doc *project.Project, row, id string) {
	t.Helper()
	at := int64(0)
	for _, run := range x.runs[row] {
		require.Equal(t, at, run.Input, "runs follow one another in the input")
		l, r := comes(t, doc, id, run.Song, run.Frames)
		for i := range l {
			k := 2 * (run.Input + int64(i))
			require.Equal(t, [2]float32{l[i], r[i]}, [2]float32(x.data[row][k:k+2]), "frame %d of the song", run.Song+int64(i))
		}
		at += run.Frames
	}
	require.EqualValues(t, at, len(x.data[row])/2)
}

// Whatever happens to the chain meanwhile, a recording is frame for frame what arrived: stages that make all of it late,
// or early again, leave no gap and nothing twice; a jump begins another run.
func TestARecordingIsFrameForFrameWhatArrived(t *testing.T) {
	s := newSong(t)
	s.track("a", noise(200000, 3))
	row := s.track("voice", noise(10, 1))
	row.Clips, row.Records = nil, "room"
	e := s.engine()
	require.NoError(t, e.Ready([]Ready{{Row: row.ID}}))
	e.Play()
	play(t, e, 1000, Block)
	e.Record(true)
	x := newRecordings()
	turn := func(nodes ...*project.Node) {
		play(t, e, 5000, Block)
		x.fetch(t, e, row.ID)
		next := project.Clone(s.doc)
		ch, _ := next.Channel(row.ID)
		ch.Chain.Nodes = nodes
		require.NoError(t, e.SetDocument(next))
		play(t, e, 5000, Block)
	}
	turn(stage("limiter", map[string]float64{"ahead": 1}))
	turn(stage("limiter", map[string]float64{"ahead": 1}), stage("limiter", map[string]float64{"ahead": 3}))
	turn()
	x.fetch(t, e, row.ID)
	require.Len(t, x.runs[row.ID], 1, "it is one run all the time")
	e.GoTo(100000)
	play(t, e, 9000, Block)
	e.Loop(105000, 110000)
	play(t, e, 12000, Block)
	x.fetch(t, e, row.ID)
	require.GreaterOrEqual(t, len(x.runs[row.ID]), 3)
	require.EqualValues(t, 105000, x.runs[row.ID][2].Song, "a round of the loop is a run")
	x.holds(t, s.doc, row.ID, "room")
	e.Record(false)
	_, _, ok := e.Taken(row.ID)
	require.False(t, ok)
}

// Said while the song rolls, what arrived before is recorded too: from Play on, or from a jump, ten seconds at most.
func TestWhatArrivedBeforeIsRecordedToo(t *testing.T) {
	s := newSong(t)
	row := s.track("voice", noise(48000*30, 1))
	row.Records = "room"
	for name, x := range map[string]struct{ from, played, want int64 }{
		"from Play on": {3000, 48000, 3000}, "ten seconds": {3000, 12 * 48000, 3000 + 2*48000},
	} {
		e := s.engine()
		require.NoError(t, e.Ready([]Ready{{Row: row.ID}}))
		e.GoTo(x.from)
		e.Play()
		play(t, e, int(x.played), Block)
		e.Record(true)
		play(t, e, 1000, Block)
		got := newRecordings()
		got.fetch(t, e, row.ID)
		require.Len(t, got.runs[row.ID], 1, name)
		require.InDelta(t, x.want, got.runs[row.ID][0].Song, Block, name)
		got.holds(t, s.doc, row.ID, "room")
	}
	e := s.engine()
	require.NoError(t, e.Ready([]Ready{{Row: row.ID}}))
	e.Play()
	play(t, e, 48000, Block)
	e.GoTo(480000)
	play(t, e, 4800, Block)
	e.Record(true)
	got := newRecordings()
	got.fetch(t, e, row.ID)
	require.EqualValues(t, 480000, got.runs[row.ID][0].Song, "not from before a jump")
}

// Who is recorded goes on beyond the song's end, though the song would stop there.
func TestARecordingGoesOnBeyondTheEnd(t *testing.T) {
	s := newSong(t)
	row := s.track("voice", noise(20000, 1))
	row.Records = "room"
	for _, recorded := range []bool{false, true} {
		e := s.engine()
		e.StopAtEnd(true)
		require.NoError(t, e.Ready([]Ready{{Row: row.ID}}))
		e.Record(recorded)
		e.Play()
		play(t, e, 200000, Block)
		require.Equal(t, recorded, e.State() == Playing)
	}
}

// An input that is pulled out ends there, and says so.
func TestAnInputThatIsUnpluggedEnds(t *testing.T) {
	s := newSong(t)
	row := s.track("voice", noise(10, 1))
	row.Records = "unplugged"
	e := s.engine()
	require.NoError(t, e.Ready([]Ready{{Row: row.ID}}))
	e.Record(true)
	e.Play()
	x := newRecordings()
	for range 10 {
		play(t, e, 48000, Block)
		x.fetch(t, e, row.ID)
	}
	require.True(t, x.gone[row.ID])
	require.EqualValues(t, 8*48000, x.runs[row.ID][0].Frames)
	x.holds(t, s.doc, row.ID, "unplugged")
}

// What arrives passes the row's chain as a clip of the same sound would; the row sounds as before when it is no longer ready.
func TestAnInputIsHeardThroughItsRow(t *testing.T) {
	s := newSong(t)
	row := s.track("voice", noise(10, 1))
	row.Records, row.Clips = "tone", nil
	row.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": -6})}
	e := s.engine()
	e.Play()
	silent, _ := play(t, e, 4800, Block)
	require.Zero(t, dsp.Highest(silent))
	require.NoError(t, e.Ready([]Ready{{Row: row.ID, Hear: -3}}))
	play(t, e, 4800, Block)
	heard, _ := play(t, e, 48000, Block)
	require.InDelta(t, -18-6-3, dsp.Decibels(dsp.Highest(heard)), 0.05)
	require.NoError(t, e.Ready(nil))
	play(t, e, 4800, Block)
	silent, _ = play(t, e, 4800, Block)
	require.Zero(t, dsp.Highest(silent))
	require.Error(t, e.Ready([]Ready{{Row: s.main().ID}}))
}

// Who hears the input straight hears of the row what it sends, and of the row itself nothing; solo does not bring it back.
func TestOnlyWhatAReadyRowSendsIsHeard(t *testing.T) {
	s := newSong(t)
	row := s.track("voice", noise(10, 1))
	row.Records, row.Clips = "tone", nil
	hall := s.ret("hall")
	row.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -10}}
	e := s.engine()
	require.NoError(t, e.Ready([]Ready{{Row: row.ID, Returns: true}}))
	e.Play()
	level := func() float64 {
		play(t, e, 4800, Block)
		l, _ := play(t, e, 48000, Block)
		return dsp.Decibels(dsp.Highest(l))
	}
	require.InDelta(t, -28, level(), 0.05)
	e.Solo([]string{row.ID})
	require.InDelta(t, -28, level(), 0.05)
	require.NoError(t, e.SetDocument(project.Clone(s.doc)))
	e.Solo(nil)
	require.InDelta(t, -28, level(), 0.05)
	require.NoError(t, e.Ready([]Ready{{Row: row.ID}}))
	require.InDelta(t, 20*math.Log10(dsp.Gain(-18)+dsp.Gain(-28)), level(), 0.05)
	require.NoError(t, e.Ready([]Ready{{Row: row.ID, Returns: true}}))
	require.NoError(t, e.Ready(nil))
	require.Less(t, level(), -100.0)
	require.Empty(t, e.hearing.straight, "its clips are heard again")
}

// A clip that was recorded through the way in misses what stands before the mark and passes what stands behind it,
// wherever the mark is now; without one it comes in at the top.
func TestATreatedTakeEntersBehindTheWayIn(t *testing.T) {
	s := newSong(t)
	row := s.track("voice", noise(9000, 5))
	row.Clips[0].Enters = project.EntersWayIn
	gains := []float64{-3, -7, 4}
	for _, g := range gains {
		row.Chain.Nodes = append(row.Chain.Nodes, stage("trim", map[string]float64{"gain": g}))
	}
	bare := project.Clone(s.doc)
	for at := range 4 {
		row.WayIn = ""
		if at > 0 {
			row.WayIn = row.Chain.Nodes[at-1].ID()
		}
		got, _ := s.print(Job{To: 9000})
		other := newSong(t)
		other.doc, other.lib = project.Clone(bare), s.lib
		ch, _ := other.doc.Channel(row.ID)
		ch.Clips[0].Enters, ch.Chain.Nodes = "", ch.Chain.Nodes[at:]
		want, _ := other.print(Job{To: 9000})
		require.Less(t, worst(want, got), -140.0, "behind %d stages", at)
	}
}

// A trial has no mark: there a treated take comes in at the top, and is heard too.
func TestATreatedTakeIsHeardInTrials(t *testing.T) {
	s := newSong(t)
	row := s.track("voice", noise(90000, 5))
	row.Clips[0].Enters = project.EntersWayIn
	row.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": -6}), stage("trim", map[string]float64{"gain": -3})}
	row.WayIn = row.Chain.Nodes[0].ID()
	trial := project.Chain{Nodes: []*project.Node{stage("trim", map[string]float64{"gain": -20})}}
	row.Trials = []*project.Trial{{ID: "other", Letter: "B", Chain: trial}}
	for heard, gain := range map[string]float64{"": -3, "other": -20} {
		e := s.engine()
		e.Trial(row.ID, heard, nil)
		e.Play()
		play(t, e, 9600, Block)
		l, _ := play(t, e, 9600, Block)
		want := noise(90000, 5)[9600:19200]
		for i := range want {
			want[i] *= dsp.Gain(gain)
		}
		require.Less(t, worst(want, l), -110.0, "trial %q", heard)
	}
}

// Who plays to the song follows when its tempo is changed.
func TestAStandInFollowsAChangedTempo(t *testing.T) {
	s := newSong(t)
	row := s.track("voice", noise(10, 1))
	row.Records = "marimba"
	e := s.engine()
	require.NoError(t, e.Ready([]Ready{{Row: row.ID}}))
	next := project.Clone(s.doc)
	next.Tempo[0].BPM = 77
	require.NoError(t, e.SetDocument(next))
	play(t, e, 4800, Block)
	e.Record(true)
	e.Play()
	play(t, e, 48000, Block)
	x := newRecordings()
	x.fetch(t, e, row.ID)
	x.holds(t, next, row.ID, "marimba")
}

// A row with a line runs all of its stages while it is ready: what arrives there is in no print.
func TestAReadyRowRunsAboveItsLine(t *testing.T) {
	s := newSong(t)
	row := s.track("voice", noise(48000, 1))
	row.Records = "tone"
	row.Chain.Nodes = []*project.Node{stage("trim", map[string]float64{"gain": -6})}
	row.Waterline = row.Chain.Nodes[0].ID()
	w := WaterlineOf(s.doc, row)
	s.lib.Sound(w.Key, w.Frames(), 2)
	for n := int64(0); n*pages.Frames < w.Frames(); n++ {
		silent := make([]float32, min(pages.Frames, w.Frames()-n*pages.Frames))
		s.lib.Put(w.Key, int(n), pages.Page{silent, silent})
	}
	e := s.engine()
	e.Worked([]string{w.Key})
	e.Ahead(2 * rate)
	e.Play()
	play(t, e, 4800, Block)
	l, _ := play(t, e, 4800, Block)
	require.Zero(t, dsp.Highest(l), "the print is heard, which is silent here")
	require.NoError(t, e.Ready([]Ready{{Row: row.ID}}))
	play(t, e, 80000, Block)
	l, _ = play(t, e, 48000, Block)
	require.InDelta(t, -24, dsp.Decibels(dsp.Highest(l)), 0.05)
	require.NoError(t, e.Listen(Listening{}))
	play(t, e, 4800, Block)
	l, _ = play(t, e, 48000, Block)
	require.InDelta(t, -24, dsp.Decibels(dsp.Highest(l)), 0.05, "also after listening to something else")
}
