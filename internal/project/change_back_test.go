package project

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// later is a song as it became: a row renamed and lower, one gone with what fed on it, one new, a line drawn.
func later(t *testing.T) (then, now *Project, row, gone *Channel) {
	then, row, stage := lively(t)
	added := NewChannel(Track, "Gull", then.MainChannel().ID)
	then = say(t, then, ada, &MakeRemark{ID: "r", Text: "as it was"})
	next, _, err := Apply(then, []Change{&AddChannel{Channel: added, Index: 0}}, FakeEffects)
	require.NoError(t, err)
	then = next
	name, level, off := "Rope, later", row.Fader-3, true
	fresh := NewChannel(Track, "Oar", then.MainChannel().ID)
	now, _, err = Apply(then, []Change{
		&SetChannel{ID: row.ID, Name: &name}, &SetParam{Owner: row.ID, Name: "fader", Value: level}, &SetNode{ID: stage.ID, Bypass: &off},
		&RemoveChannel{ID: added.ID}, &AddChannel{Channel: fresh, Index: 0},
	}, FakeEffects)
	require.NoError(t, err)
	now = say(t, now, bo, &AnswerRemark{Remark: "r", Text: "and as it is"})
	return then, now, row, added
}

func TestWhatDiffersIsSaidRowByRow(t *testing.T) {
	then, now, row, gone := later(t)
	list, err := DocumentsDiffer(then, now, FakeEffects)
	require.NoError(t, err)
	says := map[string]string{}
	for _, x := range list {
		says[x.Called] = strings.Join(x.Says, "; ")
	}
	require.Contains(t, says["Rope, later"], "level 0.0 dB to −3.0 dB", "%v", says)
	require.Contains(t, says["Rope, later"], "Rope, later was called "+row.Name)
	require.Contains(t, says, gone.Name)
	require.Contains(t, says, "Oar")
	require.NotContains(t, strings.Join(slices.Collect(func(yield func(string) bool) {
		for _, s := range says {
			if !yield(s) {
				return
			}
		}
	}), " "), "remark")
	same, err := DocumentsDiffer(now, now, FakeEffects)
	require.NoError(t, err)
	require.Empty(t, same)
}

func TestAProjectGoesBackAsAWholeOrRowByRow(t *testing.T) {
	then, now, row, gone := later(t)
	whole, undo, err := Apply(now, []Change{&PutBack{Document: then}}, FakeEffects)
	require.NoError(t, err)
	require.Len(t, whole.Remarks[0].Said, 2, "what was said stays")
	list, err := DocumentsDiffer(then, whole, FakeEffects)
	require.NoError(t, err)
	require.Empty(t, list)
	back, _, err := Apply(whole, undo, FakeEffects)
	require.NoError(t, err)
	require.Equal(t, AsJSON(t, now), AsJSON(t, back))

	one, _, err := Apply(now, []Change{&PutBack{Document: then, Rows: []string{row.ID}}}, FakeEffects)
	require.NoError(t, err)
	list, err = DocumentsDiffer(then, one, FakeEffects)
	require.NoError(t, err)
	for _, x := range list {
		require.NotEqual(t, row.ID, x.Row, "%v", x)
	}
	require.Len(t, list, 2, "the other rows are as they are now: %v", list)
	two, _, err := Apply(one, []Change{&PutBack{Document: then, Rows: []string{gone.ID}}}, FakeEffects)
	require.NoError(t, err)
	_, there := two.Channel(gone.ID)
	require.True(t, there)
	var fresh string
	for _, c := range now.Channels {
		if c.Name == "Oar" {
			fresh = c.ID
		}
	}
	three, _, err := Apply(two, []Change{&PutBack{Document: then, Rows: []string{fresh}}}, FakeEffects)
	require.NoError(t, err)
	list, err = DocumentsDiffer(then, three, FakeEffects)
	require.NoError(t, err)
	require.Empty(t, list, "row by row it has all come back")

	other := Clone(then)
	other.SampleRate = 96000
	_, _, err = Apply(now, []Change{&PutBack{Document: other}}, FakeEffects)
	require.ErrorContains(t, err, "another sample rate")
	_, _, err = Apply(now, []Change{&PutBack{}}, FakeEffects)
	require.ErrorContains(t, err, "nothing to go back to")
}
