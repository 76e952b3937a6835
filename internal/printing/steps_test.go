package printing

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/project"
)

// rounds is a clip that was printed through an equaliser and then through a delay, and the row's id.
func rounds(t *testing.T) (p *project.Project, folder *audiofile.Folder, row, clip string) {
	t.Helper()
	p, ch, folder := song(t)
	eq := stage("equaliser", map[string]float64{"on3": 1, "gain3": 6})
	delay := stage("delay", map[string]float64{"sync": 1, "time": 90, "feedback": 10})
	eq.Stage.ID, delay.Stage.ID = "eq", "echo"
	p = made(t, p, &project.AddNode{Owner: ch.ID, Node: eq})
	p = printed(t, p, folder, ch.Clips[0].ID)
	now, _ := p.Channel(ch.ID)
	p = made(t, p, &project.SetClip{ID: now.Clips[0].ID, Enters: new(string)}, &project.AddNode{Owner: ch.ID, Index: 1, Node: delay})
	p = printed(t, p, folder, now.Clips[0].ID)
	now, _ = p.Channel(ch.ID)
	return p, folder, ch.ID, now.Clips[0].ID
}

func nobody(string, int64) (by, at string) { return "Odo", "today" }

func TestAPrintKnowsItsWayBackToTheFirstSound(t *testing.T) {
	p, folder, row, clip := rounds(t)
	x, _ := p.ClipByID(clip)
	s, err := StepsOf(p, folder, x.Audio, nobody)
	require.NoError(t, err)
	require.Equal(t, InItsRow, s.Kind)
	require.Equal(t, "Ines", s.By)
	require.Contains(t, s.Title, "Round 2 of Horn, through Equaliser, Delay")
	require.Equal(t, Further, s.State, "the round before has changed")
	require.Len(t, s.Of, 1)
	first := s.Of[0]
	require.Contains(t, first.Title, "Round 1")
	// the delay came into the row after the first round: what that would be now is another
	require.Equal(t, Changed, first.State)
	require.Equal(t, []Since{{"echo", "Delay is new", "Odo", "today"}}, first.Since)
	require.Equal(t, Source, first.Of[0].Kind)
	require.NotEmpty(t, first.Of[0].Title)
	require.Empty(t, first.Of[0].Of)

	q := made(t, p, &project.RemoveNode{ID: "echo"})
	s, err = StepsOf(q, folder, x.Audio, nobody)
	require.NoError(t, err)
	require.Equal(t, Changed, s.State)
	require.Equal(t, Holds, s.Of[0].State)

	q = made(t, p, &project.RemoveChannel{ID: row})
	s, err = StepsOf(q, folder, x.Audio, nobody)
	require.NoError(t, err)
	require.Equal(t, Alone, s.State)
}

func TestAPrintIsMadeAgainFromWhatItsRowGivesNow(t *testing.T) {
	p, folder, row, clip := rounds(t)
	x, _ := p.ClipByID(clip)
	p = made(t, p, &project.SetParam{Owner: "eq", Name: "gain3", Value: -6})
	both, err := BesideNow(t.Context(), p, folder, x.Audio, nil)
	require.NoError(t, err)
	require.True(t, folder.HasWorked(both.Now))
	require.NotZero(t, both.Gain, "both are as loud")
	require.Equal(t, x.Frames, both.Frames)

	list, err := Again(t.Context(), p, folder, Printer{"Odo", 9}, x.Audio, func(audiofile.Entry, string) error { return nil }, nil)
	require.NoError(t, err)
	q := made(t, p, list...)
	y, _ := q.ClipByID(clip)
	require.NotEqual(t, x.Audio, y.Audio)
	require.Equal(t, x.Start, y.Start)
	s, err := StepsOf(q, folder, y.Audio, nobody)
	require.NoError(t, err)
	require.Equal(t, "Odo", s.By)
	require.NotEqual(t, Changed, s.State)
	heard, err := folder.Sides(y.Audio, 0, 20000)
	require.NoError(t, err)
	now, err := folder.Sides(both.Now, 0, 20000)
	require.NoError(t, err)
	require.Equal(t, now, heard, "what was heard before is what comes")

	r, _, err := RecordOf(folder, x.Audio)
	require.NoError(t, err)
	back, err := r.ChainBack(p)
	require.NoError(t, err)
	ch, _ := made(t, p, back...).Channel(row)
	require.Equal(t, 6.0, ch.Chain.Nodes[0].Stage.Params["gain3"])
}

func TestWhatCannotBePrintedAgainSaysWhy(t *testing.T) {
	p, folder, row, clip := rounds(t)
	x, _ := p.ClipByID(clip)
	keep := func(audiofile.Entry, string) error { return nil }
	_, err := Again(t.Context(), p, folder, Printer{}, strings.Repeat("a", 64), keep, nil)
	require.ErrorContains(t, err, "it was not printed here")
	gone := made(t, p, &project.RemoveChannel{ID: row})
	_, err = Again(t.Context(), gone, folder, Printer{}, x.Audio, keep, nil)
	require.ErrorContains(t, err, "has left the song")
	r, _, err := RecordOf(folder, x.Audio)
	require.NoError(t, err)
	_, err = r.ChainBack(gone)
	require.ErrorContains(t, err, "has left the song")
	require.NoError(t, folder.PutLineage(x.Audio, []byte("{")))
	_, err = StepsOf(p, folder, x.Audio, nobody)
	require.ErrorContains(t, err, "read where the sound")
}
