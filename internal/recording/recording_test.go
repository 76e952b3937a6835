package recording

import (
	"context"
	"encoding/binary"
	"math"
	"os"
	"path/filepath"
	"sync"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/input"
	"shoal/internal/printing"
	"shoal/internal/project"
)

const rate = 48000

// studio is a project with a desk for what is recorded.
type studio struct {
	t      testing.TB
	mu     sync.Mutex
	doc    *project.Project
	row    string
	folder *audiofile.Folder
	dir    string
	desk   *Desk
	full   bool // nothing can be changed
}

func (s *studio) Document(context.Context, string) (*project.Project, int64, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.doc, 7, nil
}

func (s *studio) Change(_ context.Context, _, _, _ string, make func(doc *project.Project) []project.Change) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.full {
		return os.ErrPermission
	}
	next, _, err := project.Apply(s.doc, make(s.doc), engine.EffectInfo)
	if err == nil {
		s.doc = next
	}
	return err
}

func node(effect string, params map[string]float64) *project.Node {
	n := &project.Node{Stage: project.NewStage(effect, 1, 100, "blend")}
	if params != nil {
		n.Stage.Params = params
	}
	return n
}

// newStudio has one row with a way in of an equaliser and a compressor, and a delay behind it.
func newStudio(t testing.TB) *studio {
	t.Helper()
	s := &studio{t: t, doc: project.New("Slack Water", rate, 88, 6, 8), dir: t.TempDir()}
	row := project.NewChannel(project.Track, "Voice", s.doc.MainChannel().ID)
	row.Records = "reader"
	row.Chain.Nodes = []*project.Node{
		node("equaliser", map[string]float64{"gain2": 6}), node("compressor", map[string]float64{"threshold": -30}), node("delay", nil),
	}
	row.WayIn = row.Chain.Nodes[1].ID()
	s.doc.Channels = append([]*project.Channel{row}, s.doc.Channels...)
	s.row = row.ID
	var err error
	s.folder, err = audiofile.NewFolder(filepath.Join(s.dir, "audio"))
	require.NoError(t, err)
	s.restart()
	return s
}

// restart is a new desk over the same folder, as after a start.
func (s *studio) restart() {
	var err error
	s.desk, err = New(
		filepath.Join(s.dir, "recordings"), s.folder, s, func(context.Context, audiofile.Entry, string, string) error { return nil },
	)
	require.NoError(s.t, err)
}

func (s *studio) begin(plan Plan) string {
	s.t.Helper()
	if plan.Rows == nil {
		plan.Rows = []Row{{ID: s.row}}
	}
	id, err := s.desk.Begin(s.t.Context(), "p", "ada", "Ada", plan)
	require.NoError(s.t, err)
	return id
}

// arrives is what a stand-in gives over a stretch of the song, as it is sent.
func (s *studio) arrives(id string, from, frames int64) []byte {
	kind, ok := input.Find(id)
	require.True(s.t, ok)
	l, r := make([]float64, frames), make([]float64, frames)
	kind.New(input.SettingOf(s.doc)).Read(l, r, from)
	var b []byte
	for i := range l {
		b = binary.LittleEndian.AppendUint32(b, math.Float32bits(float32(l[i])))
		b = binary.LittleEndian.AppendUint32(b, math.Float32bits(float32(r[i])))
	}
	return b
}

// send sends a second at a time of a row that is recorded from one frame of the song on.
func (s *studio) send(id string, song, frames int64) {
	s.t.Helper()
	for at := int64(0); at < frames; at += rate {
		n := min(rate, frames-at)
		safe, err := s.desk.Put(id, s.row, Part{At: at, Runs: []project.Run{{Song: song, Frames: at + n}}}, s.arrives("reader", song+at, n))
		require.NoError(s.t, err)
		require.Equal(s.t, at+n, safe)
	}
}

func (s *studio) end(id string, how Ending) []string {
	s.t.Helper()
	takes, err := s.desk.End(s.t.Context(), id, how)
	require.NoError(s.t, err)
	return takes
}

func (s *studio) voice() *project.Channel {
	ch, ok := s.doc.Channel(s.row)
	require.True(s.t, ok)
	return ch
}

// sides are all frames of a sound.
func (s *studio) sides(hash string) [][]float64 {
	a, ok := s.doc.AudioByHash(hash)
	require.True(s.t, ok)
	got, err := s.folder.Sides(hash, 0, a.Frames)
	require.NoError(s.t, err)
	return got
}

// rendered is what a document's row gives behind its chain.
func rendered(t *testing.T, doc *project.Project, folder *audiofile.Folder, row string, from, to int64) (out []float64) {
	t.Helper()
	spec := printing.Spec{Channel: row, From: from, To: to}
	require.NoError(t, printing.Render(t.Context(), doc, folder, spec, func(src [][]float64) error {
		out = append(out, src[0]...)
		return nil
	}, nil))
	return out
}

func worst(t *testing.T, a, b []float64) float64 {
	t.Helper()
	require.Len(t, b, len(a))
	most := 0.0
	for i := range a {
		most = max(most, math.Abs(a[i]-b[i]))
	}
	return 20 * math.Log10(most+1e-12)
}

// The untouched take is the source, bit for bit; the treated one is what a print of the same chain over the known source
// gives; and the row sounds the same with either.
func TestATakeThroughAWayIn(t *testing.T) {
	s := newStudio(t)
	const song, frames = 100000, 4*rate + 777
	id := s.begin(Plan{})
	s.send(id, song, frames)
	landed := s.end(id, Ending{})
	require.Len(t, s.doc.Takes, 1)
	take := s.doc.Takes[0]
	require.Equal(t, []string{take.ID}, landed)
	require.Equal(t, []string{"Equaliser", "Compressor"}, take.Through)
	require.Equal(t, "Ada", take.By)
	require.Empty(t, take.Ended)

	want := s.arrives("reader", song, frames)
	for i, v := range s.sides(take.Untouched)[0] {
		require.Equal(t, math.Float32frombits(binary.LittleEndian.Uint32(want[8*i:])), float32(v), "frame %d", i)
	}

	known := project.Clone(s.doc)
	row, _ := known.Channel(s.row)
	row.Clips = []*project.Clip{{ID: project.NewID(), Name: "known", Audio: take.Untouched, Start: song, Frames: frames, Exact: true}}
	row.Chain.Nodes, row.WayIn, known.Takes = row.Chain.Nodes[:2], "", nil
	printed := rendered(t, known, s.folder, s.row, song, song+frames)
	require.Less(t, worst(t, printed, s.sides(take.Treated)[0]), -140.0)

	require.Len(t, s.voice().Clips, 1)
	clip := s.voice().Clips[0]
	require.Equal(t, project.EntersWayIn, clip.Enters)
	require.EqualValues(t, song, clip.Start)
	treated := rendered(t, s.doc, s.folder, s.row, song, song+frames)
	bare, undo, err := project.Apply(s.doc, []project.Change{&project.Untreat{Clip: clip.ID}}, engine.EffectInfo)
	require.NoError(t, err)
	untouched := rendered(t, bare, s.folder, s.row, song, song+frames)
	const edge = 4800 // both fade at their edges, one before the chain and one behind it
	require.Less(t, worst(t, treated[edge:frames-edge], untouched[edge:frames-edge]), -60.0, "the fade's trace in the chain dies away")
	require.Less(t, worst(t, treated[2*rate:frames-edge], untouched[2*rate:frames-edge]), -110.0)
	back, _, err := project.Apply(bare, undo, engine.EffectInfo)
	require.NoError(t, err)
	require.Equal(t, s.doc, back)

	r, known2, err := printing.RecordOf(s.folder, take.Treated)
	require.NoError(t, err)
	require.True(t, known2)
	require.Contains(t, r.Words(), "recorded from Reader (stand-in)")
	left, err := os.ReadDir(filepath.Join(s.dir, "recordings"))
	require.NoError(t, err)
	require.Empty(t, left, "nothing lies about when it has landed")
}

// Killed in the middle, all that was acknowledged becomes a take when Shoal starts again, which says so; a frame or a note
// that was cut in half is no matter.
func TestWhatWasAcknowledgedIsKeptWhenShoalIsKilled(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{})
	s.send(id, 0, 3*rate)
	tapes := filepath.Join(s.dir, "recordings", id)
	f, err := os.OpenFile(filepath.Join(tapes, "0.f32"), os.O_APPEND|os.O_WRONLY, 0)
	require.NoError(t, err)
	_, err = f.Write(make([]byte, 1003))
	require.NoError(t, err)
	require.NoError(t, f.Close())
	require.NoError(t, os.WriteFile(filepath.Join(tapes, "0.json.new"), []byte(`{"at":`), 0o600))

	s.restart()
	s.desk.recover(t.Context())
	require.Len(t, s.doc.Takes, 1)
	take := s.doc.Takes[0]
	require.Equal(t, EndedServer, take.Ended)
	require.EqualValues(t, 3*rate, take.To())
	_, err = s.desk.Put(id, s.row, Part{At: 3 * rate}, nil)
	require.ErrorIs(t, err, ErrOver, "what comes late is told that it is over")
}

// A window that is silent for too long has been closed; while it sends, nothing ends.
func TestAWindowThatIsClosedEndsItsTake(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{})
	s.send(id, 5000, 2*rate)
	s.desk.endSilent(t.Context(), time.Now().Add(-time.Hour), all)
	require.Empty(t, s.doc.Takes)
	s.full = true
	s.desk.endSilent(t.Context(), time.Now().Add(time.Hour), all)
	require.Empty(t, s.doc.Takes, "it could not land, and is kept")
	s.full = false
	s.desk.endSilent(t.Context(), time.Now().Add(time.Hour), all)
	require.Len(t, s.doc.Takes, 1)
	require.Equal(t, EndedWindow, s.doc.Takes[0].Ended)
}

// What is sent twice counts once; what comes too early is asked for again.
func TestPartsThatComeTwiceOrTooEarly(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{})
	part := func(at, frames int64) (int64, error) {
		return s.desk.Put(id, s.row, Part{At: at, Runs: []project.Run{{Frames: at + frames}}}, s.arrives("reader", at, frames))
	}
	safe, err := part(0, 10000)
	require.NoError(t, err)
	require.EqualValues(t, 10000, safe)
	safe, err = part(20000, 500)
	require.NoError(t, err)
	require.EqualValues(t, 10000, safe, "there is a hole")
	safe, err = part(5000, 10000)
	require.NoError(t, err)
	require.EqualValues(t, 15000, safe)
	safe, err = part(0, 10000)
	require.NoError(t, err)
	require.EqualValues(t, 15000, safe)
	_, err = s.desk.Put(id, s.row, Part{At: 15000, Runs: []project.Run{{Input: 0, Frames: 9}, {Input: 3, Song: 9, Frames: 9}}}, nil)
	require.ErrorContains(t, err, "does not follow")
	_, err = s.desk.Put(id, s.row, Part{}, make([]byte, 13))
	require.Error(t, err)
	_, err = s.desk.Put(id, "../../else", Part{}, nil)
	require.Error(t, err)
	s.end(id, Ending{})
	require.EqualValues(t, 15000, s.doc.Takes[0].To(), "the runs got no further than what has arrived")
	got := s.sides(s.doc.Takes[0].Untouched)[0]
	want := s.arrives("reader", 0, 15000)
	for i := range got {
		require.Equal(t, math.Float32frombits(binary.LittleEndian.Uint32(want[8*i:])), float32(got[i]))
	}
}

// Round and round a loop is one recording and a take for each round: the last of them sounds. Playback that waited begins
// a run, not a take.
func TestRoundsOfALoopAreTakes(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{})
	runs := []project.Run{
		{Input: 0, Song: 50000, Frames: 30000},                                                 // one round
		{Input: 30000, Song: 40000, Frames: 20000}, {Input: 50000, Song: 60500, Frames: 19500}, // one with a break
		{Input: 69500, Song: 40000, Frames: 1000}, // a slip
	}
	_, err := s.desk.Put(id, s.row, Part{Runs: runs}, s.arrives("reader", 0, 70500))
	require.NoError(t, err)
	s.end(id, Ending{})
	require.Len(t, s.doc.Takes, 2)
	require.Equal(t, []int{1, 2}, []int{s.doc.Takes[0].Number, s.doc.Takes[1].Number})
	require.Len(t, s.doc.Takes[1].Runs, 2)
	require.Len(t, s.voice().Clips, 1)
	require.Equal(t, s.doc.Takes[1].ID, s.voice().Clips[0].Take)
}

// A delay is taken off: what was played lands earlier, and what was played before the song began is left out.
func TestTheDelayIsTakenOff(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{Rows: []Row{{ID: s.row, Delay: 3000}}})
	s.send(id, 1000, rate)
	s.end(id, Ending{})
	run := s.doc.Takes[0].Runs[0]
	require.Equal(t, project.Run{Input: 2000, Song: 0, Frames: rate - 2000}, run)
}

// Two cannot record on one row; a row that is recorded from nothing is refused; one that leaves meanwhile is put back, with
// what was recorded.
func TestRowsThatAreTakenEmptyOrGone(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{})
	_, err := s.desk.Begin(t.Context(), "p", "ole", "Ole", Plan{Rows: []Row{{ID: s.row}}})
	require.ErrorContains(t, err, "Ada records on Voice")
	_, err = s.desk.Begin(t.Context(), "p", "ole", "Ole", Plan{Rows: []Row{{ID: s.doc.MainChannel().ID}}})
	require.ErrorContains(t, err, "recorded from nothing")
	_, err = s.desk.Begin(t.Context(), "p", "ole", "Ole", Plan{})
	require.ErrorContains(t, err, "no row is ready")
	s.send(id, 0, rate)
	require.NoError(t, s.Change(t.Context(), "", "", "", func(*project.Project) []project.Change {
		return []project.Change{&project.RemoveChannel{ID: s.row}}
	}))
	s.end(id, Ending{})
	require.Len(t, s.doc.Takes, 1)
	row, ok := s.doc.Channel(s.doc.Takes[0].Row)
	require.True(t, ok)
	require.Equal(t, "Voice, recorded", row.Name)
	require.Len(t, row.Clips, 1)
	lib, err := printing.Library(t.Context(), s.doc, s.folder)
	require.NoError(t, err)
	_, err = engine.New(s.doc, lib)
	require.NoError(t, err)
}

// Where there is no room left on the disk nothing is acknowledged: the window keeps it.
func TestADiskThatIsFull(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{})
	require.NoError(t, os.Symlink("/dev/full", filepath.Join(s.dir, "recordings", id, "0.f32")))
	safe, err := s.desk.Put(id, s.row, Part{Runs: []project.Run{{Frames: rate}}}, s.arrives("reader", 0, rate))
	require.ErrorIs(t, err, syscall.ENOSPC)
	require.Zero(t, safe)
}

// What is kept free of the disk is not recorded over: neither begun nor gone on with, and what is on tape stays there.
func TestSomeOfTheDiskIsLeftFree(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{})
	s.send(id, 0, rate)
	s.desk.Keep = math.MaxInt64
	more := Part{At: rate, Runs: []project.Run{{Frames: 2 * rate}}}
	safe, err := s.desk.Put(id, s.row, more, s.arrives("reader", rate, rate))
	require.ErrorIs(t, err, ErrNoRoom)
	require.EqualValues(t, rate, safe)
	_, err = s.desk.Begin(t.Context(), "p", "ada", "Ada", Plan{Rows: []Row{{ID: s.row}}})
	require.ErrorIs(t, err, ErrNoRoom)
	s.desk.Keep = 0
	safe, err = s.desk.Put(id, s.row, more, s.arrives("reader", rate, rate))
	require.NoError(t, err)
	require.EqualValues(t, 2*rate, safe)
}

// A row whose window is silent can be had by somebody else before its recording is given up; what there is of it lands.
func TestARowIsFreeAgainWhenItsWindowIsSilent(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{})
	s.send(id, 0, rate)
	ole := Plan{Rows: []Row{{ID: s.row}}}
	_, err := s.desk.Begin(t.Context(), "p", "ole", "Ole", ole)
	require.ErrorContains(t, err, "Ada records on Voice")
	s.desk.open[id].seen = time.Now().Add(-yields - time.Second)
	next, err := s.desk.Begin(t.Context(), "p", "ole", "Ole", ole)
	require.NoError(t, err)
	require.NotEqual(t, id, next)
	require.Len(t, s.doc.Takes, 1)
	require.Equal(t, EndedWindow, s.doc.Takes[0].Ended)
	_, err = s.desk.Put(id, s.row, Part{}, nil)
	require.ErrorIs(t, err, ErrOver)
}

// On a row of its own a take passes the same chain, and the row it was recorded on stays as it was.
func TestOnANewRow(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{Beside: true})
	s.send(id, 0, rate)
	s.end(id, Ending{})
	require.Empty(t, s.voice().Clips)
	row, ok := s.doc.Channel(s.doc.Takes[0].Row)
	require.True(t, ok)
	require.Equal(t, "Voice 2", row.Name)
	require.Len(t, row.Clips, 1)
	require.Equal(t, project.EntersWayIn, row.Clips[0].Enters)
	require.Equal(t, row.Chain.Nodes[1].ID(), row.WayIn)
}

// A chain may be changed while it records: the take says where, and is treated as the chain is at the end.
func TestAChainThatIsChangedMeanwhileIsNoted(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{})
	s.send(id, 0, rate)
	node := s.voice().Chain.Nodes[0].ID()
	require.NoError(t, s.Change(t.Context(), "", "", "", func(*project.Project) []project.Change {
		return []project.Change{&project.SetParam{Owner: node, Name: "gain2", Value: -9}}
	}))
	_, err := s.desk.Put(id, s.row, Part{At: rate, Runs: []project.Run{{Frames: 2 * rate}}}, s.arrives("reader", rate, rate))
	require.NoError(t, err)
	s.end(id, Ending{})
	require.NotNil(t, s.doc.Takes[0].Changed)
	require.InDelta(t, 2*rate, *s.doc.Takes[0].Changed, rate)
}

// Over a range only that is put down, and the rest can be drawn out of it; aside the row sounds as it did.
func TestRangesAndAside(t *testing.T) {
	s := newStudio(t)
	id := s.begin(Plan{From: 30000, To: 40000})
	s.send(id, 10000, rate)
	s.end(id, Ending{})
	x := s.voice().Clips[0]
	require.Equal(t, []int64{30000, 10000, 20000}, []int64{x.Start, x.Frames, x.Offset})
	id = s.begin(Plan{From: 30000, To: 40000})
	s.send(id, 10000, rate/4)
	s.end(id, Ending{To: 22000})
	require.Len(t, s.voice().Clips, 1, "it was ended before the range began")
	require.Len(t, s.doc.Takes, 2)
	id = s.begin(Plan{Aside: true})
	s.send(id, 10000, rate)
	s.end(id, Ending{})
	require.Len(t, s.voice().Clips, 1)
	require.Len(t, s.doc.Takes, 3)
}
