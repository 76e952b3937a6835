package project

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"reflect"
)

// registry names every change. Names are stored: they never change meaning.
var registry = map[string]func() Change{
	"project.set":       func() Change { return &SetProject{} },
	"time.set":          func() Change { return &SetTime{} },
	"tempo.put":         func() Change { return &PutTempo{} },
	"tempo.remove":      func() Change { return &RemoveTempo{} },
	"section.begin":     func() Change { return &BeginSection{} },
	"section.move":      func() Change { return &MoveSection{} },
	"section.repeat":    func() Change { return &RepeatSection{} },
	"section.remove":    func() Change { return &RemoveSection{} },
	"clips.cut":         func() Change { return &CutClips{} },
	"sections.set":      func() Change { return &SetSections{} },
	"channel.add":       func() Change { return &AddChannel{} },
	"channel.remove":    func() Change { return &RemoveChannel{} },
	"channel.move":      func() Change { return &MoveChannel{} },
	"channel.set":       func() Change { return &SetChannel{} },
	"channel.input":     func() Change { return &SetInput{} },
	"sound.place":       func() Change { return &PlaceSound{} },
	"sound.land":        func() Change { return &LandSound{} },
	"print.place":       func() Change { return &PlacePrint{} },
	"print.again":       func() Change { return &PrintAgain{} },
	"print.origin":      func() Change { return &SetOrigin{} },
	"channel.duplicate": func() Change { return &DuplicateChannel{} },
	"chain.set":         func() Change { return &SetChain{} },
	"way-in.put":        func() Change { return &PutWayIn{} },
	"way-in.remove":     func() Change { return &RemoveWayIn{} },
	"take.land":         func() Change { return &LandTake{} },
	"project.back":      func() Change { return &PutBack{} },
	"row.hand":          func() Change { return &TakeInHand{} },
	"row.hand.back":     func() Change { return &setHand{} },
	"remark.make":       func() Change { return &MakeRemark{} },
	"remark.answer":     func() Change { return &AnswerRemark{} },
	"remark.settle":     func() Change { return &SettleRemark{} },
	"remark.remove":     func() Change { return &RemoveRemark{} },
	"remark.put":        func() Change { return &putRemark{} },
	"remark.unsay":      func() Change { return &unsay{} },
	"remark.settled":    func() Change { return &setSettled{} },
	"take.remove":       func() Change { return &removeTake{} },
	"take.choose":       func() Change { return &ChooseTake{} },
	"take.set":          func() Change { return &SetTake{} },
	"clip.untreat":      func() Change { return &Untreat{} },
	"waterline.put":     func() Change { return &PutWaterline{} },
	"chain.back":        func() Change { return &PutChainBack{} },
	"nodes.values":      func() Change { return &SetValues{} },
	"stage.add":         func() Change { return &AddStage{} },
	"stage.renew":       func() Change { return &RenewStage{} },
	"stage.turn":        func() Change { return &TurnStage{} },
	"channel.new":       func() Change { return &NewRow{} },
	"node.add":          func() Change { return &AddNode{} },
	"node.remove":       func() Change { return &RemoveNode{} },
	"node.move":         func() Change { return &MoveNode{} },
	"node.set":          func() Change { return &SetNode{} },
	"stage.replace":     func() Change { return &ReplaceStage{} },
	"stage.duplicate":   func() Change { return &DuplicateStage{} },
	"stage.key":         func() Change { return &SetKey{} },
	"stage.sound":       func() Change { return &SetSound{} },
	"fork.replace":      func() Change { return &ReplaceFork{} },
	"fork.make":         func() Change { return &MakeFork{} },
	"fork.dissolve":     func() Change { return &DissolveFork{} },
	"fork.set":          func() Change { return &SetFork{} },
	"fork.spread":       func() Change { return &SpreadPaths{} },
	"path.add":          func() Change { return &AddPath{} },
	"path.remove":       func() Change { return &RemovePath{} },
	"path.new":          func() Change { return &NewPathOf{} },
	"path.duplicate":    func() Change { return &DuplicatePath{} },
	"path.move":         func() Change { return &MovePath{} },
	"path.set":          func() Change { return &SetPath{} },
	"band.divide":       func() Change { return &DivideBand{} },
	"nodes.paste":       func() Change { return &PasteNodes{} },
	"chain.put":         func() Change { return &PutChain{} },
	"trial.add":         func() Change { return &AddTrial{} },
	"trial.put":         func() Change { return &PutTrial{} },
	"trial.drop":        func() Change { return &DropTrial{} },
	"trial.take":        func() Change { return &TakeTrial{} },
	"param.set":         func() Change { return &SetParam{} },
	"line.set":          func() Change { return &SetLine{} },
	"line.remove":       func() Change { return &RemoveLine{} },
	"line.edit":         func() Change { return &EditLine{} },
	"line.begin":        func() Change { return &BeginLine{} },
	"line.put":          func() Change { return &PutPoint{} },
	"line.move":         func() Change { return &MovePoints{} },
	"line.points":       func() Change { return &SetPoints{} },
	"line.cut":          func() Change { return &CutPoints{} },
	"line.hold":         func() Change { return &HoldStretch{} },
	"line.fill":         func() Change { return &FillStretch{} },
	"line.shape":        func() Change { return &ShapeStretch{} },
	"line.turn":         func() Change { return &TurnStretch{} },
	"line.paste":        func() Change { return &PastePoints{} },
	"line.take-down":    func() Change { return &TakenDown{} },
	"mover.add":         func() Change { return &AddMover{} },
	"mover.apart":       func() Change { return &MoveApart{} },
	"handle.hang":       func() Change { return &Hang{} },
	"handle.let-go":     func() Change { return &LetGo{} },
	"mover.put":         func() Change { return &PutMover{} },
	"mover.set":         func() Change { return &SetMover{} },
	"mover.remove":      func() Change { return &RemoveMover{} },
	"handle.put":        func() Change { return &PutHandle{} },
	"handle.set":        func() Change { return &SetHandle{} },
	"handle.remove":     func() Change { return &RemoveHandle{} },
	"passage.put":       func() Change { return &PutPassage{} },
	"passage.take":      func() Change { return &takePassage{} },
	"passage.remove":    func() Change { return &RemovePassage{} },
	"passage.set":       func() Change { return &SetPassage{} },
	"passage.range":     func() Change { return &RangePassage{} },
	"passage.copy":      func() Change { return &CopyPassage{} },
	"passage.plain":     func() Change { return &PlainPassage{} },
	"course.points":     func() Change { return &SetCourse{} },
	"course.move":       func() Change { return &MoveByCourse{} },
	"course.target":     func() Change { return &SetCourseTarget{} },
	"course.let-go":     func() Change { return &LetGoOfCourse{} },
	"send.add":          func() Change { return &AddSend{} },
	"send.remove":       func() Change { return &RemoveSend{} },
	"send.set":          func() Change { return &SetSend{} },
	"send.rows":         func() Change { return &SendRows{} },
	"send.copy":         func() Change { return &CopySend{} },
	"send.to-stage":     func() Change { return &SendToStage{} },
	"stage.to-send":     func() Change { return &StageToSend{} },
	"return.make":       func() Change { return &MakeReturn{} },
	"group.make":        func() Change { return &MakeGroup{} },
	"group.dissolve":    func() Change { return &DissolveGroup{} },
	"sounding.mean":     func() Change { return &SetMeant{} },
	"audio.add":         func() Change { return &AddAudio{} },
	"audio.remove":      func() Change { return &RemoveAudio{} },
	"clip.add":          func() Change { return &AddClip{} },
	"clip.remove":       func() Change { return &RemoveClip{} },
	"clip.set":          func() Change { return &SetClip{} },
	"clip.move":         func() Change { return &MoveClip{} },
	"clip.window":       func() Change { return &SetWindow{} },
	"clip.trim":         func() Change { return &TrimClip{} },
	"clip.slip":         func() Change { return &SlipClip{} },
	"treatment.put":     func() Change { return &PutTreatment{} },
	"treatment.own":     func() Change { return &OwnTreatment{} },
	"treatment.give":    func() Change { return &GiveTreatment{} },
	"clip.fade":         func() Change { return &FadeClip{} },
	"clip.fit":          func() Change { return &FitClip{} },
	"clip.permanent":    func() Change { return &MakePermanent{} },
	"clips.print":       func() Change { return &PrintClips{} },
	"clip.bring-back":   func() Change { return &BringBack{} },
	"clips.treat":       func() Change { return &TreatClips{} },
	"clips.paste":       func() Change { return &PasteClips{} },
	"clips.order":       func() Change { return &OrderClips{} },
	"clip.repeat":       func() Change { return &RepeatClip{} },
	"clips.split":       func() Change { return &SplitClips{} },
	"clips.join":        func() Change { return &JoinClips{} },
}

// Changes is an empty one of every change, by its name, for those who describe them.
func Changes() map[string]Change {
	out := map[string]Change{}
	for name, make := range registry {
		out[name] = make()
	}
	return out
}

var names = func() map[reflect.Type]string {
	m := map[reflect.Type]string{}
	for name, make := range registry {
		m[reflect.TypeOf(make())] = name
	}
	return m
}()

func nameOf(c Change) (string, bool) {
	n, ok := names[reflect.TypeOf(c)]
	return n, ok
}

// strict decodes one JSON value and refuses unknown fields, trailing data, and lists with holes.
func strict(b []byte, v any) error {
	d := json.NewDecoder(bytes.NewReader(b))
	d.DisallowUnknownFields()
	if err := d.Decode(v); err != nil {
		return Unread(err)
	}
	if _, err := d.Token(); !errors.Is(err, io.EOF) {
		return fmt.Errorf("there is more after the end of the value")
	}
	return whole(v)
}

// maxNamed is how large a document may be in which choices stand by their names: it is read as a whole, at many times its size.
const maxNamed = 8 << 20

// named decodes a document that could not be read as it is: choices may stand in it by their names.
func named(b []byte, effects Effects, was error) (p Project, err error) {
	var mistyped *json.UnmarshalTypeError
	if !errors.As(was, &mistyped) || len(b) > maxNamed {
		return p, was
	}
	n, err := Numbered(b, effects)
	if err != nil {
		return p, err
	}
	return p, strict(n, &p)
}

// Read decodes a project document and validates it. Choices may stand in it as numbers or by their names.
func Read(b []byte, effects Effects) (*Project, error) {
	var p Project
	if err := strict(b, &p); err != nil {
		if p, err = named(b, effects, err); err != nil {
			return nil, fmt.Errorf("read project: %w", err)
		}
	}
	if err := p.complete(); err != nil {
		return nil, fmt.Errorf("read project: %w", err)
	}
	if err := p.Validate(effects); err != nil {
		return nil, err
	}
	return &p, nil
}

// complete fills in what an older document does not say, and refuses what is not there at all where something must be.
func (p *Project) complete() error {
	for _, c := range p.Channels {
		if c.Trials == nil { // written before there were any
			c.Trials = []*Trial{}
		}
		if c.Letter == "" {
			c.Letter = "A"
		}
		for _, o := range c.chains() {
			if err := noHoles(o.chain, 0); err != nil {
				return fmt.Errorf("channel %s: %w", c.Name, err)
			}
		}
	}
	for _, t := range p.Treatments {
		if t == nil {
			return errors.New("there is an empty treatment")
		}
		if err := noHoles(&t.Chain, 0); err != nil {
			return fmt.Errorf("%s: %w", t.Title(), err)
		}
	}
	p.shortenTitles()
	return nil
}

// ReadChain decodes a chain on its own and validates it.
func ReadChain(b []byte, effects Effects) (*Chain, error) {
	var c Chain
	if err := strict(b, &c); err != nil {
		return nil, fmt.Errorf("read chain: %w", err)
	}
	if err := noHoles(&c, 0); err != nil {
		return nil, fmt.Errorf("read chain: %w", err)
	}
	return &c, CheckChain(&c, effects)
}

// noHoles refuses what would be nil pointers, before anything walks the chain.
func noHoles(c *Chain, depth int) error {
	if depth > maxDepth {
		return fmt.Errorf("forks are nested more than %d deep", maxDepth)
	}
	for i, n := range c.Nodes {
		if n == nil || (n.Stage == nil) == (n.Fork == nil) {
			return fmt.Errorf("node %d must be either a stage or a fork", i+1)
		}
		if n.Fork == nil {
			continue
		}
		for _, p := range n.Fork.Paths {
			if p == nil {
				return fmt.Errorf("fork %s has an empty path", n.Fork.Name)
			}
			if err := noHoles(&p.Chain, depth+1); err != nil {
				return err
			}
		}
	}
	return nil
}
