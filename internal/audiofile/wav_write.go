package audiofile

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"io"
	"math"
	"slices"
	"unicode/utf8"

	"shoal/internal/dsp"
)

// Cue marks a frame of a file with a name.
type Cue struct {
	Frame int64
	Name  string
}

// Note is the broadcast extension (EBU Tech 3285): where the sound came from.
type Note struct {
	Description string
	Originator  string
	Date        string // yyyy-mm-dd
	Time        string // hh:mm:ss
	Reference   int64  // frames since midnight, or since the song's begin
	History     string // the lineage in words
	JSON        []byte // the lineage for programs
	Belongs     string // a mark of where it belongs, of at most MarkLength letters: it stands as the originator's reference
}

// Loudness is what was measured of a whole sound (EBU Tech 3285, version 2): LUFS, LU and dBTP.
type Loudness struct{ Integrated, Range, TruePeak, Momentary, Short float64 }

// MarkLength is how many letters the originator's reference has (EBU Tech 3285).
const MarkLength = 32

// lineageChunk is the id of the chunk of a WAV file that holds, as JSON, where its sound comes from.
const lineageChunk = "lnge"

// Sink takes sound.
type Sink interface {
	Write(src [][]float64) error
	Close() error // writes what must be known at the end; does not close the file below
}

// WAVWriter writes WAV of 16, 24 bit or 32-bit float. Whole numbers get
// triangular dither. Files over 4 GiB become RF64 (EBU Tech 3306).
type WAVWriter struct {
	w      io.WriteSeeker
	f      Format
	frames int64
	dataAt int64
	factAt int64 // 0: none
	noteAt int64 // where the broadcast extension is; 0: there is none
	loud   *Loudness
	buf    []byte
	dither [2]dsp.Dither
	cues   []Cue
	exact  bool // no dither: what comes in fits already
}

// NewWAV begins a file. bits is 16 or 24, or 32 for float.
func NewWAV(w io.WriteSeeker, rate, channels, bits int, note *Note, cues []Cue) (*WAVWriter, error) {
	if bits != 16 && bits != 24 && bits != 32 {
		return nil, fmt.Errorf("write WAV: %d bits; 16, 24 and 32 (float) can be written", bits)
	}
	x := &WAVWriter{w: w, f: Format{Kind: "wav", Rate: rate, Channels: channels, Bits: bits, Float: bits == 32}, cues: cues}
	for i := range x.dither {
		x.dither[i] = dsp.NewDither(bits, i)
	}
	var h bytes.Buffer
	h.WriteString("RIFF\xff\xff\xff\xffWAVE")
	// room for ds64, so that a file can grow beyond 4 GiB
	h.WriteString("JUNK\x1c\x00\x00\x00")
	h.Write(make([]byte, 28))
	put := func(v ...any) {
		for _, x := range v {
			_ = binary.Write(&h, binary.LittleEndian, x)
		}
	}
	tag := uint16(formatPCM)
	if x.f.Float {
		tag = formatFloat
	}
	frame := channels * bits / 8
	if bits == 24 {
		mask := uint32(3)
		if channels == 1 {
			mask = 4
		}
		h.WriteString("fmt ")
		put(uint32(40), uint16(formatExtensible), uint16(channels), uint32(rate), uint32(rate*frame), uint16(frame), uint16(bits),
			uint16(22), uint16(bits), mask, tag)
		h.WriteString("\x00\x00\x00\x00\x10\x00\x80\x00\x00\xaa\x00\x38\x9b\x71")
	} else {
		h.WriteString("fmt ")
		put(uint32(18), tag, uint16(channels), uint32(rate), uint32(rate*frame), uint16(frame), uint16(bits), uint16(0))
	}
	if x.f.Float { // how many frames there are, which is no PCM's to say (RIFF, Microsoft and IBM 1991)
		h.WriteString("fact")
		put(uint32(4), uint32(0))
		x.factAt = int64(h.Len()) - 4
	}
	if note != nil {
		b := note.chunk()
		h.WriteString("bext")
		put(uint32(len(b)))
		x.noteAt = int64(h.Len())
		h.Write(b)
		if len(b)%2 == 1 {
			h.WriteByte(0)
		}
	}
	if note != nil && len(note.JSON) > 0 {
		h.WriteString(lineageChunk)
		put(uint32(len(note.JSON)))
		h.Write(note.JSON)
		if len(note.JSON)%2 == 1 {
			h.WriteByte(0)
		}
	}
	h.WriteString("data\xff\xff\xff\xff")
	x.dataAt = int64(h.Len())
	_, err := w.Write(h.Bytes())
	return x, err
}

func (n *Note) chunk() []byte {
	b := make([]byte, loudAt+loudBytes+180)
	copy(b[0:256], fit(n.Description, 256))
	copy(b[256:288], fit(n.Originator, 32))
	copy(b[288:320], n.Belongs)
	copy(b[320:330], n.Date)
	copy(b[330:338], n.Time)
	binary.LittleEndian.PutUint64(b[338:], uint64(n.Reference))
	b[346] = 2
	for i := range loudBytes / 2 { // what the standard has for "not measured"
		binary.LittleEndian.PutUint16(b[loudAt+2*i:], unmeasured)
	}
	return append(b, n.History...)
}

// Where the loudness stands in the broadcast extension, how long it is, and what says that there is none.
const (
	loudAt     = 412
	loudBytes  = 10
	unmeasured = 0x7fff
)

// fit cuts a text to so many bytes, between letters.
func fit(text string, most int) string {
	for len(text) > most {
		_, n := utf8.DecodeLastRuneInString(text)
		text = text[:len(text)-n]
	}
	return text
}

// SetLoudness lets the file say how loud it is, in its broadcast extension, if it has one.
func (x *WAVWriter) SetLoudness(l Loudness) { x.loud = &l }

// bytes are the hundredths that the standard wants; below -99.99 nothing was measured.
func (l *Loudness) bytes() []byte {
	var b []byte
	for _, v := range []float64{l.Integrated, l.Range, l.TruePeak, l.Momentary, l.Short} {
		word := uint16(unmeasured)
		if v > -100 && v < 100 {
			word = uint16(int16(math.Round(v * 100)))
		}
		b = binary.LittleEndian.AppendUint16(b, word)
	}
	return b
}

// Shape moves the noise of rounding to where it is heard least.
func (x *WAVWriter) Shape() { shape(&x.dither) }

func shape(d *[2]dsp.Dither) {
	for i := range d {
		d[i].Shape()
	}
}

func (x *WAVWriter) round(c int, v float64) int32 {
	if x.exact {
		s := x.dither[c].Scale
		return int32(math.Round(min(max(v*s, -s), s-1)))
	}
	return x.dither[c].Round(v)
}

// gathered is how many bytes are written at once at least.
const gathered = 1 << 16

// Write appends frames: one slice a channel. What is nothing but silence stays silent: it gets no dither.
func (x *WAVWriter) Write(src [][]float64) error {
	n := len(src[0])
	step := x.f.Channels * x.f.Bits / 8
	from := len(x.buf)
	x.buf = slices.Grow(x.buf, n*step)[:from+n*step]
	for c := range x.f.Channels {
		x.side(x.buf[from+c*x.f.Bits/8:], c, src[c], step)
	}
	x.frames += int64(n)
	if len(x.buf) < gathered {
		return nil
	}
	return x.flush()
}

// side writes one side of some frames, a step of bytes from each to the next.
func (x *WAVWriter) side(b []byte, c int, src []float64, step int) {
	switch {
	case x.f.Float:
		for i, v := range src {
			binary.LittleEndian.PutUint32(b[i*step:], math.Float32bits(float32(v)))
		}
	case dsp.Silent(src):
		x.dither[c].Skip(len(src))
		for i := range src {
			clear(b[i*step : i*step+x.f.Bits/8])
		}
	case x.f.Bits == 24:
		for i, v := range src {
			s := x.round(c, v)
			at := b[i*step : i*step+3]
			at[0], at[1], at[2] = byte(s), byte(s>>8), byte(s>>16)
		}
	default:
		for i, v := range src {
			binary.LittleEndian.PutUint16(b[i*step:], uint16(int16(x.round(c, v))))
		}
	}
}

// flush writes what has been gathered.
func (x *WAVWriter) flush() error {
	_, err := x.w.Write(x.buf)
	x.buf = x.buf[:0]
	return err
}

// Close writes cues and lengths.
func (x *WAVWriter) Close() error {
	if err := x.flush(); err != nil {
		return err
	}
	le := binary.LittleEndian
	data := x.frames * int64(x.f.Channels*x.f.Bits/8)
	var t bytes.Buffer
	if data%2 == 1 {
		t.WriteByte(0)
	}
	if len(x.cues) > 0 {
		t.WriteString("cue ")
		_ = binary.Write(&t, le, uint32(4+24*len(x.cues)))
		_ = binary.Write(&t, le, uint32(len(x.cues)))
		for i, c := range x.cues {
			_ = binary.Write(&t, le, []uint32{uint32(i + 1), uint32(c.Frame)})
			t.WriteString("data")
			_ = binary.Write(&t, le, []uint32{0, 0, uint32(c.Frame)})
		}
		var l bytes.Buffer
		l.WriteString("adtl")
		for i, c := range x.cues {
			name := append([]byte(c.Name), 0)
			l.WriteString("labl")
			_ = binary.Write(&l, le, []uint32{uint32(4 + len(name)), uint32(i + 1)})
			l.Write(name)
			if len(name)%2 == 1 {
				l.WriteByte(0)
			}
		}
		t.WriteString("LIST")
		_ = binary.Write(&t, le, uint32(l.Len()))
		t.Write(l.Bytes())
	}
	if _, err := x.w.Write(t.Bytes()); err != nil {
		return err
	}
	return x.patch(data, x.dataAt+data+int64(t.Len()))
}

// patch writes the lengths that are known only now, and leaves the file at its end.
func (x *WAVWriter) patch(data, total int64) error {
	le := binary.LittleEndian
	patch := func(at int64, b []byte) error {
		if _, err := x.w.Seek(at, io.SeekStart); err != nil {
			return err
		}
		_, err := x.w.Write(b)
		return err
	}
	if x.noteAt > 0 && x.loud != nil {
		if err := patch(x.noteAt+loudAt, x.loud.bytes()); err != nil {
			return err
		}
	}
	if x.factAt > 0 {
		if err := patch(x.factAt, le.AppendUint32(nil, uint32(min(x.frames, math.MaxUint32)))); err != nil {
			return err
		}
	}
	if total-8 > math.MaxUint32 {
		ds := make([]byte, 0, 36)
		ds = append(ds, "ds64"...)
		ds = le.AppendUint32(ds, 28)
		ds = le.AppendUint64(ds, uint64(total-8))
		ds = le.AppendUint64(ds, uint64(data))
		ds = le.AppendUint64(ds, uint64(x.frames))
		ds = le.AppendUint32(ds, 0)
		if err := patch(0, []byte("RF64\xff\xff\xff\xff")); err != nil {
			return err
		}
		if err := patch(12, ds); err != nil {
			return err
		}
	} else {
		if err := patch(4, le.AppendUint32(nil, uint32(total-8))); err != nil {
			return err
		}
		if err := patch(x.dataAt-4, le.AppendUint32(nil, uint32(data))); err != nil {
			return err
		}
	}
	_, err := x.w.Seek(0, io.SeekEnd)
	return err
}
