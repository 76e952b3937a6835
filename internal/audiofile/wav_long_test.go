package audiofile

import (
	"encoding/binary"
	"io"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// holes is a file that leaves a hole where nothing but zeros would stand, so that very much silence needs no disk.
type holes struct{ *os.File }

func (h holes) Write(b []byte) (int, error) {
	for _, x := range b {
		if x != 0 {
			return h.File.Write(b)
		}
	}
	_, err := h.Seek(int64(len(b)), io.SeekCurrent)
	return len(b), err
}

// What is longer than a WAV file can say becomes RF64 (EBU Tech 3306), and is read to its end.
func TestAFileOver4GiBIsWrittenAndRead(t *testing.T) {
	f, err := os.Create(filepath.Join(t.TempDir(), "long.wav"))
	require.NoError(t, err)
	defer f.Close()
	w, err := NewWAV(holes{f}, 48000, 2, 24, &Note{Description: "Weir, all night"}, nil)
	require.NoError(t, err)
	w.exact = true
	silent := [][]float64{make([]float64, 1<<20), make([]float64, 1<<20)}
	const blocks = 690 // 4.04 GiB
	for range blocks {
		require.NoError(t, w.Write(silent))
	}
	last := [][]float64{{0.5, -0.25, 0.125}, {-0.5, 0.25, -0.125}}
	require.NoError(t, w.Write(last))
	require.NoError(t, w.Close())
	at, err := f.Seek(0, io.SeekCurrent)
	require.NoError(t, err)
	size, err := f.Seek(0, io.SeekEnd)
	require.NoError(t, err)
	assert.Equal(t, size, at, "the file is left at its end")
	require.Greater(t, size, int64(1)<<32)

	frames := int64(blocks)<<20 + 3
	head := make([]byte, 48)
	_, err = f.ReadAt(head, 0)
	require.NoError(t, err)
	le := binary.LittleEndian
	assert.Equal(t, "RF64\xff\xff\xff\xffWAVEds64", string(head[:16]))
	assert.EqualValues(t, size-8, le.Uint64(head[20:]))
	assert.EqualValues(t, frames*6, le.Uint64(head[28:]))
	assert.EqualValues(t, frames, le.Uint64(head[36:]))

	r, err := openWAV(f)
	require.NoError(t, err)
	assert.Equal(t, frames, r.Format().Frames)
	require.NoError(t, r.skip(frames-4))
	got := [][]float64{make([]float64, 8), make([]float64, 8)}
	n, err := r.Read(got)
	require.NoError(t, err)
	require.Equal(t, 4, n)
	assert.Equal(t, []float64{0, 0.5, -0.25, 0.125}, got[0][:4])
	assert.Equal(t, []float64{0, -0.5, 0.25, -0.125}, got[1][:4])
	_, err = r.Read(got)
	assert.ErrorIs(t, err, io.EOF)
}
