package printing

import (
	"slices"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// Point is where the signal of a row is printed, if not behind its chain: at a tap of it, or what comes back of it from
// the returns that it sends to, as loud as it is in the mix.
type Point struct {
	Tap   *project.Tap `json:"tap,omitempty"`
	Share bool         `json:"share,omitempty"`
	Says  string       `json:"says,omitempty"` // the point in words: for names
}

func (x Point) set() bool { return x.Tap != nil || x.Share }

// probe is the id of the row that stands in for a point while it is rendered.
const probe = "probe"

// source is what has to be rendered for a spec: where it asks for a point, a document with a row that takes it in.
func (s Spec) source(doc *project.Project) (*project.Project, Spec, error) {
	if !s.Point.set() {
		return doc, s, nil
	}
	probed, err := s.Point.probed(doc, s.Channel)
	s.Channel, s.Point = probe, Point{}
	return probed, s, err
}

// probed is a document with a row that takes a point in.
func (x Point) probed(doc *project.Project, row string) (*project.Project, error) {
	if x.Share {
		p, err := doc.OnlySendsOf(row, probe)
		if err != nil {
			return nil, err
		}
		return p, p.Validate(engine.EffectInfo)
	}
	side := project.NewChannel(project.Track, probe, doc.MainChannel().ID)
	side.ID, side.Input, side.Stereo = probe, x.Tap, true
	p, _, err := project.Apply(doc, []project.Change{&project.AddChannel{Channel: side}}, engine.EffectInfo)
	return p, err
}

// placed puts a print of a point on a track of its own beside the row, muted: its sound is heard already.
func (s Spec) placed(printID, key string, newest *project.Project, a project.Audio) []project.Change {
	if _, ok := newest.Channel(printID); ok {
		return nil // a restart came between this change and the end of the job
	}
	at := slices.IndexFunc(newest.Channels, func(c *project.Channel) bool { return c.ID == s.Channel })
	main := slices.IndexFunc(newest.Channels, func(c *project.Channel) bool { return c.Kind == project.Main })
	row := project.NewChannel(project.Track, a.Name, newest.MainChannel().ID)
	row.ID, row.Mute, row.PrintOf = printID, true, s.origin(printID, key, newest)
	row.Clips = []*project.Clip{{ID: project.NewID(), Name: a.Name, Audio: a.Hash, Start: s.From, Frames: a.Frames, Exact: true}}
	return []project.Change{&project.AddAudio{Audio: a}, &project.AddChannel{Channel: row, Index: min(at+1, main)}}
}

// origin says where the track of a print comes from.
func (s Spec) origin(printID, key string, newest *project.Project) *project.Origin {
	from := s.Channel
	if ch, ok := newest.Channel(from); ok {
		from = ch.Name
	}
	return &project.Origin{
		Print: printID, Channel: s.Channel, Name: from, Tap: s.Point.Tap, Share: s.Point.Share, To: s.To, Key: key,
	}
}

// name is what a print of a point is called.
func (x Point) name(row string) string {
	switch {
	case x.Says != "":
		return project.ShortName(row + ", " + x.Says)
	case x.Share:
		return project.ShortName(row + ", what comes back")
	}
	return project.ShortName(row + ", " + x.Tap.Point)
}
