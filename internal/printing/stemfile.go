package printing

import (
	"errors"
	"fmt"
	"io"
	"math"
	"os"

	"shoal/internal/audiofile"
	"shoal/internal/dsp"
	"shoal/internal/gentle"
	"shoal/internal/measure"
)

// stemChunk is how many frames are handed on at once.
const stemChunk = 1 << 13

// firstSound is the level from which on a file that is cut at its first sound begins: -100 dBFS.
const firstSound = 1e-5

// stemFile takes a stem in and writes it to a file, beside the render: what is dithered, packed and measured does not hold
// that up.
type stemFile struct {
	path, format string
	rate         int
	record       Record
	note         audiofile.Note
	cues         []audiofile.Cue
	trim         bool
	level        *MixLevel // it is kept in 32 bits first, and brought to this at the end

	chunk   [2][]float64
	turn    *gentle.Turn
	spare   chan [2][]float64 // chunks that can be filled again
	err     error
	skipped int64 // frames before its first sound
	frames  int64
	over    int64 // samples beyond full scale
	gain    float64
	report  measure.Report
	file    *os.File
	sink    *File
}

// stemsAhead is how many chunks of a stem may wait to be written.
const stemsAhead = 2

// start begins to take in.
func (s *stemFile) start(hands *gentle.Hands) {
	s.report = measure.NewMeter(s.rate, 2).Report() // of nothing, as long as nothing comes
	s.turn = hands.NewTurn(stemsAhead)
	s.spare = make(chan [2][]float64, stemsAhead+2)
}

// add takes frames in.
func (s *stemFile) add(l, r []float64) {
	s.chunk[0], s.chunk[1] = append(s.chunk[0], l...), append(s.chunk[1], r...)
	if len(s.chunk[0]) >= stemChunk {
		s.hand()
	}
}

func (s *stemFile) hand() {
	if len(s.chunk[0]) > 0 {
		c := s.chunk
		s.turn.Put(func() {
			if s.err == nil { // what comes after a mistake is only taken out of the way
				s.err = s.take(c[:])
			}
			select {
			case s.spare <- [2][]float64{c[0][:0], c[1][:0]}:
			default:
			}
		})
		select {
		case s.chunk = <-s.spare:
		default:
			s.chunk = [2][]float64{make([]float64, 0, stemChunk+512), make([]float64, 0, stemChunk+512)}
		}
	}
}

// end finishes the file, once all that was taken in is written.
func (s *stemFile) end() error {
	if err := errors.Join(s.err, s.close()); err != nil {
		return err
	}
	if s.level != nil && s.frames > 0 {
		return s.bring()
	}
	return nil
}

func (s *stemFile) take(src [][]float64) error {
	if s.trim && s.frames == 0 {
		k := 0
		for k < len(src[0]) && math.Abs(src[0][k]) <= firstSound && math.Abs(src[1][k]) <= firstSound {
			k++
		}
		s.skipped += int64(k)
		if src = [][]float64{src[0][k:], src[1][k:]}; len(src[0]) == 0 {
			return nil
		}
	}
	if s.sink == nil {
		if err := s.begin(); err != nil {
			return err
		}
	}
	s.frames += int64(len(src[0]))
	for c := range src {
		if dsp.Highest(src[c]) <= 1 {
			continue
		}
		for _, v := range src[c] {
			if v > 1 || v < -1 {
				s.over++
			}
		}
	}
	return s.sink.Write(src)
}

// raw is where a file that is brought to a level is kept meanwhile.
func (s *stemFile) raw() string { return s.path + ".raw" }

func (s *stemFile) begin() (err error) {
	path, format := s.path, s.format
	if s.level != nil {
		path, format = s.raw(), "wav32f"
	}
	if s.file, err = os.Create(path); err != nil {
		return fmt.Errorf("begin a file: %w", err)
	}
	note, cues := s.note, []audiofile.Cue{}
	note.Reference += s.skipped
	for _, c := range s.cues {
		if c.Frame >= s.skipped {
			cues = append(cues, audiofile.Cue{Frame: c.Frame - s.skipped, Name: c.Name})
		}
	}
	s.sink, err = NewFile(s.file, format, s.rate, &note, cues)
	return err
}

func (s *stemFile) close() (err error) {
	if s.sink != nil {
		s.report, err = s.sink.Report(), s.sink.Close()
	}
	if s.file != nil {
		err = errors.Join(err, s.file.Close())
	}
	s.sink, s.file = nil, nil
	return err
}

// bring writes the file at its level: by one gain, no more of it than the ceiling lets.
func (s *stemFile) bring() error {
	s.gain = min(s.level.LUFS-s.report.Integrated, s.level.Ceiling-s.report.TruePeak)
	if s.report.Integrated < gateLevel {
		s.gain = 0 // there is nothing to bring to a loudness
	}
	in, err := os.Open(s.raw())
	if err != nil {
		return fmt.Errorf("read what was rendered: %w", err)
	}
	defer os.Remove(s.raw())
	defer in.Close()
	src, err := audiofile.Open(in)
	if err != nil {
		return fmt.Errorf("read what was rendered: %w", err)
	}
	s.level, s.over = nil, 0
	if err := s.begin(); err != nil {
		return err
	}
	block, part := [][]float64{make([]float64, stemChunk), make([]float64, stemChunk)}, make([][]float64, 2)
	by := math.Pow(10, s.gain/20)
	for {
		n, err := src.Read(block)
		if errors.Is(err, io.EOF) {
			return s.close()
		}
		if err != nil {
			return errors.Join(err, s.close())
		}
		for c := range block {
			part[c] = block[c][:n]
			for i := range part[c] {
				part[c][i] *= by
			}
		}
		if err := s.sink.Write(part); err != nil {
			return errors.Join(err, s.close())
		}
	}
}
