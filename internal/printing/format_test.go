package printing

import (
	"bytes"
	"encoding/binary"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
)

// loudTone writes a second of 997 Hz at -20 dBFS on both sides into a file of a format, and gives its bytes.
func loudTone(t *testing.T, format string, note *audiofile.Note) []byte {
	t.Helper()
	name := filepath.Join(t.TempDir(), "x")
	w, err := os.Create(name)
	require.NoError(t, err)
	f, err := NewFile(w, format, 48000, note, nil)
	require.NoError(t, err)
	x := make([]float64, 48000)
	for i := range x {
		x[i] = 0.1 * math.Sin(2*math.Pi*997*float64(i)/48000)
	}
	require.NoError(t, f.Write([][]float64{x, x}))
	require.NoError(t, f.Close())
	require.NoError(t, w.Close())
	b, err := os.ReadFile(name)
	require.NoError(t, err)
	return b
}

// A broadcast WAV says how loud it is (EBU Tech 3285, version 2): 997 Hz at -20 dBFS on both sides are -20 LUFS (BS.1770-5).
func TestAWAVFileSaysHowLoudItIs(t *testing.T) {
	note := &audiofile.Note{Description: strings.Repeat("ü", 200), Originator: "Shoal", Date: "2031-05-06", History: "made up"}
	for _, format := range []string{"wav16", "wav16shaped", "wav24", "wav32f"} {
		b := loudTone(t, format, note)
		at := bytes.Index(b, []byte("bext"))
		require.Positive(t, at, format)
		ext := b[at+8:]
		require.Equal(t, strings.Repeat("ü", 128), strings.TrimRight(string(ext[:256]), "\x00"))
		require.Equal(t, "2031-05-06", string(ext[320:330]))
		require.EqualValues(t, 2, binary.LittleEndian.Uint16(ext[346:]))
		word := func(i int) float64 { return float64(int16(binary.LittleEndian.Uint16(ext[412+2*i:]))) / 100 }
		require.InDelta(t, -20, word(0), 0.1, "integrated")
		require.InDelta(t, 0, word(1), 0.1, "range")
		require.InDelta(t, -20, word(2), 0.1, "true peak")
		require.InDelta(t, -20, word(3), 0.1, "the loudest 400 ms")
		require.Equal(t, "made up", string(ext[602:609]))
	}
}

func TestEveryFormatCanBeWrittenAndIsNamedWhereOneIsNot(t *testing.T) {
	for _, name := range strings.Split(FormatNames(), ", ") {
		src, err := audiofile.Open(bytes.NewReader(loudTone(t, name, nil)))
		require.NoError(t, err, name)
		require.Equal(t, 48000, src.Format().Rate)
	}
	_, err := NewFile(nil, "reel", 48000, nil, nil)
	require.ErrorContains(t, err, `"reel"`)
	require.ErrorContains(t, err, "wav16shaped")
}
