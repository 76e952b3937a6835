package project

import (
	"fmt"
	"slices"

	"shoal/internal/param"
)

// PlacePrint puts a print of a track, taken after its chain and before its fader, on a new track below it. That one
// has what stands behind the chain: fader, pan, output, sends and all that moves them. Where the source is muted, the
// mix stays as it is: what listened to the source behind its fader listens to the print, and sends that are taken
// within its chain stay open.
type PlacePrint struct {
	Source string `json:"source"`
	Print  string `json:"print"` // the id of the print job
	ID     string `json:"id"`    // of the new track
	Audio  Audio  `json:"audio"`
	Start  int64  `json:"start"` // frame
	Mute   bool   `json:"mute"`  // the source
	// To is the song frame as far as which it was printed, and Key that of its makings, see MakingsOfRow.
	To  int64  `json:"to,omitempty"`
	Key string `json:"key,omitempty"`
}

func (c *PlacePrint) apply(p *Project, effects Effects) ([]Change, error) {
	source, ok := p.Channel(c.Source)
	if !ok { // somebody has removed it meanwhile: what was printed is not lost
		source = NewChannel(Track, "Lost row", p.MainChannel().ID)
		source.ID = c.Source
	}
	if source.Kind != Track {
		return nil, fmt.Errorf("only a track is printed to a new track; %s is a %s", source.Name, source.Kind)
	}
	track := NewChannel(Track, p.printName(source.Name), source.Output)
	track.ID = c.ID
	track.Stereo, track.Fader, track.Pan, track.Tint, track.SoloSafe = source.Stereo, source.Fader, source.Pan, source.Tint, source.SoloSafe
	track.PrintOf = &Origin{Print: c.Print, Channel: source.ID, Name: source.Name, To: c.To, Key: c.Key}
	fresh := map[string]string{source.ID: track.ID}
	for _, s := range source.Sends {
		if s.After != "" { // its signal is in the chain, which the print has behind it
			continue
		}
		copied := *s
		copied.ID = NewID()
		fresh[s.ID] = copied.ID
		track.Sends = append(track.Sends, &copied)
	}
	sound := c.Audio
	sound.Name = track.Name
	track.Clips = p.printClips(source, track.Name, sound, c.Start)
	index := slices.Index(p.Channels, source) + 1
	if !ok {
		index = len(p.Channels) - 1
	}
	undo, err := p.each(effects, &AddAudio{Audio: sound}, &AddChannel{Channel: track, Index: index})
	if err != nil {
		return nil, err
	}
	p.moveCopies(fresh)
	if !c.Mute || !ok {
		return undo, nil
	}
	silent, err := p.silence(source, track, effects)
	return slices.Concat(silent, undo), err
}

// printClips are the clips of a print: one, cut where a passage's tail rule ends on the source, for such a rule lasts
// until a clip begins.
func (p *Project) printClips(source *Channel, name string, sound Audio, start int64) []*Clip {
	clock, cuts := p.Clock(), []int64{start}
	for _, x := range p.Passages {
		if x.Tail == TailRing || !slices.Contains(x.Rows, source.ID) {
			continue
		}
		if f, ok := p.NextSound(source.ID, clock.Frame(x.To), clock); ok && f > start && f < start+sound.Frames {
			cuts = append(cuts, f)
		}
	}
	slices.Sort(cuts)
	cuts = append(slices.Compact(cuts), start+sound.Frames)
	var clips []*Clip
	for i, from := range cuts[:len(cuts)-1] {
		clips = append(clips, &Clip{
			ID: NewID(), Name: name, Audio: sound.Hash,
			Start: from, Offset: from - start, Frames: cuts[i+1] - from, Exact: true,
		})
	}
	return clips
}

// silence mutes a source whose print stands on a track: by hand, for nothing else may open it again.
func (p *Project) silence(source, track *Channel, effects Effects) ([]Change, error) {
	undo := p.retap(func(t *Tap) bool { return t.Channel == source.ID && t.Point == "post" }, func(t Tap) *Tap {
		t.Channel = track.ID
		return &t
	})
	yes, no := true, false
	list := append(p.unmoved(source.ID, param.Mute.Name), &SetChannel{ID: source.ID, Mute: &yes, MutePre: &no})
	for _, s := range source.Sends {
		if s.After == "" {
			list = append(list, p.unmoved(s.ID, param.Mute.Name)...)
			list = append(list, &SetSend{ID: s.ID, Mute: &yes})
		}
	}
	muted, err := p.each(effects, list...)
	return slices.Concat(muted, undo), err
}

// unmoved are the changes after which only a hand sets a switch.
func (p *Project) unmoved(owner, name string) (list []Change) {
	if p.hasLine(owner, name) {
		list = append(list, &SetLine{Owner: owner, Name: name})
	}
	for _, x := range p.Passages {
		for i, course := range x.Courses {
			if slices.ContainsFunc(course.Targets, func(t CourseTarget) bool { return t.Owner == owner && t.Name == name }) {
				list = append(list, &LetGoOfCourse{ID: x.ID, Course: i, Owner: owner, Name: name})
			}
		}
	}
	return list
}

// printName names a print after its source: "Choir print", "Choir print 2".
func (p *Project) printName(source string) string {
	name := firstLetters(source, maxName-len(" print 999")) + " print"
	if !slices.ContainsFunc(p.Channels, func(c *Channel) bool { return c.Name == name }) {
		return name
	}
	return p.freeName(name)
}
