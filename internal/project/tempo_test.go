package project

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A ramp of tempo takes as long as the sum of its small parts, each at its own tempo, and can be read
// backwards.
func TestTempoRampsAgainstASum(t *testing.T) {
	p := New("x", 48000, 120, 4, 4)
	p.Tempo = []Tempo{
		{Tick: 0, BPM: 120, Ramp: false}, {Tick: 3840, BPM: 90, Ramp: true}, {Tick: 11520, BPM: 156, Ramp: true},
		{Tick: 15360, BPM: 60, Ramp: false},
	}
	require.NoError(t, p.Validate(fakeEffects))
	c := p.Clock()
	sum, tick := 0.0, 0.0
	const step = 0.25
	for ; tick < 20000; tick += step {
		mid := tick + step/2
		bpm := 120.0
		switch {
		case mid >= 15360:
			bpm = 60
		case mid >= 11520:
			bpm = 156 + (60-156)*(mid-11520)/3840
		case mid >= 3840:
			bpm = 90 + (156-90)*(mid-3840)/7680
		}
		if math.Mod(tick, 160) == 0 {
			f := c.Frame(int64(tick))
			require.InDelta(t, sum, float64(f), 0.6, "tick %g", tick)
			require.InDelta(t, tick, c.Tick(f), 0.05)
			require.InDelta(t, bpm, c.Tempo(f+1), 0.1)
		}
		sum += step * 60 * 48000 / (960 * bpm)
	}
	// without ramps it takes as long, to the frame
	q := New("y", 48000, 120, 4, 4)
	q.Tempo = p.Clock().PlainTempo()
	require.NoError(t, q.Validate(fakeEffects))
	for tick := int64(0); tick < 20000; tick += 240 {
		require.InDelta(t, c.Frame(tick), q.Clock().Frame(tick), 1)
	}
}

func TestTemposArePutOnBeats(t *testing.T) {
	p := sample(t) // 90, in six eighths
	clock := p.Clock()
	next := one(t, p, &PutTempo{At: clock.Frame(9700), BPM: 70}, &PutTempo{At: clock.Frame(2800), BPM: 100, Ramp: true})
	assert.Equal(
		t, []Tempo{{Tick: 0, BPM: 90, Ramp: false}, {Tick: 2880, BPM: 100, Ramp: true}, {Tick: 9600, BPM: 70, Ramp: false}}, next.Tempo,
	)
	tick := int64(2880)
	next = one(t, next, &PutTempo{Tick: &tick, BPM: 101})
	assert.Equal(t, Tempo{Tick: 2880, BPM: 101, Ramp: false}, next.Tempo[1])
	next = one(t, next, &RemoveTempo{2880})
	assert.Len(t, next.Tempo, 2)
	refusedWith(t, next, "first tempo cannot be removed", &RemoveTempo{0})
	refusedWith(t, next, "no longer there", &RemoveTempo{77})
	refusedWith(t, next, "10 to 400", &PutTempo{BPM: 500})
}
