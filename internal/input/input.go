// Package input has the stand-ins: simulated inputs that take the place of microphones and instruments. What they give is
// a function of the song's frame and of nothing else, so that it is known, sample for sample, what must be recorded.
package input

import (
	"shoal/internal/project"
)

// Source gives what arrives at an input.
type Source interface {
	// Read writes what arrives while the song's frames from one on are heard; both sides are as long.
	Read(l, r []float64, from int64)
}

// Setting is what a stand-in plays to.
type Setting struct {
	Rate     float64
	Clock    *project.Clock
	Sections []int64 // ticks at which they begin
}

// SettingOf is that of a document.
func SettingOf(p *project.Project) Setting {
	s := Setting{Rate: float64(p.SampleRate), Clock: p.Clock()}
	for _, x := range p.Sections {
		s.Sections = append(s.Sections, x.Tick)
	}
	return s
}

// Kind is one of the stand-ins.
type Kind struct {
	ID     string `json:"id" required:"true"`
	Name   string `json:"name" required:"true"`
	Says   string `json:"says" required:"true"` // in a sentence
	Stereo bool   `json:"stereo,omitempty"`
	// Gone is after how many seconds of recording it is unplugged; 0: it stays.
	Gone float64 `json:"gone,omitempty"`

	make func(Setting) voice
}

// Kinds are the stand-ins, in the order in which they are offered.
var Kinds = []Kind{
	{ID: "reader", Name: "Reader", Says: "Reads the tide table aloud, a line every few seconds.", make: newReader},
	{ID: "marimba", Name: "Marimba player", Says: "Plays eighths in the song's tempo, another figure in each section.", make: newMarimba},
	{ID: "hand-drum", Name: "Hand drum", Says: "Strokes and taps in the song's tempo.", make: newHandDrum},
	{ID: "room", Name: "Quiet room", Says: "Nobody plays: what a room gives by itself, near -66 dBFS.", Stereo: true, make: newRoom},
	{ID: "hum", Name: "Hum", Says: "50 Hz and its odd harmonics, as from a bad lead.", make: newHum},
	{ID: "tone", Name: "Line-up tone", Says: "1 kHz at -18 dBFS.", make: newTone},
	{ID: "hot", Name: "Too hot", Says: "The reader, far too loud: it clips on its way in.", make: newHot},
	{ID: "unplugged", Name: "Unplugged", Says: "The reader, until somebody pulls the lead out after eight seconds.", Gone: 8, make: newReader},
}

// Find finds a stand-in by its id.
func Find(id string) (Kind, bool) {
	for _, k := range Kinds {
		if k.ID == id {
			return k, true
		}
	}
	return Kind{}, false
}

// FarEnd plays at the other end of the long lead, which a window takes for an input of its own: late, in bursts and with
// losses, as the worst of them are (web/src/engine/lead.ts).
func FarEnd(p *project.Project) Source { return Kind{make: newReader}.New(SettingOf(p)) }

// New is a stand-in that plays to a song.
func (k Kind) New(s Setting) Source { return &paged{voice: k.make(s), at: -1} }

// voice makes a page of what a stand-in gives. Pages are made one by one and each from its number alone, so that it does
// not matter where one begins to read.
type voice interface {
	size() int // frames of a page
	page(k int64, l, r []float64)
}

// paged reads a voice from any frame on.
type paged struct {
	voice
	at   int64 // the page that is there
	l, r []float64
}

func (p *paged) Read(l, r []float64, from int64) {
	size := int64(p.size())
	if p.l == nil {
		p.l, p.r = make([]float64, size), make([]float64, size)
	}
	for len(l) > 0 {
		if from < 0 { // before the song nobody plays
			n := min(-from, int64(len(l)))
			clear(l[:n])
			clear(r[:n])
			l, r, from = l[n:], r[n:], from+n
			continue
		}
		if k := from / size; k != p.at {
			clear(p.l)
			clear(p.r)
			p.page(k, p.l, p.r)
			p.at = k
		}
		i := from % size
		n := copy(l, p.l[i:])
		copy(r, p.r[i:i+int64(n)])
		l, r, from = l[n:], r[n:], from+int64(n)
	}
}
