package audiofile

import (
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"math"
	"strings"
)

const (
	formatPCM        = 1
	formatFloat      = 3
	formatExtensible = 0xfffe
)

// wavReader reads WAV and RF64 (EBU Tech 3306).
type wavReader struct {
	f     Format
	r     io.ReadSeeker
	data  int64 // where the samples begin
	left  int64 // frames
	frame int   // bytes
	buf   []byte
	at    int64

	time    int64 // of the broadcast extension
	belongs string
}

func openWAV(r io.ReadSeeker) (*wavReader, error) {
	w := &wavReader{r: r}
	size, err := r.Seek(0, io.SeekEnd)
	if err != nil {
		return nil, err
	}
	pos := int64(12)
	var ds64 int64
	for {
		var head [8]byte
		if _, err := r.Seek(pos, io.SeekStart); err != nil {
			return nil, err
		}
		if _, err := io.ReadFull(r, head[:]); err != nil {
			if w.f.Rate == 0 {
				return nil, fmt.Errorf("the WAV file ends at byte %d before its fmt chunk", size)
			}
			return nil, fmt.Errorf("the WAV file ends at byte %d before its data chunk", size)
		}
		id, n := string(head[:4]), int64(binary.LittleEndian.Uint32(head[4:]))
		pos += 8
		switch id {
		case "ds64":
			var b [16]byte
			if _, err := io.ReadFull(r, b[:]); err != nil {
				return nil, fmt.Errorf("read ds64 chunk at byte %d: %w", pos, err)
			}
			ds64 = int64(binary.LittleEndian.Uint64(b[8:]))
		case "fmt ":
			if n < 16 || n > 1<<16 {
				return nil, fmt.Errorf("the fmt chunk at byte %d has %d bytes; it needs at least 16", pos, n)
			}
			b := make([]byte, n)
			if _, err := io.ReadFull(r, b); err != nil {
				return nil, fmt.Errorf("read fmt chunk at byte %d: %w", pos, err)
			}
			if err := w.format(b); err != nil {
				return nil, err
			}
		case "bext":
			var b [346]byte
			if _, err := io.ReadFull(r, b[:]); err == nil { // a short one says nothing
				w.time, w.belongs = int64(binary.LittleEndian.Uint64(b[338:])), strings.TrimRight(string(b[288:320]), "\x00 ")
			}
		case "data":
			if w.f.Rate == 0 {
				return nil, fmt.Errorf("the data chunk at byte %d comes before any fmt chunk", pos)
			}
			if n == 0xffffffff && ds64 > 0 {
				n = ds64
			}
			if n%int64(w.frame) != 0 {
				return nil, fmt.Errorf("the data chunk has %d bytes, which is no whole number of %d-byte frames", n, w.frame)
			}
			if n < 0 || pos+n > size {
				return nil, fmt.Errorf("the WAV file is cut short: its data chunk should have %d bytes and has %d", n, max(size-pos, 0))
			}
			w.data, w.left = pos, n/int64(w.frame)
			w.f.Frames, w.f.Belongs = w.left, w.belongs
			if w.time > 0 {
				w.f.Time = w.time
			}
			if w.left == 0 {
				return nil, fmt.Errorf("the WAV file: %w", ErrEmpty)
			}
			_, err := r.Seek(pos, io.SeekStart)
			return w, err
		}
		pos += n + n%2
	}
}

func (w *wavReader) format(b []byte) error {
	le := binary.LittleEndian
	tag := le.Uint16(b)
	w.f = Format{Kind: "wav", Channels: int(le.Uint16(b[2:])), Rate: int(le.Uint32(b[4:])), Bits: int(le.Uint16(b[14:]))}
	if tag == formatExtensible {
		if len(b) < 26 {
			return fmt.Errorf("the extensible fmt chunk is cut short (%d bytes)", len(b))
		}
		tag = le.Uint16(b[24:])
	}
	w.f.Float = tag == formatFloat
	if tag != formatPCM && tag != formatFloat {
		return fmt.Errorf("the WAV file holds encoding %d; Shoal reads whole-number and float PCM", tag)
	}
	if err := w.f.check(); err != nil {
		return fmt.Errorf("the WAV file: %w", err)
	}
	ok := w.f.Bits == 16 || w.f.Bits == 24 || w.f.Bits == 32 || (!w.f.Float && w.f.Bits == 8) || (w.f.Float && w.f.Bits == 64)
	if !ok || (w.f.Float && w.f.Bits < 32) {
		return fmt.Errorf("the WAV file has %d bits a sample, which Shoal does not read", w.f.Bits)
	}
	w.frame = w.f.Channels * w.f.Bits / 8
	if align := int(le.Uint16(b[12:])); align != w.frame {
		return fmt.Errorf("the WAV file says %d bytes a frame, but %d channels of %d bits need %d", align, w.f.Channels, w.f.Bits, w.frame)
	}
	return nil
}

func (w *wavReader) Format() Format { return w.f }

// skip goes to a frame.
func (w *wavReader) skip(frame int64) error {
	w.at, w.left = frame, w.f.Frames-frame
	_, err := w.r.Seek(w.data+frame*int64(w.frame), io.SeekStart)
	return err
}

func (w *wavReader) Read(dst [][]float64) (int, error) {
	n := int(min(int64(len(dst[0])), w.left))
	if n == 0 {
		return 0, io.EOF
	}
	if need := n * w.frame; len(w.buf) < need {
		w.buf = make([]byte, need)
	}
	b := w.buf[:n*w.frame]
	if _, err := io.ReadFull(w.r, b); err != nil {
		if errors.Is(err, io.ErrUnexpectedEOF) || errors.Is(err, io.EOF) {
			return 0, fmt.Errorf("the WAV file is cut short at frame %d", w.at)
		}
		return 0, fmt.Errorf("read samples at frame %d: %w", w.at, err)
	}
	for c := range min(w.f.Channels, len(dst)) {
		side := dst[c][:n]
		w.side(side, b[c*w.f.Bits/8:])
		if !w.f.Float {
			continue
		}
		for i, v := range side {
			if v-v != 0 {
				return 0, fmt.Errorf("frame %d holds something that is no number", w.at+int64(i))
			}
		}
	}
	w.at += int64(n)
	w.left -= int64(n)
	return n, nil
}

// side reads one side of some frames.
func (w *wavReader) side(dst []float64, b []byte) {
	if w.f.Bits == 24 {
		for i := range dst {
			at := b[i*w.frame : i*w.frame+3]
			dst[i] = float64(int32(uint32(at[0])<<8|uint32(at[1])<<16|uint32(at[2])<<24)>>8) / 8388608
		}
		return
	}
	for i := range dst {
		dst[i] = w.sample(b[i*w.frame:])
	}
}

func (w *wavReader) sample(b []byte) float64 {
	le := binary.LittleEndian
	switch {
	case w.f.Float && w.f.Bits == 32:
		return float64(math.Float32frombits(le.Uint32(b)))
	case w.f.Float:
		return math.Float64frombits(le.Uint64(b))
	case w.f.Bits == 8:
		return (float64(b[0]) - 128) / 128
	case w.f.Bits == 16:
		return float64(int16(le.Uint16(b))) / 32768
	default:
		return float64(int32(le.Uint32(b))) / 2147483648
	}
}
