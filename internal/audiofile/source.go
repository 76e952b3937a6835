package audiofile

import (
	"bytes"
	"errors"
	"fmt"
	"io"
)

// Format says what a file holds.
type Format struct {
	Kind     string `json:"kind"` // wav, flac, mp3
	Rate     int    `json:"rate"`
	Channels int    `json:"channels"`
	Bits     int    `json:"bits"`
	Float    bool   `json:"float"`
	Frames   int64  `json:"frames"` // 0 when it is not known before the end
	// Promised is how many frames it says that it holds, where it may hold fewer; 0: it says nothing.
	Promised int64 `json:"promised,omitempty"`
	// Time is the frame of a song, or since midnight, at which it begins, where its broadcast extension says one: above 0.
	Time int64 `json:"time,omitempty"`
	// Belongs is the mark of where it belongs (see Note).
	Belongs string `json:"belongs,omitempty"`
}

// Source is an open file. Read fills equally long slices, one a channel, and
// returns how many frames it gave; io.EOF comes with 0 frames.
type Source interface {
	Format() Format
	Read(dst [][]float64) (int, error)
}

// ErrEmpty is wrapped by the error for a file without a single frame.
var ErrEmpty = errors.New("there is no sound in it")

// Open finds out what a file is by its first bytes, not by its name, and opens it.
func Open(r io.ReadSeeker) (Source, error) {
	var head [12]byte
	n, err := io.ReadFull(r, head[:])
	if n == 0 {
		return nil, fmt.Errorf("the file is empty")
	}
	if err != nil && !errors.Is(err, io.ErrUnexpectedEOF) {
		return nil, fmt.Errorf("read the first bytes: %w", err)
	}
	if _, err := r.Seek(0, io.SeekStart); err != nil {
		return nil, err
	}
	switch {
	case n < len(head):
		return nil, fmt.Errorf("the file has only %d bytes; it is no sound file", n)
	case (bytes.Equal(head[:4], []byte("RIFF")) || bytes.Equal(head[:4], []byte("RF64"))) && bytes.Equal(head[8:], []byte("WAVE")):
		return openWAV(r)
	case bytes.Equal(head[:4], []byte("fLaC")):
		return openFLAC(r)
	case bytes.Equal(head[:3], []byte("ID3")) || (head[0] == 0xff && head[1]&0xe0 == 0xe0):
		return openMP3(r)
	}
	return nil, fmt.Errorf("this is not a WAV, FLAC or MP3 file (it begins with %q)", head[:4])
}

// check refuses what no project can hold.
func (f Format) check() error {
	switch {
	case f.Rate == 0:
		return fmt.Errorf("its sample rate is 0")
	case f.Rate < 4000 || f.Rate > 768000:
		return fmt.Errorf("its sample rate of %d Hz is outside 4000 to 768000", f.Rate)
	case f.Channels < 1:
		return fmt.Errorf("it has no channels")
	case f.Channels > 2:
		return fmt.Errorf("it has %d channels; Shoal takes mono and stereo", f.Channels)
	}
	return nil
}
