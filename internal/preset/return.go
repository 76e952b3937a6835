package preset

import (
	"fmt"
	"slices"

	"shoal/internal/project"
)

// AsReturn gives the changes that drop a preset in whole as a new return, with sends to it from
// the rows at a level that can be heard. A stage's preset stands there fully wet. The return's
// name is the preset's, or one with a number.
func (p *Preset) AsReturn(doc *project.Project, id string, rows []string) ([]project.Change, error) {
	main := doc.MainChannel()
	ch := project.NewChannel(project.Return, doc.Unused(p.Name), main.ID)
	if id != "" {
		ch.ID = id
	}
	switch p.Kind {
	case Stage:
		s, err := p.stage(true)
		if err != nil {
			return nil, err
		}
		ch.Chain.Nodes = []*project.Node{{Stage: s}}
	default:
		ch.Chain.Nodes = []*project.Node{} // they come in the change behind
	}
	if b := p.Body; p.Kind == Channel {
		ch.Fader, ch.Pan, ch.Stereo, ch.SoloSafe, ch.Tint = b.Fader, b.Pan, b.Stereo, b.SoloSafe, b.Tint
		for _, to := range doc.Channels {
			if to.Kind == project.Group && to.Name == b.Output {
				ch.Output = to.ID
			}
		}
	}
	list := []project.Change{&project.AddChannel{Channel: ch, Index: slices.Index(doc.Channels, main)}}
	if p.Kind != Stage {
		list = append(list, &project.PutChain{Owner: ch.ID, Nodes: p.nodes(), Moves: p.Body.Moves})
	}
	for _, row := range rows {
		from, ok := doc.Channel(row)
		if !ok {
			return nil, fmt.Errorf("the row to send from is no longer there")
		}
		list = append(list, &project.AddSend{Channel: row, Index: len(from.Sends), Send: &project.Send{To: ch.ID, Level: project.Audible}})
	}
	return list, nil
}
