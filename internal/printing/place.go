package printing

import (
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/project"
)

// Lineage is what a print was made from.
type Lineage struct {
	Project  string         `json:"project"`
	Revision int64          `json:"revision"`
	Channel  string         `json:"channel"`
	Name     string         `json:"name"`
	From     int64          `json:"from"`
	To       int64          `json:"to"`
	Tail     bool           `json:"tail"`
	Chain    project.Chain  `json:"chain"`
	Lines    []project.Line `json:"lines"`
}

// NewLineage notes what a print of a channel is made from.
func NewLineage(doc *project.Project, revision int64, spec Spec) Lineage {
	ch, _ := doc.Channel(spec.Channel)
	l := Lineage{
		Project:  doc.Name,
		Revision: revision,
		Channel:  ch.ID,
		Name:     ch.Name,
		From:     spec.From,
		To:       spec.To,
		Tail:     spec.Tail,
		Chain:    ch.Chain,
		Lines:    []project.Line{},
	}
	owned := map[string]bool{}
	ch.Chain.Walk(func(_ *project.Chain, _ int, n *project.Node) bool { owned[n.ID()] = true; return true })
	for _, x := range doc.Lines {
		if owned[x.Owner] {
			l.Lines = append(l.Lines, *x)
		}
	}
	return l
}

// Words tells a lineage in one line, for a file's coding history.
func (l Lineage) Words() string {
	s := fmt.Sprintf("%s, %s revision %d, frames %d to %d:", l.Name, l.Project, l.Revision, l.From, l.To)
	if len(l.Chain.Nodes) == 0 {
		return s + " no stages"
	}
	for i, n := range l.Chain.Nodes {
		if i > 0 {
			s += " >"
		}
		switch {
		case n.Fork != nil:
			s += " fork"
		case n.Stage.Bypass:
			s += " (" + n.Stage.Effect + ")"
		default:
			s += " " + n.Stage.Effect
		}
	}
	return s + "\r\n"
}

// Place is the change that puts a print on a new track beside its source. Where the source is muted, the mix stays as
// it is.
func Place(printID string, spec Spec, sound audiofile.Entry) []project.Change {
	return []project.Change{
		&project.PlacePrint{Source: spec.Channel, Print: printID, ID: project.NewID(), Start: spec.From, Mute: spec.Mute,
			Audio: project.Audio{Hash: sound.Hash, Frames: sound.Frames, Channels: sound.Channels}},
	}
}
