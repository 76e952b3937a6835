package project

import (
	"fmt"
	"reflect"
	"slices"
	"strings"
)

// Difference is one thing in which what a signal was made from is no longer as it was.
type Difference struct {
	// Facet is what of the document it is, as Touched names it; Owner the id of the thing; Says what it is in words.
	Facet string
	Owner string
	Says  string
}

// Differences are what has changed between makings, in words: each once, in the order of what they are about.
func Differences(then, now Makings, effects Effects) ([]Difference, error) {
	a, err := then.facets(effects)
	if err != nil {
		return nil, err
	}
	b, err := now.facets(effects)
	if err != nil {
		return nil, err
	}
	d := &compared{then.Project, now.Project, effects}
	var out []Difference
	for _, facet := range Touched(a, b) {
		x := Difference{Facet: facet}
		x.Owner, x.Says = d.says(facet)
		if x.Says != "" && !slices.ContainsFunc(out, func(y Difference) bool { return y.Says == x.Says }) {
			out = append(out, x)
		}
	}
	return out, nil
}

func (m Makings) facets(effects Effects) (Facets, error) {
	bare := m.bare(effects)
	lines := bare.Lines
	b, err := bare.Bare()
	if err != nil {
		return nil, err
	}
	return FacetsOf(b, lines)
}

type compared struct {
	then, now *Project
	effects   Effects
}

// says puts a facet that differs into words; empty: it is said by another one.
func (d *compared) says(facet string) (owner, text string) {
	if line, ok := strings.CutPrefix(facet, "line "); ok {
		owner, name, _ := strings.Cut(line, " ")
		return owner, fmt.Sprintf("the line on %s, %s %s", d.name(owner), d.label(owner, name), d.lineIs(owner, name))
	}
	if order, ok := strings.CutPrefix(facet, "order #"); ok {
		owner, list, _ := strings.Cut(order, "/")
		if !strings.HasSuffix(list, "nodes") {
			return owner, ""
		}
		return owner, fmt.Sprintf("the order of the stages of %s", d.name(owner))
	}
	if id, ok := strings.CutPrefix(facet, "@"); ok {
		return id, d.name(id) + " stands elsewhere"
	}
	id, field, part := strings.Cut(strings.TrimPrefix(facet, "#"), "/")
	if !part {
		return id, d.cameOrWent(id)
	}
	return id, d.field(id, field)
}

func (d *compared) lineIs(owner, name string) string {
	_, then := d.then.lineAt(owner, name)
	_, now := d.now.lineAt(owner, name)
	switch {
	case !then:
		return "is new"
	case !now:
		return "has gone"
	}
	return "is drawn otherwise"
}

func (p *Project) lineAt(owner, name string) (int, bool) {
	i := slices.IndexFunc(p.Lines, func(l *Line) bool { return l.Owner == owner && l.Name == name })
	return i, i >= 0
}

func (d *compared) cameOrWent(id string) string {
	name := d.name(id)
	if calledIn(d.now, id, d.effects) == "" {
		return name + " has gone"
	}
	return name + " is new"
}

// plain are fields that are said by a word of their own.
var plain = map[string]string{
	"start": "lies elsewhere", "offset": "plays another part", "frames": "is longer or shorter", "audio": "plays another sound",
	"fadeIn": "fades in otherwise", "fadeOut": "fades out otherwise", "swell": "has another swell", "treatment": "is treated otherwise",
	"key": "has another key", "sound": "uses another sound", "version": "has another sound of its effect",
	"crossovers": "has other crossovers",
	"input":      "takes in something else", "output": "goes elsewhere", "tint": "has another tint", "hidden": "is hidden or shown",
	"stereo": "has another width", "trials": "has other trials", "kind": "is of another kind", "mixLaw": "is mixed otherwise",
	"actsOn": "acts on something else", "waterline": "is printed up to another place", "soloSafe": "is heard, or not, beside a solo",
}

func (d *compared) field(id, field string) string {
	name := d.name(id)
	if id == d.now.ID {
		return d.song(field)
	}
	last := field[strings.LastIndex(field, "/")+1:]
	first, _, _ := strings.Cut(field, "/")
	switch first {
	case "hand": // who has it in hand is no matter of what is heard
		return ""
	case "name":
		if was := calledIn(d.then, id, d.effects); was != "" && was != name {
			return name + " was called " + was
		}
	case "bypass", "mute":
		return d.switched(id, name, first)
	case "gain":
		a, _ := d.then.ClipByID(id)
		b, _ := d.now.ClipByID(id)
		if a != nil && b != nil {
			return fmt.Sprintf("%s: gain %+.1f to %+.1f dB", name, a.Gain, b.Gain)
		}
	}
	param, was, err := d.then.Describe(id, last, d.effects)
	_, is, err2 := d.now.Describe(id, last, d.effects)
	if err == nil && err2 == nil {
		return fmt.Sprintf("%s: %s %s to %s", name, lower(param.Label), param.Text(was), param.Text(is))
	}
	if says, ok := plain[first]; ok {
		return name + " " + says
	}
	return name + " has changed"
}

// song is a field of the song itself. Its tempo may have begun to matter without having changed.
func (d *compared) song(field string) string {
	what, _, _ := strings.Cut(field, "/")
	if reflect.DeepEqual(d.then.Tempo, d.now.Tempo) && what == "tempo" || reflect.DeepEqual(d.then.Meter, d.now.Meter) && what == "meter" {
		return ""
	}
	return "the " + what
}

func (d *compared) switched(id, name, what string) string {
	_, v, err := d.now.Describe(id, what, d.effects)
	out := err == nil && v != 0
	if x, ok := d.now.ClipByID(id); ok {
		out = x.Mute
	}
	if c, ok := d.now.Channel(id); ok && what == "bypass" {
		name, out = "the chain of "+c.Name, c.Chain.Bypass
	}
	words := map[string][2]string{"bypass": {" is in again", " is bypassed"}, "mute": {" is heard again", " is muted"}}[what]
	if out {
		return name + words[1]
	}
	return name + words[0]
}

// label is what a parameter is called.
func (d *compared) label(owner, name string) string {
	for _, p := range []*Project{d.now, d.then} {
		if x, _, err := p.Describe(owner, name, d.effects); err == nil {
			return lower(x.Label)
		}
	}
	return name
}

// name is what something is called now, or was.
func (d *compared) name(id string) string {
	for _, p := range []*Project{d.now, d.then} {
		if name := calledIn(p, id, d.effects); name != "" {
			return name
		}
	}
	return "something"
}

// calledIn is what something is called in a project; empty: it is not there.
func calledIn(p *Project, id string, effects Effects) string {
	if x, ok := p.ClipByID(id); ok {
		return "the clip " + x.Name
	}
	for _, m := range p.Movers {
		if m.ID == id {
			return "the mover " + m.Name
		}
	}
	if x, ok := p.PassageByID(id); ok {
		return "the passage " + x.Name
	}
	if t, ok := p.TreatmentByID(id); ok {
		return "the treatment " + t.Title()
	}
	if a, ok := p.AudioByHash(id); ok {
		return "the sound " + a.Name
	}
	name, _ := p.OwnerName(id, effects)
	return name
}

func lower(label string) string {
	if len(label) > 1 && strings.ToUpper(label[:2]) == label[:2] { // an abbreviation
		return label
	}
	return strings.ToLower(label[:1]) + label[1:]
}
