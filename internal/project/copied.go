package project

import (
	"math"
	"slices"
)

// Copied are clips with all that they need elsewhere: on the clipboard, or on the shelf.
type Copied struct {
	Rate       int          `json:"rate" required:"true"` // of all frames
	Clips      []CopiedClip `json:"clips" required:"true"`
	Audio      []Audio      `json:"audio" required:"true"`
	Treatments []*Treatment `json:"treatments,omitempty"`
	Lines      []*Line      `json:"lines,omitempty"` // of what stands in the treatments
}

// CopiedClip is a clip with where it lay beside the first that was copied.
type CopiedClip struct {
	Clip Clip  `json:"clip" required:"true"`
	Down int   `json:"down,omitempty"`     // tracks below
	By   int64 `json:"by" required:"true"` // frames later
}

// CopyClips takes clips as they lie: the first of them in front, the uppermost on top.
func (p *Project) CopyClips(ids []string) (Copied, error) {
	c := Copied{Rate: p.SampleRate, Clips: []CopiedClip{}, Audio: []Audio{}}
	var tracks []string
	for _, ch := range p.Channels {
		if ch.Kind == Track {
			tracks = append(tracks, ch.ID)
		}
	}
	clock := p.Clock()
	first, top := int64(math.MaxInt64), math.MaxInt
	for _, id := range ids {
		row, x, ok := p.RowOfClip(id)
		if !ok {
			return Copied{}, Gone("the clip")
		}
		at, down := x.BeginsAt(clock), slices.Index(tracks, row.ID)
		first, top = min(first, at), min(top, down)
		c.Clips = append(c.Clips, CopiedClip{*x, down, at})
		c.take(p, x)
	}
	for i := range c.Clips {
		c.Clips[i].By -= first
		c.Clips[i].Down -= top
	}
	return c, nil
}

// take takes along what a clip needs: its sound, its treatment, and the lines in it.
func (c *Copied) take(p *Project, x *Clip) {
	if a, ok := p.AudioByHash(x.Audio); ok && !slices.Contains(c.Audio, a) {
		c.Audio = append(c.Audio, a)
	}
	if t, ok := p.TreatmentByID(x.Treatment); ok && !slices.Contains(c.Treatments, t) {
		c.Treatments = append(c.Treatments, t)
		c.Lines = append(c.Lines, p.LinesWithin(t)...)
	}
}
