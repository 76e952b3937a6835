package audiofile

import (
	"bytes"
	"errors"
	"io"
	"math"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
)

// tone is a loud tone with noise on the left and silence, but for the very last frame, on the right.
func tone(frames int) [][]float64 {
	src := [][]float64{make([]float64, frames), make([]float64, frames)}
	for i := range frames {
		src[0][i] = 0.8*math.Sin(float64(i)/11) + 0.1*dsp.White(3, int64(i))
	}
	src[1][frames-1] = -1
	return src
}

func flacOf(t *testing.T, src [][]float64, bits int) []byte {
	var b bytes.Buffer
	w, err := NewFLAC(&b, 44100, len(src), bits, int64(len(src[0])), nil)
	require.NoError(t, err)
	for at := 0; at < len(src[0]); at += 777 { // in pieces that are no whole blocks
		var part [][]float64
		for _, x := range src {
			part = append(part, x[at:min(at+777, len(x))])
		}
		require.NoError(t, w.Write(part))
	}
	require.NoError(t, w.Close())
	return b.Bytes()
}

// readAll reads a source to its end, in pieces of a few frames more than one.
func readAll(src Source) (out [2][]float64, err error) {
	for {
		dst := [][]float64{make([]float64, 1009), make([]float64, 1009)}[:src.Format().Channels]
		n, err := src.Read(dst)
		for c := range dst {
			out[c] = append(out[c], dst[c][:n]...)
		}
		if errors.Is(err, io.EOF) {
			return out, nil
		}
		if err != nil {
			return out, err
		}
	}
}

// What is written as FLAC comes back frame for frame, each sample within the dither.
func TestFLACComesBackAsItWas(t *testing.T) {
	for _, bits := range []int{16, 24} {
		for _, channels := range []int{1, 2} {
			for _, frames := range []int{1, 777, 4096, 10000} {
				want := tone(frames)[:channels]
				src, err := Open(bytes.NewReader(flacOf(t, want, bits)))
				require.NoError(t, err)
				require.Equal(t, Format{Kind: "flac", Rate: 44100, Channels: channels, Bits: bits, Frames: int64(frames)}, src.Format())
				got, err := readAll(src)
				require.NoError(t, err)
				lsb := math.Exp2(float64(1 - bits))
				for c := range want {
					require.Len(t, got[c], frames)
					mean := 0.0
					for i, v := range want[c] {
						require.InDelta(t, v, got[c][i], 1.5*lsb, "%d bits, frame %d", bits, i)
						mean += (got[c][i] - v) / float64(frames)
					}
					if frames == 10000 {
						require.InDelta(t, 0, mean, 0.05*lsb, "the dither has no offset")
					}
				}
			}
		}
	}
}

// A FLAC file that is cut short or has a byte turned is refused in words, never taken for shorter or other music.
func TestDamagedFLACIsRefusedInWords(t *testing.T) {
	good := flacOf(t, tone(9000), 16)
	for _, cut := range []int{3, 20, 60, len(good) / 2, len(good) - 1} {
		src, err := Open(bytes.NewReader(good[:cut]))
		if err == nil {
			_, err = readAll(src)
		}
		require.Error(t, err, "cut at %d", cut)
		require.NotContains(t, err.Error(), "runtime error")
	}
	bad := bytes.Clone(good)
	bad[len(bad)/2] ^= 0x55
	src, err := Open(bytes.NewReader(bad))
	require.NoError(t, err)
	_, err = readAll(src)
	require.ErrorContains(t, err, "damaged")
}

// A sink does not close the file below, whatever writes it: what it belongs to does, and must see what goes wrong then.
func TestASinkLeavesTheFileOpen(t *testing.T) {
	for _, kind := range []string{"wav", "flac"} {
		f, err := os.Create(filepath.Join(t.TempDir(), "x"))
		require.NoError(t, err)
		var s Sink
		if kind == "wav" {
			s, err = NewWAV(f, 48000, 2, 16, nil, nil)
		} else {
			s, err = NewFLAC(f, 48000, 2, 16, 0, nil)
		}
		require.NoError(t, err)
		x := make([]float64, 5000)
		require.NoError(t, s.Write([][]float64{x, x}))
		require.NoError(t, s.Close())
		require.NoError(t, f.Sync(), kind)
		require.NoError(t, f.Close())
		back, err := os.Open(f.Name())
		require.NoError(t, err)
		src, err := Open(back)
		require.NoError(t, err)
		require.Equal(t, int64(5000), src.Format().Frames, "%s: its head says how long it is", kind)
		require.NoError(t, back.Close())
	}
}
