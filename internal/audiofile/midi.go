package audiofile

import (
	"bytes"
	"cmp"
	"encoding/binary"
	"fmt"
	"math"
	"math/bits"
	"slices"
)

// MIDIResolution is the ticks of a quarter note that times are given in.
const MIDIResolution = 960

// MIDITime is what a standard MIDI file says of a song's time: tempo, meter and markers. Notes
// and all else are left out.
type MIDITime struct {
	Tempos  []MIDITempo
	Meters  []MIDIMeter
	Markers []MIDIMarker
}

// MIDITempo holds from a tick on, in quarter notes a minute.
type MIDITempo struct {
	Tick int64
	BPM  float64
}

// MIDIMeter holds from a tick on.
type MIDIMeter struct {
	Tick        int64
	Beats, Unit int
}

// MIDIMarker is a name at a tick.
type MIDIMarker struct {
	Tick int64
	Name string
}

// Kinds of meta events (Standard MIDI Files 1.0, 1988).
const (
	metaMarker = 0x06
	metaCue    = 0x07
	metaEnd    = 0x2f
	metaTempo  = 0x51
	metaMeter  = 0x58
)

// WriteMIDI makes a standard MIDI file of format 0. Tempos are kept to a microsecond a quarter note.
func WriteMIDI(t MIDITime) []byte {
	type event struct {
		tick int64
		data []byte
	}
	var events []event
	meta := func(tick int64, kind byte, data ...byte) {
		events = append(events, event{tick, slices.Concat([]byte{0xff, kind}, variable(uint32(len(data))), data)})
	}
	for _, m := range t.Meters {
		meta(m.Tick, metaMeter, byte(m.Beats), byte(bits.Len(uint(m.Unit))-1), 24, 8)
	}
	for _, x := range t.Tempos {
		us := uint32(math.Round(60e6 / x.BPM))
		meta(x.Tick, metaTempo, byte(us>>16), byte(us>>8), byte(us))
	}
	for _, m := range t.Markers {
		meta(m.Tick, metaMarker, []byte(m.Name)...)
	}
	slices.SortStableFunc(events, func(a, b event) int { return cmp.Compare(a.tick, b.tick) })
	var track bytes.Buffer
	last := int64(0)
	for _, e := range events {
		track.Write(variable(uint32(e.tick - last)))
		track.Write(e.data)
		last = e.tick
	}
	track.Write([]byte{0, 0xff, metaEnd, 0})
	out := []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01")
	out = binary.BigEndian.AppendUint16(out, MIDIResolution)
	out = append(out, "MTrk"...)
	out = binary.BigEndian.AppendUint32(out, uint32(track.Len()))
	return append(out, track.Bytes()...)
}

// variable is a number in groups of seven bits, the highest first.
func variable(v uint32) []byte {
	out := []byte{byte(v & 0x7f)}
	for v >>= 7; v > 0; v >>= 7 {
		out = append([]byte{byte(v&0x7f) | 0x80}, out...)
	}
	return out
}

// ReadMIDI reads the time of a standard MIDI file of any format, from all of its tracks.
func ReadMIDI(b []byte) (MIDITime, error) {
	var t MIDITime
	if len(b) < 14 || string(b[:4]) != "MThd" {
		return t, fmt.Errorf("this is no standard MIDI file: it does not begin with MThd")
	}
	division := binary.BigEndian.Uint16(b[12:])
	if division == 0 || division&0x8000 != 0 {
		return t, fmt.Errorf("this MIDI file counts in frames of film, not in parts of a quarter note: it has no bars")
	}
	at := 8 + int(binary.BigEndian.Uint32(b[4:]))
	for number := 1; at < len(b); number++ {
		if at < 0 || at+8 > len(b) {
			return t, fmt.Errorf("track %d at byte %d is cut off", number, at)
		}
		kind, size := string(b[at:at+4]), int64(binary.BigEndian.Uint32(b[at+4:]))
		if size > int64(len(b)-at-8) {
			return t, fmt.Errorf("track %d at byte %d is cut off: %d bytes of %d are there", number, at, len(b)-at-8, size)
		}
		if kind == "MTrk" {
			r := midiTrack{b[at+8 : at+8+int(size)], 0, int64(division)}
			if err := r.read(&t); err != nil {
				return t, fmt.Errorf("track %d, byte %d: %w", number, at+8+r.at, err)
			}
		}
		at += 8 + int(size)
	}
	slices.SortStableFunc(t.Tempos, func(a, b MIDITempo) int { return cmp.Compare(a.Tick, b.Tick) })
	slices.SortStableFunc(t.Meters, func(a, b MIDIMeter) int { return cmp.Compare(a.Tick, b.Tick) })
	slices.SortStableFunc(t.Markers, func(a, b MIDIMarker) int { return cmp.Compare(a.Tick, b.Tick) })
	return t, nil
}

type midiTrack struct {
	b        []byte
	at       int
	division int64
}

func (r *midiTrack) take(n int) ([]byte, error) {
	if n < 0 || n > len(r.b)-r.at {
		return nil, fmt.Errorf("an event is cut off")
	}
	r.at += n
	return r.b[r.at-n : r.at], nil
}

func (r *midiTrack) variable() (int64, error) {
	v := int64(0)
	for range 4 {
		b, err := r.take(1)
		if err != nil {
			return 0, err
		}
		v = v<<7 | int64(b[0]&0x7f)
		if b[0] < 0x80 {
			return v, nil
		}
	}
	return 0, fmt.Errorf("a number is longer than four bytes")
}

func (r *midiTrack) read(t *MIDITime) error {
	tick, status := int64(0), byte(0)
	for r.at < len(r.b) {
		delta, err := r.variable()
		if err != nil {
			return err
		}
		tick += delta
		if b := r.b[r.at:]; len(b) > 0 && b[0] >= 0x80 {
			status = b[0]
			r.at++
		}
		when := int64(math.Round(float64(tick) * MIDIResolution / float64(r.division)))
		switch {
		case status == 0xff:
			kind, err := r.take(1)
			if err != nil {
				return err
			}
			data, err := r.data()
			if err != nil {
				return err
			}
			t.meta(when, kind[0], data)
			if kind[0] == metaEnd {
				return nil
			}
		case status == 0xf0 || status == 0xf7:
			if _, err := r.data(); err != nil {
				return err
			}
		case status < 0x80:
			return fmt.Errorf("an event has no status")
		default:
			n := 2
			if status&0xe0 == 0xc0 { // programs and pressures have one byte
				n = 1
			}
			if _, err := r.take(n); err != nil {
				return err
			}
		}
	}
	return nil
}

func (r *midiTrack) data() ([]byte, error) {
	n, err := r.variable()
	if err != nil {
		return nil, err
	}
	return r.take(int(n))
}

func (t *MIDITime) meta(tick int64, kind byte, data []byte) {
	switch {
	case kind == metaTempo && len(data) == 3:
		if us := int(data[0])<<16 | int(data[1])<<8 | int(data[2]); us > 0 {
			t.Tempos = append(t.Tempos, MIDITempo{tick, math.Round(60e6/float64(us)*10000) / 10000})
		}
	case kind == metaMeter && len(data) >= 2 && data[1] < 6:
		t.Meters = append(t.Meters, MIDIMeter{tick, int(data[0]), 1 << data[1]})
	case (kind == metaMarker || kind == metaCue) && len(data) > 0:
		t.Markers = append(t.Markers, MIDIMarker{tick, string(bytes.ToValidUTF8(data, []byte("?")))})
	}
}
