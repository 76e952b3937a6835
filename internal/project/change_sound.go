package project

import "slices"

// PlaceSound puts a sound on a new track: at a place among the rows, but above the first that is no track.
type PlaceSound struct {
	ID    string `json:"id"` // of the new track
	Name  string `json:"name"`
	Audio Audio  `json:"audio"`
	Start int64  `json:"start"` // frame
	Index int    `json:"index"`
}

func (c *PlaceSound) apply(p *Project, effects Effects) ([]Change, error) {
	track := NewChannel(Track, c.Name, p.MainChannel().ID)
	track.ID = c.ID
	track.Clips = []*Clip{{ID: NewID(), Name: c.Name, Audio: c.Audio.Hash, Start: max(c.Start, 0), Frames: c.Audio.Frames}}
	at := c.Index
	if i := slices.IndexFunc(p.Channels, func(ch *Channel) bool { return ch.Kind != Track }); i >= 0 {
		at = min(at, i)
	}
	return p.each(effects, &AddAudio{c.Audio}, &AddChannel{Channel: track, Index: at})
}
