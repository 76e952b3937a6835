package projecttest

import "shoal/internal/project"

// ofRemarks draws a change of what is said about places.
func (d *drawing) ofRemarks() project.Change {
	var remark string
	if n := len(d.p.Remarks); n > 0 {
		remark = d.p.Remarks[d.r.IntN(n)].ID
	}
	places := append(append(append([]string{"", d.ch.ID, "none"}, d.nodes...), d.sends...), d.clips...)
	by := project.Speaker{ID: "ada", Name: "Ada"}
	var c project.Change
	switch d.r.IntN(6) {
	case 5:
		c = &project.TakeInHand{ID: d.ch.ID, Minutes: 20 * (d.i - 1)}
	case 4:
		return &project.RemoveRemark{Remark: remark}
	case 0:
		c = &project.SettleRemark{Remark: remark, Settled: d.yes}
	case 1:
		c = &project.AnswerRemark{Remark: remark, Text: d.name, Told: []project.Speaker{{ID: "bo", Name: "Bo"}}}
	default:
		from := int64(d.r.IntN(90000))
		c = &project.MakeRemark{At: places[d.r.IntN(len(places))], From: from, To: from * int64(d.i%2) * 2, Text: d.name}
	}
	project.Speak([]project.Change{c}, by, "2026-11-30T12:00:00Z")
	return c
}
