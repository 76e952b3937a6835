package project

import (
	"fmt"
	"math"
)

// FitClip lets a clip last so many frames of the song, at its pitch: a Length step of its treatment says by how much.
// A treatment that it shares becomes its own. In place of frames it can be fitted to a range of the song, where it then
// begins, or to the nearest number of whole bars.
type FitClip struct {
	ID     string     `json:"id"`
	Frames int64      `json:"frames,omitempty"`
	Range  *ClipRange `json:"range,omitempty"`
	Bars   bool       `json:"bars,omitempty"`
}

func (c *FitClip) apply(p *Project, effects Effects) ([]Change, error) {
	x, ok := p.ClipByID(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	frames, clock := c.Frames, p.Clock()
	var moved []Change
	switch {
	case c.Range != nil:
		frames, moved = c.Range.To-c.Range.From, x.startingAt(c.Range.From, clock)
	case c.Bars:
		frames = x.wholeBars(clock)
	}
	if frames < 1 {
		return nil, fmt.Errorf("%s cannot last %d frames: a piece is one at least", x.Name, frames)
	}
	if frames == x.Frames {
		if len(moved) == 0 {
			return nil, fmt.Errorf("%s lasts as long as that already", x.Name)
		}
		return p.each(effects, moved...)
	}
	t, list := p.treatmentToFit(x)
	s := t.Chain.lastLength(effects)
	now := 100.0
	if s == nil {
		var err error
		if s, err = stageOf(LengthStep, effects); err != nil {
			return nil, err
		}
		list = append(list, &AddNode{Owner: t.ID, Index: t.Chain.behindWholes(effects), Node: &Node{Stage: s}})
	} else {
		now = setting(s, effects, "percent")
	}
	percent := now * float64(frames) / float64(x.Frames)
	if info, _ := effects(LengthStep, 0); true {
		if d, ok := info.Param("percent"); ok && d.Check(percent) != nil {
			return nil, fmt.Errorf("%s would be %.4g %% of its length: it can be %g to %g", x.Name, percent, d.Min, d.Max)
		}
	}
	list = append(list, &SetParam{Owner: s.ID, Name: "percent", Value: percent})
	return p.each(effects, append(list, moved...)...)
}

// wholeBars is how many frames the nearest number of whole bars lasts from where a clip begins.
func (x *Clip) wholeBars(clock *Clock) int64 {
	begin := x.BeginsAt(clock)
	tick := int64(math.Round(clock.Tick(begin)))
	bar := clock.MeterAt(tick).BarTicks()
	long := clock.Tick(begin+x.Frames) - float64(tick)
	bars := max(1, int64(math.Round(long/float64(bar))))
	return clock.Frame(tick+bars*bar) - begin
}

// treatmentToFit is a clip's treatment for it alone, and what makes it so.
func (p *Project) treatmentToFit(x *Clip) (*Treatment, []Change) {
	t, ok := p.TreatmentByID(x.Treatment)
	switch {
	case !ok:
		n := &Treatment{ID: NewID(), Chain: Chain{Nodes: []*Node{}}}
		return n, []Change{&PutTreatment{len(p.Treatments), n}, &SetClip{ID: x.ID, Treatment: &n.ID}}
	case len(p.TreatedBy(t.ID)) > 1:
		list := p.givenCopy(x, t)
		return list[0].(*PutTreatment).Treatment, list
	}
	return t, nil
}

// lastLength is the last Length step of a chain that acts and goes by percent; nil: there is none.
func (c *Chain) lastLength(effects Effects) (last *Stage) {
	for _, s := range c.Wholes(effects, true) {
		if s.Effect == LengthStep && setting(s, effects, "by") == 0 {
			last = s
		}
	}
	return last
}

// behindWholes is the place in a chain behind its last whole-sound step.
func (c *Chain) behindWholes(effects Effects) (index int) {
	for i, n := range c.Nodes {
		if n.Stage != nil {
			if info, _ := effects(n.Stage.Effect, n.Stage.Version); info.Whole {
				index = i + 1
			}
		}
	}
	return index
}
