// Package preset knows what a preset is, which ones ship with Shoal, and what
// becomes of a document when one is taken: all of it as ordinary changes.
package preset

import (
	"fmt"
	"slices"
	"strings"

	"shoal/internal/effect"
	"shoal/internal/project"
)

// Version is the version of the presets' format.
const Version = 1

// Kinds of presets.
const (
	Stage   = "stage"
	Chain   = "chain"
	Fork    = "fork"
	Channel = "channel"
)

// Preset is a setting with a name: of a stage, of a whole chain, of a fork by itself, or of a channel with
// all that is on it.
type Preset struct {
	Version int    `json:"version" required:"true"`
	ID      string `json:"id" required:"true"`
	Kind    string `json:"kind" required:"true" enum:"stage,chain,fork,channel"`
	Effect  string `json:"effect" required:"true"` // of a stage's preset
	// EffectVersion is the sound of the effect that it was saved with; those without were saved with the first.
	EffectVersion int      `json:"effectVersion,omitempty"`
	Name          string   `json:"name" required:"true"`
	Says          string   `json:"says" required:"true"` // what it is for
	Tags          []string `json:"tags" required:"true"`
	Shipped       bool     `json:"shipped" required:"true"`
	// Unknown are what this program does not know of it: it is kept, and left out when the
	// preset is taken.
	Unknown []string `json:"unknown" required:"true"`
	Body    Body     `json:"body" required:"true"`
}

// Body is what a preset sets.
type Body struct {
	Params   map[string]float64 `json:"params,omitempty"` // those that differ from the default
	Mix      float64            `json:"mix"`
	MixLaw   string             `json:"mixLaw,omitempty"`
	Nodes    []*project.Node    `json:"nodes,omitempty"`
	Moves    *project.Moves     `json:"moves,omitempty"` // movers and handles that go with the nodes
	Fader    float64            `json:"fader"`
	Pan      float64            `json:"pan"`
	Stereo   bool               `json:"stereo"`
	SoloSafe bool               `json:"soloSafe"`
	Tint     int                `json:"tint"`
	Output   string             `json:"output,omitempty"` // the name of the group it goes to; empty: the main output
}

// Check refuses what is no preset, in words.
func (p *Preset) Check() error {
	p.Name, p.Says = strings.TrimSpace(p.Name), strings.TrimSpace(p.Says)
	if err := project.CheckWords("a preset", p.Name, p.Says, p.Tags); err != nil {
		return err
	}
	switch {
	case p.Kind != Stage && p.Kind != Chain && p.Kind != Fork && p.Kind != Channel:
		return fmt.Errorf("preset %s: unknown kind %q", p.Name, p.Kind)
	case p.Kind == Stage && p.Effect == "":
		return fmt.Errorf("preset %s: it does not say for which effect it is", p.Name)
	case p.Kind == Fork && (len(p.Body.Nodes) != 1 || p.Body.Nodes[0] == nil || p.Body.Nodes[0].Fork == nil):
		return fmt.Errorf("preset %s: it holds no fork", p.Name)
	}
	for _, n := range p.Body.Nodes {
		if n == nil || (n.Stage == nil) == (n.Fork == nil) {
			return fmt.Errorf("preset %s: a node must be either a stage or a fork", p.Name)
		}
	}
	if p.Tags == nil {
		p.Tags = []string{}
	}
	p.Unknown = p.unknown()
	return nil
}

// unknown lists the effects and parameters that this program does not have.
func (p *Preset) unknown() []string {
	list := []string{}
	if p.Version > Version {
		list = append(list, fmt.Sprintf("format version %d", p.Version))
	}
	params := func(id string, version int, m map[string]float64) {
		newest, ok := effect.Find(id)
		if !ok {
			list = append(list, "effect "+id)
			return
		}
		k, ok := effect.Of(id, version)
		if !ok {
			list = append(list, fmt.Sprintf("version %d of %s", version, newest.Name))
			k = newest
		}
		for name := range m {
			if k.Index(name) < 0 {
				list = append(list, k.Name+" "+name)
			}
		}
	}
	if p.Kind == Stage {
		params(p.Effect, max(p.EffectVersion, 1), p.Body.Params)
	}
	chain := project.Chain{Nodes: p.Body.Nodes}
	chain.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
		if n.Stage != nil {
			params(n.Stage.Effect, n.Stage.Version, n.Stage.Params)
		}
		return true
	})
	slices.Sort(list)
	return list
}

// kind is the effect of a stage's preset as it sounded when the preset was saved, or the nearest to that.
func (p *Preset) kind() (*effect.Kind, error) {
	if k, ok := effect.Of(p.Effect, max(p.EffectVersion, 1)); ok {
		return k, nil
	}
	if k, ok := effect.Find(p.Effect); ok {
		return k, nil
	}
	return nil, fmt.Errorf("preset %s is for the effect %q, which this program does not have", p.Name, p.Effect)
}

// known copies parameters without what the effect does not have; values out of range are
// brought into it.
func known(k *effect.Kind, m map[string]float64) map[string]float64 {
	out := map[string]float64{}
	for name, v := range m {
		if i := k.Index(name); i >= 0 {
			if v = k.Params[i].Clamp(v); v != k.Params[i].Default && k.Params[i].Check(v) == nil {
				out[name] = v
			}
		}
	}
	return out
}

// Take gives the changes that put a preset on a stage (its id), or on a channel or trial (its
// owner's id).
func (p *Preset) Take(doc *project.Project, target string) ([]project.Change, error) {
	switch p.Kind {
	case Stage:
		s, _, ok := doc.StageByID(target)
		if !ok {
			return nil, fmt.Errorf("the stage is no longer there")
		}
		next, err := p.stage(doc.WetStage(target))
		if err != nil {
			return nil, err
		}
		if s.Effect == p.Effect { // a loaded sound is not part of a preset
			next.Sound = s.Sound
		}
		return []project.Change{&project.ReplaceStage{ID: target, Stage: next, Preset: true}}, nil
	case Chain:
		return []project.Change{&project.PutChain{Owner: target, Nodes: p.nodes(), Moves: p.Body.Moves}}, nil
	case Fork:
		return []project.Change{&project.ReplaceFork{ID: target, Fork: p.nodes()[0].Fork, Moves: p.Body.Moves}}, nil
	}
	ch, ok := doc.Channel(target)
	if !ok {
		return nil, fmt.Errorf("the row is no longer there")
	}
	b := p.Body
	out := []project.Change{
		&project.PutChain{Owner: target, Nodes: p.nodes(), Moves: p.Body.Moves},
		&project.SetParam{Owner: target, Name: "fader", Value: b.Fader}, &project.SetParam{Owner: target, Name: "pan", Value: b.Pan},
	}
	if ch.Kind != project.Main {
		out = append(out, &project.SetChannel{ID: target, Stereo: &b.Stereo, SoloSafe: &b.SoloSafe, Tint: &b.Tint})
	}
	return out, nil
}

// stage is a new stage as the preset has it; fully wet where the dry signal is heard elsewhere.
func (p *Preset) stage(wet bool) (*project.Stage, error) {
	k, err := p.kind()
	if err != nil {
		return nil, err
	}
	s := project.NewStage(p.Effect, k.Version, p.Body.Mix, p.Body.MixLaw)
	s.Params = known(k, p.Body.Params)
	if wet {
		s.Mix, s.MixLaw = 100, "blend"
	}
	return s, nil
}

// nodes copies the chain without what this program does not know.
func (p *Preset) nodes() []*project.Node {
	chain := project.Clone(project.Chain{Nodes: p.Body.Nodes})
	strip(&chain)
	return chain.Nodes
}

func strip(c *project.Chain) {
	c.Nodes = slices.DeleteFunc(c.Nodes, func(n *project.Node) bool {
		if n.Fork != nil {
			for _, path := range n.Fork.Paths {
				strip(&path.Chain)
			}
			return false
		}
		k, ok := effect.Of(n.Stage.Effect, max(n.Stage.Version, 1))
		if !ok {
			k, ok = effect.Find(n.Stage.Effect)
		}
		if ok {
			n.Stage.Params, n.Stage.Version = known(k, n.Stage.Params), k.Version
		}
		return !ok
	})
	if c.Nodes == nil {
		c.Nodes = []*project.Node{}
	}
}

// From makes the preset of what stands in a document: a stage (its id), or the chain of a
// channel or trial (its owner's id), or a channel.
func From(doc *project.Project, kind, target string) (*Preset, error) {
	p := &Preset{Version: Version, ID: project.NewID(), Kind: kind, Tags: []string{}, Unknown: []string{}}
	if kind == Stage {
		s, _, ok := doc.StageByID(target)
		if !ok {
			return nil, fmt.Errorf("the stage is no longer there")
		}
		p.Effect, p.EffectVersion = s.Effect, s.Version
		p.Body = Body{Params: project.Clone(s.Params), Mix: s.Mix, MixLaw: s.MixLaw}
		return p, nil
	}
	for _, ch := range doc.Channels {
		chain := &ch.Chain
		found := ch.ID == target
		for _, t := range ch.Trials {
			if t.ID == target {
				found, chain = true, &t.Chain
			}
		}
		if !found {
			continue
		}
		owners := project.Owners(chain.Nodes)
		owners[ch.ID] = kind == Channel
		p.hold(doc, ch.ID, chain.Nodes, owners)
		if kind == Channel {
			p.Body.Fader, p.Body.Pan, p.Body.Stereo, p.Body.SoloSafe, p.Body.Tint = ch.Fader, ch.Pan, ch.Stereo, ch.SoloSafe, ch.Tint
			if to, ok := doc.Channel(ch.Output); ok && to.Kind == project.Group {
				p.Body.Output = to.Name
			}
		}
		return p, nil
	}
	if ch, chain, ok := doc.ChainByOwner(target); ok && kind == Chain { // of a path
		p.hold(doc, ch.ID, chain.Nodes, project.Owners(chain.Nodes))
		return p, nil
	}
	if f, ch, ok := doc.ForkByID(target); ok && kind == Fork {
		nodes := []*project.Node{{Fork: f}}
		p.hold(doc, ch.ID, nodes, project.Owners(nodes))
		return p, nil
	}
	return nil, fmt.Errorf("the chain is no longer there")
}

// hold takes nodes into a preset with what moves them.
func (p *Preset) hold(doc *project.Project, row string, nodes []*project.Node, owners map[string]bool) {
	p.Body = Body{Nodes: project.Clone(nodes)}
	if m := doc.MovesOf(row, owners); len(m.Movers)+len(m.Handles) > 0 {
		p.Body.Moves = &m
	}
}

// Find returns a shipped preset.
func Find(id string) (*Preset, bool) {
	for _, p := range Shipped() {
		if p.ID == id {
			return &p, true
		}
	}
	return nil, false
}
