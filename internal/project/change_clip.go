package project

import (
	"fmt"
	"slices"
)

// AddAudio makes a sound known to the project.
type AddAudio struct {
	Audio Audio `json:"audio"`
}

func (c *AddAudio) apply(p *Project, _ Effects) ([]Change, error) {
	if _, ok := p.AudioByHash(c.Audio.Hash); ok {
		return nil, nil // known already: nothing to add, nothing to undo
	}
	p.Audio = append(p.Audio, c.Audio)
	return []Change{&RemoveAudio{c.Audio.Hash}}, nil
}

// RemoveAudio forgets a sound that no clip uses.
type RemoveAudio struct {
	Hash string `json:"hash"`
}

func (c *RemoveAudio) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Audio, func(a Audio) bool { return a.Hash == c.Hash })
	if i < 0 {
		return nil, Gone("the audio")
	}
	for _, ch := range p.Channels {
		for _, x := range ch.Clips {
			if x.uses(c.Hash) {
				return nil, nil // somebody uses it by now: it stays
			}
		}
	}
	used := slices.ContainsFunc(p.Takes, func(t *Take) bool { return t.Untouched == c.Hash || t.Treated == c.Hash })
	p.walkAll(func(_ *Chain, _ int, n *Node) bool {
		used = used || n.Stage != nil && n.Stage.Sound == c.Hash
		return !used
	})
	if used {
		return nil, nil
	}
	a := p.Audio[i]
	p.Audio = slices.Delete(p.Audio, i, i+1)
	return []Change{&AddAudio{a}}, nil
}

// AddClip puts a clip on a track.
type AddClip struct {
	Channel string `json:"channel"`
	Index   int    `json:"index"`
	Clip    *Clip  `json:"clip"`
}

func (c *AddClip) apply(p *Project, _ Effects) ([]Change, error) {
	ch, ok := p.Channel(c.Channel)
	if !ok {
		return nil, Gone("the track")
	}
	if c.Clip == nil {
		return nil, fmt.Errorf("there is no clip to add")
	}
	x := *c.Clip
	if x.ID == "" {
		x.ID = NewID()
	}
	ch.Clips = insert(ch.Clips, c.Index, &x)
	return []Change{&RemoveClip{x.ID}}, nil
}

// RemoveClip takes a clip away.
type RemoveClip struct {
	ID string `json:"id"`
}

func (c *RemoveClip) apply(p *Project, _ Effects) ([]Change, error) {
	ch, i, ok := p.findClip(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	undo := &AddClip{ch.ID, i, ch.Clips[i]}
	ch.Clips = slices.Delete(ch.Clips, i, i+1)
	return []Change{undo}, nil
}

// SetClip sets what is given of a clip.
type SetClip struct {
	ID       string   `json:"id"`
	Name     *string  `json:"name,omitempty"`
	Start    *int64   `json:"start,omitempty"`
	Offset   *int64   `json:"offset,omitempty"`
	Frames   *int64   `json:"frames,omitempty"`
	Gain     *float64 `json:"gain,omitempty"`
	FadeIn   *int64   `json:"fadeIn,omitempty"`
	FadeOut  *int64   `json:"fadeOut,omitempty"`
	InShape  *string  `json:"inShape,omitempty"`
	OutShape *string  `json:"outShape,omitempty"`
	InBend   *float64 `json:"inBend,omitempty"`
	OutBend  *float64 `json:"outBend,omitempty"`
	Swell    *[]Swell `json:"swell,omitempty"`
	Mute     *bool    `json:"mute,omitempty"`
	Tint     *int     `json:"tint,omitempty"`
	Over     *string  `json:"over,omitempty"`
	Rings    *bool    `json:"rings,omitempty"`
	Enters   *string  `json:"enters,omitempty"`
	// Treatment is that of the clip; empty: none.
	Treatment *string `json:"treatment,omitempty"`
}

func (c *SetClip) apply(p *Project, _ Effects) ([]Change, error) {
	ch, i, ok := p.findClip(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	x := ch.Clips[i]
	return []Change{&SetClip{c.ID, swap(&x.Name, c.Name), swap(&x.Start, c.Start), swap(&x.Offset, c.Offset),
		swap(&x.Frames, c.Frames), swap(&x.Gain, c.Gain), swap(&x.FadeIn, c.FadeIn), swap(&x.FadeOut, c.FadeOut),
		swap(&x.InShape, c.InShape), swap(&x.OutShape, c.OutShape), swap(&x.InBend, c.InBend), swap(&x.OutBend, c.OutBend),
		swapList(&x.Swell, c.Swell), swap(&x.Mute, c.Mute), swap(&x.Tint, c.Tint), swap(&x.Over, c.Over),
		swap(&x.Rings, c.Rings), swap(&x.Enters, c.Enters), swap(&x.Treatment, c.Treatment)}}, nil
}
