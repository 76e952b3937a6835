package project

// SetProject renames the project.
type SetProject struct {
	Name *string `json:"name,omitempty"`
	// WorkWhenAsked lets whole-sound steps be worked out only when somebody asks.
	WorkWhenAsked *bool `json:"workWhenAsked,omitempty"`
}

func (c *SetProject) apply(p *Project, _ Effects) ([]Change, error) {
	return []Change{&SetProject{swap(&p.Name, c.Name), swap(&p.WorkWhenAsked, c.WorkWhenAsked)}}, nil
}

// SetTime replaces the tempo and meter maps.
type SetTime struct {
	Tempo []Tempo `json:"tempo"`
	Meter []Meter `json:"meter"`
}

func (c *SetTime) apply(p *Project, _ Effects) ([]Change, error) {
	undo := &SetTime{p.Tempo, p.Meter}
	p.Tempo, p.Meter = c.Tempo, c.Meter
	return []Change{undo}, nil
}

// SetSections replaces the sections.
type SetSections struct {
	Sections []Section `json:"sections"`
}

func (c *SetSections) apply(p *Project, _ Effects) ([]Change, error) {
	undo := &SetSections{p.Sections}
	p.Sections = c.Sections
	for i := range p.Sections {
		if p.Sections[i].ID == "" {
			p.Sections[i].ID = NewID()
		}
	}
	return []Change{undo}, nil
}
