package printing

import (
	"slices"
	"strings"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// StemShare is what a row gives to its output, with all that the returns make of it. Of all that feed main together
// belongs StemRest: what comes into main and is in none of them.
const (
	StemShare = "share"
	StemRest  = "rest"
)

// restFloor is the level up to which the rest is no file: -120 dBFS.
const restFloor = -120

// files are the stems that are made: a return has no share of its own, and the rest comes by itself.
func (s *Stems) files(doc *project.Project) []Stem {
	var out []Stem
	shared := map[string]bool{}
	for _, x := range s.Rows {
		ch, ok := doc.Channel(x.Channel)
		if ok && x.Kind == StemShare {
			if ch.Kind == project.Return || ch.Kind == project.Main {
				continue
			}
			shared[x.Channel] = true
		}
		out = append(out, x)
	}
	if len(shared) > 0 && len(lacking(doc, shared)) == 0 {
		out = append(out, Stem{doc.MainChannel().ID, StemRest})
	}
	return out
}

// lacking are the rows that feed main, are no returns, and are not among those.
func lacking(doc *project.Project, rows map[string]bool) (names []string) {
	main := doc.MainChannel().ID
	for _, ch := range doc.Channels {
		if ch.Output == main && ch.Kind != project.Return && !rows[ch.ID] {
			names = append(names, ch.Name)
		}
	}
	return names
}

// saysOfShares is what is to be known of shares before they are made.
func (s *Stems) saysOfShares(doc *project.Project) []string {
	shared := map[string]bool{}
	var returns []string
	for _, x := range s.Rows {
		if x.Kind != StemShare {
			continue
		}
		ch, _ := doc.Channel(x.Channel)
		if shared[x.Channel] = true; ch.Kind == project.Return {
			returns = append(returns, ch.Name)
		}
	}
	if len(shared) == 0 {
		return nil
	}
	var says []string
	main := doc.MainChannel().Name
	if l := lacking(doc, shared); len(l) == 0 {
		says = append(says, "The rows with their shares, and the rest, sum to what comes into "+main+
			", below -120 dBFS. Compressors and limiters on returns hear all rows, as in the mix; what cannot sum, such as saturation, is the rest.")
	} else {
		says = append(says, "The rows with their shares do not sum to the mix, and there is no rest: "+inWords(l)+" also feed "+main+".")
	}
	if len(returns) > 0 {
		says = append(says, "No files of their own: "+inWords(returns)+". They are in the shares of the rows that send there.")
	}
	return says
}

// staged is the document that stems are rendered from, with the point at which each of them is taken.
func (s *Stems) staged(doc *project.Project) (*project.Project, []project.Tap) {
	files := s.files(doc)
	var rows []string
	for _, x := range files {
		if x.Kind == StemShare && !slices.Contains(rows, x.Channel) {
			rows = append(rows, x.Channel)
		}
	}
	groups := map[string]string{}
	if len(rows) > 0 {
		doc, groups = doc.Shares(rows, engine.EffectInfo)
	}
	taps := make([]project.Tap, len(files))
	for i, x := range files {
		switch x.Kind {
		case StemShare:
			taps[i] = project.Tap{Channel: groups[x.Channel], Point: "pre"}
		case StemRest:
			taps[i] = project.Tap{Channel: addRest(doc, groups), Point: "pre"}
		default:
			taps[i] = x.point()
		}
	}
	return doc, taps
}

// addRest adds a row that has what comes into main, less the groups of the rows that feed it, and returns its id.
func addRest(doc *project.Project, groups map[string]string) string {
	main := doc.MainChannel()
	less, rest := project.NewChannel(project.Group, "less", ""), project.NewChannel(project.Group, "rest", "")
	turned := project.NewStage("trim", 1, 100, "blend")
	turned.Params["polarity"] = 3 // both sides
	less.Chain.Nodes = []*project.Node{{Stage: turned}}
	less.Sends = []*project.Send{{ID: project.NewID(), To: rest.ID, Pre: true}}
	rest.Input = &project.Tap{Channel: main.ID, Point: "input"}
	for _, ch := range doc.Channels {
		if id, ok := groups[ch.ID]; ok && ch.Output == main.ID {
			group, _ := doc.Channel(id)
			group.Sends = []*project.Send{{ID: project.NewID(), To: less.ID, Pre: true}}
		}
	}
	doc.Channels = append(doc.Channels, less, rest)
	return rest.ID
}

// noRest reports whether a stem is a rest of which there is nothing to speak of.
func (s *stemFile) noRest(x Stem) bool {
	return x.Kind == StemRest && (s.frames == 0 || s.report.Peak <= restFloor)
}

// title is what a stem is called in names of files and on the sheet.
func (s Stem) title(doc *project.Project) string {
	if s.Kind == StemRest {
		return "The rest"
	}
	ch, _ := doc.Channel(s.Channel)
	return strings.TrimSpace(ch.Name)
}
