package printing

import (
	"fmt"
	"io"
	"slices"
	"strings"

	"shoal/internal/audiofile"
	"shoal/internal/measure"
)

type format struct {
	extension string
	bits      int
	shaped    bool
}

var formats = map[string]format{
	"flac": {"flac", 24, false}, "flac24": {"flac", 24, false}, "flac16": {"flac", 16, false}, "flac16shaped": {"flac", 16, true},
	"wav16": {"wav", 16, false}, "wav16shaped": {"wav", 16, true}, "wav24": {"wav", 24, false}, "wav32f": {"wav", 32, false},
}

// FormatNames are the names of the formats that can be written.
func FormatNames() string {
	var names []string
	for name := range formats {
		if name != "flac" { // short for flac24
			names = append(names, name)
		}
	}
	slices.Sort(names)
	return strings.Join(names, ", ")
}

func unknownFormat(name string) error {
	return fmt.Errorf("unknown format %q: it must be one of %s", name, FormatNames())
}

// Extension returns the file name extension of a format, and whether it is known.
func Extension(name string) (string, bool) {
	f, ok := formats[name]
	return f.extension, ok
}

// File takes sound in for a file, and measures it.
type File struct {
	sink  audiofile.Sink
	meter *measure.Meter
}

// NewFile begins a file of a format, of two channels.
func NewFile(w io.WriteSeeker, name string, rate int, note *audiofile.Note, cues []audiofile.Cue) (*File, error) {
	f, ok := formats[name]
	if !ok {
		return nil, unknownFormat(name)
	}
	sink, err := f.begin(w, rate, note, cues)
	if err != nil {
		return nil, err
	}
	if s, ok := sink.(interface{ Shape() }); ok && f.shaped {
		s.Shape()
	}
	return &File{sink, measure.NewMeter(rate, 2)}, nil
}

func (f format) begin(w io.WriteSeeker, rate int, note *audiofile.Note, cues []audiofile.Cue) (audiofile.Sink, error) {
	if f.extension == "flac" {
		return audiofile.NewFLAC(w, rate, 2, f.bits, 0, note)
	}
	return audiofile.NewWAV(w, rate, 2, f.bits, note, cues)
}

// Write appends frames: one slice a side.
func (f *File) Write(src [][]float64) error {
	if err := f.meter.Write(src); err != nil {
		return err
	}
	return f.sink.Write(src)
}

// Report is what was measured of it.
func (f *File) Report() measure.Report { return f.meter.Report() }

// Close writes what must be known at the end, how loud it is among it; the file below stays open.
func (f *File) Close() error {
	if s, ok := f.sink.(interface{ SetLoudness(audiofile.Loudness) }); ok {
		r := f.Report()
		s.SetLoudness(audiofile.Loudness{
			Integrated: r.Integrated, Range: r.Range, TruePeak: r.TruePeak, Momentary: r.Momentary, Short: r.Short,
		})
	}
	return f.sink.Close()
}
