package project

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

var ada, bo = Speaker{"ada", "Ada"}, Speaker{"bo", "Bo"}

// say makes changes in somebody's name.
func say(t *testing.T, p *Project, by Speaker, batch ...Change) *Project {
	t.Helper()
	require.True(t, Speak(batch, by, "2026-11-30T12:00:00Z"))
	next, _, err := Apply(p, batch, FakeEffects)
	require.NoError(t, err)
	return next
}

// A remark is about a place, answered, settled and opened again; it waits for whom it was said to until they say something.
func TestARemarkWaitsForWhomItIsSaidTo(t *testing.T) {
	p := sample(t)
	row := p.Channels[0]
	p = say(t, p, ada, &MakeRemark{ID: "r", At: row.Chain.Nodes[0].ID(), Text: " too bright ", Told: []Speaker{bo}})
	r := p.Remarks[0]
	require.Equal(t, "too bright", r.Said[0].Text)
	require.Equal(t, ada, r.Said[0].By)
	require.True(t, strings.HasPrefix(r.At.Called, row.Name+": "), r.At.Called)
	require.True(t, r.Waits("bo"))
	require.False(t, r.Waits("ada"))
	require.False(t, r.Waits(""))
	p = say(t, p, bo, &AnswerRemark{Remark: "r", Text: "softer now?", Told: []Speaker{ada}})
	require.False(t, p.Remarks[0].Waits("bo"))
	require.True(t, p.Remarks[0].Waits("ada"))
	p = say(t, p, ada, &SettleRemark{Remark: "r", Settled: true})
	require.False(t, p.Remarks[0].Waits("ada"))
	require.Equal(t, ada, p.Remarks[0].Settled.By)
	p = say(t, p, bo, &SettleRemark{Remark: "r"})
	require.True(t, p.Remarks[0].Waits("ada"))
}

// What a remark is about may be removed: what was said stays, with what its place was called.
func TestARemarkOutlivesItsPlace(t *testing.T) {
	p := sample(t)
	row := p.Channels[0]
	p = say(t, p, ada, &MakeRemark{ID: "r", At: row.ID, From: 24000, To: 48000, Text: "breath"})
	called := p.Remarks[0].At.Called
	require.Contains(t, called, row.Name)
	next, _, err := Apply(p, []Change{&RemoveChannel{ID: row.ID}}, FakeEffects)
	require.NoError(t, err)
	require.Equal(t, called, next.Remarks[0].At.Called)
	_, there := next.PlaceOf(row.ID, "", FakeEffects)
	require.False(t, there)
}

// Nothing is said by nobody, about nothing, or without words; and nobody says something for somebody else.
func TestRemarksThatSayNothingAreRefused(t *testing.T) {
	p := say(t, sample(t), ada, &MakeRemark{ID: "r", Text: "all of it"})
	for what, c := range map[string]Change{
		"nothing is said": &MakeRemark{Text: "  "}, "no longer there": &MakeRemark{At: "none", Text: "x"},
		"letters are said":    &MakeRemark{Text: strings.Repeat("x", MaxRemark+1)},
		"longer than nothing": &MakeRemark{Text: "x", From: 48000, To: 48000},
		"people are told":     &MakeRemark{Text: "x", Told: make([]Speaker, maxTold+1)}, "removed it": &AnswerRemark{Remark: "none", Text: "x"},
		"things are said": nil,
	} {
		batch := []Change{c}
		if c == nil {
			batch = nil
			for range maxSaid {
				batch = append(batch, &AnswerRemark{Remark: "r", Text: "x"})
			}
		}
		Speak(batch, ada, "2026-11-30T12:00:00Z")
		_, _, err := Apply(p, batch, FakeEffects)
		require.ErrorContains(t, err, what)
	}
	_, _, err := Apply(p, []Change{&MakeRemark{Text: "x"}}, FakeEffects)
	require.ErrorContains(t, err, "nobody said it")
	forged := &AnswerRemark{Remark: "r", Text: "I did it"}
	forged.By = &bo
	require.Equal(t, ada, say(t, p, ada, forged).Remarks[0].Said[1].By)
	require.True(t, Inner([]Change{&unsay{"r", "x"}}))
	require.False(t, Inner([]Change{&MakeRemark{}}))
	require.False(t, Speak([]Change{&MakeRemark{}, &RemoveChannel{}}, ada, ""), "this is more than a remark")
}

// A row is taken in hand for a while, by whoever asks, and let go of again.
func TestARowIsInHandForAWhile(t *testing.T) {
	p := sample(t)
	id := p.Channels[0].ID
	hold := &TakeInHand{ID: id, Minutes: 90}
	require.False(t, Speak([]Change{hold}, ada, "2026-11-30T12:00:00Z"), "who only hears has nothing in hand")
	held, undo, err := Apply(p, []Change{hold}, FakeEffects)
	require.NoError(t, err)
	require.Equal(t, &Hand{ada, "2026-11-30T13:30:00Z"}, held.Channels[0].Hand)
	back, _, err := Apply(held, undo, FakeEffects)
	require.NoError(t, err)
	require.Equal(t, AsJSON(t, p), AsJSON(t, back))
	free, _, err := Apply(held, []Change{&TakeInHand{ID: id}}, FakeEffects)
	require.NoError(t, err)
	require.Nil(t, free.Channels[0].Hand)
	for _, wrong := range []*TakeInHand{
		{ID: id, Minutes: -1}, {ID: id, Minutes: LongestHand + 1}, {ID: "none", Minutes: 1}, {ID: id, Minutes: 1},
	} {
		_, _, err := Apply(p, []Change{wrong}, FakeEffects)
		require.Error(t, err)
	}
}
