package engine

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"math"
	"slices"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Waterline is what is printed of a row's chain: all that stands before its line, over the stretches of the song in
// which that sounds. It is named by a key over all that it depends on, so it is the same for everybody who needs it.
type Waterline struct {
	Key  string
	Row  string
	Node string // the last that is printed
	// Stretches are song frames, in order and apart; in the sound they lie one behind the other.
	Stretches []Sounding
	// Made is all that it is rendered from.
	Made project.Makings
}

// Sounding is a part of the song, in frames.
type Sounding struct{ From, To int64 }

// Frames is how long the print is.
func (w *Waterline) Frames() (n int64) {
	for _, s := range w.Stretches {
		n += s.To - s.From
	}
	return n
}

// Point is where the print is taken.
func (w *Waterline) Point() project.Tap {
	return project.Tap{Channel: w.Row, Point: "after", Node: w.Node}
}

// waterVersion is raised when what is printed changes though the document does not, as when the engine itself sounds
// otherwise.
const waterVersion = 1

// WaterlineOf is what is printed of a row; nil: nothing is, or nothing of it sounds.
func WaterlineOf(p *project.Project, ch *project.Channel) *Waterline {
	if ch.Waterline == "" {
		return nil
	}
	w := &Waterline{Row: ch.ID, Node: ch.Waterline}
	made, ok := p.MakingsOf(w.Point())
	if !ok {
		return nil
	}
	w.Made = made
	w.Stretches = sounding(p, ch, made)
	if len(w.Stretches) == 0 {
		return nil
	}
	b, err := json.Marshal([]any{waterVersion, made.Key(EffectInfo), w.Node, w.Stretches})
	if err != nil {
		panic(err) // plain data always marshals
	}
	sum := sha256.Sum256(b)
	w.Key = hex.EncodeToString(sum[:])
	return w
}

// tailMargin is how much longer than until -100 dB, where tails count as over, one is kept: until -150 dB.
const tailMargin = 1.5

// leadSeconds is how much before a clip is kept: filters of linear phase ring before a sound, and what looks ahead acts
// before it.
const leadSeconds = 0.1

// restSeconds is kept behind every sound besides: filters that keep off what does not swing are slow to come to rest.
const restSeconds = 0.5

// longestTail is for how many seconds tails are kept at most.
const longestTail = 60

// sounding are the stretches in which a row sounds as far as its line: its clips, each with the tail that it may have
// there. What else feeds it may sound at any time: then it is the whole song.
func sounding(p *project.Project, ch *project.Channel, made project.Makings) []Sounding {
	clock := p.Clock()
	var all []Sounding
	tail, whole := 0.0, fed(made, ch.ID)
	for _, c := range made.Channels {
		if whole || c.ID == ch.ID {
			tail += chainTail(&c.Chain, slowest(p)) * tailMargin
		}
		if c.ID == ch.ID {
			all = clipStretches(p, c, clock)
		}
	}
	frames := int64(math.Ceil(min(tail+restSeconds, longestTail) * float64(p.SampleRate)))
	if whole {
		return []Sounding{{0, p.End() + frames}}
	}
	lead := int64(leadSeconds * float64(p.SampleRate))
	for i := range all {
		all[i].From, all[i].To = all[i].From-lead, all[i].To+frames
	}
	return joined(all)
}

// slowest is the lowest tempo of a song: with it what is counted in notes lasts longest.
func slowest(p *project.Project) float64 {
	low := p.Tempo[0].BPM
	for _, t := range p.Tempo {
		low = min(low, t.BPM)
	}
	return low
}

// clipStretches are the stretches of a row's clips that enter it before its line, with what rings before and behind them.
func clipStretches(p *project.Project, c *project.Channel, clock *project.Clock) (all []Sounding) {
	for _, x := range p.Laid(c, clock) {
		if c.Entry(x.Clip) == project.EntersBehind {
			continue
		}
		s := Sounding{x.From, x.To}
		w, live := WorkOf(p, x.Clip, clock)
		if w != nil {
			s.From, s.To = s.From-w.Lead, s.To+w.Trail
		}
		if live != nil && x.Clip.Rings {
			s.To += int64(min(maxRing, chainTail(live, clock.Tempo(x.From))) * float64(p.SampleRate))
		}
		all = append(all, s)
	}
	return all
}

// fed reports whether anything but its clips comes into a row.
func fed(made project.Makings, row string) bool {
	for _, c := range made.Channels {
		if c.ID == row && c.Input != nil || c.Output == row ||
			slices.ContainsFunc(c.Sends, func(s *project.Send) bool { return s.To == row }) {
			return true
		}
	}
	return false
}

// joined puts stretches in order, as one where they meet.
func joined(all []Sounding) (out []Sounding) {
	slices.SortFunc(all, func(a, b Sounding) int { return int(a.From - b.From) })
	for _, s := range all {
		s.From = max(0, s.From)
		if n := len(out); n > 0 && s.From <= out[n-1].To {
			out[n-1].To = max(out[n-1].To, s.To)
		} else if s.To > s.From {
			out = append(out, s)
		}
	}
	return out
}

// Print renders what is printed of a row, stretch by stretch. write is given blocks in order; progress, if not nil, the
// part done.
func (w *Waterline) Print(
	ctx context.Context, doc *project.Project, lib *pages.Library, load Loader, write func(l, r []float64) error, progress func(float64),
) error {
	at, left := w.Stretches[0].From, w.Stretches
	pass := Pass{Points: []project.Tap{w.Point()}, From: at, To: w.Stretches[len(w.Stretches)-1].To}
	return Stems(ctx, doc, lib, pass, load, func(_ int, l, r []float64) error {
		end := at + int64(len(l))
		for len(left) > 0 && left[0].From < end {
			a, b := max(left[0].From, at)-at, min(left[0].To, end)-at
			if err := write(l[a:b], r[a:b]); err != nil {
				return err
			}
			if left[0].To > end {
				break
			}
			left = left[1:]
		}
		at = end
		return nil
	}, progress)
}
