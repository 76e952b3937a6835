package projecttest

import (
	"fmt"
	"math/rand/v2"

	"shoal/internal/project"
)

// seldom draws changes that are made now and then: of passages and their courses, of single points, of what a
// project is made of.
func seldom(r *rand.Rand, p *project.Project, ch *project.Channel) project.Change {
	yes, i := r.IntN(2) == 0, r.IntN(6)
	passage := randomPassage(r, p)
	owner, name := "none", "mix"
	var target project.CourseTarget
	if x, ok := p.PassageByID(passage); ok && len(x.Courses) > 0 && len(x.Courses[0].Targets) > 0 {
		target = x.Courses[0].Targets[r.IntN(len(x.Courses[0].Targets))]
	}
	var stages, forks []string
	ch.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
		if n.Stage != nil {
			stages, owner = append(stages, n.ID()), n.ID()
		} else {
			forks = append(forks, n.ID())
		}
		return true
	})
	var ticks []int64
	if l := lineOf(p, ch.ID, "fader"); l != nil {
		for _, x := range l.Points {
			if r.IntN(3) == 0 {
				ticks = append(ticks, x.Tick)
			}
		}
	}
	value := -30 * r.Float64()
	switch r.IntN(15) {
	case 13:
		return back(r, p, ch)
	case 0:
		called := fmt.Sprint("Tide ", i)
		return &project.SetProject{Name: &called}
	case 1:
		return &project.BeginSection{Name: fmt.Sprint("Part ", i), At: int64(r.IntN(300000))}
	case 2:
		return &project.RemoveSection{ID: section(r, p), All: yes}
	case 3:
		return &project.RemoveTempo{Tick: p.Tempo[r.IntN(len(p.Tempo))].Tick}
	case 4:
		return &project.CutPoints{Stretch: randomStretch(r, ch), Ticks: ticks}
	case 5:
		return &project.SetPoints{Stretch: randomStretch(r, ch), Ticks: ticks, Value: &value}
	case 6:
		kind := []string{"rise", "fall", "pulse", "tremble", "stair"}[r.IntN(5)]
		return &project.ShapeStretch{Stretch: randomStretch(r, ch), Kind: kind, Every: 120, Low: -20, High: -3}
	case 7:
		tail := []string{project.TailRing, project.TailCut, project.TailFade, project.TailHold}[r.IntN(4)]
		return &project.SetPassage{ID: passage, Off: &yes, Tail: &tail}
	case 8:
		points := []project.Point{
			{Tick: 0, Value: 0, Shape: project.Ramp},
			{Tick: 500, Value: r.Float64(), Shape: project.Smooth},
			{Tick: 1000, Value: 1, Shape: project.Ramp},
		}
		return &project.SetCourse{ID: passage, Points: points}
	case 9:
		return &project.MoveByCourse{ID: passage, Owner: owner, Name: name}
	case 10:
		from, to := 100*r.Float64(), 100*r.Float64()
		return &project.SetCourseTarget{ID: passage, Owner: target.Owner, Name: target.Name, From: &from, To: &to, Here: &yes}
	case 11:
		return &project.LetGoOfCourse{ID: passage, Owner: target.Owner, Name: target.Name}
	case 12:
		if len(forks) > 0 && yes {
			other := project.Forked(project.Copies, "Other", project.NewPath("one"), project.NewPath("two", Stage("trim")))
			return &project.ReplaceFork{ID: forks[0], Fork: other.Fork}
		}
		return &project.MoveApart{Owner: owner, Name: name}
	default:
		return placed(r, p, ch, stages)
	}
}

// back lets a row, or all, be as if another row had been there, and none of its sends.
func back(r *rand.Rand, p *project.Project, ch *project.Channel) project.Change {
	was := project.Clone(p)
	x, _ := was.Channel(ch.ID)
	x.Fader, x.Mute = -30*r.Float64(), !x.Mute
	if r.IntN(2) == 0 {
		x.Chain.Nodes = append([]*project.Node{{Stage: project.NewStage("trim", 1, 100, "blend")}}, x.Chain.Nodes...)
	}
	was.Channels = append([]*project.Channel{project.NewChannel(project.Track, "Of then", was.MainChannel().ID)}, was.Channels...)
	rows := [][]string{nil, {ch.ID}, {was.Channels[0].ID}, {ch.ID, was.Channels[0].ID}, {"none"}}[r.IntN(5)]
	return &project.PutBack{Document: was, Rows: rows}
}

// placed brings sound: on a track of its own, in a row's place as its print, or into a stage.
func placed(r *rand.Rand, p *project.Project, ch *project.Channel, stages []string) project.Change {
	sound := project.Audio{Hash: Hash(fmt.Sprint("sound ", r.IntN(3))), Name: "found.wav", Frames: 48000, Channels: 1}
	switch {
	case r.IntN(2) == 0:
		return &project.PlaceSound{ID: project.NewID(), Name: "Found", Audio: sound, Start: int64(r.IntN(90000)), Index: r.IntN(4)}
	case len(stages) > 0 && len(p.Audio) > 0 && r.IntN(3) == 0:
		return &project.SetSound{ID: stages[r.IntN(len(stages))], Sound: p.Audio[r.IntN(len(p.Audio))].Hash}
	}
	return &project.PlacePrint{Source: ch.ID, Print: project.NewID(), ID: project.NewID(), Audio: sound, Mute: r.IntN(2) == 0}
}

// section draws one, if there is any left.
func section(r *rand.Rand, p *project.Project) string {
	if len(p.Sections) == 0 {
		return "none"
	}
	return p.Sections[r.IntN(len(p.Sections))].ID
}
