package working

import (
	"slices"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// How much audio an offline render holds, in sides of pages: stretchRoom for every stretch that sounds at once in a row
// (it crosses from one page to the next, in stereo, and half as much again, for rows that run side by side), and spareRoom
// for what nobody foresees.
const (
	stretchRoom = 6
	spareRoom   = 64
)

// Room bounds the audio that is held while a document is rendered, in sides of pages (see pages.New): by what sounds at
// once, and what stages use as a whole. It does not grow with the length of the song.
func Room(doc *project.Project) int {
	sides := spareRoom
	clock := doc.Clock()
	for _, ch := range doc.Channels {
		sides += stretchRoom * most(doc.Laid(ch, clock))
	}
	for hash := range used(doc) {
		if a, ok := doc.AudioByHash(hash); ok {
			sides += a.Channels * int((a.Frames+pages.Frames-1)/pages.Frames)
		}
	}
	return sides
}

// most is how many stretches sound at once at most.
func most(laid []project.Laid) int {
	type edge struct {
		at int64
		by int
	}
	var edges []edge
	for _, x := range laid {
		edges = append(edges, edge{x.From, 1}, edge{x.To, -1})
	}
	slices.SortFunc(edges, func(a, b edge) int {
		if a.at != b.at {
			return int(max(-1, min(1, a.at-b.at)))
		}
		return b.by - a.by // where one ends and the next begins, both are needed
	})
	now, out := 0, 0
	for _, e := range edges {
		now += e.by
		out = max(out, now)
	}
	return out
}

// used are the sounds that stages use, such as impulse responses.
func used(doc *project.Project) map[string]bool {
	out := map[string]bool{}
	look := func(_ *project.Chain, _ int, n *project.Node) bool {
		if n.Stage != nil && n.Stage.Sound != "" {
			out[n.Stage.Sound] = true
		}
		return true
	}
	for _, ch := range doc.Channels {
		ch.Walk(look)
	}
	for _, t := range doc.Treatments {
		t.Chain.Walk(look)
	}
	return out
}
