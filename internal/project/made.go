package project

import (
	"fmt"
	"math"
	"slices"
)

// Made is what a clip was before its treatment was made permanent. It is never changed, only replaced.
type Made struct {
	Clip      Clip       `json:"clip" required:"true"`
	Treatment *Treatment `json:"treatment,omitempty"`
	Lead      int64      `json:"lead,omitempty"` // frames that now sound before where it began
}

// MakePermanent gives a clip a sound of its own in place of its treatment: what was made of it. Its level, its swell
// and its place stay. Where it rings on, the sound holds its fades and its tails: Lead frames of them lie before it.
type MakePermanent struct {
	ID    string `json:"id"`
	Audio Audio  `json:"audio"`
	Lead  int64  `json:"lead,omitempty"`
}

func (c *MakePermanent) apply(p *Project, effects Effects) ([]Change, error) {
	row, i, ok := p.findClip(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	x := row.Clips[i]
	t, ok := p.TreatmentByID(x.Treatment)
	if !ok {
		return nil, fmt.Errorf("%s has no treatment that could be made permanent", x.Name)
	}
	if c.Audio.Frames < 1 || c.Lead < 0 || c.Lead >= c.Audio.Frames {
		return nil, fmt.Errorf("what was made of %s has %d frames, %d of them before it", x.Name, c.Audio.Frames, c.Lead)
	}
	clock := p.Clock()
	made := &Made{Clip: *x, Treatment: Clone(t), Lead: c.Lead}
	n := *x
	n.Audio, n.Treatment, n.Rings, n.Extent, n.Made = c.Audio.Hash, "", false, nil, made
	n.Start = x.BeginsAt(clock) - c.Lead
	n.Offset, n.Frames = max(0, -n.Start), c.Audio.Frames
	n.Start = max(0, n.Start)
	n.Frames -= n.Offset
	if n.Follows {
		n.Start = int64(math.Round(clock.Tick(n.Start)))
	}
	if x.Rings {
		n.FadeIn, n.FadeOut, n.InShape, n.OutShape, n.InBend, n.OutBend, n.Exact = 0, 0, "", "", 0, 0, true
	}
	n.fitFades()
	n.Swell = x.swellFrom(x.Offset, c.Lead)
	return p.each(effects, &AddAudio{c.Audio}, &RemoveClip{x.ID}, &AddClip{row.ID, i, &n})
}

// swellFrom is a clip's swell as one of a sound that begins at a frame of its audio, so many frames in.
func (x *Clip) swellFrom(frame, lead int64) (out []Swell) {
	if len(x.Swell) == 0 {
		return nil
	}
	first := Swell{At: lead, Gain: x.SwellAt(frame)}
	for _, s := range x.Swell {
		if s.At <= frame {
			first.Step = s.Step
			continue
		}
		out = append(out, Swell{At: s.At - frame + lead, Gain: s.Gain, Step: s.Step})
	}
	return slices.Insert(out, 0, first)
}

// BringBack gives a clip back what it was before its treatment was made permanent, where it lies now.
type BringBack struct {
	ID string `json:"id"`
}

func (c *BringBack) apply(p *Project, effects Effects) ([]Change, error) {
	row, i, ok := p.findClip(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	x := row.Clips[i]
	if x.Made == nil {
		return nil, fmt.Errorf("%s has not been made from anything: there is nothing to bring back", x.Name)
	}
	clock := p.Clock()
	n := x.Made.Clip
	n.ID, n.Name, n.Gain, n.Mute, n.Tint, n.Over, n.Follows = x.ID, x.Name, x.Gain, x.Mute, x.Tint, x.Over, x.Follows
	n.Start = max(0, x.BeginsAt(clock)-x.Offset+x.Made.Lead)
	if n.Follows {
		n.Start = int64(math.Round(clock.Tick(n.Start)))
	}
	var list []Change
	if t := x.Made.Treatment; t != nil {
		list = append(list, &PutTreatment{len(p.Treatments), t})
	}
	return p.each(effects, append(list, &RemoveClip{x.ID}, &AddClip{row.ID, i, &n})...)
}

// uses reports whether a clip plays a sound, or was made from it.
func (x *Clip) uses(hash string) bool {
	return x.Audio == hash || x.Made != nil && x.Made.Clip.uses(hash)
}
