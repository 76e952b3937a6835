package project

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// BeginSection lets a section begin at the bar nearest to a song frame.
type BeginSection struct {
	ID   string `json:"id,omitempty"` // of the new section
	Name string `json:"name"`
	At   int64  `json:"at"`
}

func (c *BeginSection) apply(p *Project, effects Effects) ([]Change, error) {
	clock := p.Clock()
	tick := clock.Tick(max(c.At, 0))
	m := clock.MeterAt(int64(tick))
	bar := m.Tick + int64(math.Round((tick-float64(m.Tick))/float64(m.BarTicks())))*m.BarTicks()
	if i := slices.IndexFunc(p.Sections, func(s Section) bool { return s.Tick == bar }); i >= 0 {
		return nil, fmt.Errorf("%s begins at this bar already", p.Sections[i].Name)
	}
	id := c.ID
	if id == "" {
		id = NewID()
	}
	list := append(slices.Clone(p.Sections), Section{id, p.freeSectionName(c.Name, p.Sections), bar})
	slices.SortFunc(list, func(a, b Section) int { return int(a.Tick - b.Tick) })
	return p.each(effects, &SetSections{list})
}

// MoveSection moves a section with everything in it: so many sections later, or, below 0, earlier.
type MoveSection struct {
	ID    string `json:"id"`
	By    int    `json:"by"`
	Along bool   `json:"along"` // its lines and passages too
}

func (c *MoveSection) apply(p *Project, effects Effects) ([]Change, error) {
	list, of := p.pieces()
	i := slices.Index(of, c.ID)
	if i < 0 {
		return nil, Gone("the section")
	}
	first := 0
	if of[0] == "" {
		first = 1
	}
	to := i + c.By
	if to < first || to >= len(list) {
		return nil, fmt.Errorf("there is no section on that side to pass")
	}
	x := list[i]
	list = slices.Insert(slices.Delete(list, i, i+1), to, x)
	return p.arrange(list, c.Along, effects)
}

// RepeatSection puts a section down once more behind itself, with everything in it.
type RepeatSection struct {
	ID    string `json:"id"`
	Along bool   `json:"along"`
}

func (c *RepeatSection) apply(p *Project, effects Effects) ([]Change, error) {
	list, of := p.pieces()
	i := slices.Index(of, c.ID)
	if i < 0 {
		return nil, Gone("the section")
	}
	return p.arrange(slices.Insert(list, i+1, list[i]), c.Along, effects)
}

// RemoveSection takes a section out of the song with everything in it; what comes later moves up. With
// All false only its name goes: what it held belongs to the section before it.
type RemoveSection struct {
	ID    string `json:"id"`
	All   bool   `json:"all"`
	Along bool   `json:"along"`
}

func (c *RemoveSection) apply(p *Project, effects Effects) ([]Change, error) {
	list, of := p.pieces()
	i := slices.Index(of, c.ID)
	switch {
	case i < 0:
		return nil, Gone("the section")
	case !c.All:
		return p.each(effects, &SetSections{slices.DeleteFunc(slices.Clone(p.Sections), func(s Section) bool { return s.ID == c.ID })})
	case len(list) == 1:
		return nil, fmt.Errorf("it is all there is of the song: remove the rows instead")
	}
	return p.arrange(slices.Delete(list, i, i+1), c.Along, effects)
}

// freeSectionName is the name, or with a number behind it where one of the sections has it.
func (p *Project) freeSectionName(name string, taken []Section) string {
	base := strings.TrimSpace(name)
	if base == "" {
		base = "Section"
	}
	name = base
	for n := 2; slices.ContainsFunc(taken, func(s Section) bool { return s.Name == name }) ||
		n == 2 && slices.ContainsFunc(p.Sections, func(s Section) bool { return s.Name == name }); n++ {
		name = fmt.Sprintf("%s %d", base, n)
	}
	return name
}

// CutClips cuts the clips of a row where sections begin.
type CutClips struct {
	Channel string `json:"channel"`
}

func (c *CutClips) apply(p *Project, effects Effects) ([]Change, error) {
	row, ok := p.Channel(c.Channel)
	if !ok {
		return nil, Gone("the row")
	}
	clock := p.Clock()
	var at []int64
	for _, s := range p.Sections {
		at = append(at, clock.Frame(s.Tick))
	}
	undo, err := p.each(effects, &SplitClips{Rows: []string{row.ID}, At: at})
	if err != nil {
		return nil, fmt.Errorf("no clip of %s lies across the begin of a section", row.Name)
	}
	return undo, nil
}
