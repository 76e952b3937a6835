package project

import (
	"crypto/rand"
	"encoding/json"
)

const idLetters = "abcdefghijkmnpqrstuvwxyz23456789"

// NewID returns a short random id; 10 letters of 32 are 50 bits.
func NewID() string {
	var b [10]byte
	_, _ = rand.Read(b[:])
	for i, x := range b {
		b[i] = idLetters[int(x)%len(idLetters)]
	}
	return string(b[:])
}

// New returns an empty project with a main output.
func New(name string, rate int, bpm float64, beats, unit int) *Project {
	return &Project{
		Version: Version, ID: NewID(), Name: name, SampleRate: rate,
		Tempo:    []Tempo{{BPM: bpm}},
		Meter:    []Meter{{Beats: beats, Unit: unit}},
		Sections: []Section{},
		Channels: []*Channel{NewChannel(Main, "Main", "")},
		Lines:    []*Line{}, Audio: []Audio{},
	}
}

// NewChannel returns a channel with nothing on it.
func NewChannel(kind, name, output string) *Channel {
	return &Channel{
		ID: NewID(), Kind: kind, Name: name, Stereo: true, Output: output, SoloSafe: kind == Return || kind == Main,
		Chain: Chain{Nodes: []*Node{}}, Trials: []*Trial{}, Letter: "A", Sends: []*Send{}, Clips: []*Clip{},
	}
}

// NewStage returns a stage of an effect as it is inserted.
func NewStage(effect string, version int, mix float64, law string) *Stage {
	return &Stage{ID: NewID(), Effect: effect, Version: version, Params: map[string]float64{}, Mix: mix, MixLaw: law, ActsOn: "both"}
}

// Clone returns a deep copy of any part of the document.
func Clone[T any](v T) T {
	b, err := json.Marshal(v)
	if err != nil {
		panic(err) // plain data always marshals
	}
	var out T
	if err := json.Unmarshal(b, &out); err != nil {
		panic(err)
	}
	return out
}

// freshIDs gives new ids to a channel and everything on it, and returns the old
// ids with their new ones. References within the channel follow.
func freshIDs(c *Channel) map[string]string { return freshIDsAs(c, NewID()) }

// freshIDsAs is the same where it is settled what id the channel itself gets.
func freshIDsAs(c *Channel, own string) map[string]string {
	m := map[string]string{c.ID: own}
	give := func(id *string) {
		n := NewID()
		m[*id] = n
		*id = n
	}
	c.ID = own
	for _, s := range c.Sends {
		give(&s.ID)
	}
	for _, x := range c.Clips {
		give(&x.ID)
	}
	for _, t := range c.Trials {
		give(&t.ID)
	}
	c.Walk(func(_ *Chain, _ int, n *Node) bool {
		if n.Stage != nil {
			give(&n.Stage.ID)
			return true
		}
		give(&n.Fork.ID)
		for _, p := range n.Fork.Paths {
			give(&p.ID)
		}
		return true
	})
	if w, ok := m[c.WayIn]; ok {
		c.WayIn = w
	}
	if w, ok := m[c.Waterline]; ok {
		c.Waterline = w
	}
	for _, s := range c.Sends {
		if id, ok := m[s.After]; ok {
			s.After = id
		}
	}
	c.Walk(func(_ *Chain, _ int, n *Node) bool {
		if n.Stage != nil && n.Stage.Key != nil {
			k := n.Stage.Key
			if id, ok := m[k.Channel]; ok {
				k.Channel = id
			}
			if id, ok := m[k.Node]; ok {
				k.Node = id
			}
		}
		return true
	})
	return m
}
