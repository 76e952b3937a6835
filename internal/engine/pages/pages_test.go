package pages

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func page(v float32) Page { return Page{{v, v}} }

func TestWhatDoesNotFitIsIgnored(t *testing.T) {
	l := New(0)
	s := l.Sound("a", Frames+2, 1)
	assert.Equal(t, 2, s.Count())
	l.Put("a", 2, page(1))
	l.Put("a", -1, page(1))
	l.Put("b", 0, page(1))
	l.Put("a", 0, Page{{1}, {1}}) // it has one channel
	assert.Nil(t, s.Page(0))
	l.Put("a", 1, page(0.5))
	assert.Equal(t, page(0.5), s.Page(1))
	again := l.Sound("a", Frames+2, 1)
	assert.Same(t, s, again)
}

func TestTheOldestPagesGoWhenThereAreTooMany(t *testing.T) {
	l := New(2)
	s := l.Sound("a", 4*Frames, 1)
	for i := range 3 {
		l.Put("a", i, page(float32(i)))
	}
	assert.Nil(t, s.Page(0))
	assert.NotNil(t, s.Page(1))
	l.Put("a", 1, page(1)) // it is new again
	l.Put("a", 3, page(3))
	assert.NotNil(t, s.Page(1))
	assert.Nil(t, s.Page(2))
	l.Drop("a", 1)
	l.Drop("a", 1)
	assert.Nil(t, s.Page(1))
	l.Put("a", 0, page(0))
	assert.NotNil(t, s.Page(3), "what was dropped has made room")
}

// A page in stereo takes twice the room, and one more page always fits, however little room there is.
func TestRoomIsCountedInSides(t *testing.T) {
	l := New(4)
	mono, stereo := l.Sound("a", 4*Frames, 1), l.Sound("b", 4*Frames, 2)
	held := func() (n int) {
		for i := range 4 {
			n += len(mono.Page(i)) + len(stereo.Page(i))
		}
		return n
	}
	for i := range 4 {
		l.Put("a", i, page(0))
		l.Put("b", i, Page{{0}, {0}})
		assert.LessOrEqual(t, held(), 4)
	}
	assert.NotNil(t, mono.Page(3))
	assert.NotNil(t, stereo.Page(3))
	l.Drop("b", 3)
	l.Put("a", 0, page(0))
	l.Put("a", 1, page(0))
	assert.Equal(t, 3, held(), "what was dropped has made room")
	small := New(1)
	one := small.Sound("b", 2*Frames, 2)
	small.Put("b", 0, Page{{0}, {0}})
	small.Put("b", 1, Page{{0}, {0}})
	assert.Nil(t, one.Page(0))
	assert.NotNil(t, one.Page(1))
}

func TestAWholeSoundHasTwoSides(t *testing.T) {
	l := New(0)
	s := l.Sound("a", Frames+1, 2)
	first := Page{make([]float32, Frames), make([]float32, Frames)}
	first[0][0], first[1][0] = 1, -1
	l.Put("a", 0, first)
	l.Put("a", 1, Page{{0.25}, {0.5}})
	left, right := s.Sides()
	assert.Len(t, left, Frames+1)
	assert.Equal(t, []float64{1, -1, 0.25, 0.5}, []float64{left[0], right[0], left[Frames], right[Frames]})
	mono := l.Sound("b", 1, 1)
	l.Put("b", 0, Page{{0.5}})
	left, right = mono.Sides()
	assert.Equal(t, left, right)
	found, ok := l.Find("b")
	assert.True(t, ok)
	assert.Same(t, mono, found)
	_, ok = l.Find("c")
	assert.False(t, ok)
}

// In a render what is being played stays, however long ago it came.
func TestWhatIsNeededIsNotDropped(t *testing.T) {
	l := New(3).AllWorked()
	s := l.Sound("a", 10*Frames, 1)
	for i := range 10 {
		assert.Equal(t, i > 0, s.Need(0), "the first is missing at first")
		l.Put("a", i, page(0))
		require.NotNil(t, s.Page(0))
	}
	assert.Nil(t, s.Page(7))
	assert.NotNil(t, s.Page(8))
	assert.False(t, s.Need(7))
}
