package audiofile

import (
	"errors"
	"fmt"
	"io"
	"strings"

	"github.com/mewkiz/flac"
	"github.com/mewkiz/flac/frame"
	"github.com/mewkiz/flac/meta"

	"math"

	"shoal/internal/dsp"
)

// flacReader reads FLAC (RFC 9639).
type flacReader struct {
	f      Format
	s      *flac.Stream
	fr     *frame.Frame
	at     int
	frames int64
}

func openFLAC(r io.ReadSeeker) (src *flacReader, err error) {
	defer func() { // the library may panic on broken input
		if p := recover(); p != nil {
			src, err = nil, fmt.Errorf("the FLAC file is damaged: %v", p)
		}
	}()
	s, err := flac.New(r)
	if err != nil {
		return nil, fmt.Errorf("the FLAC file is damaged at its head: %w", err)
	}
	i := s.Info
	x := &flacReader{
		s: s,
		f: Format{Kind: "flac", Rate: int(i.SampleRate), Channels: int(i.NChannels), Bits: int(i.BitsPerSample), Frames: int64(i.NSamples)},
	}
	if err := x.f.check(); err != nil {
		return nil, fmt.Errorf("the FLAC file: %w", err)
	}
	if x.f.Bits < 4 || x.f.Bits > 32 {
		return nil, fmt.Errorf("the FLAC file has %d bits a sample", x.f.Bits)
	}
	return x, nil
}

func (x *flacReader) Format() Format { return x.f }

func (x *flacReader) Read(dst [][]float64) (n int, err error) {
	defer func() {
		if p := recover(); p != nil {
			n, err = 0, fmt.Errorf("the FLAC file is damaged at frame %d: %v", x.frames, p)
		}
	}()
	if x.fr == nil || x.at >= len(x.fr.Subframes[0].Samples) {
		x.fr, err = x.s.ParseNext()
		x.at = 0
		switch {
		case errors.Is(err, io.EOF) && x.f.Frames > 0 && x.frames < x.f.Frames:
			return 0, fmt.Errorf("the FLAC file is cut short: %d of %d frames", x.frames, x.f.Frames)
		case errors.Is(err, io.EOF) && x.frames == 0:
			return 0, fmt.Errorf("the FLAC file: %w", ErrEmpty)
		case errors.Is(err, io.EOF):
			return 0, io.EOF
		case err != nil:
			return 0, fmt.Errorf("the FLAC file is damaged at frame %d: %w", x.frames, err)
		}
		if len(x.fr.Subframes) != x.f.Channels {
			return 0, fmt.Errorf("the FLAC file changes its channels at frame %d", x.frames)
		}
	}
	scale := 1 / math.Exp2(float64(x.f.Bits-1))
	n = min(len(dst[0]), len(x.fr.Subframes[0].Samples)-x.at)
	for c := range x.fr.Subframes {
		src := x.fr.Subframes[c].Samples[x.at : x.at+n]
		for i, v := range src {
			dst[c][i] = float64(v) * scale
		}
	}
	x.at += n
	x.frames += int64(n)
	return n, nil
}

// FLACWriter writes FLAC of 16 or 24 bits, with triangular dither.
type FLACWriter struct {
	e      *flac.Encoder
	f      Format
	dither [2]dsp.Dither
	buf    [2][]int32
	number uint64
}

const flacBlock = 4096

// mostInBlock is how many bytes a block before the sound holds at most (RFC 9639, section 8.1), with room for the rest.
const mostInBlock = 1<<24 - 4096

// tags are where the sound comes from as comments of a FLAC file (RFC 9639, section 8.6).
func (n *Note) tags() *meta.Block {
	tags := [][2]string{{"DESCRIPTION", n.Description}, {"DATE", n.Date}, {"TIMEREFERENCE", fmt.Sprint(n.Reference)},
		{"LINEAGE", strings.TrimSpace(n.History)}}
	if len(n.JSON) > 0 && len(n.JSON) < mostInBlock {
		tags = append(tags, [2]string{"LINEAGE_JSON", string(n.JSON)})
	}
	// the encoder works the length out, but takes a block of none for empty
	return &meta.Block{Header: meta.Header{Type: meta.TypeVorbisComment, Length: 1}, Body: &meta.VorbisComment{Vendor: "Shoal", Tags: tags}}
}

// NewFLAC begins a file of so many frames; note, if there is one, stands in it as comments.
func NewFLAC(w io.Writer, rate, channels, bits int, frames int64, note *Note) (*FLACWriter, error) {
	info := &meta.StreamInfo{
		BlockSizeMin:  flacBlock,
		BlockSizeMax:  flacBlock,
		SampleRate:    uint32(rate),
		NChannels:     uint8(channels),
		BitsPerSample: uint8(bits),
		NSamples:      uint64(frames),
	}
	var blocks []*meta.Block
	if note != nil {
		blocks = append(blocks, note.tags())
	}
	e, err := flac.NewEncoder(unclosed(w), info, blocks...)
	if err != nil {
		return nil, fmt.Errorf("begin FLAC: %w", err)
	}
	x := &FLACWriter{e: e, f: Format{Kind: "flac", Rate: rate, Channels: channels, Bits: bits}}
	for i := range x.dither {
		x.dither[i] = dsp.NewDither(bits, i)
	}
	return x, nil
}

// Shape moves the noise of rounding to where it is heard least.
func (x *FLACWriter) Shape() { shape(&x.dither) }

// unclosed hides that what is written to could be closed: the encoder would do it.
func unclosed(w io.Writer) io.Writer {
	if s, ok := w.(io.WriteSeeker); ok {
		return struct{ io.WriteSeeker }{s}
	}
	return struct{ io.Writer }{w}
}

// Write appends frames.
func (x *FLACWriter) Write(src [][]float64) error {
	for c := range x.f.Channels {
		if dsp.Silent(src[c]) { // it stays silent, as in WAV files
			x.dither[c].Skip(len(src[c]))
			x.buf[c] = append(x.buf[c], make([]int32, len(src[c]))...)
			continue
		}
		for _, v := range src[c] {
			x.buf[c] = append(x.buf[c], x.dither[c].Round(v))
		}
	}
	for len(x.buf[0]) >= flacBlock {
		if err := x.put(flacBlock); err != nil {
			return err
		}
	}
	return nil
}

func (x *FLACWriter) put(n int) error {
	f := &frame.Frame{
		Header: frame.Header{
			HasFixedBlockSize: true,
			BlockSize:         uint16(n),
			SampleRate:        uint32(x.f.Rate),
			BitsPerSample:     uint8(x.f.Bits),
			Num:               x.number,
		},
	}
	x.number++
	if x.f.Channels == 2 {
		f.Channels, f.Subframes = subframes(x.buf[0][:n:n], x.buf[1][:n:n], x.f.Bits)
	} else {
		f.Channels, f.Subframes = frame.ChannelsMono, []*frame.Subframe{predicted(x.buf[0][:n:n], x.f.Bits)}
	}
	if err := x.e.WriteFrame(f); err != nil {
		return fmt.Errorf("write FLAC frame %d: %w", x.number, err)
	}
	for c := range x.f.Channels {
		x.buf[c] = append([]int32(nil), x.buf[c][n:]...)
	}
	return nil
}

// Close writes what is left.
func (x *FLACWriter) Close() error {
	if n := len(x.buf[0]); n > 0 {
		if err := x.put(n); err != nil {
			return err
		}
	}
	return x.e.Close()
}
