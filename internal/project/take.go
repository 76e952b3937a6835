package project

import (
	"fmt"
	"slices"
)

// OwnInput is the input of whoever records: a microphone, or what else their browser hears.
const OwnInput = "own"

// Take is what was recorded on a row in one go: the untouched input, and what the row's way in made of it.
type Take struct {
	ID     string `json:"id" required:"true"`
	Row    string `json:"row" required:"true"` // the channel it was recorded on
	Number int    `json:"number" required:"true"`
	Name   string `json:"name" required:"true"`
	Input  string `json:"input" required:"true"` // what it was recorded from, see Channel.Records
	// Untouched is the hash of all that came in, and Runs which of it was heard where in the song.
	Untouched string `json:"untouched" required:"true"`
	Runs      []Run  `json:"runs" required:"true"`
	// Treated is the hash of what the way in made of it, from the first run's place on; empty: the bare input was recorded.
	Treated string `json:"treated,omitempty"`
	// Through is what stood before the mark then, in words; the treated sound's record has all of it.
	Through []string `json:"through,omitempty"`
	// Changed is the song frame at which the way in was touched while it was recorded; nil: it was not.
	Changed *int64 `json:"changed,omitempty"`
	Delay   int64  `json:"delay,omitempty"` // frames that were taken off
	By      string `json:"by,omitempty"`
	At      string `json:"at,omitempty"`    // RFC 3339
	Ended   string `json:"ended,omitempty"` // why it ended early, in words
	Dropped bool   `json:"dropped,omitempty"`
	// Loud and LoudTreated are the loudness of both forms, in LUFS.
	Loud        float64 `json:"loud,omitempty"`
	LoudTreated float64 `json:"loudTreated,omitempty"`
}

// Run is a stretch of an input that came in while a stretch of the song was heard.
type Run struct {
	Input  int64 `json:"input" required:"true"` // frame of the input
	Song   int64 `json:"song" required:"true"`  // frame of the song
	Frames int64 `json:"frames" required:"true"`
}

// From is the song frame at which a take begins.
func (t *Take) From() int64 { return t.Runs[0].Song }

// To is the song frame at which it ends.
func (t *Take) To() int64 {
	last := t.Runs[len(t.Runs)-1]
	return last.Song + last.Frames
}

// TakeByID finds a take.
func (p *Project) TakeByID(id string) (*Take, bool) {
	for _, t := range p.Takes {
		if t.ID == id {
			return t, true
		}
	}
	return nil, false
}

// NextTake is the number that the next take of a row has.
func (p *Project) NextTake(row string) int {
	n := 0
	for _, t := range p.Takes {
		if t.Row == row {
			n = max(n, t.Number)
		}
	}
	return n + 1
}

// clips are those that play a take within a stretch of the song, in one form.
func (t *Take) clips(from, to int64, untouched bool) (list []*Clip) {
	from, to = max(from, t.From()), min(to, t.To())
	one := func(audio, enters string, a, b, offset int64) {
		list = append(list, &Clip{ID: NewID(), Name: t.Name, Audio: audio, Start: a, Frames: b - a, Offset: offset, Enters: enters,
			Over: OverFade, Take: t.ID})
	}
	if t.Treated != "" && !untouched {
		if to > from {
			one(t.Treated, EntersWayIn, from, to, from-t.From())
		}
		return list
	}
	for _, r := range t.Runs {
		if a, b := max(from, r.Song), min(to, r.Song+r.Frames); b > a {
			one(t.Untouched, "", a, b, r.Input+a-r.Song)
		}
	}
	return list
}

func (p *Project) checkTake(t *Take) error {
	if !ValidName(t.Name) || t.ID == "" || t.Number < 1 || len(t.Runs) == 0 {
		return fmt.Errorf("take %s needs a name, a number and what was recorded", t.ID)
	}
	a, ok := p.AudioByHash(t.Untouched)
	if !ok {
		return fmt.Errorf("take %s: its sound %.12s is not in the project", t.Name, t.Untouched)
	}
	if t.Treated != "" && !p.hasAudio(t.Treated) {
		return fmt.Errorf("take %s: its treated sound %.12s is not in the project", t.Name, t.Treated)
	}
	end := int64(0)
	for _, r := range t.Runs {
		if r.Frames < 1 || r.Input < 0 || r.Input > a.Frames-r.Frames || r.Song < end || r.Song > p.longest()-r.Frames {
			return fmt.Errorf("take %s: %d frames from %d on at frame %d of the song do not follow what came before them",
				t.Name, r.Frames, r.Input, r.Song)
		}
		end = r.Song + r.Frames
	}
	return nil
}

// copyTakes are takes that can be changed.
func copyTakes(list []*Take) []*Take {
	return copyEach(list, func(t Take) *Take {
		t.Runs, t.Through, t.Changed = slices.Clone(t.Runs), slices.Clone(t.Through), copyOf(t.Changed)
		return &t
	})
}
