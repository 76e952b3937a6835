package audiofile

import (
	"bytes"
	"encoding/binary"
	"testing"

	"github.com/stretchr/testify/require"
)

// quietMP3 is so many frames of nothing (MPEG 1, layer III, 128 kbit/s, 44.1 kHz, stereo), of which the first says that there are
// so many.
func quietMP3(frames, says int) []byte {
	var b []byte
	for i := range frames {
		f := make([]byte, 417)
		copy(f, []byte{0xff, 0xfb, 0x90, 0x00})
		if i == 0 && says > 0 {
			copy(f[36:], "Info\x00\x00\x00\x01")
			binary.BigEndian.PutUint32(f[44:], uint32(says))
		}
		b = append(b, f...)
	}
	return b
}

// An MP3 file that is cut short is taken in as far as it goes, and says how much it should have had.
func TestACutMP3SaysWhatIsMissing(t *testing.T) {
	folder, err := NewFolder(t.TempDir())
	require.NoError(t, err)
	tagged := append([]byte("ID3\x03\x00\x00\x00\x00\x01\x00"), make([]byte, 128)...)
	for name, c := range map[string]struct {
		file     []byte
		promised int64
	}{
		"whole":        {quietMP3(100, 100), 115200},
		"cut":          {quietMP3(100, 100)[:417*60], 115200},
		"tagged":       {append(tagged, quietMP3(100, 100)[:417*60]...), 115200},
		"says nothing": {quietMP3(100, 0), 0},
	} {
		e, form, err := folder.Import(t.Context(), bytes.NewReader(c.file), 44100, nil)
		require.NoError(t, err, name)
		require.Equal(t, c.promised, form.Promised, name)
		require.Equal(t, e.Frames, form.Frames, name)
		if name == "cut" || name == "tagged" {
			require.InDelta(t, 60*1152, form.Frames, 1152, name)
		} else {
			require.InDelta(t, 100*1152, form.Frames, 1152, name)
		}
	}
}
