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
}

// Library holds the sounds of a project. It is bounded: when more than its
// limit of pages are present, the ones played longest ago are dropped.
type Library struct {
	sounds map[string]*Sound
	limit  int
	count  int
	clock  uint64

	all               bool // that is worked out is there
	announced, worked map[string]bool
	played            map[string]Played // by clip
}

// New keeps at most so many pages; 0 means no limit.
func New(limit int) *Library {
	return &Library{sounds: map[string]*Sound{}, limit: limit}
}

// Sound returns the sound with a hash, adding it if need be.
func (l *Library) Sound(hash string, frames int64, channels int) *Sound {
	s, ok := l.sounds[hash]
	if !ok {
		n := int((frames + Frames - 1) / Frames)
		s = &Sound{Hash: hash, Frames: frames, Channels: channels, pages: make([]Page, n), used: make([]uint64, n)}
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
	if s, ok := l.sounds[hash]; ok && s.pages[index] != nil {
		s.pages[index] = nil
		l.count--
	}
}

// Count is how many pages a sound has, present or not.
func (s *Sound) Count() int { return len(s.pages) }

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
		l.count++
	}
	s.pages[index] = p
	l.clock++
	s.used[index] = l.clock
	for l.limit > 0 && l.count > l.limit {
		l.dropOldest()
	}
}

func (l *Library) dropOldest() {
	var oldest *Sound
	at := -1
	for _, s := range l.sounds {
		for i, p := range s.pages {
			if p != nil && (at < 0 || s.used[i] < oldest.used[at]) {
				oldest, at = s, i
			}
		}
	}
	oldest.pages[at] = nil
	l.count--
}

// Missing is a page that the engine needs and does not have.
type Missing struct {
	Hash string `json:"hash"`
	Page int    `json:"page"`
}
