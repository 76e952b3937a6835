package demo

import (
	"fmt"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// slicedBars of the drum before the High Water are cut at their strokes and put in an order of chance.
const slicedBars = 4

// pieces works on parts of recordings: one word of the tide table comes as through a loudhailer, and one of its phrases
// in a lower voice; the drum loses its order before the High Water, until its last stroke falls away; a stroke of the
// bell, backwards, draws the Flood in.
func pieces(p *project.Project) (*project.Project, error) {
	p, err := deeper(p)
	if err != nil {
		return nil, fmt.Errorf("lower a phrase: %w", err)
	}
	if p, err = loudhailer(p); err != nil {
		return nil, fmt.Errorf("treat a word: %w", err)
	}
	if p, err = scattered(p); err != nil {
		return nil, fmt.Errorf("slice the drum: %w", err)
	}
	if p, err = drawnIn(p); err != nil {
		return nil, fmt.Errorf("turn a bell round: %w", err)
	}
	return p, nil
}

// clipIn finds the clip of a row that begins in a part of the song, and the stretch that is played there.
func clipIn(p *project.Project, row string, part int) (*project.Channel, *project.Clip, stretch) {
	for _, v := range voices() {
		for n, s := range v.where {
			if v.name != row || partAt(s.from) != part {
				continue
			}
			for _, c := range p.Channels {
				if c.Name == row {
					return c, c.Clips[n], s
				}
			}
		}
	}
	return nil, nil, stretch{}
}

// loudhailer treats the first half of the second line of the tide table in the Flood.
func loudhailer(p *project.Project) (*project.Project, error) {
	_, clip, s := clipIn(p, "Tide table", 2)
	lines := tideTable(s).Struck
	start := clip.BeginsAt(p.Clock())
	from, to := start+int64((lines[2]-0.03)*rate), start+int64((lines[3]-0.02)*rate)
	id := project.NewID()
	p, _, err := project.Apply(p, []project.Change{
		&project.TreatClips{Clips: []string{clip.ID}, Effect: "saturation", ID: id, Within: &project.ClipRange{From: from, To: to}},
	}, engine.EffectInfo)
	if err != nil {
		return nil, err
	}
	t, _ := p.TreatmentOf(id)
	name, word := "Loudhailer", "One word"
	voice := stage("equaliser", "Its horn", 0, set{"on1": 1, "freq1": 520, "slope1": 1, "freq4": 1700, "gain4": 5, "on8": 1, "freq8": 3800})
	return applied(p,
		&project.SetParam{Owner: id, Name: "drive", Value: 19},
		&project.SetParam{Owner: id, Name: "level", Value: -4},
		&project.SetNode{ID: id, Name: &name},
		&project.AddNode{Owner: t.ID, Index: 0, Node: voice},
		&project.SetClip{ID: p.TreatedBy(t.ID)[0].ID, Name: &word},
	)
}

// deeper lets a line of the tide table in the High Water be read by a lower voice: its formants stay.
func deeper(p *project.Project) (*project.Project, error) {
	_, clip, s := clipIn(p, "Tide table", 3)
	lines := tideTable(s).Struck
	start := clip.BeginsAt(p.Clock())
	from, to := start+int64((lines[2]-0.03)*rate), start+int64((lines[4]-0.1)*rate)
	id := project.NewID()
	p, err := applied(p,
		&project.TreatClips{Clips: []string{clip.ID}, Effect: project.PitchStep, ID: id, Within: &project.ClipRange{From: from, To: to}},
		&project.SetParam{Owner: id, Name: "semitones", Value: -7},
		&project.SetParam{Owner: id, Name: "formants", Value: 1},
		&project.SetParam{Owner: id, Name: "character", Value: 1},
	)
	if err != nil {
		return nil, err
	}
	t, _ := p.TreatmentOf(id)
	name, phrase, gain := "Lower", "A lower voice", -3.0 // as loud as what is read around it
	return applied(p, &project.SetNode{ID: id, Name: &name}, &project.SetClip{ID: p.TreatedBy(t.ID)[0].ID, Name: &phrase, Gain: &gain})
}

// drawnIn puts the last stroke of the bell buoy in the Slack down once more, backwards, so that it ends where the Flood
// begins.
func drawnIn(p *project.Project) (*project.Project, error) {
	const long = 3.4 // seconds
	row, clip, s := clipIn(p, "Bell buoy", 1)
	struck := buoy(s).Struck
	clock := p.Clock()
	start := clip.BeginsAt(clock)
	stroke := start + int64((struck[len(struck)-1]-0.004)*rate)
	flood := clock.Frame(p.Sections[2].Tick)
	id, step := project.NewID(), project.NewID()
	name, quiet, fade := "Bell, drawn in", 2.0, int64(0.02*rate)
	frames := int64(long * rate)
	offset := clip.Offset + stroke - start
	begin := flood - frames
	n := *clip
	n.ID, n.Name, n.Follows, n.Start, n.Offset, n.Frames, n.FadeIn, n.FadeOut, n.Gain = id, name, false, begin, offset, frames, fade, 0, quiet
	return applied(p,
		&project.AddClip{Channel: row.ID, Index: len(row.Clips), Clip: &n},
		&project.TreatClips{Clips: []string{id}, Effect: project.Backwards, ID: step},
	)
}

// scattered slices the last bars of the drum in the Flood and shuffles them; the last stroke is repeated, softer each time.
func scattered(p *project.Project) (*project.Project, error) {
	row, clip, s := clipIn(p, "Frame drum", 2)
	clock := p.Clock()
	start, first := clip.BeginsAt(clock), clock.Frame(clock.Bar(s.to-slicedBars))
	at := []int64{first}
	last := int64(0)
	for _, x := range frameDrum(s).Struck {
		f := start + int64((x-0.004)*rate)
		if f > first+rate/50 && f-last > rate/50 {
			at, last = append(at, f), f
		}
	}
	before := len(row.Clips)
	p, err := applied(p, &project.SplitClips{IDs: []string{clip.ID}, At: at})
	if err != nil {
		return nil, err
	}
	row, _ = p.Channel(row.ID)
	var slices []string
	for _, x := range row.Clips {
		if f := x.BeginsAt(clock); f >= first-rate/100 && f < start+clip.Frames {
			slices = append(slices, x.ID)
		}
	}
	if len(row.Clips)-before != len(slices) {
		return nil, fmt.Errorf("%d slices of %d cuts", len(slices), len(row.Clips)-before)
	}
	if p, err = applied(p, &project.OrderClips{IDs: slices[:len(slices)-1], How: project.OrderShuffle, Seed: 7}); err != nil {
		return nil, err
	}
	return applied(p, &project.RepeatClip{ID: slices[len(slices)-1], Times: 3, Ticks: project.TicksPerQuarter / 2, Gain: -5})
}

func applied(p *project.Project, list ...project.Change) (*project.Project, error) {
	next, _, err := project.Apply(p, list, engine.EffectInfo)
	return next, err
}
