// Package template holds what a new project can begin from: for a kind of work its rows with their chains, the spaces they
// share, its sections and its passages, made of the presets and passages that ship. There is no sound in it. Each template
// is one file and one line in all.
package template

import (
	"fmt"
	"slices"

	"shoal/internal/engine"
	"shoal/internal/passage"
	"shoal/internal/preset"
	"shoal/internal/project"
)

// Template is what a project can begin from.
type Template struct {
	ID   string `json:"id" required:"true"`
	Name string `json:"name" required:"true"`
	Says string `json:"says" required:"true"` // what it is for
	// Tempo in beats a minute, and the meter: a form proposes them.
	Tempo float64 `json:"tempo" required:"true"`
	Beats int     `json:"beats" required:"true"`
	Unit  int     `json:"unit" required:"true"`
	// Rows are the names of its rows, Sections those of its sections.
	Rows     []string `json:"rows" required:"true"`
	Sections []string `json:"sections" required:"true"`

	rows     []row
	returns  []shared
	sections []section
	passages []over
	whole    string // the chain preset of the main output
}

// row is a track or, with groups, a group that other rows go to.
type row struct {
	name  string
	group bool
	to    string  // the group it goes to; empty: the main output
	chain string  // a shipped chain's id; empty: none
	tint  int     // 1 to 8
	sends []share // what it sends where
}

// share is a send at a level in dB.
type share struct {
	to    string
	level float64
}

// shared is a return with a shipped preset of a stage on it.
type shared struct{ name, preset string }

// section begins at a bar, counted from 1.
type section struct {
	name string
	bar  int
}

// over is a passage of a kind from bar to bar, over some rows.
type over struct {
	kind, name string
	from, to   int
	rows       []string
}

// all are the templates, in the order in which they are offered.
var all = []*Template{speech, ensemble, field, transitions}

// List gives every template.
func List() []*Template {
	for _, t := range all {
		t.Rows, t.Sections = []string{}, []string{}
		for _, r := range t.rows {
			t.Rows = append(t.Rows, r.name)
		}
		for _, r := range t.returns {
			t.Rows = append(t.Rows, r.name)
		}
		for _, s := range t.sections {
			t.Sections = append(t.Sections, s.name)
		}
	}
	return all
}

// Find finds a template by its id.
func Find(id string) (*Template, bool) {
	i := slices.IndexFunc(List(), func(t *Template) bool { return t.ID == id })
	if i < 0 {
		return nil, false
	}
	return all[i], true
}

// Fill puts what the template holds into an empty project.
func (t *Template) Fill(p *project.Project) (*project.Project, error) {
	for _, s := range t.sections {
		p.Sections = append(p.Sections, project.Section{ID: project.NewID(), Name: s.name, Tick: p.Clock().Bar(s.bar - 1)})
	}
	main := p.MainChannel()
	ids := map[string]string{"": main.ID}
	var channels []*project.Channel
	for _, r := range t.rows {
		kind := project.Track
		if r.group {
			kind = project.Group
		}
		c := project.NewChannel(kind, r.name, "")
		c.Tint, ids[r.name] = r.tint, c.ID
		channels = append(channels, c)
	}
	for i, r := range t.rows {
		channels[i].Output = ids[r.to]
	}
	p.Channels = append(channels, main)
	for _, fill := range []func(*project.Project, map[string]string) (*project.Project, error){t.share, t.treat, t.pass} {
		var err error
		if p, err = fill(p, ids); err != nil {
			return nil, fmt.Errorf("template %s: %w", t.ID, err)
		}
	}
	return p, nil
}

// share adds the returns and what rows send to them.
func (t *Template) share(p *project.Project, ids map[string]string) (*project.Project, error) {
	for _, r := range t.returns {
		x, ok := preset.Find(r.preset)
		if !ok {
			return nil, fmt.Errorf("there is no preset %s", r.preset)
		}
		ids[r.name] = project.NewID()
		list, err := x.AsReturn(p, ids[r.name], nil)
		if err == nil {
			p, err = with(p, append(list, &project.SetChannel{ID: ids[r.name], Name: &r.name}))
		}
		if err != nil {
			return nil, err
		}
	}
	var list []project.Change
	for _, r := range t.rows {
		for i, s := range r.sends {
			list = append(list, &project.AddSend{Channel: ids[r.name], Index: i, Send: &project.Send{To: ids[s.to], Level: s.level}})
		}
	}
	return with(p, list)
}

// treat puts the chains on the rows and on the main output.
func (t *Template) treat(p *project.Project, ids map[string]string) (*project.Project, error) {
	for _, r := range append(slices.Clone(t.rows), row{chain: t.whole}) {
		if r.chain == "" {
			continue
		}
		x, ok := preset.Find(r.chain)
		if !ok {
			return nil, fmt.Errorf("there is no preset %s", r.chain)
		}
		list, err := x.Take(p, ids[r.name])
		if err == nil {
			p, err = with(p, list)
		}
		if err != nil {
			return nil, err
		}
	}
	return p, nil
}

// pass makes the passages.
func (t *Template) pass(p *project.Project, ids map[string]string) (*project.Project, error) {
	for _, o := range t.passages {
		c := p.Clock()
		spec := passage.Spec{
			ID: project.NewID(), Kind: o.kind, From: c.Frame(c.Bar(o.from - 1)), To: c.Frame(c.Bar(o.to - 1)), Snap: p.Meter[0].BarTicks(),
		}
		for _, r := range o.rows {
			spec.Rows = append(spec.Rows, ids[r])
		}
		list, _, err := passage.Make(p, spec)
		if err == nil {
			p, err = with(p, append(list, &project.SetPassage{ID: spec.ID, Name: &o.name}))
		}
		if err != nil {
			return nil, err
		}
	}
	return p, nil
}

func with(p *project.Project, list []project.Change) (*project.Project, error) {
	next, _, err := project.Apply(p, list, engine.EffectInfo)
	return next, err
}
