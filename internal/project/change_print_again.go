package project

import "fmt"

// PrintAgain lets all clips that play a print play another one of the same: where they lie, how long they are and all that
// was done to them since stays.
type PrintAgain struct {
	Was   string `json:"was"` // hash
	Audio Audio  `json:"audio"`
	Key   string `json:"key,omitempty"` // of what it is made from now
}

func (c *PrintAgain) apply(p *Project, effects Effects) ([]Change, error) {
	if _, ok := p.AudioByHash(c.Was); !ok {
		return nil, Gone("the print")
	}
	list := []Change{&AddAudio{c.Audio}}
	prints := map[string]bool{} // the jobs that made it
	for _, row := range p.Channels {
		for i, x := range row.Clips {
			if x.Audio != c.Was {
				continue
			}
			if x.Offset >= c.Audio.Frames {
				return nil, fmt.Errorf("%s plays a part that the new print does not reach: it has %d frames", x.Name, c.Audio.Frames)
			}
			y := *x
			y.Audio, y.Frames = c.Audio.Hash, min(x.Frames, c.Audio.Frames-x.Offset)
			if x.Made != nil {
				made := *x.Made
				made.Key = c.Key
				y.Made = &made
			}
			y.fitFades()
			list = append(list, &RemoveClip{x.ID}, &AddClip{row.ID, i, &y})
			if row.PrintOf != nil && x.Made == nil {
				prints[row.ID] = true
			}
		}
	}
	if len(list) == 1 {
		return nil, fmt.Errorf("no clip plays this print any more")
	}
	undo, err := p.each(effects, list...)
	if err != nil {
		return nil, err
	}
	for _, row := range p.Channels {
		if prints[row.ID] {
			was := &SetOrigin{row.ID, row.PrintOf}
			now := *row.PrintOf
			now.Key = c.Key
			row.PrintOf = &now
			undo = append([]Change{was}, undo...)
		}
	}
	return undo, nil
}

// SetOrigin notes what a printed row was made from.
type SetOrigin struct {
	ID      string  `json:"id"`
	PrintOf *Origin `json:"printOf,omitempty"`
}

func (c *SetOrigin) apply(p *Project, _ Effects) ([]Change, error) {
	ch, ok := p.Channel(c.ID)
	if !ok {
		return nil, Gone("the row")
	}
	undo := &SetOrigin{c.ID, ch.PrintOf}
	ch.PrintOf = Clone(c.PrintOf)
	return []Change{undo}, nil
}
