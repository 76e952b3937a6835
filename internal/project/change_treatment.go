package project

import (
	"fmt"
	"slices"
)

// PutTreatment brings a treatment back as it was.
type PutTreatment struct {
	Index     int        `json:"index"`
	Treatment *Treatment `json:"treatment"`
}

func (c *PutTreatment) apply(p *Project, _ Effects) ([]Change, error) {
	if c.Treatment == nil {
		return nil, fmt.Errorf("there is no treatment to put")
	}
	if err := noHoles(&c.Treatment.Chain, 0); err != nil {
		return nil, err
	}
	if _, ok := p.TreatmentByID(c.Treatment.ID); ok {
		return nil, nil // it is there already
	}
	p.Treatments = insert(p.Treatments, c.Index, Clone(c.Treatment))
	return nil, nil // what no clip names goes by itself
}

// TreatClips puts a new stage of an effect at the end of the treatments of clips. Those that have none share a new one.
// With a range they are cut at its ends first, and only what lies inside is treated.
type TreatClips struct {
	Clips  []string   `json:"clips"`
	Effect string     `json:"effect"`
	ID     string     `json:"id,omitempty"` // of the new stage
	Within *ClipRange `json:"within,omitempty"`
}

// ClipRange is a stretch of the song in frames.
type ClipRange struct {
	From int64 `json:"from"`
	To   int64 `json:"to"`
}

func (c *TreatClips) apply(p *Project, effects Effects) (undo []Change, err error) {
	if _, ok := effects(c.Effect, 0); !ok {
		return nil, noEffect(c.Effect)
	}
	ids := c.Clips
	if c.Within != nil {
		if ids, undo, err = p.cutOut(ids, *c.Within, effects); err != nil {
			return nil, err
		}
	}
	var list []Change
	fresh, done := "", map[string]bool{}
	for _, id := range ids {
		x, ok := p.ClipByID(id)
		if !ok {
			return nil, Gone("the clip")
		}
		at := x.Treatment
		if at == "" {
			if fresh == "" {
				fresh = NewID()
				list = append(list, &PutTreatment{len(p.Treatments), &Treatment{ID: fresh, Chain: Chain{Nodes: []*Node{}}}})
			}
			list, at = append(list, &SetClip{ID: id, Treatment: &fresh}), fresh
		}
		if done[at] {
			continue
		}
		done[at] = true
		s, err := stageOf(c.Effect, effects)
		if err != nil {
			return nil, err
		}
		if c.ID != "" && len(done) == 1 {
			s.ID = c.ID
		}
		list = append(list, &AddNode{Owner: at, Index: 1 << 20, Node: &Node{Stage: s}})
	}
	if len(list) == 0 {
		return nil, fmt.Errorf("there is no clip to treat")
	}
	back, err := p.each(effects, list...)
	return slices.Concat(back, undo), err
}

// cutOut cuts clips at the ends of a range, and returns those that lie inside it.
func (p *Project) cutOut(ids []string, r ClipRange, effects Effects) (inside []string, undo []Change, err error) {
	clock := p.Clock()
	for _, row := range p.Channels {
		before := slices.Clone(row.Clips)
		for _, x := range before {
			if !slices.Contains(ids, x.ID) {
				continue
			}
			back, err := p.cutClip(row, x, []int64{r.From, r.To}, clock, effects)
			if err != nil {
				return nil, nil, err
			}
			undo = slices.Concat(back, undo)
		}
		for _, x := range row.Clips {
			old := slices.Contains(before, x) && !slices.Contains(ids, x.ID)
			if middle := x.BeginsAt(clock) + x.Frames/2; !old && middle >= r.From && middle < r.To {
				inside = append(inside, x.ID)
			}
		}
	}
	if len(inside) == 0 {
		return nil, nil, fmt.Errorf("no clip lies in the range")
	}
	return inside, undo, nil
}

// OwnTreatment gives clips a copy of their treatment each, so that it can differ from that of the others.
type OwnTreatment struct {
	Clips []string `json:"clips"`
}

func (c *OwnTreatment) apply(p *Project, effects Effects) ([]Change, error) {
	var list []Change
	for _, id := range c.Clips {
		x, ok := p.ClipByID(id)
		if !ok {
			return nil, Gone("the clip")
		}
		if t, ok := p.TreatmentByID(x.Treatment); ok {
			list = append(list, p.givenCopy(x, t)...)
		}
	}
	if len(list) == 0 {
		return nil, fmt.Errorf("none of these clips has a treatment")
	}
	return p.each(effects, list...)
}

// givenCopy gives a clip a copy of a treatment.
func (p *Project) givenCopy(x *Clip, t *Treatment) []Change {
	n, fresh := t.again()
	list := append([]Change{&PutTreatment{len(p.Treatments), n}}, linesAgain(p.LinesWithin(t), fresh)...)
	return append(list, &SetClip{ID: x.ID, Treatment: &n.ID})
}

// again is a copy of a treatment with ids of its own, and which of them stands for which.
func (t *Treatment) again() (n *Treatment, fresh map[string]string) {
	holder := &Channel{Chain: Clone(t.Chain)}
	fresh = freshIDs(holder)
	return &Treatment{ID: holder.ID, Name: t.Name, Chain: holder.Chain}, fresh
}

// linesAgain puts lines down for owners with other ids.
func linesAgain(lines []*Line, fresh map[string]string) (list []Change) {
	for _, l := range lines {
		if id, ok := fresh[l.Owner]; ok {
			list = append(list, &SetLine{Owner: id, Name: l.Name, Points: joined(l.Points)})
		}
	}
	return list
}

// GiveTreatment gives clips the treatment of another, shared or as a copy for each; without one it takes theirs off.
type GiveTreatment struct {
	From  string   `json:"from,omitempty"` // the clip whose it is
	Clips []string `json:"clips"`
	Copy  bool     `json:"copy,omitempty"`
}

func (c *GiveTreatment) apply(p *Project, effects Effects) ([]Change, error) {
	var t *Treatment
	if c.From != "" {
		from, ok := p.ClipByID(c.From)
		if !ok {
			return nil, Gone("the clip whose treatment it is")
		}
		if t, ok = p.TreatmentByID(from.Treatment); !ok {
			return nil, fmt.Errorf("%s has no treatment", from.Name)
		}
	}
	var list []Change
	for _, id := range c.Clips {
		x, ok := p.ClipByID(id)
		switch {
		case !ok:
			return nil, Gone("the clip")
		case id == c.From:
		case t == nil:
			none := ""
			list = append(list, &SetClip{ID: id, Treatment: &none})
		case c.Copy:
			list = append(list, p.givenCopy(x, t)...)
		default:
			list = append(list, &SetClip{ID: id, Treatment: &t.ID})
		}
	}
	if len(list) == 0 {
		return nil, fmt.Errorf("select the clips that are to have it")
	}
	return p.each(effects, list...)
}
