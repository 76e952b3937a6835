package project

import (
	"fmt"
	"slices"
)

// LandTake puts a take into the project, and on its row over what lies there.
type LandTake struct {
	Take  Take    `json:"take"`
	Audio []Audio `json:"audio"` // its sounds
	// From and To are the stretch of the song that is put down of it; none: all.
	From int64 `json:"from,omitempty"`
	To   int64 `json:"to,omitempty"`
	// Aside keeps it among the takes of its place, and lets the row sound as it did.
	Aside bool `json:"aside,omitempty"`
}

func (c *LandTake) apply(p *Project, effects Effects) ([]Change, error) {
	row, ok := p.Channel(c.Take.Row)
	switch {
	case !ok:
		return nil, Gone("the row")
	case row.Kind != Track:
		return nil, fmt.Errorf("%s is a %s: only tracks are recorded on", row.Name, row.Kind)
	case len(c.Take.Runs) == 0:
		return nil, fmt.Errorf("nothing was recorded")
	}
	if _, ok := p.TakeByID(c.Take.ID); ok {
		return nil, fmt.Errorf("there is a take with the id %q already", c.Take.ID)
	}
	var list []Change
	for _, a := range c.Audio {
		list = append(list, &AddAudio{a})
	}
	undo, err := p.each(effects, list...)
	if err != nil {
		return nil, err
	}
	take := c.Take
	p.Takes = append(p.Takes, &take)
	undo = append([]Change{&removeTake{take.ID}}, undo...)
	if c.Aside {
		return undo, nil
	}
	from, to := c.From, c.To
	if to == 0 {
		from, to = take.From(), take.To()
	}
	// nobody stops twice at the same frame: a scrap of the take before is not meant to be heard behind this one
	down, err := p.putDown(&take, from, to, false, p.scrap(), effects)
	return slices.Concat(down, undo), err
}

// removeTake takes a take out of the list: it undoes that part of landing.
type removeTake struct {
	ID string `json:"id"`
}

func (c *removeTake) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Takes, func(t *Take) bool { return t.ID == c.ID })
	if i < 0 {
		return nil, Gone("the take")
	}
	t := p.Takes[i]
	p.Takes = dropped(p.Takes, i)
	return []Change{&LandTake{Take: *t, Aside: true}}, nil
}

// ChooseTake lets a take sound on its row over a stretch of the song, with cross-fades of 10 ms into what lies beside it;
// without one where the takes of its place sound now, else as far as it goes. Clips of takes that lie wholly within are put away.
type ChooseTake struct {
	ID        string `json:"id"`
	From      int64  `json:"from,omitempty"` // song frames
	To        int64  `json:"to,omitempty"`
	Untouched bool   `json:"untouched,omitempty"`
}

func (c *ChooseTake) apply(p *Project, effects Effects) ([]Change, error) {
	t, ok := p.TakeByID(c.ID)
	if !ok {
		return nil, Gone("the take")
	}
	from, to := c.From, c.To
	if to == 0 {
		from, to = p.placeOf(t)
	}
	slack := int64(0)
	if from < t.From() || to > t.To() { // it does not reach so far: a scrap of another one there is not meant to be heard
		slack = p.scrap()
	}
	return p.putDown(t, from, to, c.Untouched, slack, effects)
}

// placeOf is where the clips of takes lie that a take would be heard in place of; without any it is all of the take.
func (p *Project) placeOf(t *Take) (from, to int64) {
	row, ok := p.Channel(t.Row)
	if !ok {
		return t.From(), t.To()
	}
	clock := p.Clock()
	for _, x := range row.Clips {
		start := x.BeginsAt(clock)
		if x.Take == "" || start >= t.To() || start+x.Frames <= t.From() {
			continue
		}
		if to == 0 {
			from = start
		}
		from, to = min(from, start), max(to, start+x.Frames)
	}
	if to == 0 {
		return t.From(), t.To()
	}
	return from, to
}

// scrap is how long what is left of a take beside another is at least to be worth hearing, in frames: a quarter of a second.
func (p *Project) scrap() int64 { return int64(p.SampleRate) / 4 }

// putDown lets a take sound over a stretch of the song. Clips of takes that reach beyond it by less than some frames are put
// away too.
func (p *Project) putDown(t *Take, from, to int64, untouched bool, slack int64, effects Effects) ([]Change, error) {
	row, ok := p.Channel(t.Row)
	if !ok {
		return nil, Gone("the row of the take")
	}
	clips := t.clips(from, to, untouched)
	if len(clips) == 0 {
		return nil, fmt.Errorf("%s has nothing there: it was recorded elsewhere in the song", t.Name)
	}
	from, to = clips[0].Start-slack, clips[len(clips)-1].Start+clips[len(clips)-1].Frames+slack
	clock := p.Clock()
	var list []Change
	for _, x := range row.Clips {
		if start := x.BeginsAt(clock); x.Take != "" && start >= from && start+x.Frames <= to {
			list = append(list, &RemoveClip{x.ID})
			clips[0].Tint = x.Tint
		}
	}
	gone := len(list)
	for i, x := range clips {
		list = append(list, &AddClip{row.ID, len(row.Clips) - gone + i, x})
	}
	if t.Dropped {
		no := false
		list = append(list, &SetTake{ID: t.ID, Dropped: &no})
	}
	return p.each(effects, list...)
}

// SetTake sets what is given of a take.
type SetTake struct {
	ID      string  `json:"id"`
	Name    *string `json:"name,omitempty"`
	Dropped *bool   `json:"dropped,omitempty"`
}

func (c *SetTake) apply(p *Project, _ Effects) ([]Change, error) {
	t, ok := p.TakeByID(c.ID)
	if !ok {
		return nil, Gone("the take")
	}
	return []Change{&SetTake{c.ID, swap(&t.Name, c.Name), swap(&t.Dropped, c.Dropped)}}, nil
}

// Untreat lets a clip that was recorded through the way in play its untouched take, with the chain after it.
type Untreat struct {
	Clip string `json:"clip"`
	// Treated goes the other way.
	Treated bool `json:"treated,omitempty"`
}

func (c *Untreat) apply(p *Project, effects Effects) ([]Change, error) {
	row, i, ok := p.findClip(c.Clip)
	if !ok {
		return nil, Gone("the clip")
	}
	x := row.Clips[i]
	t, ok := p.TakeByID(x.Take)
	if !ok || t.Treated == "" {
		return nil, fmt.Errorf("%s was not recorded through a way in: there is one form of it", x.Name)
	}
	var y *Clip
	switch {
	case c.Treated && x.Audio == t.Untouched:
		y, ok = t.treatedFor(x)
	case !c.Treated && x.Audio == t.Treated:
		y, ok = t.untouchedFor(x)
	default:
		return nil, fmt.Errorf("%s plays that form already", x.Name)
	}
	if !ok {
		return nil, fmt.Errorf("%s lies over a break of the recording: cut it there first", x.Name)
	}
	return p.each(effects, &RemoveClip{x.ID}, &AddClip{row.ID, i, y})
}
