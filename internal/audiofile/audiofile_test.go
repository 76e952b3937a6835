package audiofile

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"io"
	"math"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"
)

func written(t *testing.T, bits, channels, frames int) []byte {
	f, err := os.Create(filepath.Join(t.TempDir(), "x.wav"))
	require.NoError(t, err)
	defer f.Close()
	w, err := NewWAV(f, 48000, channels, bits, &Note{Description: "Horn", History: "none"}, []Cue{{10, "Ebb"}})
	require.NoError(t, err)
	src := [][]float64{make([]float64, frames), make([]float64, frames)}
	for i := range frames {
		src[0][i], src[1][i] = math.Sin(float64(i)/7)/2, math.Cos(float64(i)/9)/2
	}
	require.NoError(t, w.Write(src[:channels]))
	require.NoError(t, w.Close())
	b, err := os.ReadFile(f.Name())
	require.NoError(t, err)
	return b
}

func TestWAVComesBackAsItWas(t *testing.T) {
	for _, bits := range []int{16, 24, 32} {
		for _, channels := range []int{1, 2} {
			src, err := Open(bytes.NewReader(written(t, bits, channels, 999)))
			require.NoError(t, err)
			require.Equal(t, Format{Kind: "wav", Rate: 48000, Channels: channels, Bits: bits, Float: bits == 32, Frames: 999}, src.Format())
			dst := [][]float64{make([]float64, 2000), make([]float64, 2000)}
			n, err := src.Read(dst[:channels])
			require.NoError(t, err)
			require.Equal(t, 999, n)
			for i := range n {
				require.InDelta(t, math.Sin(float64(i)/7)/2, dst[0][i], 2.5/math.Exp2(float64(min(bits, 24)-1)))
			}
			_, err = src.Read(dst[:channels])
			require.ErrorIs(t, err, io.EOF)
		}
	}
}

func TestDamagedFilesAreRefusedInWordsAndLeaveNothing(t *testing.T) {
	good := written(t, 32, 2, 500)
	with := func(at int, v uint32) []byte {
		b := append([]byte(nil), good...)
		binary.LittleEndian.PutUint32(b[at:], v)
		return b
	}
	format := bytes.Index(good, []byte("fmt ")) + 8
	data := bytes.Index(good, []byte("data")) + 8
	dir := t.TempDir()
	folder, err := NewFolder(dir)
	require.NoError(t, err)
	for want, b := range map[string][]byte{
		"is empty":            {},
		"only 4 bytes":        []byte("RIFF"),
		"not a WAV, FLAC":     []byte("Dear harbour master"),
		"cut short":           good[:len(good)/2],
		"sample rate is 0":    with(format+4, 0),
		"no number":           with(data+40, 0x7fc00000),
		"3 channels":          with(format, 3|3<<16),
		"damaged at its head": []byte("fLaC, or so it says"),
	} {
		_, _, err := folder.Import(context.Background(), bytes.NewReader(b), 48000, nil)
		require.ErrorContains(t, err, want)
	}
	ctx, stop := context.WithCancel(context.Background())
	stop()
	_, _, err = folder.Import(ctx, bytes.NewReader(good), 44100, nil)
	require.True(t, errors.Is(err, context.Canceled))
	left, err := os.ReadDir(dir)
	require.NoError(t, err)
	require.Empty(t, left)
	e, _, err := folder.Import(context.Background(), bytes.NewReader(good), 44100, nil)
	require.NoError(t, err)
	require.EqualValues(t, 459, e.Frames)
}

func FuzzOpen(f *testing.F) {
	f.Add([]byte("RIFF\x00\x00\x00\x00WAVEfmt \x10\x00\x00\x00"))
	f.Add([]byte("fLaC\x00\x00\x00\x22"))
	f.Add([]byte("ID3\x03\x00\x00\x00\x00\x00\x00\xff\xfb\x90\x00"))
	f.Fuzz(func(t *testing.T, b []byte) {
		src, err := Open(bytes.NewReader(b))
		if err != nil {
			return
		}
		dst := [][]float64{make([]float64, 256), make([]float64, 256)}
		for range 64 {
			if _, err := src.Read(dst[:src.Format().Channels]); err != nil {
				return
			}
		}
	})
}

// What is nothing but silence stays silent; the sound behind it has the dither that it has anyway, of a step and no more.
func TestSilenceGetsNoDither(t *testing.T) {
	const quiet, loud = 3000, 40000
	x := make([]float64, quiet+loud)
	for i := quiet; i < len(x); i++ {
		x[i] = 0.25 * math.Sin(float64(i)*0.1)
	}
	for _, bits := range []int{16, 24} {
		name := filepath.Join(t.TempDir(), "x.wav")
		f, err := os.Create(name)
		require.NoError(t, err)
		w, err := NewWAV(f, 48000, 1, bits, nil, nil)
		require.NoError(t, err)
		require.NoError(t, w.Write([][]float64{x[:quiet]}))
		require.NoError(t, w.Write([][]float64{x[quiet:]}))
		require.NoError(t, w.Close())
		require.NoError(t, f.Close())
		f, err = os.Open(name)
		require.NoError(t, err)
		src, err := Open(f)
		require.NoError(t, err)
		got := [][]float64{make([]float64, len(x))}
		n, err := src.Read(got)
		require.NoError(t, err)
		require.Equal(t, len(x), n)
		require.NoError(t, f.Close())
		for _, v := range got[0][:quiet] {
			require.Zero(t, v)
		}
		step := math.Exp2(float64(1 - bits))
		sum, power, most := 0.0, 0.0, 0.0
		for i := quiet; i < len(x); i++ {
			e := (got[0][i] - x[i]) / step
			sum, power, most = sum+e, power+e*e, max(most, math.Abs(e))
		}
		require.InDelta(t, 0, sum/loud, 0.02)
		require.InDelta(t, 0.25, power/loud, 0.01, "triangular dither and rounding: 1/6 and 1/12 of a step squared")
		require.Less(t, most, 1.5)
	}
}
