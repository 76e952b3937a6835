package project

import "fmt"

// LandSound puts a sound on a row at a frame of the song, over what lies there: that is kept, and covered while this lasts.
type LandSound struct {
	Row    string `json:"row"`
	ID     string `json:"id"` // of the new clip
	Name   string `json:"name"`
	Audio  Audio  `json:"audio"`
	Start  int64  `json:"start"` // frame
	Behind bool   `json:"behind,omitempty"`
}

func (c *LandSound) apply(p *Project, effects Effects) ([]Change, error) {
	row, ok := p.Channel(c.Row)
	switch {
	case !ok:
		return nil, Gone("the row")
	case row.Kind != Track:
		return nil, fmt.Errorf("sounds lie on tracks only; %s is a %s", row.Name, row.Kind)
	case c.Start < 0:
		return nil, fmt.Errorf("%s would begin before the song, at frame %d", c.Name, c.Start)
	}
	x := &Clip{ID: c.ID, Name: ShortName(c.Name), Audio: c.Audio.Hash, Start: c.Start, Frames: c.Audio.Frames, Over: OverCover}
	if c.Behind {
		x.Enters = EntersBehind
	}
	return p.each(effects, &AddAudio{c.Audio}, &AddClip{row.ID, len(row.Clips), x})
}
