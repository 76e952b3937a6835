package stretch

import (
	"math"
	"slices"
)

// Map says when each moment of a sound comes in the result: straight between its points, which rise in both. The first
// is at 0 and 0.
type Map []Point

// Point is a moment of the source and where it comes in the result, in frames.
type Point struct{ From, To float64 }

// Even is the map of a sound that is made evenly longer or shorter.
func Even(from, to int64) Map { return Map{{0, 0}, {float64(from), float64(to)}} }

// In and Out are how long the sound is before and after.
func (m Map) In() float64  { return m[len(m)-1].From }
func (m Map) Out() float64 { return m[len(m)-1].To }

func (m Map) straight() bool {
	return !slices.ContainsFunc(m, func(p Point) bool { return p.From != p.To })
}

// at is where a moment of the source comes, and back which moment comes at a place. Beyond the ends they go on at the
// source's own speed.
func (m Map) at(x float64) float64 {
	return along(m, x, func(p Point) float64 { return p.From }, func(p Point) float64 { return p.To })
}

func (m Map) back(y float64) float64 {
	return along(m, y, func(p Point) float64 { return p.To }, func(p Point) float64 { return p.From })
}

func along(m Map, x float64, of, to func(Point) float64) float64 {
	last := m[len(m)-1]
	switch {
	case x <= 0:
		return x
	case x >= of(last):
		return to(last) + x - of(last)
	}
	k, _ := slices.BinarySearchFunc(m, x, func(p Point, x float64) int {
		if of(p) <= x {
			return -1
		}
		return 1
	})
	a, b := m[k-1], m[k]
	return to(a) + (to(b)-to(a))*(x-of(a))/(of(b)-of(a))
}

// locked is a stretch around an onset that goes on at its own speed.
type locked struct{ onset, place, before, behind float64 }

// lockedAround is the map with stretches of up to so many frames before and behind each onset at the source's speed.
// Every onset comes where it did before.
func (m Map) lockedAround(onsets []int64, most float64) Map {
	list := m.locks(onsets, most)
	out := Map{{0, 0}}
	add := func(from, to float64) {
		if last := out[len(out)-1]; from > last.From && to > last.To {
			out = append(out, Point{from, to})
		}
	}
	next := 0
	for _, p := range m[1:] {
		for next < len(list) && list[next].onset <= p.From {
			l := list[next]
			add(l.onset-l.before, l.place-l.before)
			add(l.onset+l.behind, l.place+l.behind)
			next++
		}
		add(p.From, p.To)
	}
	return out
}

// locks are the stretches around onsets. Those that would meet give way to each other.
func (m Map) locks(onsets []int64, most float64) []locked {
	var list []locked
	for _, o := range onsets {
		x := float64(o)
		if x < 0 || x >= m.In() {
			continue
		}
		y := m.at(x)
		list = append(list, locked{x, y, min(most, 0.8*x, 0.8*y), min(most, 0.8*(m.In()-x), 0.8*(m.Out()-y))})
	}
	for i := 1; i < len(list); i++ {
		a, b := &list[i-1], &list[i]
		room := 0.8 * min(b.onset-a.onset, b.place-a.place)
		if over := a.behind + b.before; over > room {
			a.behind *= room / over
			b.before *= room / over
		}
	}
	return list
}

// lockedAt reports whether the map runs at the source's speed at a place of the result, but for the ends.
func (m Map) lockedAt(y, hop float64) bool {
	return math.Abs(m.back(y)-m.back(y-hop)-hop) < 1e-6
}

// Simple is the map without the points that lie within so many frames of where they would be anyway.
func (m Map) Simple(near float64) Map {
	out := Map{m[0]}
	for i := 1; i < len(m); {
		k := i // the farthest point that can follow
		for n := i + 1; n < len(m); n++ {
			straight := Map{out[len(out)-1], m[n]}
			if slices.ContainsFunc(m[i:n], func(p Point) bool { return math.Abs(between(straight, p.From)-p.To) > near }) {
				break
			}
			k = n
		}
		out = append(out, m[k])
		i = k + 1
	}
	return out
}

func between(m Map, x float64) float64 {
	return m[0].To + (m[1].To-m[0].To)*(x-m[0].From)/(m[1].From-m[0].From)
}
