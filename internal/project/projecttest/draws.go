package projecttest

import (
	"encoding/json"

	"shoal/internal/project"
)

// draws are the kinds of changes, each with how often it is drawn.
var draws = []struct {
	weight int
	draw   func(d *drawing) project.Change
}{
	{6, (*drawing).ofRows},
	{16, (*drawing).ofChains},
	{13, (*drawing).ofSends},
	{15, (*drawing).ofForks},
	{10, (*drawing).ofLines},
	{6, (*drawing).ofPassages},
	{5, (*drawing).ofSong},
	{8, (*drawing).ofPieces},
	{7, (*drawing).ofMoves},
	{4, (*drawing).ofTrials},
	{5, (*drawing).ofTakes},
	{4, (*drawing).ofRemarks},
	{14, func(d *drawing) project.Change { return seldom(d.r, d.p, d.ch) }},
}

// rows draws a change of rows.
func (d *drawing) ofRows() project.Change {
	switch d.r.IntN(6) {
	case 0:
		return &project.NewRow{Kind: []string{project.Track, project.Return, project.Main}[d.r.IntN(3)]}
	case 1:
		return &project.AddChannel{
			Channel: project.NewChannel([]string{project.Track, project.Group, project.Return}[d.r.IntN(3)], d.name, d.p.MainChannel().ID),
			Index:   d.i,
		}
	case 2:
		return &project.RemoveChannel{ID: d.ch.ID}
	case 3:
		return &project.MoveChannel{ID: d.ch.ID, Index: d.i}
	case 4:
		return &project.SetChannel{ID: d.ch.ID, Name: &d.name, Mute: &d.yes, Output: &d.other.ID}
	default:
		return &project.DuplicateChannel{ID: d.ch.ID}
	}
}

// chains draws a change of chains and stages.
func (d *drawing) ofChains() project.Change {
	switch d.r.IntN(19) {
	case 17:
		nodes := project.Clone(d.ch).Chain.Nodes
		d.r.Shuffle(len(nodes), func(i, k int) { nodes[i], nodes[k] = nodes[k], nodes[i] })
		if len(nodes) > 0 && d.yes {
			nodes[0] = Stage("trim")
		}
		return &project.PutChainBack{Channel: d.ch.ID, Nodes: nodes}
	case 18:
		nodes := project.Clone(d.ch).Chain.Nodes
		for _, n := range nodes {
			if n.Stage != nil {
				n.Stage.Bypass = d.yes
			}
		}
		return &project.SetValues{Nodes: nodes}
	case 16:
		return &project.PutWaterline{Node: d.pick(d.nodes)}
	case 0:
		return &project.RenewStage{ID: d.pick(d.nodes)}
	case 1:
		return &project.AddStage{
			Owner:  d.pick(d.owners),
			Index:  d.i,
			Effect: []string{"trim", "reverb", "nothing"}[d.r.IntN(3)],
			Off:    d.yes,
		}
	case 2:
		return &project.TurnStage{ID: d.pick(d.nodes), Effect: []string{"trim", "limiter", "nothing"}[d.r.IntN(3)]}
	case 3:
		return &project.SetChain{Owner: d.pick(d.owners), Bypass: &d.yes}
	case 4, 5:
		return &project.AddNode{Owner: d.pick(d.owners), Index: d.i, Node: Stage([]string{"trim", "trim", "limiter", "delay"}[d.r.IntN(4)])}
	case 6:
		return &project.RemoveNode{ID: d.pick(d.nodes)}
	case 7, 8:
		return &project.MoveNode{ID: d.pick(d.nodes), Owner: d.pick(d.owners), Index: d.i}
	case 9:
		return &project.SetNode{ID: d.pick(d.nodes), Name: &d.name, Bypass: &d.yes}
	case 10:
		return &project.ReplaceStage{ID: d.pick(d.nodes), Stage: project.NewStage("reverb", 1, 30, "add"), Keep: d.yes}
	case 11:
		return &project.DuplicateStage{ID: d.pick(d.nodes)}
	case 12:
		return &project.SetKey{ID: d.pick(d.nodes), Key: &project.Tap{Channel: d.ch.ID, Point: "post"}}
	case 13:
		return &project.SetParam{
			Owner: d.pick(d.nodes),
			Name:  []string{"gain", "mix", "ceiling", "ahead", "nothing"}[d.r.IntN(5)],
			Value: float64(d.r.IntN(40)),
		}
	case 14:
		keyed := Stage("reverb")
		keyed.Stage.Key = &project.Tap{Channel: d.ch.ID, Point: "after", Node: d.pick(d.nodes)}
		return &project.PasteNodes{Owner: d.pick(d.owners), Index: d.i, Nodes: []*project.Node{Stage("trim"), keyed}}
	default:
		return &project.PutChain{Owner: d.pick(d.owners), Bypass: d.yes, Nodes: []*project.Node{Stage("reverb"), Stage("trim")}}
	}
}

// sends draws a change of sends, groups and inputs.
func (d *drawing) ofSends() project.Change {
	switch d.r.IntN(13) {
	case 0:
		return &project.AddSend{Channel: d.ch.ID, Index: d.i, Send: &project.Send{To: d.other.ID, Level: -10}}
	case 1:
		return &project.RemoveSend{ID: d.pick(d.sends)}
	case 2:
		after := []string{"", "input", d.pick(d.nodes)}[d.r.IntN(3)]
		return &project.SetSend{ID: d.pick(d.sends), Pre: &d.yes, After: &after}
	case 3, 4:
		if d.yes {
			return &project.SetInput{Channel: d.ch.ID, Input: &project.Tap{Channel: d.other.ID, Point: "after", Node: d.pick(d.nodes)}}
		}
		return &project.SetInput{Channel: d.ch.ID, Input: &project.Tap{Channel: d.other.ID, Point: "pre"}}
	case 5:
		return &project.MakeReturn{Name: d.name, Effect: "reverb", Channels: []string{d.ch.ID, d.other.ID}}
	case 6:
		return &project.StageToSend{Stage: d.pick(d.nodes)}
	case 7:
		return &project.SendToStage{Send: d.pick(d.sends)}
	case 8:
		return &project.CopySend{Send: d.pick(d.sends), Channels: []string{d.ch.ID, d.other.ID}, Silent: d.yes}
	case 9:
		return &project.MakeGroup{Name: d.name, Channels: []string{d.ch.ID, d.other.ID}}
	case 10:
		return &project.DissolveGroup{ID: d.ch.ID}
	case 11:
		if d.yes {
			return &project.SendRows{To: d.other.ID, Channels: []string{d.ch.ID, d.other.ID}}
		}
		return &project.SetMeant{Rule: "ghost", At: d.ch.ID, By: "Ada", Meant: d.yes}
	default:
		return &project.SetInput{Channel: d.ch.ID, Input: &project.Tap{Channel: d.other.ID, Point: "path", Node: d.pick(d.paths)}}
	}
}

// forks draws a change of forks and their paths.
func (d *drawing) ofForks() project.Change {
	switch d.r.IntN(15) {
	case 0:
		return &project.MakeFork{
			Kind:  []string{project.Copies, project.LeftRight, project.MidSide, project.Bands}[d.r.IntN(4)],
			Bands: 2 + d.i,
			Owner: d.pick(d.owners),
			Index: d.i,
		}
	case 1, 2:
		return &project.MakeFork{Kind: project.Copies, Nodes: []string{d.pick(d.nodes)}}
	case 3:
		if d.yes {
			return &project.DissolveFork{ID: d.pick(d.forks)}
		}
		return &project.DissolveFork{ID: d.pick(d.forks), Path: d.pick(d.paths)}
	case 4:
		slope := 24 + 24*d.r.IntN(2)
		return &project.SetFork{ID: d.pick(d.forks), Slope: &slope, Linear: &d.yes}
	case 5:
		return &project.NewPathOf{Fork: d.pick(d.forks)}
	case 6:
		return &project.DuplicatePath{ID: d.pick(d.paths)}
	case 7, 8:
		return &project.RemovePath{ID: d.pick(d.paths)}
	case 9:
		return &project.MovePath{ID: d.pick(d.paths), Index: d.i}
	case 10:
		return &project.SetPath{ID: d.pick(d.paths), Name: &d.name, Mute: &d.yes, Invert: nil}
	case 11, 12:
		return &project.DivideBand{Path: d.pick(d.paths)}
	case 13:
		return &project.SpreadPaths{Fork: d.pick(d.forks)}
	default:
		return &project.SetParam{
			Owner: d.pick(d.forks),
			Name:  []string{"x1", "x2", "trim", "mix"}[d.r.IntN(4)],
			Value: float64(d.r.IntN(2000)) / 10,
		}
	}
}

// ofPieceLines draws a change of the lines of a treatment.
func (d *drawing) ofPieceLines() project.Change {
	owner := "none"
	d.p.Treatments[d.r.IntN(len(d.p.Treatments))].Chain.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
		owner = n.ID()
		return d.r.IntN(3) > 0
	})
	at := project.Stretch{Owner: owner, Name: "mix", From: int64(d.r.IntN(60000)), Snap: int64(d.r.IntN(2) * 120)}
	if at.To = at.From + 9000; d.r.IntN(2) == 0 {
		return &project.HoldStretch{Stretch: at, Value: float64(d.r.IntN(100))}
	}
	return &project.PutPoint{Stretch: at, Value: float64(d.r.IntN(100))}
}

// lines draws a change of lines.
func (d *drawing) ofLines() project.Change {
	switch d.r.IntN(10) {
	case 0:
		if len(d.p.Lines) == 0 {
			return &project.RemoveLine{Owner: d.pick(d.nodes), Name: "gain"}
		}
		l := d.p.Lines[d.r.IntN(len(d.p.Lines))]
		return &project.RemoveLine{Owner: l.Owner, Name: l.Name}
	case 1:
		return &project.SetLine{
			Owner:  d.pick(d.nodes),
			Name:   "gain",
			Points: []project.Point{{Tick: 0, Value: float64(-d.r.IntN(60)), Shape: project.Hold}},
		}
	case 2:
		if len(d.p.Treatments) > 0 {
			return d.ofPieceLines()
		}
		fallthrough
	case 3:
		return &project.PutPoint{Stretch: randomStretch(d.r, d.ch), Value: -float64(d.r.IntN(40))}
	case 4:
		return &project.HoldStretch{Stretch: randomStretch(d.r, d.ch), Value: -float64(d.r.IntN(40))}
	case 5:
		return &project.FillStretch{
			Stretch: randomStretch(d.r, d.ch),
			Every:   int64(40 + d.r.IntN(200)),
			How:     []string{"value", "rise", "chance"}[d.r.IntN(3)],
			Low:     -20,
			High:    0,
			Seed:    int64(d.i),
		}
	case 6:
		return &project.TurnStretch{
			Stretch: randomStretch(d.r, d.ch),
			How:     []string{"reverse", "thin", "scale", "shift"}[d.r.IntN(4)],
			By:      d.r.Float64(),
		}
	case 7:
		if l := lineOf(d.p, d.ch.ID, "fader"); l != nil && len(l.Points) > 0 {
			return &project.MovePoints{
				Stretch: randomStretch(d.r, d.ch),
				Ticks:   []int64{l.Points[d.r.IntN(len(l.Points))].Tick},
				By:      int64(d.r.IntN(40000) - 20000),
				Up:      d.r.Float64() - 0.5,
				Copy:    d.r.IntN(3) == 0,
			}
		}
		return &project.BeginLine{Owner: d.ch.ID, Name: "pan"}
	case 8:
		return &project.PastePoints{
			Stretch: randomStretch(d.r, d.ch),
			Points:  []project.Point{{Tick: 50, Value: -3, Shape: project.Ramp}, {Tick: 400, Value: -30, Shape: project.Hold}},
			Of:      &project.Address{Owner: d.other.ID, Name: "fader"},
		}
	default:
		return &project.TakenDown{
			Stretch: randomStretch(d.r, d.ch),
			Frames:  []int64{9000, 9500, 20000},
			Values:  []float64{-3, -9, -2},
			Glide:   int64(d.r.IntN(5000)),
		}
	}
}

// passages draws a change of passages.
func (d *drawing) ofPassages() project.Change {
	switch d.r.IntN(6) {
	case 0, 1:
		x := away(d.p)
		x.ID, x.From, x.To, x.Tail = project.NewID(), int64(
			d.i*700,
		), int64(
			d.i*700+d.r.IntN(4000),
		), []string{project.TailRing, project.TailCut, project.TailFade, project.TailHold}[d.r.IntN(4)]
		if id := d.pick(d.nodes); d.yes && id != "none" {
			x.Courses[0].Targets = append(x.Courses[0].Targets, project.CourseTarget{Owner: id, Name: "mix", From: 100, To: 20})
			x.Brought = []string{id}
		}
		return &project.PutPassage{Passage: x}
	case 2:
		return &project.RemovePassage{ID: randomPassage(d.r, d.p)}
	case 3:
		return &project.PlainPassage{ID: randomPassage(d.r, d.p)}
	case 4:
		return &project.CopyPassage{ID: randomPassage(d.r, d.p), Section: section(d.r, d.p)}
	default:
		return &project.RangePassage{ID: randomPassage(d.r, d.p), From: int64(d.r.IntN(90000)), To: int64(d.r.IntN(90000)), Snap: 120}
	}
}

// song draws a change of sections, tempo and clips.
func (d *drawing) ofSong() project.Change {
	switch d.r.IntN(5) {
	case 0:
		return &project.MoveSection{ID: section(d.r, d.p), By: d.r.IntN(3) - 1, Along: d.yes}
	case 1:
		if len(d.p.Sections) > 5 {
			return &project.RemoveSection{ID: section(d.r, d.p), All: true, Along: d.yes}
		}
		return &project.RepeatSection{ID: section(d.r, d.p), Along: d.yes}
	case 2:
		return &project.PutTempo{At: int64(d.r.IntN(200000)), BPM: float64(60 + d.r.IntN(100)), Ramp: d.yes}
	case 3:
		return &project.CutClips{Channel: d.ch.ID}
	default:
		start := int64(d.r.IntN(1000))
		if d.yes {
			return &project.MoveClip{ID: d.pick(d.clips), By: int64(d.r.IntN(200000) - 100000), Snap: 240, Along: true}
		}
		return &project.SetClip{ID: d.pick(d.clips), Start: &start}
	}
}

// ofPieces draws a change of clips.
func (d *drawing) ofPieces() project.Change {
	id, far := d.pick(d.clips), int64(d.r.IntN(40000)-20000)
	snap := project.Snap{Grid: int64(d.r.IntN(2) * 240), Near: int64(d.r.IntN(2) * 500)}
	if d.r.IntN(3) == 0 {
		return d.ofMadePieces(id)
	}
	switch d.r.IntN(12) {
	case 11:
		return d.pasted(id)
	case 9:
		return &project.OrderClips{IDs: d.clips, How: []string{"reverse", "shuffle", "grid"}[d.r.IntN(3)], Seed: d.r.Uint64(), Grid: 240}
	case 10:
		var what *project.RepeatParam
		if x, ok := d.p.ClipByID(id); ok && d.yes && x.Treatment != "" {
			t, _ := d.p.TreatmentByID(x.Treatment)
			for owner := range project.Owners(t.Chain.Nodes) {
				what = &project.RepeatParam{Owner: owner, Name: "mix", By: -0.2}
			}
		}
		return &project.RepeatClip{ID: id, Times: d.r.IntN(4), Ticks: 480, Gain: -3, Param: what}
	case 6:
		within := &project.ClipRange{From: int64(d.r.IntN(9000)), To: int64(9000 + d.r.IntN(30000))}
		if d.yes {
			within = nil
		}
		clips := []string{id, d.pick(d.clips)}
		return &project.TreatClips{Clips: clips, Effect: []string{"trim", "delay", "backwards", "length"}[d.r.IntN(4)], Within: within}
	case 7:
		return &project.GiveTreatment{From: []string{"", id}[d.r.IntN(2)], Clips: []string{d.pick(d.clips)}, Copy: d.yes}
	case 8:
		if d.yes {
			return &project.PutTreatment{Treatment: &project.Treatment{ID: project.NewID(), Chain: project.Chain{Nodes: []*project.Node{}}}}
		}
		return &project.OwnTreatment{Clips: []string{id}}
	case 0:
		return &project.SplitClips{Rows: []string{d.ch.ID, d.other.ID}, At: []int64{int64(d.r.IntN(30000)), int64(d.r.IntN(30000))}, Snap: snap}
	case 1:
		return &project.JoinClips{IDs: d.clips}
	case 2:
		return &project.TrimClip{ID: id, Edge: []string{"begin", "end"}[d.r.IntN(2)], By: far, Both: d.yes, Snap: snap}
	case 3:
		return &project.SlipClip{ID: id, By: far}
	case 4:
		return &project.MoveClip{ID: id, By: far, Row: d.other.ID, Copy: []string{"", project.NewID()}[d.r.IntN(2)]}
	default:
		swell := []project.Swell{{At: 10, Gain: -6, Step: d.yes}, {At: int64(10 + d.r.IntN(20000)), Gain: float64(d.r.IntN(84) - 60)}}
		shape, over, bend := []string{"", "s", "power", "gain"}[d.r.IntN(4)], []string{"", "sum", "cover", "fade"}[d.r.IntN(4)], d.r.Float64()*2-1
		if d.yes {
			swell = []project.Swell{}
		}
		enters := []string{"", project.EntersBehind, project.EntersWayIn}[d.r.IntN(3)]
		return &project.SetClip{ID: id, Enters: &enters, Swell: &swell, InShape: &shape, Over: &over, OutBend: &bend, Mute: &d.yes}
	}
}

// ofMadePieces draws a change of what is worked out for clips and printed of them.
func (d *drawing) ofMadePieces(id string) project.Change {
	switch d.r.IntN(9) {
	case 8:
		land := &project.LandSound{Row: d.ch.ID, ID: project.NewID(), Name: d.name, Start: int64(d.r.IntN(9000)), Behind: d.yes}
		if len(d.p.Audio) > 0 {
			land.Audio = d.p.Audio[0]
		}
		return land
	case 6:
		return &project.SetOrigin{ID: d.ch.ID, PrintOf: &project.Origin{Print: "p", Channel: d.other.ID, Name: d.name, Key: "k"}}
	case 7:
		again := &project.PrintAgain{Key: d.name}
		if n := len(d.p.Audio); n > 0 {
			again.Was, again.Audio = d.p.Audio[d.r.IntN(n)].Hash, d.p.Audio[d.r.IntN(n)]
		}
		return again
	case 0:
		made := &project.PrintClips{Clips: []string{id}, Start: int64(d.r.IntN(9000)), Empty: d.yes}
		if len(d.p.Audio) > 0 {
			made.Audio = d.p.Audio[0]
		}
		return made
	case 1:
		return &project.FadeClip{ID: id, Edge: []string{"begin", "end"}[d.r.IntN(2)], Ticks: int64(d.r.IntN(2000))}
	case 2:
		made := &project.MakePermanent{ID: id}
		if len(d.p.Audio) > 0 {
			made.Audio = d.p.Audio[0]
		}
		return made
	case 3:
		return &project.BringBack{ID: id}
	case 4:
		return &project.FitClip{ID: id, Frames: int64(d.r.IntN(60000))}
	default:
		return d.wholeStep(id)
	}
}

// wholeStep turns a whole-sound step of a clip's treatment, or lets it pass.
func (d *drawing) wholeStep(id string) project.Change {
	x, ok := d.p.ClipByID(id)
	if !ok {
		return &project.TreatClips{Clips: []string{id}, Effect: "length"}
	}
	t, ok := d.p.TreatmentByID(x.Treatment)
	if !ok || len(t.Chain.Nodes) == 0 {
		return &project.TreatClips{Clips: []string{id}, Effect: "backwards"}
	}
	stage := t.Chain.Nodes[d.r.IntN(len(t.Chain.Nodes))].ID()
	if d.yes {
		return &project.SetNode{ID: stage, Bypass: &d.yes}
	}
	name := []string{"percent", "by", "tempo"}[d.r.IntN(3)]
	return &project.SetParam{Owner: stage, Name: name, Value: float64(d.r.IntN(2) * (10 + d.r.IntN(300)))}
}

// pasted puts down a copy of a clip with its sound and its treatment.
func (d *drawing) pasted(id string) project.Change {
	c := &project.PasteClips{Row: d.ch.ID, At: int64(d.r.IntN(90000)), Copied: project.Copied{Rate: d.p.SampleRate, Audio: d.p.Audio}}
	if x, ok := d.p.ClipByID(id); ok {
		c.Clips = []project.CopiedClip{{Clip: *x}, {Clip: *x, Down: d.r.IntN(2), By: 4800}}
		if t, ok := d.p.TreatmentByID(x.Treatment); ok {
			c.Treatments = []*project.Treatment{t}
		}
	}
	return c
}

// moves draws a change of movers and handles.
func (d *drawing) ofMoves() project.Change {
	switch d.r.IntN(7) {
	case 0:
		return &project.AddMover{Owner: []string{d.ch.ID, d.pick(d.nodes)}[d.r.IntN(2)], Name: []string{"fader", "mix"}[d.r.IntN(2)]}
	case 1, 2:
		id, what := "none", []string{
			`{"shape":"level"}`, `{"shape":"drawn"}`, `{"rate":2,"quarters":0}`, `{"follow":{"attack":3}}`, `{"seed":9,"nothing":1}`,
			`{"follow":{"tap":{"channel":"` + d.other.ID + `","point":"post"}}}`, `{"shape":"sine","follow":null}`,
			`{"name":"x","id":"y"}`,
		}[d.r.IntN(8)]
		var target *project.MoverTarget
		if len(d.p.Movers) > 0 {
			m := d.p.Movers[d.r.IntN(len(d.p.Movers))]
			if id = m.ID; d.yes && len(m.Targets) > 0 {
				target = &project.MoverTarget{Owner: m.Targets[0].Owner, Name: m.Targets[0].Name, Depth: d.r.Float64()}
			}
		}
		return &project.SetMover{ID: id, What: json.RawMessage(what), Target: target}
	case 3:
		return &project.Hang{Owner: d.ch.ID, Name: []string{"fader", "pan"}[d.r.IntN(2)]}
	case 4, 5:
		id, what := "none", []string{
			`{"shown":true}`, `{"home":"` + d.ch.ID + `"}`, `{"home":"","shown":false}`, `{"name":"grip"}`, `{"name":7}`,
		}[d.r.IntN(5)]
		var target *project.HandleTarget
		if len(d.p.Handles) > 0 {
			h := d.p.Handles[d.r.IntN(len(d.p.Handles))]
			if id = h.ID; d.yes && len(h.Targets) > 0 {
				target = &project.HandleTarget{Owner: h.Targets[0].Owner, Name: h.Targets[0].Name, From: 0, To: d.r.Float64(), Bend: 0.5}
			}
		}
		return &project.SetHandle{ID: id, What: json.RawMessage(what), Target: target}
	default:
		if len(d.p.Movers) > 0 {
			return &project.RemoveMover{ID: d.p.Movers[d.r.IntN(len(d.p.Movers))].ID}
		}
		return &project.LetGo{Owner: d.ch.ID, Name: "fader"}
	}
}

// trials draws a change of trials.
func (d *drawing) ofTrials() project.Change {
	switch d.r.IntN(4) {
	case 0, 1:
		var order []int
		if d.yes && len(d.ch.Chain.Nodes) > 0 {
			order = d.r.Perm(len(d.ch.Chain.Nodes))
		}
		return &project.AddTrial{Channel: d.ch.ID, Order: order}
	case 2:
		return &project.DropTrial{ID: d.pick(d.trials)}
	default:
		return &project.TakeTrial{ID: d.pick(d.trials)}
	}
}
