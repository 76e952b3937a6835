package shelf

import (
	"math"
	"math/cmplx"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/synth"
)

func TestEveryoneHasSoundsToBeginWith(t *testing.T) {
	list := stock()
	assert.GreaterOrEqual(t, len(list), 30)
	ids, names := map[string]bool{}, map[string]bool{}
	for _, s := range list {
		assert.False(t, ids[s.id] || names[s.name], s.name)
		ids[s.id], names[s.name] = true, true
		assert.True(t, strings.HasSuffix(s.says, "."), "%s is said in a sentence", s.name)
		assert.NotEmpty(t, s.tags, s.name)
	}
}

// What ships may not clip, click, stand off the middle, or be silent.
func TestWhatShipsIsSound(t *testing.T) {
	for _, s := range stock() {
		t.Run(s.id, func(t *testing.T) {
			t.Parallel()
			take := s.play()
			for _, ch := range [][]float64{take.L, take.R} {
				if ch == nil {
					continue
				}
				peak, mean, power := 0.0, 0.0, 0.0
				for _, v := range ch {
					require.False(t, math.IsNaN(v) || math.IsInf(v, 0))
					peak, mean, power = max(peak, math.Abs(v)), mean+v/float64(len(ch)), power+v*v/float64(len(ch))
				}
				assert.LessOrEqual(t, peak, 0.9)
				assert.Greater(t, power, 1e-6, "it is heard")
				assert.Less(t, math.Abs(mean), 0.01, "no constant part")
				assert.Less(t, math.Abs(ch[0]), 0.001, "it begins in silence")
				assert.Less(t, math.Abs(ch[len(ch)-1]), 0.001, "and ends there")
				assert.Less(t, len(ch), 12*synth.Rate)
			}
			again := s.play()
			assert.Equal(t, take.L, again.L, "the same every time")
		})
	}
}

// A pitch that is claimed is heard: within a quarter of a semitone of it lies a line that stands out of all beside it.
func TestPitchesAreWhatIsSaid(t *testing.T) {
	for _, s := range stock() {
		if s.pitch == 0 {
			continue
		}
		take := s.play()
		part := take.L
		if s.id == "sweep-glass" {
			part = part[len(part)-synth.Rate/10:] // it arrives there
		}
		at, off := 0.0, 0.0
		for cents := -25.0; cents <= 25; cents += 5 {
			at = max(at, line(part, s.pitch*math.Exp2(cents/1200)))
		}
		for _, semitones := range []float64{-1.5, -1, 1, 1.5} {
			off = max(off, line(part, s.pitch*math.Exp2(semitones/12)))
		}
		assert.Greater(t, at, 2*off, s.name)
	}
}

// line is how much of a sound lies at a frequency: one term of its Fourier sum, under a Hann window.
func line(x []float64, hz float64) float64 {
	sum := complex(0, 0)
	for i, v := range x {
		w := 0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/float64(len(x)))
		sum += complex(v*w, 0) * cmplx.Exp(complex(0, -2*math.Pi*hz*float64(i)/synth.Rate))
	}
	return cmplx.Abs(sum)
}

func TestNotesHaveNames(t *testing.T) {
	assert.Equal(t, "A4", noteOf(440))
	assert.Equal(t, "C4", noteOf(261.6256))
	assert.Equal(t, "A4 +20 ct", noteOf(440*math.Exp2(20.0/1200)))
	assert.Empty(t, noteOf(0))
}
