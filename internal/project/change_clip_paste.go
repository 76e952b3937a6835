package project

import (
	"fmt"
	"math"
	"slices"
)

// PasteClips puts down clips that were copied, here or in another project, with their sounds and treatments: the first
// at a song frame, the others as far from it as they were.
type PasteClips struct {
	Row  string `json:"row"` // a track
	At   int64  `json:"at"`  // song frame
	Snap Snap   `json:"snap"`
	Copied
}

func (c *PasteClips) apply(p *Project, effects Effects) ([]Change, error) {
	if len(c.Clips) == 0 {
		return nil, fmt.Errorf("there are no clips to paste")
	}
	if c.Rate != p.SampleRate {
		return nil, fmt.Errorf("these clips are of a project at %d Hz, and this one runs at %d: import their sound as a file, which is resampled",
			c.Rate, p.SampleRate)
	}
	var list []Change
	for _, a := range c.Audio {
		list = append(list, &AddAudio{a})
	}
	fresh := map[string]string{}
	for _, t := range c.Treatments {
		if t == nil {
			return nil, fmt.Errorf("there is an empty treatment among what is pasted")
		}
		if err := noHoles(&t.Chain, 0); err != nil {
			return nil, err
		}
		n, ids := t.again()
		fresh[t.ID] = n.ID
		list = append(list, &PutTreatment{len(p.Treatments), n})
		if slices.Contains(c.Lines, nil) {
			return nil, fmt.Errorf("there is an empty line among what is pasted")
		}
		list = append(list, linesAgain(c.Lines, ids)...)
	}
	clock := p.Clock()
	at := p.snapped(c.At, c.Snap, clock, func(*Clip) bool { return false })
	for _, x := range c.Clips {
		row, err := p.trackBelow(c.Row, x.Down)
		if err != nil {
			return nil, err
		}
		n := x.Clip
		n.ID, n.Treatment = NewID(), fresh[n.Treatment]
		if n.Start = max(0, at+x.By); n.Follows {
			n.Start = int64(math.Round(clock.Tick(n.Start)))
		}
		list = append(list, &AddClip{row.ID, len(row.Clips), &n})
	}
	return p.each(effects, list...)
}

// trackBelow is the track so many tracks below another.
func (p *Project) trackBelow(id string, down int) (*Channel, error) {
	var tracks []*Channel
	for _, c := range p.Channels {
		if c.Kind == Track {
			tracks = append(tracks, c)
		}
	}
	i := slices.IndexFunc(tracks, func(c *Channel) bool { return c.ID == id })
	if i < 0 {
		return nil, fmt.Errorf("clips lie on tracks: select one to paste into")
	}
	if down < 0 || i+down >= len(tracks) {
		return nil, fmt.Errorf("there are not enough tracks below %s for what was copied from several rows", tracks[i].Name)
	}
	return tracks[i+down], nil
}
