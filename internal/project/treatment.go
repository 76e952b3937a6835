package project

import (
	"fmt"
	"slices"
)

// Treatment is a chain for pieces: what clips pass before they come into their row. Several clips may name the same one.
type Treatment struct {
	ID    string `json:"id" required:"true"`
	Name  string `json:"name" required:"true"` // empty: nobody has named it
	Chain Chain  `json:"chain" required:"true"`
}

// TreatmentKind is the kind of what stands in a row's place where a treatment's chain is spoken of.
const TreatmentKind = "treatment"

// row stands in the place of a row for what is in a treatment: nothing can be tapped, sent or tried there.
func (t *Treatment) row() *Channel {
	return &Channel{ID: t.ID, Kind: TreatmentKind, Name: t.Title(), Stereo: true}
}

// errTreatment refuses what only a row can have.
func errTreatment(what string) error {
	return fmt.Errorf("a piece's treatment has no %s: that belongs to its row", what)
}

// Title is what a treatment is called.
func (t *Treatment) Title() string {
	if t.Name != "" {
		return t.Name
	}
	return "the treatment"
}

// TreatmentByID finds a treatment.
func (p *Project) TreatmentByID(id string) (*Treatment, bool) {
	i := slices.IndexFunc(p.Treatments, func(t *Treatment) bool { return t.ID == id })
	if i < 0 {
		return nil, false
	}
	return p.Treatments[i], true
}

// TreatmentOf finds the treatment in which an owner of parameters or a chain stands: itself, a stage, a fork or a path.
func (p *Project) TreatmentOf(owner string) (*Treatment, bool) {
	for _, t := range p.Treatments {
		ids := Owners(t.Chain.Nodes)
		if t.ID == owner || ids[owner] {
			return t, true
		}
	}
	return nil, false
}

// TreatedBy are the clips that name a treatment.
func (p *Project) TreatedBy(id string) (clips []*Clip) {
	for _, c := range p.Channels {
		for _, x := range c.Clips {
			if x.Treatment == id {
				clips = append(clips, x)
			}
		}
	}
	return clips
}

// dropUnused forgets the treatments that no clip names any more, and returns what brings them back.
func (p *Project) dropUnused() (undo []Change) {
	used := map[string]bool{}
	for _, c := range p.Channels {
		for _, x := range c.Clips {
			used[x.Treatment] = true
		}
	}
	for i := len(p.Treatments) - 1; i >= 0; i-- {
		if t := p.Treatments[i]; !used[t.ID] {
			lines := p.dropLines(Owners(t.Chain.Nodes))
			p.Treatments = slices.Delete(p.Treatments, i, i+1)
			undo = slices.Concat([]Change{&PutTreatment{Index: i, Treatment: t}}, lines, undo)
		}
	}
	if len(p.Treatments) == 0 {
		p.Treatments = nil
	}
	return undo
}

// checkTreatments checks the rules of treatments, and what moves what stands in them.
func (p *Project) checkTreatments(effects Effects) error {
	within, there := map[string]bool{}, map[string]bool{"": true}
	for _, t := range p.Treatments {
		there[t.ID] = true
		if t.Name != "" && !ValidName(t.Name) {
			return fmt.Errorf("a treatment's name has 1 to 80 letters")
		}
		if err := p.checkChain(&t.Chain, effects, 0); err != nil {
			return fmt.Errorf("%s: %w", t.Title(), err)
		}
		if err := wholesInPlace(&t.Chain, effects, true); err != nil {
			return fmt.Errorf("%s: %w", t.Title(), err)
		}
		keyed := false
		t.Chain.Walk(func(_ *Chain, _ int, n *Node) bool {
			keyed = keyed || n.Stage != nil && n.Stage.Key != nil
			return true
		})
		if keyed {
			return fmt.Errorf("%s: a stage of a piece's treatment hears only the piece: it has no key from elsewhere", t.Title())
		}
		for id := range Owners(t.Chain.Nodes) {
			within[id] = true
		}
	}
	for _, c := range p.Channels {
		for _, x := range c.Clips {
			if !there[x.Treatment] {
				return fmt.Errorf("clip %s: its treatment %q does not exist", x.Name, x.Treatment)
			}
		}
	}
	if err := p.linedOnlyLive(effects); err != nil {
		return err
	}
	return p.unmovedTreatments(within)
}

// unmovedTreatments refuses movers, handles and passages on what stands in treatments: they run in the time of the song.
func (p *Project) unmovedTreatments(within map[string]bool) error {
	if len(within) == 0 {
		return nil
	}
	refused := func(what string) error {
		return fmt.Errorf("%s cannot move what stands in a piece's treatment: give it a line, or put the stage on the row", what)
	}
	for _, m := range p.Movers {
		if slices.ContainsFunc(m.Targets, func(t MoverTarget) bool { return within[t.Owner] }) {
			return refused("the mover " + m.Name)
		}
	}
	for _, h := range p.Handles {
		if slices.ContainsFunc(h.Targets, func(t HandleTarget) bool { return within[t.Owner] }) {
			return refused("the handle " + h.Name)
		}
	}
	for _, x := range p.Passages {
		for _, c := range x.Courses {
			if slices.ContainsFunc(c.Targets, func(t CourseTarget) bool { return within[t.Owner] }) {
				return refused("the passage " + x.Name)
			}
		}
	}
	return nil
}
