package preset

import (
	"fmt"

	"shoal/internal/project"
)

// Dropped gives the changes that add a preset to a chain (its owner's id) at an index, or to the end of the treatment of a
// clip (its id); a clip without one gets one. Nothing that stands there goes away.
func (p *Preset) Dropped(doc *project.Project, on string, index int) ([]project.Change, error) {
	nodes, err := p.added(doc, on)
	if err != nil {
		return nil, err
	}
	x, ok := doc.ClipByID(on)
	if !ok {
		return []project.Change{&project.PasteNodes{Owner: on, Index: index, Nodes: nodes}}, nil
	}
	if t, ok := doc.TreatmentByID(x.Treatment); ok {
		return []project.Change{&project.PasteNodes{Owner: t.ID, Index: len(t.Chain.Nodes), Nodes: nodes}}, nil
	}
	t := &project.Treatment{ID: project.NewID(), Chain: project.Chain{Nodes: []*project.Node{}}}
	return []project.Change{
		&project.PutTreatment{Index: len(doc.Treatments), Treatment: t},
		&project.SetClip{ID: x.ID, Treatment: &t.ID},
		&project.PasteNodes{Owner: t.ID, Nodes: nodes},
	}, nil
}

// added are the nodes that a preset adds to a chain.
func (p *Preset) added(doc *project.Project, owner string) ([]*project.Node, error) {
	if p.Kind != Stage {
		nodes := p.nodes()
		if len(nodes) == 0 {
			return nil, fmt.Errorf("%s holds no stages", p.Name)
		}
		return nodes, nil
	}
	s, err := p.stage(doc.Wet(owner))
	if err != nil {
		return nil, err
	}
	return []*project.Node{{Stage: s}}, nil
}
