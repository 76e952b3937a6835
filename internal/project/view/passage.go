package view

import (
	"slices"

	"shoal/internal/param"
	"shoal/internal/project"
)

// PassageView is a passage as it is seen: whoever draws it works nothing out.
type PassageView struct {
	Passage *project.Passage `json:"passage" required:"true"`
	From    int64            `json:"from" required:"true"` // frames
	To      int64            `json:"to" required:"true"`
	// HearFrom and HearTo are where to hear it in its place: from two bars before it to two bars after.
	HearFrom int64        `json:"hearFrom" required:"true"`
	HearTo   int64        `json:"hearTo" required:"true"`
	Begin    string       `json:"begin" required:"true"` // in bars and beats, see Clock.Where
	End      string       `json:"end" required:"true"`
	Tails    []TailView   `json:"tails" required:"true"`
	Courses  []CourseView `json:"courses" required:"true"`
	Brought  []string     `json:"brought" required:"true"` // in words
}

// TailView is how long the tail rule lasts on a row.
type TailView struct {
	Row  string `json:"row" required:"true"`
	Name string `json:"name" required:"true"`
	To   int64  `json:"to" required:"true"` // the frame of the next sound; 0: there is none
}

// CourseView is a course with its parameters described.
type CourseView struct {
	Name    string             `json:"name" required:"true"`
	Points  []project.Point    `json:"points" required:"true"`
	Path    []float64          `json:"path" required:"true"` // 0 to 1, evenly along its length
	Targets []CourseTargetView `json:"targets" required:"true"`
}

// CourseTargetView is a parameter of a course.
type CourseTargetView struct {
	project.CourseTarget
	Of     string      `json:"of" required:"true"`
	Row    string      `json:"row" required:"true"`
	Param  param.Param `json:"param" required:"true"`
	Always bool        `json:"always" required:"true"` // it has one value throughout
}

// coursePath is in how many places a course's path is given.
const coursePath = 97

// Passage looks at a passage.
func Passage(p *project.Project, id string, effects project.Effects) (*PassageView, error) {
	x, ok := p.PassageByID(id)
	if !ok {
		return nil, project.Gone("the passage")
	}
	clock := p.Clock()
	v := &PassageView{
		Passage: x,
		From:    clock.Frame(x.From),
		To:      clock.Frame(x.To),
		Tails:   []TailView{},
		Courses: []CourseView{},
		Brought: []string{},
	}
	first, _, _ := clock.Spot(float64(x.From)) // bars are said from 1 and asked for from 0
	last, _, _ := clock.Spot(float64(max(x.From, x.To-1)))
	v.HearFrom = clock.Frame(clock.Bar(int(max(0, first-3))))
	v.HearTo = clock.Frame(clock.Bar(int(last + 2)))
	v.Begin, v.End = clock.Where(x.From), clock.Where(x.To)
	for _, id := range x.Rows {
		c, _ := p.Channel(id)
		t := TailView{Row: id, Name: c.Name}
		if f, ok := p.NextSound(id, v.To, clock); ok {
			t.To = f
		}
		v.Tails = append(v.Tails, t)
	}
	for _, c := range x.Courses {
		cv := CourseView{Name: c.Name, Points: c.Points, Targets: []CourseTargetView{}}
		for i := range coursePath {
			cv.Path = append(cv.Path, c.At(float64(i)/(coursePath-1)))
		}
		still := !slices.ContainsFunc(c.Points, func(pt project.Point) bool { return pt.Value != 1 })
		for _, t := range c.Targets {
			f, _, err := p.Param(t.Owner, t.Name, effects)
			if err != nil {
				return nil, err
			}
			if t.Length > 0 {
				t.From = f.Clamp(float64(v.To-v.From) / float64(p.SampleRate) * t.Length)
				t.To = t.From
			}
			of, row := p.OwnerName(t.Owner, effects)
			if c, ok := p.Channel(row); ok {
				row = c.Name
			}
			cv.Targets = append(cv.Targets, CourseTargetView{t, of, row, f, still || t.Length > 0 || !t.Here && t.From == t.To})
		}
		v.Courses = append(v.Courses, cv)
	}
	for _, id := range x.Brought {
		of, row := p.OwnerName(id, effects)
		if c, ok := p.Channel(row); ok {
			of += " on " + c.Name
			if t := trialWith(c, id); t != nil {
				of += ", trial " + t.Letter
			}
		}
		v.Brought = append(v.Brought, of)
	}
	return v, nil
}

// trialWith is the trial that has a node in its chain; nil: it stands in the channel's own.
func trialWith(c *project.Channel, node string) *project.Trial {
	for _, t := range c.Trials {
		if !t.Chain.Walk(func(_ *project.Chain, _ int, n *project.Node) bool { return n.ID() != node }) {
			return t
		}
	}
	return nil
}

// PassageSpan is a passage in frames, for the board.
type PassageSpan struct {
	ID   string   `json:"id" required:"true"`
	Name string   `json:"name" required:"true"`
	From int64    `json:"from" required:"true"`
	To   int64    `json:"to" required:"true"`
	Off  bool     `json:"off" required:"true"`
	Rows []string `json:"rows" required:"true"`
}
