package printing

import (
	"context"
	"fmt"
	"slices"
	"time"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/input"
	"shoal/internal/measure"
	"shoal/internal/project"
)

// OfTake is the kind of the record of what was recorded, and OfTreated of what the way in made of it.
const (
	OfTake    = "take"
	OfTreated = "treated"
)

// TakeRecord says what was recorded, for the record beside the sound.
type TakeRecord struct {
	Doc       *project.Project
	Row, Name string // the row's id and what it was called
	Input     string // in words
	By        string
	Revision  int64
}

// InputName is what an input is called.
func InputName(id string) string {
	if k, ok := input.Find(id); ok {
		return k.Name + " (stand-in)"
	}
	return "an input of the browser's"
}

// KeepTake writes down beside a sound that it was recorded: it comes from nowhere else.
func KeepTake(folder *audiofile.Folder, hash string, t TakeRecord) error {
	bare := &project.Project{Version: project.Version, ID: t.Doc.ID, Name: t.Doc.Name, SampleRate: t.Doc.SampleRate}
	r := Record{Kind: OfTake, Project: t.Doc.Name, Revision: t.Revision, Channel: t.Row, Row: t.Name, By: t.By,
		At: time.Now().UTC().Format(time.RFC3339), Input: t.Input, Made: bare}
	return r.keep(folder, hash)
}

// ThroughWords are the names of what a recording of a row passes before it is kept.
func ThroughWords(ch *project.Channel) (names []string) {
	for _, n := range WayIn(ch) {
		names = append(names, nodeName(n))
	}
	return names
}

// WayIn are the nodes before a row's mark.
func WayIn(ch *project.Channel) []*project.Node {
	i := slices.IndexFunc(ch.Chain.Nodes, func(n *project.Node) bool { return n.ID() == ch.WayIn })
	return ch.Chain.Nodes[:i+1]
}

// Treated is what the way in has made of a take.
type Treated struct {
	audiofile.Entry
	Loud float64 // LUFS
}

// TreatTake passes a take through its row's way in, as the whole song drives it, and keeps what comes of it: it begins and
// ends with the take.
func TreatTake(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, t *project.Take, sound project.Audio, by string, revision int64,
) (out Treated, err error) {
	p, at, err := takeAlone(doc, t, sound)
	if err != nil {
		return out, err
	}
	lib, err := Library(ctx, p, folder)
	if err != nil {
		return out, err
	}
	draft, err := folder.Draft(doc.SampleRate, 2, 32, nil)
	if err != nil {
		return out, err
	}
	defer draft.Drop()
	meter, sides := measure.NewMeter(doc.SampleRate, 2), make([][]float64, 2)
	pass := engine.Pass{Points: []project.Tap{at}, From: t.From(), To: t.To()}
	if err := engine.Stems(ctx, p, lib, pass, Pages(folder, lib), func(_ int, l, r []float64) error {
		sides[0], sides[1] = l, r
		if err := meter.Write(sides); err != nil {
			return err
		}
		return draft.Write(sides)
	}, nil); err != nil {
		return out, err
	}
	if out.Entry, err = draft.Keep(); err != nil {
		return out, err
	}
	out.Loud = meter.Report().Integrated
	made, _ := p.MakingsOf(at)
	record := Printer{by, revision}.of(OfTreated, doc, Spec{Channel: t.Row, From: t.From(), To: t.To()}, made)
	record.Input = InputName(t.Input)
	return out, record.keep(folder, out.Hash)
}

// takeAlone is a document in which a take lies alone on its row, before the chain, and where the way in ends there.
func takeAlone(doc *project.Project, t *project.Take, sound project.Audio) (*project.Project, project.Tap, error) {
	ch, ok := doc.Channel(t.Row)
	if !ok || ch.WayIn == "" {
		return nil, project.Tap{}, fmt.Errorf("the row has no way in")
	}
	made := &project.Made{}
	for _, r := range t.Runs {
		made.Clips = append(made.Clips, project.Clip{
			ID: project.NewID(), Name: t.Name, Audio: sound.Hash, Start: r.Song, Offset: r.Input, Frames: r.Frames, Exact: true})
	}
	p, _ := doc.WithClipsOf(t.Row, made)
	p.Audio = append(slices.Clone(p.Audio), sound)
	return p, project.Tap{Channel: t.Row, Point: "after", Node: ch.WayIn}, p.Validate(engine.EffectInfo)
}
