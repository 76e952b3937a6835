package dsp

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"
)

// A delay line gives what was written, however often it has gone round, one by one and in blocks; the history that it is held
// against is a plain list.
func TestADelayLineGivesWhatWasWritten(t *testing.T) {
	for _, frames := range []int{1, 60, 1000, 4090, 5000, 19201} {
		r := rand.New(rand.NewPCG(uint64(frames), 1))
		d := NewDelayLine(frames)
		require.GreaterOrEqual(t, len(d.buf), frames+4)
		require.LessOrEqual(t, len(d.buf), max(2*frames+8, frames+delaySlack))
		past := make([]float64, frames+128) // what was there before anything was written
		for round := 0; len(past) < 5*frames+3000; round++ {
			block := make([]float64, 1+r.IntN(min(128, frames+4)))
			for i := range block {
				block[i] = r.Float64()
			}
			if past = append(past, block...); round%2 == 0 {
				d.WriteBlock(block)
			} else {
				for _, x := range block {
					d.Write(x)
				}
			}
			now := len(past) - 1
			for _, n := range []int{0, frames, r.IntN(frames + 1)} {
				require.Equal(t, past[now-n], d.Read(n), "%d frames ago, of %d", n, frames)
			}
			n := r.IntN(frames + 1)
			dst := make([]float64, 1+r.IntN(min(n+1, 128)))
			d.ReadBlock(dst, n)
			require.Equal(t, past[now-n:now-n+len(dst)], dst)
			sum := make([]float64, len(dst))
			d.AddBlock(sum, n, 2)
			for i := range sum {
				require.Equal(t, 2*dst[i], sum[i])
			}
		}
		longer, shorter := NewDelayLine(3*frames), NewDelayLine(max(1, frames/3))
		longer.CopyFrom(d)
		shorter.CopyFrom(d)
		for n := range frames / 3 {
			require.Equal(t, d.Read(n), longer.Read(n))
			require.Equal(t, d.Read(n), shorter.Read(n))
		}
	}
}

// What is read nearer than a line allows is no sound, but nothing ends by it, wherever in its round the line stands.
func TestReadingTooNearEndsNothing(t *testing.T) {
	Smooths()
	for _, frames := range []int{60, 5000} {
		d := NewDelayLine(frames)
		for range 2 * len(d.buf) {
			d.Write(0.5)
			for _, delay := range []float64{0, 0.25, 1, 3.5, 7.75} {
				require.NotPanics(t, func() { d.ReadAt(delay); d.ReadSinc(delay); d.ReadSmooth(delay) })
			}
		}
	}
}
