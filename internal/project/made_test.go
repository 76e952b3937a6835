package project

import (
	"testing"

	"github.com/stretchr/testify/require"
)

const printed = "1234561234561234561234561234561234561234561234561234561234561234"

func TestAPieceIsMadePermanentAndBroughtBack(t *testing.T) {
	p, _ := aPiece(t)
	p, _ = make1(t, p, &SetClip{ID: "x", Swell: &[]Swell{{At: 1000, Gain: -12}, {At: 3000, Gain: 0}, {At: 9000, Gain: -6}}})
	p, _ = make1(t, p, &TreatClips{Clips: []string{"x"}, Effect: LengthStep})
	p, _ = make1(t, p, &SetParam{Owner: step(p, "x"), Name: "percent", Value: 200})
	q, undo := make1(t, p, &MakePermanent{ID: "x", Audio: Audio{printed, "Bell", 20000, 2}})
	x := clipOf(t, q, "x")
	require.Empty(t, q.Treatments)
	require.Nil(t, x.Extent)
	require.Equal(t, [4]any{printed, int64(48000), int64(0), int64(20000)}, [4]any{x.Audio, x.Start, x.Offset, x.Frames})
	was := clipOf(t, p, "x")
	for _, at := range []int64{0, 500, 3000, 12000, 15000} {
		require.InDelta(t, was.SwellAt(was.Offset+at), x.SwellAt(at), 1e-9, "its swell stays")
	}
	back, _ := make1(t, q, undo...)
	require.JSONEq(t, asJSON(t, p), asJSON(t, back))

	q, _ = make1(t, q, &MoveClip{ID: "x", By: 9600, Copy: ""})
	q, _ = make1(t, q, &TrimClip{ID: "x", Edge: "begin", By: 4000}, &SetClip{ID: "x", Gain: new(float64)})
	again, _ := make1(t, q, &BringBack{ID: "x"})
	y := clipOf(t, again, "x")
	require.Equal(t, was.Extent, y.Extent)
	require.Equal(t, was.Start+9600, y.Start, "it lies where its sound lies now")
	require.Len(t, again.Treatments, 1)
	require.Nil(t, y.Made)
}

func TestASoundThatSomethingWasMadeFromStays(t *testing.T) {
	p, _ := aPiece(t)
	p, _ = make1(t, p, &TreatClips{Clips: []string{"x"}, Effect: "trim"})
	p, _ = make1(t, p, &MakePermanent{ID: "x", Audio: Audio{printed, "Bell", 20000, 2}})
	p, _ = make1(t, p, &RemoveAudio{Hash: aSound})
	_, there := p.AudioByHash(aSound)
	require.True(t, there)
	for _, c := range []Change{
		&BringBack{ID: "y"}, &MakePermanent{ID: "x", Audio: Audio{printed, "Bell", 20000, 2}}, &MakePermanent{ID: "y"},
	} {
		_, _, err := Apply(p, []Change{c}, fakeEffects)
		require.Error(t, err)
	}
}

// The sound that a clip rings on with holds its tails; those before it begin earlier.
func TestTailsBeforeAPieceBeginEarlier(t *testing.T) {
	p, _ := aPiece(t)
	yes := true
	p, _ = make1(t, p, &SetClip{ID: "x", Rings: &yes, FadeIn: new(int64)}, &TreatClips{Clips: []string{"x"}, Effect: Backwards})
	q, _ := make1(t, p, &MakePermanent{ID: "x", Audio: Audio{printed, "Bell", 15000, 2}, Lead: 3000})
	x := clipOf(t, q, "x")
	require.Equal(t, [3]int64{45000, 0, 15000}, [3]int64{x.Start, x.Offset, x.Frames})
	require.False(t, x.Rings)
	again, _ := make1(t, q, &BringBack{ID: "x"})
	require.Equal(t, int64(48000), clipOf(t, again, "x").Start)
}
