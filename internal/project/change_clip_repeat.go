package project

import (
	"fmt"
	"math"
	"slices"

	"shoal/internal/param"
)

// maxRepeats is how often a clip is repeated at once.
const maxRepeats = 64

// RepeatClip puts a clip down again and again, each Ticks later than the one before and differing from it by what is
// asked: its level, and a parameter of its treatment, of which each repeat then has its own.
type RepeatClip struct {
	ID    string       `json:"id"`
	Times int          `json:"times"`
	Ticks int64        `json:"ticks"`
	Gain  float64      `json:"gain,omitempty"` // dB from one to the next
	Param *RepeatParam `json:"param,omitempty"`
	// Pitch is by how many semitones each is higher than the one before.
	Pitch float64 `json:"pitch,omitempty"`
}

// RepeatParam is a parameter that differs from repeat to repeat, by parts of its travel.
type RepeatParam struct {
	Owner string  `json:"owner"`
	Name  string  `json:"name"`
	By    float64 `json:"by"` // -1 to 1
}

func (c *RepeatClip) apply(p *Project, effects Effects) (undo []Change, err error) {
	row, i, ok := p.findClip(c.ID)
	if !ok {
		return nil, Gone("the clip")
	}
	if c.Times < 1 || c.Times > maxRepeats {
		return nil, fmt.Errorf("repeated %d times: it must be 1 to %d", c.Times, maxRepeats)
	}
	if c.Ticks < 1 {
		return nil, fmt.Errorf("each repeat must come later than the one before: choose a note length")
	}
	x, clock := row.Clips[i], p.Clock()
	tick := int64(math.Round(clock.Tick(x.BeginsAt(clock))))
	for k := 1; k <= c.Times; k++ {
		n := Clone(x)
		n.ID, n.Gain = NewID(), max(-120, min(36, x.Gain+float64(k)*c.Gain))
		if n.Start = tick + int64(k)*c.Ticks; !x.Follows {
			n.Start = x.BeginsAt(clock) + clock.Frame(tick+int64(k)*c.Ticks) - clock.Frame(tick)
		}
		list := []Change{&AddClip{row.ID, i + k, n}}
		if c.Param != nil {
			own, err := p.repeatedTreatment(x, n, c.Param, float64(k), effects)
			if err != nil {
				return nil, err
			}
			list = append(list, own...)
		}
		back, err := p.each(effects, list...)
		if err != nil {
			return nil, err
		}
		undo = slices.Concat(back, undo)
		if c.Pitch != 0 {
			if back, err = p.repeatedPitch(n, c.Pitch*float64(k), c.Param != nil, effects); err != nil {
				return nil, err
			}
			undo = slices.Concat(back, undo)
		}
	}
	return undo, nil
}

// repeatedPitch puts a Pitch step of so many semitones at the beginning of a repeat's own treatment.
func (p *Project) repeatedPitch(n *Clip, semitones float64, own bool, effects Effects) ([]Change, error) {
	x, _ := p.ClipByID(n.ID)
	t, list := &Treatment{ID: NewID(), Chain: Chain{Nodes: []*Node{}}}, []Change{}
	if now, ok := p.TreatmentByID(x.Treatment); ok && own {
		t = now
	} else if ok {
		list = p.givenCopy(x, now)
		t = list[0].(*PutTreatment).Treatment
	} else {
		list = append(list, &PutTreatment{len(p.Treatments), t}, &SetClip{ID: x.ID, Treatment: &t.ID})
	}
	s, err := stageOf(PitchStep, effects)
	if err != nil {
		return nil, err
	}
	whole := math.Trunc(semitones)
	s.Params = map[string]float64{"semitones": whole, "cents": math.Round(100 * (semitones - whole))}
	return p.each(effects, append(list, &AddNode{Owner: t.ID, Index: 0, Node: &Node{Stage: s}})...)
}

// repeatedTreatment gives a repeat a copy of the treatment in which a parameter is moved along its travel.
func (p *Project) repeatedTreatment(x, n *Clip, what *RepeatParam, times float64, effects Effects) ([]Change, error) {
	t, ok := p.TreatmentByID(x.Treatment)
	if !ok {
		return nil, fmt.Errorf("%s has no treatment: add a stage to it whose parameter is to differ", x.Name)
	}
	if of, ok := p.TreatmentOf(what.Owner); !ok || of.ID != t.ID {
		return nil, fmt.Errorf("that parameter is not of the treatment of %s", x.Name)
	}
	d, now, err := p.Describe(what.Owner, what.Name, effects)
	if err != nil {
		return nil, err
	}
	if d.Taper == param.Switch {
		return nil, fmt.Errorf("%s is a switch: it cannot differ by steps", d.Label)
	}
	copied, fresh := t.again()
	v := d.Clamp(d.At(max(0, min(1, d.Place(now)+times*what.By))))
	if d.Stepped() {
		v = math.Round(v)
	}
	list := append([]Change{&PutTreatment{len(p.Treatments), copied}}, linesAgain(p.LinesWithin(t), fresh)...)
	return append(list,
		&SetClip{ID: n.ID, Treatment: &copied.ID},
		&SetParam{Owner: fresh[what.Owner], Name: what.Name, Value: v}), nil
}
