package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// read is how many frames are read at once.
const read = 4096

// stream reads a file from its beginning to its end, in pages, without keeping it: a chain is run over it as it is read.
type stream struct {
	file   *os.File
	src    audiofile.Source
	format audiofile.Format
	next   int // page
	block  [][]float64
}

func newStream(file *os.File) (*stream, error) {
	s := &stream{file: file}
	return s, s.begin()
}

// begin goes back to the beginning of the file.
func (s *stream) begin() (err error) {
	if _, err := s.file.Seek(0, io.SeekStart); err != nil {
		return err
	}
	if s.src, err = audiofile.Open(s.file); err != nil {
		return err
	}
	s.format, s.next = s.src.Format(), 0
	if s.block == nil {
		for range s.format.Channels {
			s.block = append(s.block, make([]float64, read))
		}
	}
	return nil
}

// passes reports whether a chain can be run over the file as it is read: at its own rate, in one direction.
func (s *stream) passes(chain *project.Chain, rate int) bool {
	return rate == s.format.Rate && s.format.Frames > 0 && s.format.Channels <= 2 && len(chain.Wholes(engine.EffectInfo, false)) == 0
}

// process runs a chain over the file.
func (s *stream) process(ctx context.Context, doc *project.Project, chain *project.Chain, tail bool, format, name string) error {
	if err := s.begin(); err != nil {
		return err
	}
	doc, spec, err := processed(doc, audiofile.Entry{Hash: "in", Frames: s.format.Frames, Channels: s.format.Channels}, chain, tail)
	if err != nil {
		return err
	}
	spec.Format = format
	lib := pages.New(4 * s.format.Channels).AllWorked()
	return writeTo(doc, spec, name, func(write func([][]float64) error) error {
		return printing.RenderFrom(ctx, doc, lib, s.bring(lib), spec, write, nil)
	})
}

// bring gives pages in their order.
func (s *stream) bring(lib *pages.Library) engine.Loader {
	return func(_ context.Context, need []pages.Missing) error {
		for _, m := range need {
			if m.Page < s.next {
				if err := s.begin(); err != nil {
					return err
				}
			}
			for s.next <= m.Page {
				p, err := s.page()
				if err != nil {
					return err
				}
				lib.Put(m.Hash, s.next-1, p)
			}
		}
		return nil
	}
}

// page reads the next page.
func (s *stream) page() (pages.Page, error) {
	at := int64(s.next) * pages.Frames
	frames := int(min(pages.Frames, s.format.Frames-at))
	page := make(pages.Page, len(s.block))
	for c := range page {
		page[c] = make([]float32, frames)
	}
	part := make([][]float64, len(s.block))
	for done := 0; done < frames; {
		for c := range part {
			part[c] = s.block[c][:min(read, frames-done)]
		}
		n, err := s.src.Read(part)
		if errors.Is(err, io.EOF) {
			return nil, fmt.Errorf("the file ends at frame %d and says that it has %d: it is cut off", at+int64(done), s.format.Frames)
		}
		if err != nil {
			return nil, err
		}
		for c := range page {
			for i, v := range part[c][:n] {
				page[c][done+i] = float32(v)
			}
		}
		done += n
	}
	s.next++
	return page, nil
}
