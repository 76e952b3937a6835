package project

import (
	"math"
	"slices"
)

// EntersBehind says of a clip that it comes into its row behind the chain.
const EntersBehind = "behind"

// What happens where clips of a row overlap.
const (
	OverSum   = "sum"   // both sound
	OverCover = "cover" // the later one, by start and then by order, covers the other
	OverFade  = "fade"  // one fades into the other
)

// Shapes of fades. Even power: the squared gains of a fade out and of one in sum to 1; even gain: the gains do.
const (
	ShapeS     = "s" // raised cosine
	ShapePower = "power"
	ShapeGain  = "gain"
)

// SwellOff is the level in dB at and below which a swell is silence, and maxSwell what it reaches at most.
const (
	SwellOff = -60.0
	maxSwell = 24.0
)

// edgeSeconds is the fade at the edges of every clip that is not exact, and crossSeconds the one where a clip that
// lies within another takes its place.
const (
	edgeSeconds  = 0.002
	crossSeconds = 0.010
)

// Fade is how a stretch begins or ends: so many frames of a shape.
type Fade struct {
	Frames int64
	Shape  string
	Bend   float64
}

// At is the gain at a place of a fade in, 0 to 1. Bent by more than 0 it rises sooner. A fade and one that is bent the
// other way are still even: their gains, or the squares of them, sum to 1.
func (f Fade) At(x float64) float64 {
	if f.Bend != 0 {
		k := (1 - 0.9*f.Bend) / (1 + 0.9*f.Bend)
		x /= x + (1-x)*k
	}
	switch f.Shape {
	case ShapePower:
		return math.Sin(math.Pi / 2 * x)
	case ShapeGain:
		return x
	}
	return 0.5 - 0.5*math.Cos(math.Pi*x)
}

// Laid is a stretch of a clip as it sounds in its row, once it is settled which clip covers which.
type Laid struct {
	Clip     *Clip
	From, To int64 // song frames
	Offset   int64 // of the stretch in the clip's audio
	In, Out  Fade
	Before   int // which of those that are laid goes on in this one without a break; -1: none
}

// begun is a clip with the frame at which it begins.
type begun struct {
	*Clip
	start int64
}

func (x begun) end() int64 { return x.start + x.Frames }

// Laid gives what sounds of a row's clips, in their order: by start, then as they stand in the document.
func (p *Project) Laid(c *Channel, clock *Clock) []Laid {
	var clips []begun
	for _, x := range c.Clips {
		if !x.Mute {
			clips = append(clips, begun{x, x.BeginsAt(clock)})
		}
	}
	slices.SortStableFunc(clips, func(a, b begun) int { return compare(a.start, b.start) })
	edge := int64(math.Round(edgeSeconds * float64(p.SampleRate)))
	cross := int64(math.Round(crossSeconds * float64(p.SampleRate)))
	var out []Laid
	for i, x := range clips {
		first := Laid{Clip: x.Clip, From: x.start, To: x.end(), Offset: x.Offset,
			In: Fade{x.FadeIn, x.InShape, x.InBend}, Out: Fade{x.FadeOut, x.OutShape, x.OutBend}}
		if c.rule(x.Clip) == OverFade {
			if before := coveredBy(clips[:i], x); before > 0 {
				first.In = longer(first.In, min(before-x.start, x.Frames))
			} else if within(clips[:i], x) {
				first.In, first.Out = longer(first.In, min(cross, x.Frames/2)), longer(first.Out, min(cross, x.Frames/2))
			}
		}
		first.Before = -1
		list := []Laid{first}
		for _, y := range clips[i+1:] {
			if y.start >= x.end() {
				break
			}
			switch rule := c.rule(y.Clip); {
			case rule == OverCover:
				list = without(list, y.start, y.end(), 0)
			case rule == OverFade && y.end() < x.end():
				list = without(list, y.start, y.end(), cross)
			case rule == OverFade:
				last := &list[len(list)-1]
				last.Out = longer(last.Out, min(x.end()-y.start, last.To-last.From))
			}
		}
		out = append(out, list...)
	}
	joinEdges(out)
	if edge > 0 {
		for i := range out {
			out[i].soften(edge)
		}
	}
	return out
}

func compare(a, b int64) int {
	switch {
	case a < b:
		return -1
	case a > b:
		return 1
	}
	return 0
}

// rule is what happens where a clip begins over another.
func (c *Channel) rule(x *Clip) string {
	if x.Over != "" {
		return x.Over
	}
	return c.Overlaps
}

// coveredBy is where the clips before one that it begins over end, at most where it ends itself; 0: it begins over none.
func coveredBy(before []begun, x begun) (end int64) {
	for _, y := range before {
		if y.end() > x.start && y.end() <= x.end() {
			end = max(end, y.end())
		}
	}
	return end
}

// within reports whether a clip lies inside one of those before it.
func within(before []begun, x begun) bool {
	return slices.ContainsFunc(before, func(y begun) bool { return y.end() > x.end() })
}

// longer is a fade that lasts at least so long, at even power where it is made longer.
func longer(f Fade, frames int64) Fade {
	if frames <= f.Frames {
		return f
	}
	return Fade{Frames: frames, Shape: ShapePower}
}

// without takes a stretch of the song out of what is laid. Where it is cut it fades for so long beyond the cut.
func without(list []Laid, from, to, fade int64) []Laid {
	var out []Laid
	for _, x := range list {
		if x.To <= from || x.From >= to {
			out = append(out, x)
			continue
		}
		if cut := min(x.To, from+fade); x.From < from {
			y := x
			y.To, y.Out = cut, Fade{Frames: min(fade, cut-x.From), Shape: ShapePower}
			out = append(out, y)
		}
		if cut := max(x.From, to-fade); x.To > to {
			y := x
			y.From, y.Offset, y.In = cut, x.Offset+cut-x.From, Fade{Frames: min(fade, x.To-cut), Shape: ShapePower}
			out = append(out, y)
		}
	}
	return out
}

// joinedFade marks an edge where the same sound goes on: nothing fades there.
const joinedFade = -1

// joinEdges finds edges whose neighbour goes on with the same sound at the same gain.
func joinEdges(list []Laid) {
	for i := range list {
		a := &list[i]
		for k := range list {
			b := &list[k]
			if i != k && b.From == a.To && a.goesOnIn(b) {
				a.Out.Frames, b.In.Frames, b.Before = joinedFade, joinedFade, i
			}
		}
	}
}

// goesOnIn reports whether a stretch goes on in another as if both were one.
func (x *Laid) goesOnIn(y *Laid) bool {
	a, b := x.Clip, y.Clip
	return a.Audio == b.Audio && x.Offset+x.To-x.From == y.Offset && x.Out.Frames <= 0 && y.In.Frames <= 0 &&
		a.Gain == b.Gain && slices.Equal(a.Swell, b.Swell) && a.Treatment == b.Treatment && a.Rings == b.Rings &&
		a.sameExtent(b) && a.sameOrigin(b) && a.Enters == b.Enters
}

// soften gives every edge at least the least fade.
func (x *Laid) soften(edge int64) {
	least := min(edge, (x.To-x.From)/2)
	if x.Clip.Exact {
		least = 0
	}
	for _, f := range []*Fade{&x.In, &x.Out} {
		switch {
		case f.Frames == joinedFade:
			*f = Fade{}
		case f.Frames < least:
			*f = Fade{Frames: least}
		}
	}
}

// SwellAt is the gain of a clip's swell in dB at a frame of its audio; without points 0.
func (x *Clip) SwellAt(frame int64) float64 { return swellAt(x.Swell, frame) }

func swellAt(points []Swell, frame int64) float64 {
	if len(points) == 0 {
		return 0
	}
	k, found := slices.BinarySearchFunc(points, frame, func(a Swell, at int64) int { return compare(a.At, at) })
	for found && k+1 < len(points) && points[k+1].At == frame { // a jump: the last of them holds
		k++
	}
	switch {
	case found:
		return points[k].Gain
	case k == 0:
		return points[0].Gain
	case k == len(points) || points[k-1].Step:
		return points[k-1].Gain
	}
	a, b := points[k-1], points[k]
	return a.Gain + (b.Gain-a.Gain)*float64(frame-a.At)/float64(b.At-a.At)
}
