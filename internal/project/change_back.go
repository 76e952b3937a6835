package project

import (
	"errors"
	"slices"
)

// PutBack lets a project be as it was: as a whole, or single rows of it. What was said about it stays, as do its takes.
type PutBack struct {
	Document *Project `json:"document"`       // as it was
	Rows     []string `json:"rows,omitempty"` // ids; none: all of it
}

func (c *PutBack) apply(p *Project, effects Effects) ([]Change, error) {
	if c.Document == nil {
		return nil, errors.New("there is nothing to go back to")
	}
	if c.Document.SampleRate != p.SampleRate {
		return nil, errors.New("it had another sample rate: begin a new project from it instead")
	}
	was := Clone(c.Document)
	was.sharePoints(p)
	undo := []Change{&PutBack{Document: Clone(p)}}
	if len(c.Rows) == 0 {
		was.ID, was.Remarks = p.ID, p.Remarks
		for _, row := range was.Channels {
			row.Hand = p.handOf(row.ID)
		}
		for _, t := range p.Takes { // what was recorded since is not lost
			was.keepTake(t)
		}
		for _, a := range p.Audio {
			was.keepAudio(a)
		}
		*p = *was
		return undo, nil
	}
	for _, id := range c.Rows {
		if err := p.rowBack(was, id, effects); err != nil {
			return nil, err
		}
	}
	return undo, nil
}

// sharePoints lets lines that are drawn alike share their points: that is how they are told to be the same.
func (p *Project) sharePoints(with *Project) {
	for _, l := range p.Lines {
		if o, _ := with.Line(l.Owner, l.Name); o != nil && slices.Equal(l.Points, o.Points) {
			l.Points = o.Points
		}
	}
}

// handOf is who has a row in hand now: that does not go back with what it was.
func (p *Project) handOf(id string) *Hand {
	if c, ok := p.Channel(id); ok {
		return copyOf(c.Hand)
	}
	return nil
}

func (p *Project) keepTake(t *Take) {
	if !slices.ContainsFunc(p.Takes, func(x *Take) bool { return x.ID == t.ID }) {
		p.Takes = append(p.Takes, t)
	}
}

func (p *Project) keepAudio(a Audio) {
	if _, has := p.AudioByHash(a.Hash); !has {
		p.Audio = append(p.Audio, a)
	}
}

// rowBack lets one row be as it was in another document, with its lines, its clips and their treatments. What it named that is no
// longer there is let go of.
func (p *Project) rowBack(was *Project, id string, effects Effects) error {
	row, then := was.Channel(id)
	if then {
		row.Hand = p.handOf(id)
	}
	at := slices.IndexFunc(p.Channels, func(c *Channel) bool { return c.ID == id })
	switch {
	case !then && at < 0:
		return Gone("the row")
	case !then:
		_, err := (&RemoveChannel{ID: id}).apply(p, effects)
		return err
	case at < 0:
		place := slices.IndexFunc(was.Channels, func(c *Channel) bool { return c.ID == id })
		p.Channels = insert(p.Channels, min(place, len(p.Channels)-1), row)
	default:
		p.forget(channelIDs(p.Channels[at]), channelIDs(row))
		p.Channels[at] = row
	}
	p.bringLines(was, channelIDs(row))
	p.clipsOf(was, row)
	p.settleLinks(row)
	return nil
}

// forget takes away what belonged to owners that are there no longer; lines go in any case, as those of then come.
func (p *Project) forget(now, then map[string]bool) {
	p.Lines = slices.DeleteFunc(p.Lines, func(l *Line) bool { return now[l.Owner] })
	gone := map[string]bool{}
	for id := range now {
		if !then[id] {
			gone[id] = true
		}
	}
	p.dropMoves(gone)
	p.retap(func(t *Tap) bool { return gone[t.Node] }, func(Tap) *Tap { return nil })
}

func (p *Project) bringLines(was *Project, owners map[string]bool) {
	for _, l := range was.Lines {
		if owners[l.Owner] && !p.hasLine(l.Owner, l.Name) {
			p.Lines = append(p.Lines, l)
		}
	}
}

// clipsOf brings what the clips of a row need: sounds, takes, treatments.
func (p *Project) clipsOf(was *Project, row *Channel) {
	for _, a := range was.Audio {
		p.keepAudio(a) // what nobody names is let go of with the next revision
	}
	for _, x := range row.Clips {
		t, has := was.TreatmentByID(x.Treatment)
		if !has {
			continue
		}
		i := slices.IndexFunc(p.Treatments, func(y *Treatment) bool { return y.ID == t.ID })
		if i >= 0 {
			p.forget(Owners(p.Treatments[i].Chain.Nodes), Owners(t.Chain.Nodes))
			p.Treatments[i] = t
		} else {
			p.Treatments = append(p.Treatments, t)
		}
		p.bringLines(was, Owners(t.Chain.Nodes))
	}
	for _, t := range was.Takes {
		p.keepTake(t)
	}
}

// settleLinks lets go of rows that a row names and that are there no longer.
func (p *Project) settleLinks(row *Channel) {
	there := map[string]bool{"": true}
	for _, c := range p.Channels {
		there[c.ID] = true
	}
	row.Sends = slices.DeleteFunc(row.Sends, func(s *Send) bool { return !there[s.To] })
	if !there[row.Output] {
		row.Output = p.MainChannel().ID
	}
	p.retap(func(t *Tap) bool { return !there[t.Channel] }, func(Tap) *Tap { return nil })
}

// RowDifference is what differs of a row, or of the song, between two documents, in words.
type RowDifference struct {
	Row    string   `json:"row" required:"true"`    // id; empty: the song itself
	Called string   `json:"called" required:"true"` // what it is called now, or was
	Says   []string `json:"says" required:"true"`
}

// DocumentsDiffer says row by row what has changed from one document to another. What was said about them is no matter.
func DocumentsDiffer(then, now *Project, effects Effects) ([]RowDifference, error) {
	then = then.copy()
	then.sharePoints(now)
	a, err := then.facets()
	if err != nil {
		return nil, err
	}
	b, err := now.facets()
	if err != nil {
		return nil, err
	}
	d := &compared{then, now, effects}
	out := []RowDifference{}
	for _, facet := range Touched(a, b) {
		owner, says := d.says(facet)
		if says == "" {
			continue
		}
		place, there := now.PlaceOf(owner, "", effects)
		if !there {
			place, _ = then.PlaceOf(owner, "", effects)
		}
		i := slices.IndexFunc(out, func(x RowDifference) bool { return x.Row == place.Row })
		if i < 0 {
			i, out = len(out), append(out, RowDifference{Row: place.Row, Called: d.rowName(place.Row)})
		}
		if !slices.Contains(out[i].Says, says) {
			out[i].Says = append(out[i].Says, says)
		}
	}
	slices.SortStableFunc(out, func(x, y RowDifference) int { return now.rowAt(x.Row) - now.rowAt(y.Row) })
	return out, nil
}

func (d *compared) rowName(id string) string {
	for _, p := range []*Project{d.now, d.then} {
		if c, ok := p.Channel(id); ok {
			return c.Name
		}
	}
	return "The song"
}

// rowAt is where a row stands; the song before them all, and what is gone behind them.
func (p *Project) rowAt(id string) int {
	if id == "" {
		return -1
	}
	if i := slices.IndexFunc(p.Channels, func(c *Channel) bool { return c.ID == id }); i >= 0 {
		return i
	}
	return len(p.Channels)
}

func (p *Project) facets() (Facets, error) {
	bare := *p
	bare.Remarks, bare.Lines = nil, nil
	b, err := bare.Bare()
	if err != nil {
		return nil, err
	}
	return FacetsOf(b, p.Lines)
}
