package project

import (
	"fmt"
	"slices"
)

/* What a new stage and a new row begin with. */

// AddStage puts a new stage of an effect into a chain, as the effect begins: where the dry signal is heard
// elsewhere, fully wet. Off lets it begin bypassed.
type AddStage struct {
	ID     string `json:"id,omitempty"` // of the new stage
	Owner  string `json:"owner"`
	Index  int    `json:"index"`
	Effect string `json:"effect"`
	Off    bool   `json:"off,omitempty"`
}

func (c *AddStage) apply(p *Project, effects Effects) ([]Change, error) {
	s, err := stageOf(c.Effect, effects)
	if err != nil {
		return nil, err
	}
	s.ID, s.Bypass = orNew(c.ID), c.Off
	return p.each(effects, &AddNode{Owner: c.Owner, Index: c.Index, Node: &Node{Stage: s}, Fresh: true})
}

// TurnStage puts another effect where a stage stands, as the effect begins; what the two share stays.
type TurnStage struct {
	ID     string `json:"id"`
	Effect string `json:"effect"`
}

func (c *TurnStage) apply(p *Project, effects Effects) ([]Change, error) {
	s, err := stageOf(c.Effect, effects)
	if err != nil {
		return nil, err
	}
	return p.each(effects, &ReplaceStage{ID: c.ID, Stage: s, Keep: true})
}

func stageOf(effect string, effects Effects) (*Stage, error) {
	info, ok := effects(effect, 0)
	if !ok {
		return nil, noEffect(effect)
	}
	return NewStage(effect, info.Version, info.Mix, info.MixLaw), nil
}

func noEffect(id string) error { return fmt.Errorf("there is no effect called %q", id) }

// NewRow adds an empty track below the tracks and groups, or an empty return above the main output.
type NewRow struct {
	ID   string `json:"id,omitempty"` // of the new row
	Kind string `json:"kind" enum:"track,return"`
}

func (c *NewRow) apply(p *Project, effects Effects) ([]Change, error) {
	word, ok := map[string]string{Track: "Track", Return: "Return"}[c.Kind]
	if !ok {
		return nil, fmt.Errorf("a new row is a track or a return, not %q", c.Kind)
	}
	count, last := 1, 0
	for i, ch := range p.Channels {
		if ch.Kind == c.Kind {
			count++
		}
		if ch.Kind == Track || ch.Kind == Group {
			last = i + 1
		}
	}
	if c.Kind == Return {
		last = slices.IndexFunc(p.Channels, func(ch *Channel) bool { return ch.Kind == Main })
	}
	row := NewChannel(c.Kind, fmt.Sprintf("%s %d", word, count), p.MainChannel().ID)
	row.ID = orNew(c.ID)
	return p.each(effects, &AddChannel{Channel: row, Index: last})
}

func orNew(id string) string {
	if id == "" {
		return NewID()
	}
	return id
}
