package project

import (
	"fmt"
	"slices"
)

// SetCourse gives a course of a passage other points.
type SetCourse struct {
	ID     string  `json:"id"` // of the passage
	Course int     `json:"course"`
	Points []Point `json:"points"`
}

func (c *SetCourse) apply(p *Project, effects Effects) ([]Change, error) {
	return p.changePassage(c.ID, effects, func(x *Passage) error {
		o, err := x.course(c.Course)
		if err != nil {
			return err
		}
		o.Points = slices.Clone(c.Points)
		slices.SortStableFunc(o.Points, func(a, b Point) int { return int(a.Tick - b.Tick) })
		return nil
	})
}

func (x *Passage) course(i int) (*Course, error) {
	if i < 0 || i >= len(x.Courses) {
		return nil, Gone("this course of " + x.Name)
	}
	return x.Courses[i], nil
}

// MoveByCourse lets a passage move a parameter as well: from where it stands to the end of its range that
// is further away, on a course of its own, or on one that is there.
type MoveByCourse struct {
	ID     string `json:"id"` // of the passage
	Course *int   `json:"course,omitempty"`
	Owner  string `json:"owner"`
	Name   string `json:"name"`
}

func (c *MoveByCourse) apply(p *Project, effects Effects) ([]Change, error) {
	d, now, err := p.Describe(c.Owner, c.Name, effects)
	if err != nil {
		return nil, err
	}
	to := d.Max
	if d.Place(now) > 0.5 {
		to = d.Min
	}
	t := CourseTarget{Owner: c.Owner, Name: c.Name, From: now, To: to, Here: !d.Stepped()}
	return p.changePassage(c.ID, effects, func(x *Passage) error {
		if slices.ContainsFunc(x.Courses, func(o *Course) bool {
			return slices.ContainsFunc(o.Targets, func(t CourseTarget) bool { return t.Owner == c.Owner && t.Name == c.Name })
		}) {
			return fmt.Errorf("%s moves %s already", x.Name, d.Label)
		}
		if c.Course != nil {
			o, err := x.course(*c.Course)
			if err != nil {
				return err
			}
			o.Targets = append(o.Targets, t)
			return nil
		}
		x.Courses = append(x.Courses, &Course{Name: d.Label, Targets: []CourseTarget{t},
			Points: []Point{{Tick: 0, Value: 0, Shape: Ramp}, {Tick: CourseParts, Value: 1, Shape: Ramp}}})
		return nil
	})
}

// SetCourseTarget sets from where to where a course moves a parameter.
type SetCourseTarget struct {
	ID     string   `json:"id"` // of the passage
	Course int      `json:"course"`
	Owner  string   `json:"owner"`
	Name   string   `json:"name"`
	From   *float64 `json:"from,omitempty"`
	To     *float64 `json:"to,omitempty"`
	Here   *bool    `json:"here,omitempty"`
}

func (c *SetCourseTarget) apply(p *Project, effects Effects) ([]Change, error) {
	return p.changePassage(c.ID, effects, func(x *Passage) error {
		o, err := x.course(c.Course)
		if err != nil {
			return err
		}
		for i := range o.Targets {
			if t := &o.Targets[i]; t.Owner == c.Owner && t.Name == c.Name {
				swap(&t.From, c.From)
				swap(&t.To, c.To)
				swap(&t.Here, c.Here)
				return nil
			}
		}
		return Gone("what it moved")
	})
}

// LetGoOfCourse takes a parameter out of a course; a course without any goes.
type LetGoOfCourse struct {
	ID     string `json:"id"` // of the passage
	Course int    `json:"course"`
	Owner  string `json:"owner"`
	Name   string `json:"name"`
}

func (c *LetGoOfCourse) apply(p *Project, effects Effects) ([]Change, error) {
	return p.changePassage(c.ID, effects, func(x *Passage) error {
		o, err := x.course(c.Course)
		if err != nil {
			return err
		}
		o.Targets = slices.DeleteFunc(o.Targets, func(t CourseTarget) bool { return t.Owner == c.Owner && t.Name == c.Name })
		if len(o.Targets) == 0 {
			x.Courses = slices.Delete(x.Courses, c.Course, c.Course+1)
		}
		return nil
	})
}
