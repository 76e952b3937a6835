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

// chord is a few partials that die away over and over, with a little noise, on two sides that differ.
func chord(frames int) [][]float64 {
	src := [][]float64{make([]float64, frames), make([]float64, frames)}
	for i := range frames {
		e := math.Exp(-float64(i%24000) / 9000)
		for k, f := range []float64{0.013, 0.0197, 0.0262, 0.052, 0.11} {
			src[0][i] += 0.1 * e * math.Sin(f*float64(i)+float64(k))
			src[1][i] += 0.1 * e * math.Sin(f*float64(i)*1.0003)
		}
		src[0][i] += 0.0005 * dsp.White(3, int64(i))
		src[1][i] += 0.0005 * dsp.White(4, int64(i))
	}
	return src
}

// What is the same on both sides is written once; what can be foretold takes little more than what cannot.
func TestFLACIsSmall(t *testing.T) {
	x := chord(96000)
	mono := len(flacOf(t, x[:1], 24))
	require.Less(t, float64(len(flacOf(t, [][]float64{x[0], x[0]}, 24))), 1.2*float64(mono), "each side has a dither of its own")
	// noise of 0.0005 is about 12.6 of 24 bits deep, and even: nothing can take less for each sample
	entropy := math.Log2(0.001 * (1 << 23))
	require.Less(t, float64(mono)*8/96000, entropy+1.2)
	require.Less(t, len(flacOf(t, [][]float64{make([]float64, 96000), make([]float64, 96000)}, 16)), 1000)
}

// Whatever is written comes back: the loudest there is, steps, noise, nothing, and all of them on one side only.
func TestFLACOfExtremesComesBack(t *testing.T) {
	n := 9000
	shapes := map[string]func(i int) float64{
		"full noise":  func(i int) float64 { return dsp.White(9, int64(i)) },
		"square":      func(i int) float64 { return 1 - 2*float64(i/50%2) },
		"every other": func(i int) float64 { return 1 - 2*float64(i%2) },
		"nothing":     func(int) float64 { return 0 },
		"offset":      func(int) float64 { return 0.25 },
		"impulse":     func(i int) float64 { return map[bool]float64{true: -1}[i == 5000] },
	}
	for a, f := range shapes {
		for b, g := range shapes {
			src := [][]float64{make([]float64, n), make([]float64, n)}
			for i := range n {
				src[0][i], src[1][i] = f(i), g(i)
			}
			for _, bits := range []int{16, 24} {
				r, err := Open(bytes.NewReader(flacOf(t, src, bits)))
				require.NoError(t, err)
				got, err := readAll(r)
				require.NoError(t, err, "%s, %s", a, b)
				for c := range src {
					for i, v := range src[c] {
						require.InDelta(t, v, got[c][i], 2.6*math.Exp2(float64(1-bits)), "%s, %s, frame %d", a, b, i)
					}
				}
			}
		}
	}
}

func BenchmarkFLAC(b *testing.B) {
	x := chord(48000)
	for b.Loop() {
		w, _ := NewFLAC(io.Discard, 48000, 2, 24, 48000, nil)
		_ = w.Write(x)
		_ = w.Close()
	}
}
