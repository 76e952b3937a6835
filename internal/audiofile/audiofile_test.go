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
