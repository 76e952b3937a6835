package audiofile

import (
	"bytes"
	"os"
	"path/filepath"
	"testing"

	"github.com/mewkiz/flac"
	"github.com/mewkiz/flac/meta"
	"github.com/stretchr/testify/require"
)

var from = &Note{Description: "Horn", Date: "2026-11-28", Reference: 4800,
	History: "Horn: Gate > Reverb\r\n", JSON: []byte(`{"row":"Horn"}x`)}

var quiet = [][]float64{make([]float64, 5000)}

// A file that other programs read says where it comes from, and sounds as it did.
func TestAWAVFileCarriesWhereItComesFrom(t *testing.T) {
	f, err := os.Create(filepath.Join(t.TempDir(), "a.wav"))
	require.NoError(t, err)
	defer f.Close()
	w, err := NewWAV(f, 48000, 1, 24, from, nil)
	require.NoError(t, err)
	require.NoError(t, w.Write(quiet))
	require.NoError(t, w.Close())
	b, err := os.ReadFile(f.Name())
	require.NoError(t, err)
	require.Contains(t, string(b), "Horn: Gate > Reverb")
	require.Contains(t, string(b), "lnge\x0f\x00\x00\x00"+`{"row":"Horn"}x`+"\x00data", "an odd chunk is filled up")
	src, err := Open(bytes.NewReader(b))
	require.NoError(t, err)
	require.Equal(t, int64(5000), src.Format().Frames)
}

func TestAFLACFileCarriesWhereItComesFrom(t *testing.T) {
	var b bytes.Buffer
	w, err := NewFLAC(&b, 48000, 1, 16, 5000, from)
	require.NoError(t, err)
	require.NoError(t, w.Write(quiet))
	require.NoError(t, w.Close())
	s, err := flac.Parse(bytes.NewReader(b.Bytes()))
	require.NoError(t, err)
	require.Len(t, s.Blocks, 1)
	tags := s.Blocks[0].Body.(*meta.VorbisComment).Tags
	require.Contains(t, tags, [2]string{"LINEAGE", "Horn: Gate > Reverb"})
	require.Contains(t, tags, [2]string{"LINEAGE_JSON", `{"row":"Horn"}x`})
	require.Contains(t, tags, [2]string{"TIMEREFERENCE", "4800"})
	src, err := Open(bytes.NewReader(b.Bytes()))
	require.NoError(t, err)
	n, err := src.Read([][]float64{make([]float64, 8192)})
	require.NoError(t, err)
	require.Positive(t, n)
}

func TestWhereASoundComesFromLiesBesideIt(t *testing.T) {
	f, err := NewFolder(t.TempDir())
	require.NoError(t, err)
	_, known := f.Lineage("a")
	require.False(t, known)
	require.NoError(t, f.PutLineage("a", []byte("one")))
	require.NoError(t, f.PutLineage("a", []byte("two")))
	b, known := f.Lineage("a")
	require.True(t, known)
	require.Equal(t, "two", string(b))
	left, err := filepath.Glob(filepath.Join(filepath.Dir(f.Path("a")), "*.partial"))
	require.NoError(t, err)
	require.Empty(t, left)
}
