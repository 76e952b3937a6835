// Package sounding notices what an engineer would want to know: rules over the document and
// over what the engine has measured. Each rule is a file with one entry in rules.go.
package sounding

import (
	"fmt"
	"slices"

	"shoal/internal/effect"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// Weight says how much a sounding matters.
type Weight string

// The weights: something to know, something to look at, a signal that is lost.
const (
	Note    Weight = "note"
	Caution Weight = "caution"
	Broken  Weight = "broken"
)

// Sounding is one thing that was noticed.
type Sounding struct {
	Rule    string `json:"rule" required:"true"`
	Title   string `json:"title" required:"true"`
	Weight  Weight `json:"weight" required:"true" enum:"note,caution,broken"`
	Channel string `json:"channel" required:"true"` // the row on which it stands
	At      string `json:"at" required:"true"`      // the send, stage, fork or channel it is about
	Says    string `json:"says" required:"true"`    // what it is, where, and why it matters
	Fixes   []Fix  `json:"fixes" required:"true"`
	Meant   string `json:"meant" required:"true"` // who said that it is meant; empty: nobody
}

// Fix is a way to mend it in one gesture.
type Fix struct {
	Says    string         `json:"says" required:"true"`
	Changes []project.Wire `json:"changes" required:"true"`
}

// Survey is what rules look at. Figures is nil where nothing has been measured.
type Survey struct {
	Doc     *project.Project
	Figures *engine.Survey
	Costs   []engine.Cost
	// Sample is a sound at a frame, the louder side, where it is at hand; nil: no sound is.
	Sample func(hash string, frame int64) (v float64, there bool)
}

// rule is one thing to look for.
type rule struct {
	id, title string
	look      func(s *Survey, say func(Sounding))
}

// minSeconds is how much must have been played before figures are trusted.
const minSeconds = 4

// Look returns all soundings, the weightiest first. Those that are meant stand last.
func Look(s *Survey) []Sounding {
	if s.Figures != nil && s.Figures.Seconds < minSeconds {
		s = &Survey{Doc: s.Doc, Costs: s.Costs, Sample: s.Sample}
	}
	out := []Sounding{}
	for _, r := range rules {
		r.look(s, func(x Sounding) {
			x.Rule, x.Title = r.id, r.title
			if x.Fixes == nil {
				x.Fixes = []Fix{}
			}
			for _, m := range s.Doc.Meant {
				if m.Rule == r.id && m.At == x.At {
					x.Meant = m.By
				}
			}
			out = append(out, x)
		})
	}
	order := map[Weight]int{Broken: 0, Caution: 1, Note: 2}
	slices.SortStableFunc(out, func(a, b Sounding) int {
		if (a.Meant == "") != (b.Meant == "") {
			if a.Meant == "" {
				return -1
			}
			return 1
		}
		return order[a.Weight] - order[b.Weight]
	})
	return out
}

// fix makes a fix of changes; changes of this package always encode.
func fix(says string, changes ...project.Change) Fix {
	w, err := project.Encode(changes)
	if err != nil {
		panic(err)
	}
	return Fix{says, w}
}

func ptr[T any](v T) *T { return &v }

func channelName(p *project.Project, id string) string {
	if c, ok := p.Channel(id); ok {
		return c.Name
	}
	return "?"
}

func family(s *project.Stage) string {
	k, ok := effect.Of(s.Effect, s.Version)
	if !ok {
		return ""
	}
	return k.Family
}

// value is a parameter of a stage, as it stands.
func value(s *project.Stage, name string) float64 {
	if v, ok := s.Params[name]; ok {
		return v
	}
	k, ok := effect.Of(s.Effect, s.Version)
	if !ok {
		return 0
	}
	for _, p := range k.Params {
		if p.Name == name {
			return p.Default
		}
	}
	return 0
}

// stages calls f for every stage that works on a channel's chain.
func stages(c *project.Channel, f func(s *project.Stage, in *project.Chain, i int)) {
	if c.Chain.Bypass {
		return
	}
	c.Chain.Walk(func(in *project.Chain, i int, n *project.Node) bool {
		if n.Stage != nil && !n.Stage.Bypass && (n.Stage.Mix > 0) {
			f(n.Stage, in, i)
		}
		return true
	})
}

// peak is the highest level measured at a point.
func (s *Survey) peak(kind, owner string) (float64, bool) {
	if s.Figures == nil {
		return 0, false
	}
	v, ok := s.Figures.Peaks[kind+" "+owner]
	return v, ok
}

// keySeconds is how long a key must have been silent: voices pause.
const keySeconds = 60

// ever is the highest level at a point since the structure last changed, once that is long enough ago.
func (s *Survey) ever(kind, owner string) (float64, bool) {
	if s.Figures == nil || s.Figures.Seconds < keySeconds {
		return 0, false
	}
	v, ok := s.Figures.Ever[kind+" "+owner]
	return v, ok
}

func db(v float64) string { return fmt.Sprintf("%.1f dB", v) }
