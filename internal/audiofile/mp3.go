package audiofile

import (
	"encoding/binary"
	"errors"
	"fmt"
	"io"

	"github.com/hajimehoshi/go-mp3"
)

// mp3Reader reads MP3; the decoder always gives 16-bit stereo.
type mp3Reader struct {
	f      Format
	d      *mp3.Decoder
	buf    []byte
	frames int64
}

func openMP3(r io.ReadSeeker) (src *mp3Reader, err error) {
	defer func() {
		if p := recover(); p != nil {
			src, err = nil, fmt.Errorf("the MP3 file is damaged: %v", p)
		}
	}()
	says := promised(r)
	d, err := mp3.NewDecoder(r)
	if err != nil {
		return nil, fmt.Errorf("this looks like an MP3 file, but no sound frame can be read: %w", err)
	}
	x := &mp3Reader{d: d, f: Format{Kind: "mp3", Rate: d.SampleRate(), Channels: 2, Bits: 16, Promised: says}}
	if n := d.Length(); n > 0 {
		x.f.Frames = n / 4
	}
	return x, x.f.check()
}

func (x *mp3Reader) Format() Format { return x.f }

func (x *mp3Reader) Read(dst [][]float64) (n int, err error) {
	defer func() {
		if p := recover(); p != nil {
			n, err = 0, fmt.Errorf("the MP3 file is damaged at frame %d: %v", x.frames, p)
		}
	}()
	if need := 4 * len(dst[0]); len(x.buf) < need {
		x.buf = make([]byte, need)
	}
	got, err := io.ReadFull(x.d, x.buf[:4*len(dst[0])])
	if err != nil && !errors.Is(err, io.EOF) && !errors.Is(err, io.ErrUnexpectedEOF) {
		return 0, fmt.Errorf("the MP3 file is damaged at frame %d: %w", x.frames, err)
	}
	n = got / 4
	if n == 0 {
		if x.frames == 0 {
			return 0, fmt.Errorf("the MP3 file: %w", ErrEmpty)
		}
		return 0, io.EOF
	}
	for i := range n {
		dst[0][i] = float64(int16(binary.LittleEndian.Uint16(x.buf[4*i:]))) / 32768
		dst[1][i] = float64(int16(binary.LittleEndian.Uint16(x.buf[4*i+2:]))) / 32768
	}
	x.frames += int64(n)
	return n, nil
}
