package view

import (
	"cmp"
	"slices"

	"shoal/internal/project"
)

// Timeline is the song laid out in frames, for whoever draws it: musical time
// is worked out here and nowhere else.
type Timeline struct {
	Rate     int              `json:"rate" required:"true"`
	End      int64            `json:"end" required:"true"`   // of the song: of its last clip
	Shown    int64            `json:"shown" required:"true"` // as far as the board shows it: no less
	Bars     []BarLine        `json:"bars" required:"true"`
	Sections []SectionSpan    `json:"sections" required:"true"`
	Clips    map[string]int64 `json:"clips" required:"true"` // start of each clip
	Passages []PassageSpan    `json:"passages" required:"true"`
	Tempo    []TempoSpan      `json:"tempo" required:"true"`
	// Overlaps are where two clips of a row lie over one another.
	Overlaps []Overlap `json:"overlaps" required:"true"`
	// Outline is what is to be said of the document's parts.
	Outline Outline `json:"outline" required:"true"`
}

// Overlap is a stretch of a row in which clips overlap, and what happens there: both sound, one covers the other, or
// they cross-fade. Clip is the one that begins over another.
type Overlap struct {
	Row  string `json:"row" required:"true"`
	Clip string `json:"clip" required:"true"`
	From int64  `json:"from" required:"true"` // frames
	To   int64  `json:"to" required:"true"`
	Rule string `json:"rule" required:"true" enum:"sum,cover,fade"`
}

// BarLine is the begin of a bar.
type BarLine struct {
	Frame int64   `json:"frame" required:"true"`
	Beats int     `json:"beats" required:"true"`
	Unit  int     `json:"unit" required:"true"`
	Tempo float64 `json:"tempo" required:"true"`
}

// TempoSpan is a tempo, where it begins.
type TempoSpan struct {
	project.Tempo
	Frame int64  `json:"frame" required:"true"`
	Where string `json:"where" required:"true"` // bar and beat
}

// SectionSpan is a section in frames.
type SectionSpan struct {
	ID   string `json:"id" required:"true"`
	Name string `json:"name" required:"true"`
	From int64  `json:"from" required:"true"`
	To   int64  `json:"to" required:"true"`
}

// TimelineOf lays the song out, with one bar more than it has.
func TimelineOf(p *project.Project, effects project.Effects) Timeline {
	c := p.Clock()
	t := Timeline{
		Rate: p.SampleRate, End: p.End(), Shown: laidOut(p, c), Sections: []SectionSpan{}, Clips: map[string]int64{},
		Passages: []PassageSpan{}, Tempo: []TempoSpan{}, Overlaps: []Overlap{}, Outline: OutlineOf(p, effects),
	}
	for b := 0; ; b++ {
		tick := c.Bar(b)
		f := c.Frame(tick)
		m := p.Meter[0]
		for _, x := range p.Meter {
			if x.Tick <= tick {
				m = x
			}
		}
		t.Bars = append(t.Bars, BarLine{f, m.Beats, m.Unit, c.Tempo(f)})
		if f > t.Shown {
			break
		}
	}
	for _, x := range p.Tempo {
		t.Tempo = append(t.Tempo, TempoSpan{x, c.Frame(x.Tick), c.Where(x.Tick)})
	}
	for _, s := range p.Sections {
		from, to, _ := p.SectionRange(s.ID)
		if s.ID == p.Sections[len(p.Sections)-1].ID {
			to = max(to, t.Shown)
		}
		t.Sections = append(t.Sections, SectionSpan{s.ID, s.Name, from, to})
	}
	for _, x := range p.Passages {
		t.Passages = append(t.Passages, PassageSpan{x.ID, x.Name, c.Frame(x.From), c.Frame(x.To), x.Off, x.Rows})
	}
	for _, ch := range p.Channels {
		for _, x := range ch.Clips {
			t.Clips[x.ID] = x.BeginsAt(c)
		}
		t.Overlaps = append(t.Overlaps, overlaps(ch, t.Clips)...)
	}
	return t
}

// Where nothing lies yet there is room: so many bars of an empty song, and of a last section.
const (
	emptySong    = 16
	emptySection = 8
)

// laidOut is the frame as far as the song is shown: to its end, and beyond where sections and passages stand already but
// no sound does.
func laidOut(p *project.Project, c *project.Clock) int64 {
	end := p.End()
	if end <= c.Frame(c.Bar(1)) {
		end = c.Frame(c.Bar(emptySong))
	}
	if n := len(p.Sections); n > 0 {
		last := p.Sections[n-1].Tick
		if from := c.Frame(last); from >= p.End() {
			end = max(end, c.Frame(last+emptySection*c.MeterAt(last).BarTicks()))
		}
	}
	for _, x := range p.Passages {
		end = max(end, c.Frame(x.To))
	}
	return end
}

// overlaps finds where clips of a channel overlap; starts has the frame at which each begins.
func overlaps(ch *project.Channel, starts map[string]int64) (out []Overlap) {
	clips := slices.Clone(ch.Clips)
	slices.SortStableFunc(clips, func(a, b *project.Clip) int { return cmp.Compare(starts[a.ID], starts[b.ID]) })
	end := int64(0) // of all before
	for _, x := range clips {
		from := starts[x.ID]
		if x.Mute {
			continue
		}
		if to := min(end, from+x.Frames); to > from {
			rule := cmp.Or(x.Over, ch.Overlaps, project.OverSum)
			if n := len(out); n > 0 && out[n-1].To >= from && out[n-1].Rule == rule {
				out[n-1].To = max(out[n-1].To, to)
			} else {
				out = append(out, Overlap{ch.ID, x.ID, from, to, rule})
			}
		}
		end = max(end, from+x.Frames)
	}
	return out
}
