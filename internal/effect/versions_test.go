package effect_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

func TestAnOlderSoundIsFoundByItsVersion(t *testing.T) {
	require.NotEmpty(t, effect.Older())
	for _, old := range effect.Older() {
		newest, ok := effect.Find(old.ID)
		require.True(t, ok)
		require.Less(t, old.Version, newest.Version, old.ID)
		k, ok := effect.Of(old.ID, old.Version)
		require.True(t, ok)
		assert.Equal(t, old.Version, k.Version)
		// all that a document can say of the old one can be said of the new one
		for _, p := range old.Params {
			i := newest.Index(p.Name)
			require.GreaterOrEqual(t, i, 0, "%s has lost %s", old.ID, p.Name)
			assert.NoError(t, newest.Params[i].Check(p.Min), p.Name)
			assert.NoError(t, newest.Params[i].Check(p.Max), p.Name)
		}
		_, ok = effect.Of(old.ID, newest.Version+1)
		assert.False(t, ok)
	}
	k, ok := effect.Of("vibrato", 0)
	require.True(t, ok)
	assert.Equal(t, 3, k.Version)
}

func TestInfosSayWhichIsTheNewest(t *testing.T) {
	newest := map[string]int{}
	for _, k := range effect.Infos() {
		if k.Version == k.Newest {
			newest[k.ID]++
		} else {
			assert.Less(t, k.Version, k.Newest, k.ID)
		}
	}
	assert.Len(t, newest, len(effect.Kinds())+len(effect.Whole()))
	for id, n := range newest {
		assert.Equal(t, 1, n, id)
	}
}

// The extremes of the pitch are measured by the phase of a tone, against nothing of the kernel's.
func TestVibratoSwingsAsFarUpAsDown(t *testing.T) {
	for _, c := range []struct {
		version  int
		up, down float64
	}{{1, 200, -226}, {2, 200, -200}, {3, 200, -200}} {
		k, _ := effect.Of("vibrato", c.version)
		rig := effecttest.Of(k, rate, set{"depth": 200, "rate": 2})
		y := tone(192000, 1000, -12)
		rig.Run(y, slices.Clone(y), 128)
		most, least := math.Inf(-1), math.Inf(1)
		for i := 48000; i < 180000; i += 50 {
			turns := (phaseAt(y, i+50) - phaseAt(y, i-50)) / (2 * math.Pi)
			turns += math.Round(1000*100/rate - turns)
			cents := 1200 * math.Log2(turns/100*rate/1000)
			most, least = max(most, cents), min(least, cents)
		}
		assert.InDelta(t, c.up, most, 3, "version %d up", c.version)
		assert.InDelta(t, c.down, least, 3, "version %d down", c.version)
	}
}

// phaseAt is the phase of what is near 1 kHz around a frame, through a Hann window of 10 ms.
func phaseAt(y []float64, at int) float64 {
	var re, im float64
	const half = 240
	for i := -half; i < half; i++ {
		w := 0.5 + 0.5*math.Cos(math.Pi*float64(i)/half)
		p := 2 * math.Pi * 1000 / rate * float64(i)
		re += w * y[at+i] * math.Cos(p)
		im -= w * y[at+i] * math.Sin(p)
	}
	return math.Atan2(im, re)
}

// What listens to the mean power is as it was: only peaks are held.
func TestTheMeanDetectorIsAsItWas(t *testing.T) {
	var heard [2][]float64
	for version := 1; version <= 2; version++ {
		k, _ := effect.Of("compressor", version)
		x := effecttest.Noise(48000, 3, -6)
		for i := range x[24000:] {
			x[24000+i] *= 0.05
		}
		effecttest.Of(k, rate, set{"detector": 1, "makeup": 0}).Run(x, slices.Clone(x), 128)
		heard[version-1] = x
	}
	require.Equal(t, heard[0], heard[1])
}
