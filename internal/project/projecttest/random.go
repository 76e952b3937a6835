// Package projecttest draws changes by chance, for tests that ask what holds after any of them.
package projecttest

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"math/rand/v2"

	"shoal/internal/project"
)

// RandomChange draws a change, sensible or not, over what the document has.
func RandomChange(r *rand.Rand, p *project.Project) project.Change {
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
		c.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
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
	switch r.IntN(97) {
	case 83, 84, 85, 86, 87, 88, 89, 90, 91, 92, 93, 94, 95, 96:
		return seldom(r, p, ch)
	case 82:
		return &project.RenewStage{ID: pick(nodes)}
	case 81:
		if len(p.Lines) == 0 {
			return &project.RemoveLine{Owner: pick(nodes), Name: "gain"}
		}
		l := p.Lines[r.IntN(len(p.Lines))]
		return &project.RemoveLine{Owner: l.Owner, Name: l.Name}
	case 78:
		return &project.AddStage{Owner: pick(owners), Index: i, Effect: []string{"trim", "reverb", "nothing"}[r.IntN(3)], Off: yes}
	case 79:
		return &project.TurnStage{ID: pick(nodes), Effect: []string{"trim", "limiter", "nothing"}[r.IntN(3)]}
	case 80:
		return &project.NewRow{Kind: []string{project.Track, project.Return, project.Main}[r.IntN(3)]}
	case 0:
		return &project.AddChannel{
			Channel: project.NewChannel([]string{project.Track, project.Group, project.Return}[r.IntN(3)], name, p.MainChannel().ID),
			Index:   i,
		}
	case 1:
		return &project.RemoveChannel{ID: ch.ID}
	case 2:
		return &project.MoveChannel{ID: ch.ID, Index: i}
	case 3:
		return &project.SetChannel{ID: ch.ID, Name: &name, Mute: &yes, Output: &other.ID}
	case 4:
		return &project.DuplicateChannel{ID: ch.ID}
	case 5:
		return &project.SetChain{Owner: pick(owners), Bypass: &yes}
	case 6, 7:
		return &project.AddNode{Owner: pick(owners), Index: i, Node: Stage([]string{"trim", "trim", "limiter", "delay"}[r.IntN(4)])}
	case 8:
		return &project.RemoveNode{ID: pick(nodes)}
	case 9, 10:
		return &project.MoveNode{ID: pick(nodes), Owner: pick(owners), Index: i}
	case 11:
		return &project.SetNode{ID: pick(nodes), Name: &name, Bypass: &yes}
	case 12:
		return &project.ReplaceStage{ID: pick(nodes), Stage: project.NewStage("reverb", 1, 30, "add"), Keep: yes}
	case 13:
		return &project.DuplicateStage{ID: pick(nodes)}
	case 14:
		return &project.SetKey{ID: pick(nodes), Key: &project.Tap{Channel: ch.ID, Point: "post"}}
	case 15:
		return &project.SetParam{
			Owner: pick(nodes),
			Name:  []string{"gain", "mix", "ceiling", "ahead", "nothing"}[r.IntN(5)],
			Value: float64(r.IntN(40)),
		}
	case 16:
		return &project.SetLine{
			Owner:  pick(nodes),
			Name:   "gain",
			Points: []project.Point{{Tick: 0, Value: float64(-r.IntN(60)), Shape: project.Hold}},
		}
	case 17:
		return &project.AddSend{Channel: ch.ID, Index: i, Send: &project.Send{To: other.ID, Level: -10}}
	case 18:
		return &project.RemoveSend{ID: pick(sends)}
	case 19:
		keyed := Stage("reverb")
		keyed.Stage.Key = &project.Tap{Channel: ch.ID, Point: "after", Node: pick(nodes)}
		return &project.PasteNodes{Owner: pick(owners), Index: i, Nodes: []*project.Node{Stage("trim"), keyed}}
	case 20:
		return &project.PutChain{Owner: pick(owners), Bypass: yes, Nodes: []*project.Node{Stage("reverb"), Stage("trim")}}
	case 21, 22:
		var order []int
		if yes && len(ch.Chain.Nodes) > 0 {
			order = r.Perm(len(ch.Chain.Nodes))
		}
		return &project.AddTrial{Channel: ch.ID, Order: order}
	case 23:
		return &project.DropTrial{ID: pick(trials)}
	case 24:
		return &project.TakeTrial{ID: pick(trials)}
	case 25:
		after := []string{"", "input", pick(nodes)}[r.IntN(3)]
		return &project.SetSend{ID: pick(sends), Pre: &yes, After: &after}
	case 26, 27:
		if yes {
			return &project.SetInput{Channel: ch.ID, Input: &project.Tap{Channel: other.ID, Point: "after", Node: pick(nodes)}}
		}
		return &project.SetInput{Channel: ch.ID, Input: &project.Tap{Channel: other.ID, Point: "pre"}}
	case 28:
		return &project.MakeReturn{Name: name, Effect: "reverb", Channels: []string{ch.ID, other.ID}}
	case 29:
		return &project.StageToSend{Stage: pick(nodes)}
	case 30:
		return &project.SendToStage{Send: pick(sends)}
	case 31:
		return &project.CopySend{Send: pick(sends), Channels: []string{ch.ID, other.ID}, Silent: yes}
	case 32:
		return &project.MakeGroup{Name: name, Channels: []string{ch.ID, other.ID}}
	case 33:
		return &project.DissolveGroup{ID: ch.ID}
	case 34:
		if yes {
			return &project.SendRows{To: other.ID, Channels: []string{ch.ID, other.ID}}
		}
		return &project.SetMeant{Rule: "ghost", At: ch.ID, By: "Ada", Meant: yes}
	case 35:
		return &project.MakeFork{
			Kind:  []string{project.Copies, project.LeftRight, project.MidSide, project.Bands}[r.IntN(4)],
			Bands: 2 + i,
			Owner: pick(owners),
			Index: i,
		}
	case 36, 37:
		return &project.MakeFork{Kind: project.Copies, Nodes: []string{pick(nodes)}}
	case 38:
		if yes {
			return &project.DissolveFork{ID: pick(forks)}
		}
		return &project.DissolveFork{ID: pick(forks), Path: pick(paths)}
	case 39:
		slope := 24 + 24*r.IntN(2)
		return &project.SetFork{ID: pick(forks), Slope: &slope, Linear: &yes}
	case 40:
		return &project.NewPathOf{Fork: pick(forks)}
	case 41:
		return &project.DuplicatePath{ID: pick(paths)}
	case 42, 43:
		return &project.RemovePath{ID: pick(paths)}
	case 44:
		return &project.MovePath{ID: pick(paths), Index: i}
	case 45:
		return &project.SetPath{ID: pick(paths), Name: &name, Mute: &yes, Invert: nil}
	case 46, 47:
		return &project.DivideBand{Path: pick(paths)}
	case 48:
		return &project.SpreadPaths{Fork: pick(forks)}
	case 49:
		return &project.SetParam{
			Owner: pick(forks),
			Name:  []string{"x1", "x2", "trim", "mix"}[r.IntN(4)],
			Value: float64(r.IntN(2000)) / 10,
		}
	case 50:
		return &project.SetInput{Channel: ch.ID, Input: &project.Tap{Channel: other.ID, Point: "path", Node: pick(paths)}}
	case 51, 52:
		return &project.PutPoint{Stretch: randomStretch(r, ch), Value: -float64(r.IntN(40))}
	case 53:
		return &project.HoldStretch{Stretch: randomStretch(r, ch), Value: -float64(r.IntN(40))}
	case 54:
		return &project.FillStretch{
			Stretch: randomStretch(r, ch),
			Every:   int64(40 + r.IntN(200)),
			How:     []string{"value", "rise", "chance"}[r.IntN(3)],
			Low:     -20,
			High:    0,
			Seed:    int64(i),
		}
	case 55:
		return &project.TurnStretch{
			Stretch: randomStretch(r, ch),
			How:     []string{"reverse", "thin", "scale", "shift"}[r.IntN(4)],
			By:      r.Float64(),
		}
	case 56:
		if l := lineOf(p, ch.ID, "fader"); l != nil && len(l.Points) > 0 {
			return &project.MovePoints{
				Stretch: randomStretch(r, ch),
				Ticks:   []int64{l.Points[r.IntN(len(l.Points))].Tick},
				By:      int64(r.IntN(40000) - 20000),
				Up:      r.Float64() - 0.5,
			}
		}
		return &project.BeginLine{Owner: ch.ID, Name: "pan"}
	case 57:
		return &project.PastePoints{
			Stretch: randomStretch(r, ch),
			Points:  []project.Point{{Tick: 50, Value: -3, Shape: project.Ramp}, {Tick: 400, Value: -30, Shape: project.Hold}},
			Of:      &project.Address{Owner: other.ID, Name: "fader"},
		}
	case 58:
		return &project.TakenDown{
			Stretch: randomStretch(r, ch),
			Frames:  []int64{9000, 9500, 20000},
			Values:  []float64{-3, -9, -2},
			Glide:   int64(r.IntN(5000)),
		}
	case 59, 60:
		x := away(p)
		x.ID, x.From, x.To, x.Tail = project.NewID(), int64(
			i*700,
		), int64(
			i*700+r.IntN(4000),
		), []string{project.TailRing, project.TailCut, project.TailFade, project.TailHold}[r.IntN(4)]
		if id := pick(nodes); yes && id != "none" {
			x.Courses[0].Targets = append(x.Courses[0].Targets, project.CourseTarget{Owner: id, Name: "mix", From: 100, To: 20})
			x.Brought = []string{id}
		}
		return &project.PutPassage{Passage: x}
	case 65:
		return &project.MoveSection{ID: section(r, p), By: r.IntN(3) - 1, Along: yes}
	case 66:
		if len(p.Sections) > 5 {
			return &project.RemoveSection{ID: section(r, p), All: true, Along: yes}
		}
		return &project.RepeatSection{ID: section(r, p), Along: yes}
	case 67:
		return &project.PutTempo{At: int64(r.IntN(200000)), BPM: float64(60 + r.IntN(100)), Ramp: yes}
	case 68:
		return &project.CutClips{Channel: ch.ID}
	case 70:
		return &project.AddMover{Owner: []string{ch.ID, pick(nodes)}[r.IntN(2)], Name: []string{"fader", "mix"}[r.IntN(2)]}
	case 71, 72:
		id, what := "none", []string{`{"shape":"level"}`, `{"shape":"drawn"}`, `{"rate":2,"quarters":0}`, `{"follow":{"attack":3}}`, `{"seed":9,"nothing":1}`,
			`{"follow":{"tap":{"channel":"` + other.ID + `","point":"post"}}}`, `{"shape":"sine","follow":null}`, `{"name":"x","id":"y"}`}[r.IntN(8)]
		var target *project.MoverTarget
		if len(p.Movers) > 0 {
			m := p.Movers[r.IntN(len(p.Movers))]
			if id = m.ID; yes && len(m.Targets) > 0 {
				target = &project.MoverTarget{Owner: m.Targets[0].Owner, Name: m.Targets[0].Name, Depth: r.Float64()}
			}
		}
		return &project.SetMover{ID: id, What: json.RawMessage(what), Target: target}
	case 73:
		return &project.Hang{Owner: ch.ID, Name: []string{"fader", "pan"}[r.IntN(2)]}
	case 74, 75:
		id, what := "none", []string{`{"shown":true}`, `{"home":"` + ch.ID + `"}`, `{"home":"","shown":false}`, `{"name":"grip"}`, `{"name":7}`}[r.IntN(5)]
		var target *project.HandleTarget
		if len(p.Handles) > 0 {
			h := p.Handles[r.IntN(len(p.Handles))]
			if id = h.ID; yes && len(h.Targets) > 0 {
				target = &project.HandleTarget{Owner: h.Targets[0].Owner, Name: h.Targets[0].Name, From: 0, To: r.Float64(), Bend: 0.5}
			}
		}
		return &project.SetHandle{ID: id, What: json.RawMessage(what), Target: target}
	case 76:
		if len(p.Movers) > 0 {
			return &project.RemoveMover{ID: p.Movers[r.IntN(len(p.Movers))].ID}
		}
		return &project.LetGo{Owner: ch.ID, Name: "fader"}
	case 61:
		return &project.RemovePassage{ID: randomPassage(r, p)}
	case 62:
		return &project.PlainPassage{ID: randomPassage(r, p)}
	case 63:
		return &project.CopyPassage{ID: randomPassage(r, p), Section: section(r, p)}
	case 64:
		return &project.RangePassage{ID: randomPassage(r, p), From: int64(r.IntN(90000)), To: int64(r.IntN(90000)), Snap: 120}
	default:
		start := int64(r.IntN(1000))
		if yes {
			return &project.MoveClip{ID: pick(clips), By: int64(r.IntN(200000) - 100000), Snap: 240, Along: true}
		}
		return &project.SetClip{ID: pick(clips), Start: &start}
	}
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
