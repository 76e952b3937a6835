// Package projecttest draws changes by chance, for tests that ask what holds after any of them.
package projecttest

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"math/rand/v2"

	"shoal/internal/project"
)

// drawing is what one change is drawn from.
type drawing struct {
	r                                                 *rand.Rand
	p                                                 *project.Project
	ch, other                                         *project.Channel
	yes                                               bool
	name                                              string
	i                                                 int
	nodes, owners, sends, clips, trials, forks, paths []string
}

// RandomChange draws a change, sensible or not, over what the document has.
func RandomChange(r *rand.Rand, p *project.Project) project.Change {
	d := &drawing{r: r, p: p, ch: p.Channels[r.IntN(len(p.Channels))], other: p.Channels[r.IntN(len(p.Channels))]}
	d.look()
	d.yes, d.name, d.i = r.IntN(2) == 0, fmt.Sprint("name ", r.IntN(100)), r.IntN(6)
	all := 0
	for _, x := range draws {
		all += x.weight
	}
	at := r.IntN(all)
	for _, x := range draws {
		if at -= x.weight; at < 0 {
			return x.draw(d)
		}
	}
	panic("the weights do not add up")
}

// look takes down the ids of what the document has.
func (d *drawing) look() {
	for _, c := range d.p.Channels {
		d.owners = append(d.owners, c.ID)
		for _, t := range c.Trials {
			d.owners, d.trials = append(d.owners, t.ID), append(d.trials, t.ID)
		}
		for _, s := range c.Sends {
			d.sends = append(d.sends, s.ID)
		}
		for _, x := range c.Clips {
			d.clips = append(d.clips, x.ID)
			if x.Treatment != "" {
				d.owners = append(d.owners, x.Treatment)
			}
		}
		c.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
			d.nodes = append(d.nodes, n.ID())
			if n.Fork != nil {
				d.forks = append(d.forks, n.ID())
				for _, path := range n.Fork.Paths {
					d.owners, d.paths = append(d.owners, path.ID), append(d.paths, path.ID)
				}
			}
			return true
		})
	}
}

// pick draws one of several ids.
func (d *drawing) pick(from []string) string {
	if len(from) == 0 {
		return "none"
	}
	return from[d.r.IntN(len(from))]
}

// randomStretch is some part of a fader's line.
func randomStretch(r *rand.Rand, ch *project.Channel) project.Stretch {
	from := int64(r.IntN(60000))
	return project.Stretch{Owner: ch.ID, Name: "fader", From: from, To: from + int64(r.IntN(60000)), Snap: int64(r.IntN(2) * 120)}
}

func randomPassage(r *rand.Rand, p *project.Project) string {
	if len(p.Passages) == 0 {
		return "none"
	}
	return p.Passages[r.IntN(len(p.Passages))].ID
}

// Hash is what the hash of a sound looks like, one for each name.
func Hash(name string) string {
	sum := sha256.Sum256([]byte(name))
	return hex.EncodeToString(sum[:])
}

// Stage is a node with a stage of an effect on it.
func Stage(effect string) *project.Node {
	return &project.Node{Stage: project.NewStage(effect, 1, 100, "blend")}
}

func lineOf(p *project.Project, owner, name string) *project.Line {
	for _, l := range p.Lines {
		if l.Owner == owner && l.Name == name {
			return l
		}
	}
	return nil
}

// away is a passage over the first row that moves its fader.
func away(p *project.Project) *project.Passage {
	id := p.Channels[0].ID
	straight := []project.Point{{Tick: 0, Value: 0, Shape: project.Ramp}, {Tick: project.CourseParts, Value: 1, Shape: project.Ramp}}
	return &project.Passage{ID: "away", Name: "Away", From: 7680, To: 9600, Rows: []string{id}, Courses: []*project.Course{
		{Name: "Down", Points: straight, Targets: []project.CourseTarget{{Owner: id, Name: "fader", To: -40, Here: true}}}}}
}
