package engine

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"math"

	"shoal/internal/effect"
	"shoal/internal/project"
	"shoal/internal/stretch"
)

// Work is audio that must be worked out before a clip can be played: everything of its treatment up to the last
// whole-sound step. It is named by a key over all that it depends on, so it is the same for everybody who needs it.
type Work struct {
	Key      string
	Source   string // hash
	From, To int64  // frames of the source
	Rate     int
	Tempo    float64 // of note lengths in the steps that run
	Steps    []WorkStep
	Channels int
	// Lead is how many frames of tails lie before what comes of the extent, Body that, and Trail what lies behind it.
	Lead, Body, Trail int64
}

// WorkStep is one of the steps: a chain that runs, or a whole-sound step.
type WorkStep struct {
	Chain *project.Chain `json:"chain,omitempty"`
	Tail  int64          `json:"tail,omitempty"` // frames for which the chain sounds on

	Effect  string      `json:"effect,omitempty"`
	Version int         `json:"version,omitempty"`
	Values  []float64   `json:"values,omitempty"`
	Map     stretch.Map `json:"map,omitempty"` // of a Length step, over tails too
}

// Frames is how long the work is with its tails.
func (w *Work) Frames() int64 { return w.Lead + w.Body + w.Trail }

// workVersion is raised when working out itself changes, such as package stretch.
const workVersion = 1

// WorkOf is what must be worked out for a clip, nil for nothing, and what of its treatment runs live behind it.
func WorkOf(p *project.Project, x *project.Clip, clock *project.Clock) (*Work, *project.Chain) {
	t, ok := p.TreatmentByID(x.Treatment)
	if !ok {
		return nil, nil
	}
	last := -1 // index of the last whole-sound step that acts
	live := &project.Chain{Bypass: t.Chain.Bypass, Nodes: []*project.Node{}}
	for i, n := range t.Chain.Nodes {
		if !isWhole(n) {
			live.Nodes = append(live.Nodes, n)
		} else if !n.Stage.Bypass && !t.Chain.Bypass {
			last, live.Nodes = i, []*project.Node{}
		}
	}
	if last < 0 || x.Extent == nil {
		return nil, live
	}
	a, _ := p.AudioByHash(x.Audio)
	w := &Work{Source: x.Audio, From: x.Extent.From, To: x.Extent.To, Rate: p.SampleRate, Channels: a.Channels,
		Body: x.Extent.To - x.Extent.From}
	tempo := clock.Tempo(x.BeginsAt(clock))
	var run []*project.Node
	for _, n := range t.Chain.Nodes[:last+1] {
		switch {
		case !isWhole(n):
			run = append(run, n)
		case !n.Stage.Bypass:
			w.runs(run, tempo)
			run = nil
			w.whole(p, x, n.Stage, clock)
		}
	}
	w.fit(x.Extent.Frames)
	w.Key = w.key()
	return w, live
}

func isWhole(n *project.Node) bool {
	if n.Stage == nil {
		return false
	}
	k, ok := effect.Of(n.Stage.Effect, n.Stage.Version)
	return ok && k.Whole
}

// runs adds a chain that runs.
func (w *Work) runs(nodes []*project.Node, tempo float64) {
	if len(nodes) == 0 {
		return
	}
	chain := &project.Chain{Nodes: nodes}
	tail := int64(math.Ceil(min(maxRing, chainTail(chain, tempo)) * float64(w.Rate)))
	w.Steps = append(w.Steps, WorkStep{Chain: chain, Tail: tail})
	w.Trail += tail
	w.Tempo, w.Channels = tempo, 2
}

// whole adds a whole-sound step.
func (w *Work) whole(p *project.Project, x *project.Clip, s *project.Stage, clock *project.Clock) {
	k, _ := effect.Of(s.Effect, s.Version)
	step := WorkStep{Effect: s.Effect, Version: s.Version, Values: make([]float64, len(k.Params))}
	for i := range k.Params {
		step.Values[i] = valueOf(s, &k.Params[i])
	}
	switch s.Effect {
	case project.Backwards:
		w.Lead, w.Trail = w.Trail, w.Lead
	case project.LengthStep:
		step.Map = w.stretched(p.LengthMap(s, x, w.Body, clock, EffectInfo))
	}
	w.Steps = append(w.Steps, step)
}

// stretched is the map of a body with its tails on either side, each as fast as the body is where they meet.
func (w *Work) stretched(body stretch.Map) stretch.Map {
	first, last := body[1], body[len(body)-2]
	lead := math.Round(float64(w.Lead) * first.To / first.From)
	trail := math.Round(float64(w.Trail) * (body.Out() - last.To) / (body.In() - last.From))
	var m stretch.Map
	if w.Lead > 0 {
		m = append(m, stretch.Point{})
	}
	for _, p := range body {
		m = append(m, stretch.Point{From: p.From + float64(w.Lead), To: p.To + lead})
	}
	if w.Trail > 0 {
		m = append(m, stretch.Point{From: m.In() + float64(w.Trail), To: m.Out() + trail})
	}
	w.Lead, w.Body, w.Trail = int64(lead), int64(math.Round(body.Out())), int64(trail)
	return m
}

// fit makes the body as long as the clip counts on: what follows the song may differ by a frame.
func (w *Work) fit(frames int64) {
	for i := len(w.Steps) - 1; i >= 0 && w.Body != frames; i-- {
		if m := w.Steps[i].Map; m != nil {
			m[len(m)-1].To += float64(frames - w.Body)
			w.Body = frames
		}
	}
}

func (w *Work) key() string {
	b, err := json.Marshal(struct {
		Version  int
		Source   string
		From, To int64
		Rate     int
		Tempo    float64
		Steps    []WorkStep
	}{workVersion, w.Source, w.From, w.To, w.Rate, w.Tempo, w.Steps})
	if err != nil {
		panic(err) // plain data always marshals
	}
	sum := sha256.Sum256(b)
	return hex.EncodeToString(sum[:])
}
