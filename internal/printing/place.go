package printing

import (
	"fmt"
	"slices"

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
	l := Lineage{Project: doc.Name, Revision: revision, Channel: ch.ID, Name: ch.Name, From: spec.From, To: spec.To, Tail: spec.Tail, Chain: ch.Chain, Lines: []project.Line{}}
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

// Place returns the changes that put a print on a new track beside its source.
// The new track takes over fader, pan, output, sends and their lines, and the
// source is muted with its pre-fader sends, so that the mix stays as it is.
func Place(doc *project.Project, printID string, spec Spec, sound audiofile.Entry) []project.Change {
	name := "Print"
	track := project.NewChannel(project.Track, name, doc.MainChannel().ID)
	index := len(doc.Channels)
	source, ok := doc.Channel(spec.Channel)
	var lines []project.Change
	if ok {
		index = slices.Index(doc.Channels, source) + 1
		name = printName(doc, source.Name)
		track.Stereo, track.Fader, track.Pan, track.Tint, track.Output = source.Stereo, source.Fader, source.Pan, source.Tint, source.Output
		track.PrintOf = &project.Origin{Print: printID, Channel: source.ID, Name: source.Name}
		owners := map[string]string{source.ID: track.ID}
		for _, s := range source.Sends {
			copied := *s
			copied.ID = project.NewID()
			owners[s.ID] = copied.ID
			track.Sends = append(track.Sends, &copied)
		}
		for _, l := range doc.Lines {
			if id, ok := owners[l.Owner]; ok {
				lines = append(lines, &project.SetLine{Owner: id, Name: l.Name, Points: slices.Clone(l.Points)})
			}
		}
	}
	track.Name = name
	track.Clips = []*project.Clip{{ID: project.NewID(), Name: name, Audio: sound.Hash, Start: spec.From, Frames: sound.Frames, Exact: true}}
	batch := []project.Change{
		&project.AddAudio{Audio: project.Audio{Hash: sound.Hash, Name: name, Frames: sound.Frames, Channels: sound.Channels}},
		&project.AddChannel{Channel: track, Index: index},
	}
	batch = append(batch, lines...)
	if ok && spec.Mute {
		yes := true
		batch = append(batch, &project.SetChannel{ID: source.ID, Mute: &yes, MutePre: &yes})
	}
	return batch
}

// printName names a print after its source: "Choir print", "Choir print 2".
func printName(doc *project.Project, source string) string {
	name := source + " print"
	for n := 2; slices.ContainsFunc(doc.Channels, func(c *project.Channel) bool { return c.Name == name }); n++ {
		name = fmt.Sprintf("%s print %d", source, n)
	}
	return name
}
