package project

import "slices"

// looksAs reports whether a clip's window is that of another.
func (x *Clip) looksAs(y *Clip) bool {
	return x.Start == y.Start && x.Offset == y.Offset && x.Frames == y.Frames && x.FadeIn == y.FadeIn &&
		x.FadeOut == y.FadeOut && slices.Equal(x.Swell, y.Swell) && x.sameExtent(y) && x.sameOrigin(y)
}

// window is the change that brings a clip's window back.
func (x *Clip) window() *SetWindow {
	return &SetWindow{ID: x.ID, Start: x.Start, Offset: x.Offset, Frames: x.Frames, FadeIn: x.FadeIn, FadeOut: x.FadeOut,
		Swell: x.Swell, Extent: x.Extent, Origin: x.Origin}
}

// SetWindow sets what a clip shows of which extent. It undoes what follows of itself from a change of a treatment.
type SetWindow struct {
	ID      string  `json:"id"`
	Start   int64   `json:"start"`
	Offset  int64   `json:"offset"`
	Frames  int64   `json:"frames"`
	FadeIn  int64   `json:"fadeIn"`
	FadeOut int64   `json:"fadeOut"`
	Swell   []Swell `json:"swell,omitempty"`
	Extent  *Extent `json:"extent,omitempty"`
	Origin  *int64  `json:"origin,omitempty"`
}

func (c *SetWindow) apply(p *Project, _ Effects) ([]Change, error) {
	row, i, ok := p.findClip(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	x := row.Clips[i]
	undo := x.window()
	x.Start, x.Offset, x.Frames, x.FadeIn, x.FadeOut, x.Swell = c.Start, c.Offset, c.Frames, c.FadeIn, c.FadeOut, c.Swell
	x.Extent, x.Origin = c.Extent, c.Origin
	return []Change{undo}, nil
}
