package project

import (
	"fmt"
	"strings"
)

// A song is at most 24 hours long. Everything that has a place in it is held to that, so that no sum of places can
// overflow and nothing that is laid out along the song can be larger than memory.
const (
	maxHours = 24
	// maxTick is what 24 hours hold at the fastest tempo, in ticks.
	maxTick = maxHours * 60 * 400 * TicksPerQuarter
)

// IsHash reports whether a text has the form of a sound's hash: 64 hexadecimal digits in lower case.
func IsHash(s string) bool { return len(s) == 64 && strings.Trim(s, "0123456789abcdef") == "" }

// longest is the longest a song can be, in frames.
func (p *Project) longest() int64 { return maxHours * 3600 * int64(p.SampleRate) }

func (p *Project) checkAudio() error {
	for _, a := range p.Audio {
		if !IsHash(a.Hash) {
			return fmt.Errorf("sound %s: %q is no hash of a sound (64 hexadecimal digits)", a.Name, a.Hash)
		}
		if a.Frames < 1 || a.Frames > p.longest() || a.Channels < 1 || a.Channels > 2 {
			return fmt.Errorf("sound %s: %d frames on %d channels; a sound has one or two channels and lasts at most %d hours",
				a.Name, a.Frames, a.Channels, maxHours)
		}
	}
	return nil
}

// checkTick refuses a place that no song reaches.
func checkTick(what string, tick int64) error {
	if tick < 0 || tick > maxTick {
		return tooFar(what)
	}
	return nil
}

func tooFar(what string) error {
	return fmt.Errorf("%s lies outside the song: a song begins at 1.1 and is at most %d hours long", what, maxHours)
}

// checkTicks holds all that is counted in ticks to the length of a song. It comes before anything is laid out in time.
func (p *Project) checkTicks() error {
	for _, t := range p.Tempo {
		if err := checkTick("a tempo", t.Tick); err != nil {
			return err
		}
	}
	for _, m := range p.Meter {
		if err := checkTick("a meter", m.Tick); err != nil {
			return err
		}
	}
	for _, s := range p.Sections {
		if err := checkTick("the section "+s.Name, s.Tick); err != nil {
			return err
		}
	}
	for _, l := range p.Lines {
		if n := len(l.Points); n > 0 { // they follow one another
			if err := checkTick("a point of the line "+l.Name, l.Points[n-1].Tick); err != nil {
				return err
			}
		}
	}
	for _, x := range p.Passages {
		if err := checkTick("the passage "+x.Name, x.To); err != nil {
			return err
		}
	}
	return nil
}

// checkFrames holds all of it, clips too, to the length of a song in frames.
func (p *Project) checkFrames() error {
	clock, longest := p.Clock(), p.longest()
	last := p.Tempo[len(p.Tempo)-1].Tick
	for _, s := range p.Sections {
		last = max(last, s.Tick)
	}
	for _, l := range p.Lines {
		if n := len(l.Points); n > 0 {
			last = max(last, l.Points[n-1].Tick)
		}
	}
	for _, x := range p.Passages {
		last = max(last, x.To)
	}
	if clock.Frame(last) > longest {
		return tooFar("what stands last in the song")
	}
	for _, c := range p.Channels {
		for _, x := range c.Clips {
			if x.Start < 0 || x.Start > longest || x.Follows && x.Start > maxTick || x.BeginsAt(clock) > longest-x.Frames {
				return tooFar("the clip " + x.Name)
			}
		}
	}
	return nil
}
