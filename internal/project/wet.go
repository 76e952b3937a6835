package project

import "slices"

// Wet reports whether what is put into a chain, by its owner, should be heard without the dry signal, because that is
// heard elsewhere: on a return, and on a path beside one that holds nothing.
func (p *Project) Wet(owner string) bool {
	ch, _, ok := p.findChain(owner)
	if !ok {
		return false
	}
	if ch.Kind == Return {
		return true
	}
	f, k, ok := ch.forkOf(owner)
	return ok && f.Kind == Copies && slices.ContainsFunc(f.Paths, func(x *Path) bool {
		return x != f.Paths[k] && len(x.Chain.Nodes) == 0 // muted too: it is there to be turned up
	})
}

// WetStage is the same of the place of a stage.
func (p *Project) WetStage(id string) bool {
	at, ok := p.findNode(id)
	return ok && p.Wet(at.owner)
}
