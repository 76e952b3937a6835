package printing

import (
	"fmt"
	"slices"
	"strings"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// States of steps.
const (
	Holds   = "holds"   // it is what it would be made from now
	Further = "further" // it holds, but something further back has changed
	Changed = "changed" // what it was made from has changed
	Alone   = "alone"   // what it was made from has left the song
	Source  = "source"  // it was not made here: an import, or a recording
)

// Step is one step of where a sound comes from: a print, or what was there first, with the steps before it.
type Step struct {
	Audio   string `json:"audio" required:"true"`
	Kind    string `json:"kind" required:"true" enum:"row,point,place,permanent,outside,take,treated,source"`
	Title   string `json:"title" required:"true"`
	Row     string `json:"row,omitempty"`     // the channel it was printed from
	Project string `json:"project,omitempty"` // the song's name then
	From    int64  `json:"from,omitempty"`    // song frames
	To      int64  `json:"to,omitempty"`
	By      string `json:"by,omitempty"`
	At      string `json:"at,omitempty"` // RFC 3339
	State   string `json:"state" required:"true" enum:"holds,further,changed,alone,source"`
	// Since is what has changed since, in words.
	Since []Since `json:"since" required:"true"`
	Of    []Step  `json:"of" required:"true"`
}

// Since is a difference, and who made it when, where that is known.
type Since struct {
	Owner string `json:"owner,omitempty"`
	Says  string `json:"says" required:"true"`
	By    string `json:"by,omitempty"`
	At    string `json:"at,omitempty"`
}

// Who tells who last changed a facet of the document after a revision, and when; empty: nobody knows.
type Who func(facet string, after int64) (by, at string)

// mostSteps bounds how far back a sound is followed.
const mostSteps = 24

// StepsOf finds where a sound comes from, back to the first sounds, and whether each step still holds.
func StepsOf(doc *project.Project, folder *audiofile.Folder, hash string, who Who) (Step, error) {
	return stepsOf(doc, folder, hash, who, 0)
}

func stepsOf(doc *project.Project, folder *audiofile.Folder, hash string, who Who, depth int) (Step, error) {
	r, known, err := RecordOf(folder, hash)
	if err != nil {
		return Step{}, err
	}
	if !known || depth == mostSteps {
		return sourceStep(doc, hash), nil
	}
	s := Step{Audio: hash, Kind: r.Kind, Row: r.Channel, Project: r.Project, From: r.From, To: r.To, By: r.By, At: r.At,
		Title: r.title(roundOf(folder, r)), Since: []Since{}, Of: []Step{}}
	if s.State, s.Since, err = r.state(doc, who); err != nil {
		return Step{}, err
	}
	for _, from := range r.sounds() {
		of, err := stepsOf(doc, folder, from, who, depth+1)
		if err != nil {
			return Step{}, err
		}
		if of.Kind == Source {
			of.Title = soundName(doc, r.Made, from)
		}
		s.Of = append(s.Of, of)
		if s.State == Holds && (of.State == Changed || of.State == Further) {
			s.State = Further
		}
	}
	return s, nil
}

func sourceStep(doc *project.Project, hash string) Step {
	return Step{Audio: hash, Kind: Source, State: Source, Title: soundName(doc, nil, hash), Since: []Since{}, Of: []Step{}}
}

// soundName is what a sound is called in a project, or was.
func soundName(doc, then *project.Project, hash string) string {
	for _, p := range []*project.Project{doc, then} {
		if p == nil {
			continue
		}
		if a, ok := p.AudioByHash(hash); ok && a.Name != "" {
			return a.Name
		}
	}
	return "a sound"
}

// sounds are those that the row itself played, once each; of a row without clips all.
func (r Record) sounds() (list []string) {
	add := func(c *project.Channel) {
		for _, x := range c.Clips {
			if !slices.Contains(list, x.Audio) {
				list = append(list, x.Audio)
			}
		}
	}
	for _, c := range r.Made.Channels {
		if c.ID == r.Channel {
			add(c)
		}
	}
	for _, c := range r.Made.Channels {
		if len(list) == 0 {
			add(c)
		}
	}
	return list
}

// roundOf is how often something was printed where it stood, this time included.
func roundOf(folder *audiofile.Folder, r Record) int {
	round := 0
	for known := true; known && r.Kind == InItsRow && round < mostSteps; {
		round++
		from := r.sounds()
		if len(from) == 0 {
			break
		}
		r, known, _ = RecordOf(folder, from[0])
	}
	return round
}

// title says in words what a step is.
func (r Record) title(round int) string {
	var names []string
	if ch, ok := r.Made.Channel(r.Channel); ok {
		nodes := ch.Chain.Nodes
		if r.Kind == Permanent {
			nodes = nil
			for _, t := range r.Made.Treatments {
				nodes = append(nodes, t.Chain.Nodes...)
			}
		}
		for _, n := range nodes {
			names = append(names, nodeName(n))
		}
	}
	through := "without a chain"
	if len(names) > 0 {
		through = "through " + strings.Join(names, ", ")
	}
	switch r.Kind {
	case OfPoint:
		return r.Point.name(r.Row)
	case Outside:
		return "Worked on outside, from " + r.Row
	case OfTake:
		return fmt.Sprintf("Recorded on %s from %s", r.Row, r.Input)
	case OfTreated:
		return fmt.Sprintf("Recorded on %s %s", r.Row, through)
	case Permanent:
		return r.Row + ", made permanent " + through
	case InItsRow:
		return fmt.Sprintf("Round %d of %s, %s", round, r.Row, through)
	}
	return fmt.Sprintf("%s, printed %s", r.Row, through)
}

// made is what the clips of a print in place were.
func (r Record) made() *project.Made {
	m := &project.Made{Treatments: r.Made.Treatments}
	if ch, ok := r.Made.Channel(r.Channel); ok {
		for _, x := range ch.Clips {
			m.Clips = append(m.Clips, *x)
		}
	}
	for _, t := range r.Made.Treatments {
		m.Lines = append(m.Lines, r.Made.LinesWithin(t)...)
	}
	return m
}

// now is what it would be made from now; false: its row has gone.
func (r Record) now(doc *project.Project) (project.Makings, bool) {
	if r.Kind == InItsRow {
		return doc.Remade(r.Channel, r.made())
	}
	return project.Origin{Channel: r.Channel, Tap: r.Point.Tap, Share: r.Point.Share, To: r.To}.Makings(doc)
}

// state says whether it still holds, and what has changed.
func (r Record) state(doc *project.Project, who Who) (string, []Since, error) {
	switch r.Kind {
	case Permanent, Outside, OfTake, OfTreated: // what was made permanent, or elsewhere, or recorded, stands by itself
		return Holds, []Since{}, nil
	}
	now, ok := r.now(doc)
	switch {
	case !ok:
		return Alone, []Since{}, nil
	case now.Key(engine.EffectInfo) == r.Key:
		return Holds, []Since{}, nil
	}
	list, err := project.Differences(project.Makings{Project: r.Made}, now, engine.EffectInfo)
	if err != nil {
		return "", nil, err
	}
	out := []Since{}
	for _, d := range list {
		by, at := who(d.Facet, r.Revision)
		out = append(out, Since{d.Owner, d.Says, by, at})
	}
	if len(out) == 0 {
		out = append(out, Since{Says: "what moves it, or the sound of an effect"})
	}
	return Changed, out, nil
}

// ChainBack is the change after which the row's chain is as it was when this was printed.
func (r Record) ChainBack(doc *project.Project) ([]project.Change, error) {
	then, ok := r.Made.Channel(r.Channel)
	if !ok || r.Kind != OfRow && r.Kind != InItsRow && r.Kind != OfFile {
		return nil, fmt.Errorf("it was not printed through the whole chain of a row")
	}
	if _, ok := doc.Channel(r.Channel); !ok {
		return nil, fmt.Errorf("the row %s has left the song: its chain cannot be put back", r.Row)
	}
	return []project.Change{&project.PutChainBack{Channel: r.Channel, Nodes: then.Chain.Nodes}}, nil
}
