package engine

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// A Rehearsal plays a project for nobody, before anybody presses Play: a browser makes code fast
// only when it has run for a while, and until then it would be too slow to be heard without gaps.
// It is an engine of its own, so that nothing of it is left in the one that is heard. Every track
// is full of noise, in swells, so that what reacts to levels does so and nothing rests.
type Rehearsal struct {
	// Effects are those that are in it.
	Effects map[string]bool

	engine *Engine
	lib    *pages.Library
	noise  pages.Page
	levels []float32
	left   int // blocks
	made   int
}

// rehearsalBlocks is how long a rehearsal is: a little more than a second and a half of the song.
const rehearsalBlocks = 600

// Unrehearsed reports whether a document has an effect besides known ones.
func Unrehearsed(doc *project.Project, known map[string]bool) bool {
	for _, ch := range doc.Channels {
		if !ch.Walk(func(_ *project.Chain, _ int, n *project.Node) bool { return n.Stage == nil || known[n.Stage.Effect] }) {
			return true
		}
	}
	return false
}

// NewRehearsal prepares a rehearsal of a document from a song frame on.
func NewRehearsal(doc *project.Project, from int64) (*Rehearsal, error) {
	played, effects := cast(doc)
	r := &Rehearsal{Effects: effects, lib: pages.New(0), left: rehearsalBlocks, noise: noisePage(), levels: make([]float32, 8192)}
	r.left *= max(1, len(doc.Channels)/len(played.Channels))
	doc = played
	e, err := New(doc, r.lib)
	if err != nil {
		return nil, err
	}
	r.engine = e
	for _, s := range e.now.steps {
		if s, ok := s.(*sum); ok && s.clips != nil {
			s.inject = r.swell
		}
	}
	e.GoTo(from)
	e.Play()
	return r, nil
}

// cast is the project without the tracks on which there is no effect that is not on others, for
// a second engine takes as much memory as the first; and the effects in it.
func cast(doc *project.Project) (*project.Project, map[string]bool) {
	effects := map[string]bool{}
	var apart []project.Change
	for _, ch := range doc.Channels {
		before := len(effects)
		ch.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
			if n.Stage != nil {
				effects[n.Stage.Effect] = true
			}
			return true
		})
		if ch.Kind == project.Track && len(effects) == before {
			apart = append(apart, &project.RemoveChannel{ID: ch.ID})
		}
	}
	less, _, err := project.Apply(doc, apart, EffectInfo)
	if err != nil { // something else depends on them
		return doc, effects
	}
	return less, effects
}

// Run plays one block, and reports whether there are more.
func (r *Rehearsal) Run() bool {
	e := r.engine
	e.guard.on = false // so much noise may be
	if e.Render(Block) == 0 {
		for _, m := range e.Missing() {
			r.fill(m)
		}
	}
	if r.made++; r.made%8 == 0 {
		e.Levels(r.levels)
	}
	r.left--
	return r.left > 0
}

// fill gives noise in the place of a page of audio.
func (r *Rehearsal) fill(m pages.Missing) {
	s, _ := r.lib.Find(m.Hash)
	n := int(min(pages.Frames, s.Frames-int64(m.Page)*pages.Frames))
	p := make(pages.Page, s.Channels)
	for c := range p {
		p[c] = r.noise[0][:n]
	}
	r.lib.Put(m.Hash, m.Page, p)
}

// swell adds noise that comes and goes, from nothing to -6 dBFS.
func (r *Rehearsal) swell(left, right []float64) {
	g := math.Max(0, math.Sin(float64(r.made)*math.Pi/40)) * 0.5
	at := r.made * Block % (pages.Frames - Block)
	for i, x := range r.noise[0][at : at+len(left)] {
		left[i] += g * float64(x)
		right[i] -= g * float64(x)
	}
}

// noisePage is white noise between -1 and 1, always the same.
func noisePage() pages.Page {
	x := make([]float32, pages.Frames)
	for i := range x {
		x[i] = float32(dsp.White(1, int64(i)))
	}
	return pages.Page{x}
}
