package project

import (
	"fmt"
	"math"
	"slices"
)

// Extent is the stretch of a source that whole-sound steps work on. A clip is a window into what comes of it: its
// frame Offset - From is the first that is heard. An extent is never changed, only replaced.
type Extent struct {
	From   int64 `json:"from" required:"true"` // frames of the audio
	To     int64 `json:"to" required:"true"`
	Frames int64 `json:"frames" required:"true"` // of what comes of it, without tails
}

// maxExtended is how many seconds a piece is long at most.
const maxExtended = 3600 * 4

// sameExtent reports whether two clips look into the same.
func (x *Clip) sameExtent(y *Clip) bool {
	return x.Extent == nil && y.Extent == nil || x.Extent != nil && y.Extent != nil && *x.Extent == *y.Extent
}

// reach is how many frames could still be shown before and behind a clip's window.
func (p *Project) reach(x *Clip, effects Effects) (before, behind int64) {
	a, _ := p.AudioByHash(x.Audio)
	if x.Extent == nil {
		return x.Offset, a.Frames - x.Offset - x.Frames
	}
	e := x.Extent
	per := float64(e.Frames) / float64(e.To-e.From)
	before, behind = int64(float64(e.From)*per), int64(float64(a.Frames-e.To)*per)
	if t, ok := p.TreatmentByID(x.Treatment); ok && leavesBackwards(&t.Chain, effects) {
		before, behind = int64(float64(a.Frames-e.To)*per), int64(float64(e.From)*per)
	}
	return before + x.Offset - e.From, behind + e.From + e.Frames - x.Offset - x.Frames
}

// settleExtents lets every clip look into what its treatment makes now: clips with whole-sound steps get an extent, what
// became longer or shorter takes its windows along, and what lay side by side does so still. It returns what undoes it.
func (p *Project) settleExtents(effects Effects) (undo []Change) {
	chains := map[string]*Chain{}
	for _, t := range p.Treatments {
		if len(t.Chain.Wholes(effects, false)) > 0 {
			chains[t.ID] = &t.Chain
		}
	}
	if p.checkTicks() != nil || p.checkTime() != nil {
		return nil // what is wrong is said when the document is checked
	}
	clock := p.Clock()
	for _, row := range p.Channels {
		var moved []*Clip
		for _, x := range row.Clips {
			if x.Extent != nil || chains[x.Treatment] != nil {
				moved = append(moved, x)
			}
		}
		slices.SortStableFunc(moved, func(a, b *Clip) int { return compare(a.BeginsAt(clock), b.BeginsAt(clock)) })
		undo = append(undo, p.settleRow(moved, chains, clock, effects)...)
	}
	return undo
}

func (p *Project) settleRow(clips []*Clip, chains map[string]*Chain, clock *Clock, effects Effects) (undo []Change) {
	var before *Clip // as the clip before it was, and where that ends now
	end := int64(0)
	for _, x := range clips {
		was := *x
		follows := before != nil && was.BeginsAt(clock) == before.BeginsAt(clock)+before.Frames &&
			was.sameExtent(before) && was.Extent != nil && was.Offset == before.Offset+before.Frames
		p.settleClip(x, chains[x.Treatment], clock, effects)
		if start := x.BeginsAt(clock); follows && start != end {
			if x.Start = end; x.Follows {
				x.Start = int64(math.Round(clock.Tick(end)))
			}
		}
		before, end = &was, x.BeginsAt(clock)+x.Frames
		if !x.looksAs(&was) {
			undo = append(undo, was.window())
		}
	}
	return undo
}

// settleClip brings one clip's window and extent to what its treatment makes.
func (p *Project) settleClip(x *Clip, c *Chain, clock *Clock, effects Effects) {
	a, ok := p.AudioByHash(x.Audio)
	e := x.Extent
	if !ok || a.Frames > p.longest() || e != nil && (e.Frames < 1 || e.From < 0 || e.To <= e.From || e.To > a.Frames) {
		return // it is refused when the document is checked
	}
	if e == nil {
		e = &Extent{x.Offset, x.Offset + x.Frames, x.Frames}
	}
	if c == nil { // as it is in the source
		x.rescale(e, e.To-e.From)
		x.Extent = nil
		x.Frames = min(x.Frames, a.Frames)
		x.Offset = min(max(0, x.Offset), a.Frames-x.Frames)
		return
	}
	e = p.widened(x, e, a, c, effects)
	x.Extent = e
	frames := p.lasts(c, x, clock, effects)
	x.rescale(e, frames)
	x.Extent = &Extent{e.From, e.To, frames}
	x.Offset = min(max(e.From, x.Offset), e.From+frames-1)
	x.Frames = max(1, min(x.Frames, e.From+frames-x.Offset))
	x.fitFades()
}

// widened is the extent with what a window asks for beyond it, as far as there is sound. The window keeps its place.
func (p *Project) widened(x *Clip, e *Extent, a Audio, c *Chain, effects Effects) *Extent {
	before, behind := max(0, e.From-x.Offset), max(0, x.Offset+x.Frames-e.From-e.Frames)
	if before == 0 && behind == 0 {
		return e
	}
	per := float64(e.To-e.From) / float64(e.Frames)
	left, right := int64(math.Ceil(float64(before)*per)), int64(math.Ceil(float64(behind)*per))
	back := leavesBackwards(c, effects)
	if back {
		left, right = right, left
	}
	n := Extent{From: max(0, e.From-left), To: min(a.Frames, e.To+right)}
	n.Frames = max(1, int64(math.Round(float64(n.To-n.From)/per)))
	shift := int64(math.Round(float64(e.From-n.From) / per)) // of what was there in what comes now
	if back {
		shift = int64(math.Round(float64(n.To-e.To) / per))
	}
	x.Offset += n.From - e.From + shift
	x.moveSwell(func(at int64) int64 { return at + n.From - e.From + shift })
	return &n
}

// rescale lets a window into an extent be one into so many frames.
func (x *Clip) rescale(e *Extent, frames int64) {
	if frames == e.Frames {
		return
	}
	per := float64(frames) / float64(e.Frames)
	scaled := func(at int64) int64 { return e.From + int64(math.Round(float64(at-e.From)*per)) }
	begin, end := scaled(x.Offset), scaled(x.Offset+x.Frames)
	x.Offset, x.Frames = begin, max(1, end-begin)
	x.moveSwell(func(at int64) int64 { return max(0, scaled(at)) })
	x.fitFades()
}

// moveSwell moves what belongs to places of the sound: the swell, and where the time of lines begins.
func (x *Clip) moveSwell(to func(int64) int64) {
	if x.Origin != nil {
		at := to(*x.Origin)
		x.Origin = &at
	}
	x.Swell = slices.Clone(x.Swell)
	for i := range x.Swell {
		x.Swell[i].At = max(0, to(x.Swell[i].At))
	}
}

func (x *Clip) fitFades() {
	x.FadeIn = min(x.FadeIn, x.Frames)
	x.FadeOut = min(x.FadeOut, x.Frames-x.FadeIn)
}

// checkExtent refuses a window beyond its extent, and an extent beyond the sound.
func (x *Clip) checkExtent(a Audio, rate int) error {
	e := x.Extent
	if e == nil {
		return nil
	}
	if e.From < 0 || e.To <= e.From || e.To > a.Frames {
		return fmt.Errorf("its extent of frames %d to %d does not lie within its audio of %d", e.From, e.To, a.Frames)
	}
	if e.Frames < 1 || e.Frames > int64(rate)*maxExtended {
		return fmt.Errorf("its treatment makes %d frames of it: a piece is at most four hours long", e.Frames)
	}
	if x.Offset < e.From || x.Offset-e.From > e.Frames-x.Frames {
		return fmt.Errorf("%d frames from %d on do not lie within the %d that its treatment makes", x.Frames, x.Offset-e.From, e.Frames)
	}
	return nil
}
