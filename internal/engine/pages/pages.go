// Package pages holds the audio that an engine plays, in pages of which any may be absent: who plays says which it
// needs, and somebody else brings them.
package pages

import "math"

// Frames is the number of frames in a page of audio.
const Frames = 32768

// Page is a stretch of a sound: one slice a channel, each of Frames or,
// at the end, fewer.
type Page [][]float32

// Sound is audio that clips play, of which any pages may be absent.
type Sound struct {
	Hash     string
	Frames   int64
	Channels int
	pages    []Page
	used     []uint64
	of       *Library
}

// Library holds the sounds of a project. It is bounded by what it takes: when more than its limit is present, the pages
// that came longest ago are dropped; in a render those that nobody has needed for longest.
type Library struct {
	sounds  map[string]*Sound
	limit   int // in sides of pages
	sides   int // that are present
	present []place
	clock   uint64

	all               bool // that is worked out is there
	announced, worked map[string]bool
	held              map[string]bool   // works that are not to be played now
	played            map[string]Played // by clip
}

// place is one page of a sound.
type place struct {
	of *Sound
	at int
}

// New keeps at most so many sides of pages, of which each takes 128 KB: a page in stereo has two. 0 means no limit.
func New(limit int) *Library {
	return &Library{sounds: map[string]*Sound{}, limit: limit}
}

// Sound returns the sound with a hash, adding it if need be.
func (l *Library) Sound(hash string, frames int64, channels int) *Sound {
	s, ok := l.sounds[hash]
	if !ok {
		n := int((frames + Frames - 1) / Frames)
		s = &Sound{Hash: hash, Frames: frames, Channels: channels, pages: make([]Page, n), used: make([]uint64, n), of: l}
		l.sounds[hash] = s
	}
	return s
}

// Find returns a sound that has been added.
func (l *Library) Find(hash string) (*Sound, bool) {
	s, ok := l.sounds[hash]
	return s, ok
}

// Drop forgets a page: it is missing again.
func (l *Library) Drop(hash string, index int) {
	s, ok := l.sounds[hash]
	if !ok || s.pages[index] == nil {
		return
	}
	for i, p := range l.present {
		if p.of == s && p.at == index {
			l.drop(i)
			return
		}
	}
}

// Count is how many pages a sound has, present or not.
func (s *Sound) Count() int { return len(s.pages) }

// Need reports whether a page is there for somebody who is about to play it. In a render others are dropped before it;
// whoever listens has far more room than sounds at once, and every block counts.
func (s *Sound) Need(index int) bool {
	there := s.pages[index] != nil
	if there && s.of.all {
		s.used[index] = s.of.clock
	}
	return there
}

// Page is one of them; nil: it is absent.
func (s *Sound) Page(index int) Page { return s.pages[index] }

// Sides gives the whole sound as left and right. Every page must be present.
func (s *Sound) Sides() (l, r []float64) {
	for _, p := range s.pages {
		for _, v := range p[0] {
			l = append(l, float64(v))
		}
		for _, v := range p[len(p)-1] {
			r = append(r, float64(v))
		}
	}
	return l, r
}

// At is a sound at a frame, the louder side, if the page is there.
func (l *Library) At(hash string, frame int64) (v float64, there bool) {
	s, ok := l.sounds[hash]
	if !ok || frame < 0 || frame >= s.Frames {
		return 0, false
	}
	for _, side := range s.pages[frame/Frames] {
		if x := float64(side[frame%Frames]); math.Abs(x) >= math.Abs(v) {
			v, there = x, true
		}
	}
	return v, there
}

// Put adds a page that was missing. What does not fit is ignored.
func (l *Library) Put(hash string, index int, p Page) {
	s, ok := l.sounds[hash]
	if !ok || index < 0 || index >= len(s.pages) || len(p) != s.Channels {
		return
	}
	if s.pages[index] == nil {
		l.sides += s.Channels
		l.present = append(l.present, place{s, index})
	}
	s.pages[index] = p
	l.clock++
	s.used[index] = l.clock
	for l.limit > 0 && l.sides > l.limit && len(l.present) > 1 {
		l.dropOldest()
	}
}

// dropOldest looks only at what is present: a long song has very many pages that are not.
func (l *Library) dropOldest() {
	oldest := 0
	for i, p := range l.present {
		if o := l.present[oldest]; p.of.used[p.at] < o.of.used[o.at] {
			oldest = i
		}
	}
	l.drop(oldest)
}

func (l *Library) drop(i int) {
	p := l.present[i]
	p.of.pages[p.at] = nil
	l.sides -= p.of.Channels
	last := len(l.present) - 1
	l.present[i] = l.present[last]
	l.present = l.present[:last]
}

// Missing is a page that the engine needs and does not have.
type Missing struct {
	Hash string `json:"hash"`
	Page int    `json:"page"`
}
