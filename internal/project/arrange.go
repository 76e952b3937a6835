package project

import (
	"math"
)

// piece is a stretch of the song in ticks that is put down at another place.
type piece struct {
	from, to int64
	at       int64 // where it comes to stand
	again    bool  // it is put down a second time
}

// ringBars is for how many bars a clip may ring beyond a piece without being cut there.
const ringBars = 2

// pieces are the sections, and what lies before the first, as far as the song's end.
func (p *Project) pieces() (list []piece, of []string) {
	clock := p.Clock()
	end := int64(math.Ceil(clock.Tick(p.End())))
	bar := clock.MeterAt(end).BarTicks()
	end = (end + bar - 1) / bar * bar
	if len(p.Sections) == 0 || p.Sections[0].Tick > 0 {
		list, of = append(list, piece{to: end}), append(of, "")
	}
	for _, s := range p.Sections {
		if n := len(list); n > 0 {
			list[n-1].to = s.Tick
		}
		list, of = append(list, piece{from: s.Tick, to: max(end, s.Tick+bar)}), append(of, s.ID)
	}
	return list, of
}

// arrange puts the song together anew from pieces, in order. With along, lines and passages go with them.
func (p *Project) arrange(order []piece, along bool, effects Effects) ([]Change, error) {
	at := int64(0)
	seen := map[int64]bool{}
	for i := range order {
		order[i].at, order[i].again = at, seen[order[i].from]
		seen[order[i].from] = true
		at += order[i].to - order[i].from
	}
	old := p.Clock()
	list := []Change{p.arrangedTime(order, old), p.arrangedSections(order)}
	next := &Project{SampleRate: p.SampleRate, Tempo: list[0].(*SetTime).Tempo, Meter: list[0].(*SetTime).Meter}
	now := next.Clock()
	whole := joinedPieces(order)
	for _, c := range p.Channels {
		list = append(list, arrangedClips(c, whole, old, now)...)
	}
	if along {
		owners := p.TreatmentOwners()
		for _, l := range p.Lines {
			if owners[l.Owner] != nil { // they go with their clips
				continue
			}
			d, base, err := p.Describe(l.Owner, l.Name, effects)
			if err != nil {
				return nil, err
			}
			if len(l.Points) > 0 {
				list = append(list, &SetLine{Owner: l.Owner, Name: l.Name, Points: l.arranged(whole, d, base)})
			}
		}
		list = append(list, p.arrangedPassages(order)...)
	}
	return p.each(effects, list...)
}

// joinedPieces are the pieces with those in one that follow one another as before: there nothing is cut.
func joinedPieces(order []piece) []piece {
	var out []piece
	for _, x := range order {
		if n := len(out); n > 0 && out[n-1].to == x.from && !x.again && !out[n-1].again {
			out[n-1].to = x.to
			continue
		}
		out = append(out, x)
	}
	return out
}

// arrangedTime carries tempo and meter along. A ramp that is cut ends a tick early, where it has come to.
func (p *Project) arrangedTime(order []piece, c *Clock) *SetTime {
	var tempo []Tempo
	var meter []Meter
	for _, x := range order {
		bpm, ramp := c.TempoAt(x.from)
		if n := len(tempo); n == 0 || tempo[n-1].BPM != bpm || tempo[n-1].Ramp || ramp {
			tempo = append(tempo, Tempo{Tick: x.at, BPM: bpm, Ramp: ramp})
		}
		m := c.MeterAt(x.from)
		if n := len(meter); n == 0 || meter[n-1].Beats != m.Beats || meter[n-1].Unit != m.Unit {
			meter = append(meter, Meter{Tick: x.at, Beats: m.Beats, Unit: m.Unit})
		}
		for _, t := range p.Tempo {
			if t.Tick > x.from && t.Tick < x.to {
				tempo = append(tempo, Tempo{Tick: t.Tick - x.from + x.at, BPM: t.BPM, Ramp: t.Ramp})
			}
		}
		for _, t := range p.Meter {
			if t.Tick > x.from && t.Tick < x.to {
				meter = append(meter, Meter{Tick: t.Tick - x.from + x.at, Beats: t.Beats, Unit: t.Unit})
			}
		}
		if bpm, ramp := c.TempoAt(x.to - 1); ramp && x.to-1 > x.from {
			tempo = append(tempo, Tempo{Tick: x.to - 1 - x.from + x.at, BPM: bpm, Ramp: false})
		}
	}
	return &SetTime{tempo, meter}
}

func (p *Project) arrangedSections(order []piece) *SetSections {
	set := &SetSections{Sections: []Section{}}
	for _, x := range order {
		for _, s := range p.Sections {
			if s.Tick == x.from {
				n := Section{s.ID, s.Name, x.at}
				if x.again {
					n.ID, n.Name = NewID(), p.freeSectionName(s.Name, set.Sections)
				}
				set.Sections = append(set.Sections, n)
			}
		}
	}
	return set
}

// arrangedClips cuts a row's clips where pieces are parted, and puts the parts where their pieces are.
func arrangedClips(c *Channel, order []piece, old, now *Clock) (list []Change) {
	var clips []*Clip
	for _, x := range order {
		from, to := old.Frame(x.from), old.Frame(x.to)
		ring := old.Frame(x.to+ringBars*old.MeterAt(x.to).BarTicks()) - to
		for _, clip := range c.Clips {
			start := clip.BeginsAt(old)
			end := start + clip.Frames
			a, b := max(start, from), min(end, to)
			switch {
			case start >= from && start < to && end <= to+ring: // what rings beyond its piece is not cut
				a, b = start, end
			case start < from && end <= from+ring: // it has rung out with another
				continue
			}
			if a >= b {
				continue
			}
			n := clip.part(a-start, b-start)
			if x.again {
				n.ID = NewID()
			}
			at := now.Frame(x.at) + a - from
			n.Start = at
			if n.Follows {
				n.Start = int64(math.Round(now.Tick(at)))
				if a == start {
					n.Start = clip.Start - x.from + x.at
				}
			}
			clips = append(clips, n)
		}
	}
	used := map[string]bool{}
	for _, x := range c.Clips {
		list = append(list, &RemoveClip{x.ID})
	}
	for i, x := range clips {
		if used[x.ID] { // a part of one that is there already
			x.ID = NewID()
		}
		used[x.ID] = true
		list = append(list, &AddClip{c.ID, i, x})
	}
	return list
}

// part is a part of a clip, from one of its frames to another; it keeps its id.
func (x *Clip) part(from, to int64) *Clip {
	n := *x
	n.Offset, n.Frames = x.Offset+from, to-from
	if from > 0 {
		n.FadeIn = 0
	}
	if to < x.Frames {
		n.FadeOut = 0
	}
	n.FadeIn, n.FadeOut = min(n.FadeIn, n.Frames), min(n.FadeOut, n.Frames-min(n.FadeIn, n.Frames))
	return &n
}

// arrangedPassages moves passages with the piece in which they begin, and repeats them with it.
func (p *Project) arrangedPassages(order []piece) (list []Change) {
	for _, x := range p.Passages {
		kept := false
		for _, o := range order {
			if x.From < o.from || x.From >= o.to {
				continue
			}
			n := Clone(x)
			n.From, n.To = x.From-o.from+o.at, x.To-o.from+o.at
			if kept {
				n.ID, n.Brought = NewID(), []string{}
			}
			kept = true
			list = append(list, &PutPassage{Passage: n})
		}
		if !kept {
			list = append(list, &RemovePassage{x.ID})
		}
	}
	return list
}
