package projecttest

import "shoal/internal/project"

// ofTakes draws a change of takes and of the way in.
func (d *drawing) ofTakes() project.Change {
	take := "none"
	if n := len(d.p.Takes); n > 0 {
		take = d.p.Takes[d.r.IntN(n)].ID
	}
	switch d.r.IntN(8) {
	case 0:
		return &project.PutWayIn{Node: d.pick(d.nodes)}
	case 1:
		kinds := []string{project.ClipsUntouched, project.ClipsBehind, project.ClipsTop}
		return &project.RemoveWayIn{Row: d.ch.ID, Clips: kinds[d.r.IntN(3)]}
	case 2, 3:
		return d.landing()
	case 4:
		from := int64(d.r.IntN(30000))
		return &project.ChooseTake{ID: take, From: from, To: from + int64(d.r.IntN(30000)), Untouched: d.yes}
	case 5:
		return &project.SetTake{ID: take, Name: &d.name, Dropped: &d.yes}
	case 6:
		source := []string{"reader", project.OwnInput, ""}[d.r.IntN(3)]
		return &project.SetChannel{ID: d.ch.ID, Records: &source}
	default:
		return &project.Untreat{Clip: d.pick(d.clips), Treated: d.yes}
	}
}

// landing puts a take on a row, of sounds that the project has.
func (d *drawing) landing() project.Change {
	c := &project.LandTake{Aside: d.r.IntN(3) == 0, Take: project.Take{
		ID: project.NewID(), Row: d.ch.ID, Number: d.p.NextTake(d.ch.ID), Name: d.name, Input: "reader",
	}}
	if len(d.p.Audio) == 0 {
		return c
	}
	a := d.p.Audio[d.r.IntN(len(d.p.Audio))]
	half := max(1, a.Frames/2)
	at := int64(d.r.IntN(20000))
	c.Take.Untouched = a.Hash
	c.Take.Runs = []project.Run{{Input: 0, Song: at, Frames: half}}
	if rest := a.Frames - half; rest > 0 && d.r.IntN(2) == 0 { // it went on after a break
		c.Take.Runs = append(c.Take.Runs, project.Run{Input: half, Song: at + half + int64(d.r.IntN(2000)), Frames: rest})
	}
	if d.yes {
		c.Take.Treated = a.Hash
	}
	return c
}
