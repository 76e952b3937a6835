package view

import "shoal/internal/project"

// RemarkView is what is to be known of a remark besides what is said in it.
type RemarkView struct {
	ID string `json:"id" required:"true"`
	// Called is its place as that is called now, or was called last.
	Called string `json:"called" required:"true"`
	There  bool   `json:"there" required:"true"` // its place is still there
	Row    string `json:"row" required:"true"`   // that its place belongs to; empty: none
	Node   string `json:"node" required:"true"`  // what is to be on the bench
	Clip   string `json:"clip" required:"true"`
	Line   string `json:"line" required:"true"` // the line that it is about: what it moves and which parameter, with a space between
	From   int64  `json:"from" required:"true"` // song frames; to is 0: no range
	To     int64  `json:"to" required:"true"`
	Waits  bool   `json:"waits" required:"true"` // for whoever asks
}

// Remarks says of every remark where it is now, and whether it waits for a person.
func Remarks(p *project.Project, person string, effects project.Effects) []RemarkView {
	list := make([]RemarkView, 0, len(p.Remarks))
	clock := p.Clock()
	for _, r := range p.Remarks {
		v := RemarkView{ID: r.ID, Called: r.At.Called, Waits: r.Waits(person)}
		var at project.Place
		if at, v.There = p.PlaceOf(r.At.ID, r.At.Param, effects); v.There {
			v.Row, v.Node, v.Clip = at.Row, at.Node, at.Clip
			if r.At.Param != "" {
				v.Line = r.At.ID + " " + r.At.Param
			}
			if r.At.To == 0 {
				v.Called = at.Called
			}
		}
		if r.At.To > 0 {
			v.From, v.To = clock.Frame(r.At.From), clock.Frame(r.At.To)
		}
		list = append(list, v)
	}
	return list
}
