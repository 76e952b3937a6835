package project

import (
	"fmt"
	"math"
	"slices"
)

// Made is what a clip's sound was made from: clips as they were, with their treatments. It is never changed, only
// replaced.
type Made struct {
	Clips      []Clip       `json:"clips" required:"true"`
	Treatments []*Treatment `json:"treatments,omitempty"`
	Lines      []*Line      `json:"lines,omitempty"` // of what stands in the treatments
	Lead       int64        `json:"lead,omitempty"`  // frames of the sound before the first of them begins
	// Key is that of its makings, where it is what came out of a row; empty: nobody knows.
	Key string `json:"key,omitempty"`
	// Nodes are the stages of its row, where they were taken away then.
	Nodes []*Node `json:"nodes,omitempty"`
}

// MadeFrom is what is kept of clips of which something is made.
func (p *Project) MadeFrom(clips []*Clip, lead int64) *Made {
	m := &Made{Lead: lead}
	for _, x := range clips {
		m.Clips = append(m.Clips, *x)
		if t, ok := p.TreatmentByID(x.Treatment); ok && !slices.ContainsFunc(m.Treatments, func(k *Treatment) bool { return k.ID == t.ID }) {
			m.Treatments = append(m.Treatments, Clone(t))
			for _, l := range p.LinesWithin(t) {
				m.Lines = append(m.Lines, &Line{l.Owner, l.Name, joined(l.Points)})
			}
		}
	}
	return m
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
	if _, ok = p.TreatmentByID(x.Treatment); !ok {
		return nil, fmt.Errorf("%s has no treatment that could be made permanent", x.Name)
	}
	if c.Audio.Frames < 1 || c.Lead < 0 || c.Lead >= c.Audio.Frames {
		return nil, fmt.Errorf("what was made of %s has %d frames, %d of them before it", x.Name, c.Audio.Frames, c.Lead)
	}
	clock := p.Clock()
	n := *x
	n.Audio, n.Treatment, n.Rings, n.Extent, n.Made = c.Audio.Hash, "", false, nil, p.MadeFrom([]*Clip{x}, c.Lead)
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

// PrintClips puts a sound in the place of clips of one row: what comes of them behind the row's chain. It enters there, so
// that all else on the row stays as it is. What it was made from is kept.
type PrintClips struct {
	Clips []string `json:"clips"`
	ID    string   `json:"id"` // of the new clip
	Audio Audio    `json:"audio"`
	Start int64    `json:"start"` // song frame
	// Within is a stretch of the song: the clips are cut at its ends first, and only what lies inside is printed.
	Within *ClipRange `json:"within,omitempty"`
	Key    string     `json:"key,omitempty"` // of the makings, see Remade
	// Empty takes the row's stages away: then the sound comes in where they stood. It has to be all that passes them.
	Empty bool `json:"empty,omitempty"`
	// Gain brings the new clip to a level, in dB.
	Gain float64 `json:"gain,omitempty"`
}

func (c *PrintClips) apply(p *Project, effects Effects) (undo []Change, err error) {
	ids := c.Clips
	if c.Within != nil {
		if ids, undo, err = p.cutOut(ids, *c.Within, effects); err != nil {
			return nil, err
		}
	}
	row, clips, err := p.clipsOfOneRow(ids)
	if err != nil {
		return nil, err
	}
	if c.Start < 0 || c.Audio.Frames < 1 {
		return nil, fmt.Errorf("a print of %d frames from frame %d on", c.Audio.Frames, c.Start)
	}
	clock := p.Clock()
	n := &Clip{ID: c.ID, Name: ShortName(c.Audio.Name), Audio: c.Audio.Hash, Start: c.Start, Frames: c.Audio.Frames, Exact: true,
		Gain: c.Gain, Enters: EntersBehind, Tint: clips[0].Tint, Follows: clips[0].Follows}
	if n.ID == "" {
		n.ID = NewID()
	}
	if n.Follows {
		n.Start = int64(math.Round(clock.Tick(c.Start)))
	}
	n.Made = p.MadeFrom(clips, clips[0].BeginsAt(clock)-c.Start)
	n.Made.Key = c.Key
	index := slices.Index(row.Clips, clips[0])
	list := []Change{&AddAudio{c.Audio}}
	if c.Empty {
		if err := p.canEmpty(row, clips); err != nil {
			return nil, err
		}
		n.Enters, n.Made.Nodes = "", Clone(row).Chain.Nodes
		for _, x := range row.Chain.Nodes {
			list = append(list, &RemoveNode{x.ID()})
		}
	}
	for _, x := range clips {
		list = append(list, &RemoveClip{x.ID})
	}
	back, err := p.each(effects, append(list, &AddClip{row.ID, index, n})...)
	return slices.Concat(back, undo), err
}

// CutOut is a project in which clips are cut at the ends of a range, with those that lie inside it then.
func CutOut(p *Project, clips []string, within ClipRange, effects Effects) (next *Project, inside []string, err error) {
	next = p.copy()
	inside, _, err = next.cutOut(clips, within, effects)
	return next, inside, err
}

// clipsOfOneRow are clips by their begin, and the row on which all of them lie.
func (p *Project) clipsOfOneRow(ids []string) (row *Channel, clips []*Clip, err error) {
	for _, id := range ids {
		at, i, ok := p.findClip(id)
		if !ok {
			return nil, nil, Gone("the clip")
		}
		if row != nil && at != row {
			return nil, nil, fmt.Errorf("these clips lie on %s and %s: print those of one row at a time", row.Name, at.Name)
		}
		row, clips = at, append(clips, at.Clips[i])
	}
	if len(clips) == 0 {
		return nil, nil, fmt.Errorf("select the clips that are to be printed")
	}
	clock := p.Clock()
	slices.SortStableFunc(clips, func(a, b *Clip) int { return compare(a.BeginsAt(clock), b.BeginsAt(clock)) })
	return row, clips, nil
}

// BringBack gives a clip back what it was made from, where it lies now: the last round of printing.
type BringBack struct {
	ID string `json:"id"`
}

func (c *BringBack) apply(p *Project, effects Effects) ([]Change, error) {
	row, i, ok := p.findClip(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	x := row.Clips[i]
	if x.Made == nil || len(x.Made.Clips) == 0 {
		return nil, fmt.Errorf("%s has not been made from anything: there is nothing to bring back", x.Name)
	}
	clock := p.Clock()
	by := x.BeginsAt(clock) - x.Offset + x.Made.Lead - x.Made.Clips[0].BeginsAt(clock)
	var list []Change
	for _, t := range x.Made.Treatments {
		if _, ok := p.TreatmentByID(t.ID); ok {
			continue // another clip has it still
		}
		list = append(list, &PutTreatment{len(p.Treatments), t})
		same := map[string]string{}
		for id := range Owners(t.Chain.Nodes) {
			same[id] = id
		}
		list = append(list, linesAgain(x.Made.Lines, same)...)
	}
	list = append(list, &RemoveClip{x.ID})
	for k := range x.Made.Clips {
		n := x.Made.Clips[k]
		if n.ID == x.ID { // it is the same clip: what was set of it since stays
			n.Name, n.Gain, n.Mute, n.Tint, n.Over, n.Enters = x.Name, x.Gain, x.Mute, x.Tint, x.Over, x.Enters
		} else if _, taken := p.ClipByID(n.ID); taken {
			n.ID = NewID()
		}
		start := max(0, n.BeginsAt(clock)+by)
		if n.Start = start; n.Follows {
			n.Start = int64(math.Round(clock.Tick(start)))
		}
		list = append(list, &AddClip{row.ID, i + k, &n})
	}
	if len(x.Made.Nodes) > 0 && len(row.Chain.Nodes) == 0 {
		list = append(list, &PutChainBack{row.ID, x.Made.Nodes})
	}
	return p.each(effects, list...)
}

// uses reports whether a clip plays a sound, or was made from it.
func (x *Clip) uses(hash string) bool {
	return x.Audio == hash || x.Made != nil && slices.ContainsFunc(x.Made.Clips, func(y Clip) bool { return y.uses(hash) })
}
