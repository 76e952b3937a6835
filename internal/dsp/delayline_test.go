package dsp

import (
	"math"
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

// Blocks are read as single frames are, to the bit, also over the seam of the ring; both sides at once are each what it
// is alone.
func TestSmoothBlocksAreTheirFrames(t *testing.T) {
	Smooths()
	const block, rounds = 16, 600
	single, l, r := NewDelayLine(300), NewDelayLine(300), NewDelayLine(300)
	noise := rand.New(rand.NewPCG(3, 5)).NormFloat64
	var x, y, delays, want, got, left, right, sumL, sumR [block]float64
	for round := range rounds {
		for i := range delays {
			x[i], y[i] = noise(), noise()
			delays[i] = FractionMargin + block + 130 + 130*math.Sin(float64(round*block+i)*0.01)
		}
		l.ReadSmoothAhead(got[:], delays[:])
		for i := range x {
			single.Write(x[i])
			want[i] = single.ReadSmooth(delays[i])
		}
		require.Equal(t, want, got, "ahead, in round %d", round)
		l.WriteBlock(x[:])
		r.WriteBlock(y[:])
		l.ReadSmoothBlock(got[:], delays[:])
		require.Equal(t, want, got, "behind, in round %d", round)
		ReadSmoothBlocks(l, r, left[:], right[:], delays[:])
		require.Equal(t, want, left)
		r.ReadSmoothBlock(got[:], delays[:])
		require.Equal(t, got, right)
		sumL, sumR = [block]float64{}, [block]float64{}
		AddSmoothBlocks(l, r, sumL[:], sumR[:], delays[:], [2]float64{2, -0.5})
		for i := range sumL {
			require.InDelta(t, 2*left[i], sumL[i], 1e-14)
			require.InDelta(t, -0.5*right[i], sumR[i], 1e-14)
		}
	}
}
