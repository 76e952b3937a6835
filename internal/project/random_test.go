package project

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
)

// randomChange draws a change, sensible or not, over what the document has.
func randomChange(r *rand.Rand, p *Project) Change {
	ch := p.Channels[r.IntN(len(p.Channels))]
	other := p.Channels[r.IntN(len(p.Channels))]
	var nodes, owners, sends, clips, trials, forks, paths []string
	for _, c := range p.Channels {
		owners = append(owners, c.ID)
		for _, t := range c.Trials {
			owners, trials = append(owners, t.ID), append(trials, t.ID)
		}
		for _, s := range c.Sends {
			sends = append(sends, s.ID)
		}
		for _, x := range c.Clips {
			clips = append(clips, x.ID)
		}
		c.Walk(func(_ *Chain, _ int, n *Node) bool {
			nodes = append(nodes, n.ID())
			if n.Fork != nil {
				forks = append(forks, n.ID())
				for _, path := range n.Fork.Paths {
					owners, paths = append(owners, path.ID), append(paths, path.ID)
				}
			}
			return true
		})
	}
	pick := func(from []string) string {
		if len(from) == 0 {
			return "none"
		}
		return from[r.IntN(len(from))]
	}
	yes, name, i := r.IntN(2) == 0, fmt.Sprint("name ", r.IntN(100)), r.IntN(6)
	switch r.IntN(78) {
	case 0:
		return &AddChannel{Channel: NewChannel([]string{Track, Group, Return}[r.IntN(3)], name, p.MainChannel().ID), Index: i}
	case 1:
		return &RemoveChannel{ch.ID}
	case 2:
		return &MoveChannel{ch.ID, i}
	case 3:
		return &SetChannel{ID: ch.ID, Name: &name, Mute: &yes, Output: &other.ID}
	case 4:
		return &DuplicateChannel{ch.ID}
	case 5:
		return &SetChain{pick(owners), &yes}
	case 6, 7:
		return &AddNode{pick(owners), i, stageNode("trim")}
	case 8:
		return &RemoveNode{pick(nodes)}
	case 9, 10:
		return &MoveNode{pick(nodes), pick(owners), i}
	case 11:
		return &SetNode{ID: pick(nodes), Name: &name, Bypass: &yes}
	case 12:
		return &ReplaceStage{ID: pick(nodes), Stage: NewStage("reverb", 1, 30, "add"), Keep: yes}
	case 13:
		return &DuplicateStage{pick(nodes)}
	case 14:
		return &SetKey{pick(nodes), &Tap{Channel: ch.ID, Point: "post"}}
	case 15:
		return &SetParam{Owner: pick(nodes), Name: []string{"gain", "mix", "nothing"}[r.IntN(3)], Value: float64(r.IntN(40))}
	case 16:
		return &SetLine{Owner: pick(nodes), Name: "gain", Points: []Point{{Tick: 0, Value: float64(-r.IntN(60)), Shape: Hold}}}
	case 17:
		return &AddSend{ch.ID, i, &Send{To: other.ID, Level: -10}}
	case 18:
		return &RemoveSend{pick(sends)}
	case 19:
		keyed := stageNode("reverb")
		keyed.Stage.Key = &Tap{Channel: ch.ID, Point: "after", Node: pick(nodes)}
		return &PasteNodes{pick(owners), i, []*Node{stageNode("trim"), keyed}}
	case 20:
		return &PutChain{Owner: pick(owners), Bypass: yes, Nodes: []*Node{stageNode("reverb"), stageNode("trim")}}
	case 21, 22:
		var order []int
		if yes && len(ch.Chain.Nodes) > 0 {
			order = r.Perm(len(ch.Chain.Nodes))
		}
		return &AddTrial{Channel: ch.ID, Order: order}
	case 23:
		return &DropTrial{pick(trials)}
	case 24:
		return &TakeTrial{pick(trials)}
	case 25:
		after := []string{"", "input", pick(nodes)}[r.IntN(3)]
		return &SetSend{ID: pick(sends), Pre: &yes, After: &after}
	case 26, 27:
		if yes {
			return &SetInput{ch.ID, &Tap{Channel: other.ID, Point: "after", Node: pick(nodes)}}
		}
		return &SetInput{ch.ID, &Tap{Channel: other.ID, Point: "pre"}}
	case 28:
		return &MakeReturn{Name: name, Effect: "reverb", Channels: []string{ch.ID, other.ID}}
	case 29:
		return &StageToSend{Stage: pick(nodes)}
	case 30:
		return &SendToStage{pick(sends)}
	case 31:
		return &CopySend{pick(sends), []string{ch.ID, other.ID}, yes}
	case 32:
		return &MakeGroup{Name: name, Channels: []string{ch.ID, other.ID}}
	case 33:
		return &DissolveGroup{ch.ID}
	case 34:
		if yes {
			return &SendRows{other.ID, []string{ch.ID, other.ID}}
		}
		return &SetMeant{"ghost", ch.ID, "Ada", yes}
	case 35:
		return &MakeFork{Kind: []string{Copies, LeftRight, MidSide, Bands}[r.IntN(4)], Bands: 2 + i, Owner: pick(owners), Index: i}
	case 36, 37:
		return &MakeFork{Kind: Copies, Nodes: []string{pick(nodes)}}
	case 38:
		if yes {
			return &DissolveFork{ID: pick(forks)}
		}
		return &DissolveFork{ID: pick(forks), Path: pick(paths)}
	case 39:
		slope := 24 + 24*r.IntN(2)
		return &SetFork{pick(forks), &slope, &yes}
	case 40:
		return &NewPathOf{Fork: pick(forks)}
	case 41:
		return &DuplicatePath{ID: pick(paths)}
	case 42, 43:
		return &RemovePath{pick(paths)}
	case 44:
		return &MovePath{pick(paths), i}
	case 45:
		return &SetPath{pick(paths), &name, &yes, nil}
	case 46, 47:
		return &DivideBand{Path: pick(paths)}
	case 48:
		return &SpreadPaths{Fork: pick(forks)}
	case 49:
		return &SetParam{Owner: pick(forks), Name: []string{"x1", "x2", "trim", "mix"}[r.IntN(4)], Value: float64(r.IntN(2000)) / 10}
	case 50:
		return &SetInput{ch.ID, &Tap{Channel: other.ID, Point: "path", Node: pick(paths)}}
	case 51, 52:
		return &PutPoint{Stretch: randomStretch(r, ch), Value: -float64(r.IntN(40))}
	case 53:
		return &HoldStretch{randomStretch(r, ch), -float64(r.IntN(40))}
	case 54:
		return &FillStretch{randomStretch(r, ch), int64(40 + r.IntN(200)), []string{"value", "rise", "chance"}[r.IntN(3)], -20, 0, int64(i)}
	case 55:
		return &TurnStretch{randomStretch(r, ch), []string{"reverse", "thin", "scale", "shift"}[r.IntN(4)], r.Float64()}
	case 56:
		if l, _ := p.line(ch.ID, "fader"); l != nil && len(l.Points) > 0 {
			return &MovePoints{randomStretch(r, ch), []int64{l.Points[r.IntN(len(l.Points))].Tick}, int64(r.IntN(40000) - 20000), r.Float64() - 0.5}
		}
		return &BeginLine{ch.ID, "pan"}
	case 57:
		return &PastePoints{Stretch: randomStretch(r, ch), Points: []Point{{Tick: 50, Value: -3, Shape: Ramp}, {Tick: 400, Value: -30, Shape: Hold}}, Of: &Address{other.ID, "fader"}}
	case 58:
		return &TakenDown{Stretch: randomStretch(r, ch), Frames: []int64{9000, 9500, 20000}, Values: []float64{-3, -9, -2}, Glide: int64(r.IntN(5000))}
	case 59, 60:
		x := away(p)
		x.ID, x.From, x.To, x.Tail = NewID(), int64(i*700), int64(i*700+r.IntN(4000)), []string{TailRing, TailCut, TailFade, TailHold}[r.IntN(4)]
		if id := pick(nodes); yes && id != "none" {
			x.Courses[0].Targets = append(x.Courses[0].Targets, CourseTarget{Owner: id, Name: "mix", From: 100, To: 20})
			x.Brought = []string{id}
		}
		return &PutPassage{Passage: x}
	case 65:
		return &MoveSection{p.Sections[r.IntN(len(p.Sections))].ID, r.IntN(3) - 1, yes}
	case 66:
		if len(p.Sections) > 5 {
			return &RemoveSection{p.Sections[r.IntN(len(p.Sections))].ID, true, yes}
		}
		return &RepeatSection{p.Sections[r.IntN(len(p.Sections))].ID, yes}
	case 67:
		return &PutTempo{At: int64(r.IntN(200000)), BPM: float64(60 + r.IntN(100)), Ramp: yes}
	case 68:
		return &CutClips{ch.ID}
	case 70:
		return &AddMover{Owner: []string{ch.ID, pick(nodes)}[r.IntN(2)], Name: []string{"fader", "mix"}[r.IntN(2)]}
	case 71, 72:
		id, what := "none", []string{`{"shape":"level"}`, `{"shape":"drawn"}`, `{"rate":2,"quarters":0}`, `{"follow":{"attack":3}}`, `{"seed":9,"nothing":1}`,
			`{"follow":{"tap":{"channel":"` + other.ID + `","point":"post"}}}`, `{"shape":"sine","follow":null}`, `{"name":"x","id":"y"}`}[r.IntN(8)]
		var target *MoverTarget
		if len(p.Movers) > 0 {
			m := p.Movers[r.IntN(len(p.Movers))]
			if id = m.ID; yes && len(m.Targets) > 0 {
				target = &MoverTarget{m.Targets[0].Owner, m.Targets[0].Name, r.Float64()}
			}
		}
		return &SetMover{ID: id, What: json.RawMessage(what), Target: target}
	case 73:
		return &Hang{Owner: ch.ID, Name: []string{"fader", "pan"}[r.IntN(2)]}
	case 74, 75:
		id, what := "none", []string{`{"shown":true}`, `{"home":"` + ch.ID + `"}`, `{"home":"","shown":false}`, `{"name":"grip"}`, `{"name":7}`}[r.IntN(5)]
		var target *HandleTarget
		if len(p.Handles) > 0 {
			h := p.Handles[r.IntN(len(p.Handles))]
			if id = h.ID; yes && len(h.Targets) > 0 {
				target = &HandleTarget{h.Targets[0].Owner, h.Targets[0].Name, 0, r.Float64(), 0.5}
			}
		}
		return &SetHandle{ID: id, What: json.RawMessage(what), Target: target}
	case 76:
		if len(p.Movers) > 0 {
			return &RemoveMover{p.Movers[r.IntN(len(p.Movers))].ID}
		}
		return &LetGo{ch.ID, "fader"}
	case 61:
		return &RemovePassage{randomPassage(r, p)}
	case 62:
		return &PlainPassage{randomPassage(r, p)}
	case 63:
		return &CopyPassage{ID: randomPassage(r, p), Section: p.Sections[r.IntN(len(p.Sections))].ID}
	case 64:
		return &RangePassage{ID: randomPassage(r, p), From: int64(r.IntN(90000)), To: int64(r.IntN(90000)), Snap: 120}
	default:
		start := int64(r.IntN(1000))
		if yes {
			return &MoveClip{ID: pick(clips), By: int64(r.IntN(200000) - 100000), Snap: 240, Along: true}
		}
		return &SetClip{ID: pick(clips), Start: &start}
	}
}

// randomStretch is some part of a fader's line.
func randomStretch(r *rand.Rand, ch *Channel) Stretch {
	from := int64(r.IntN(60000))
	return Stretch{ch.ID, "fader", from, from + int64(r.IntN(60000)), int64(r.IntN(2) * 120)}
}

func randomPassage(r *rand.Rand, p *Project) string {
	if len(p.Passages) == 0 {
		return "none"
	}
	return p.Passages[r.IntN(len(p.Passages))].ID
}
