package engine

import (
	"slices"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// player reads a track's clips. Its list is swapped when they change: nothing else of the plan is touched.
type player struct {
	clock  *project.Clock
	clips  []playClip
	before []playClip // while the new list fades in
	fade   int        // frames of that fade done
	frames int        // that it takes
	roll   dsp.Glide  // fades when the song stops
	spare  pair       // where the list from before is played
}

// playClip is a stretch of a clip as it sounds.
type playClip struct {
	sound      *pages.Sound
	start, end int64 // song frames
	offset     int64 // frame of the sound at start
	shift      int64 // by how much frames of the sound are further on than those the clip counts
	gain       float64
	in, out    project.Fade
	clip       *project.Clip // whose swell it is
	via        *treated      // the strip of its treatment; nil: it has none
	waits      pages.Played  // what is worked out for it and not yet played; no sound: nothing
}

func newPlayer(
	p *project.Project, ch *project.Channel, enters string, treatments map[string]*project.Treatment, clock *project.Clock, lib *pages.Library,
) *player {
	return &player{clock: clock, clips: playList(p, ch, enters, treatments, clock, lib), frames: int(fadeSeconds * float64(p.SampleRate))}
}

// playList is what sounds of a track's clips that enter it at a place, by start.
func playList(
	p *project.Project, ch *project.Channel, enters string, treatments map[string]*project.Treatment, clock *project.Clock, lib *pages.Library,
) []playClip {
	laid := p.Laid(ch, clock)
	list := make([]playClip, len(laid))
	for i, x := range laid {
		c := &list[i]
		*c = playClip{gain: dsp.Gain(x.Clip.Gain), in: x.In, out: x.Out, clip: x.Clip}
		live := c.source(p, &x, clock, lib)
		c.start, c.end, c.offset = x.From, x.To, x.Offset
		if live == nil || len(live.Nodes) == 0 || c.sound == nil {
			continue
		}
		if x.Before >= 0 && list[x.Before].via != nil {
			c.via = list[x.Before].via
			c.via.goOn(x)
		} else {
			c.via = newTreated(p, treatments[x.Clip.Treatment], live, c.sound, x, clock, lib)
		}
	}
	for i := range list {
		list[i].ringOn()
	}
	list = slices.DeleteFunc(list, func(x playClip) bool { return ch.Entry(x.clip) != enters })
	slices.SortStableFunc(list, func(a, b playClip) int { return int(a.start - b.start) })
	return list
}

// ringOn lets the last stretch of a strip sound on behind its end. What fades there fades before the treatment.
func (x *playClip) ringOn() {
	if x.via == nil || !x.clip.Rings {
		return
	}
	x.in, x.out = project.Fade{}, project.Fade{}
	if x.end == x.via.start+x.via.to {
		x.end += x.via.ring
	}
}

// swap takes another list of clips; while the song rolls it fades in.
func (p *player) swap(list []playClip, rolling bool) {
	p.keepStrips(list)
	if slices.EqualFunc(p.clips, list, playClip.same) {
		p.clips = list
		return
	}
	if p.before == nil && rolling { // one that is fading in already is taken at once
		p.before, p.fade = p.clips, 0
		if p.spare.l == nil {
			p.spare = newPair()
		}
	}
	p.clips = list
}

// keepStrips lets the strips of a new list go on where those of the old one are.
func (p *player) keepStrips(list []playClip) {
	old := map[treatedKey]*treated{}
	for i := range p.clips {
		if t := p.clips[i].via; t != nil {
			old[t.key] = t
		}
	}
	now := map[*treated]*treated{}
	for i := range list {
		t := list[i].via
		if t == nil || old[t.key] == nil {
			continue
		}
		if now[t] == nil {
			now[t] = old[t.key].follow(t)
		}
		list[i].via = now[t]
	}
}

// same reports whether two stretches sound the same.
func (x playClip) same(y playClip) bool {
	return x.sound == y.sound && x.start == y.start && x.end == y.end && x.offset == y.offset && x.gain == y.gain &&
		x.in == y.in && x.out == y.out && slices.Equal(x.clip.Swell, y.clip.Swell) && sameStrip(x.via, y.via)
}

// sameStrip reports whether two strips sound the same now: also where neither is running.
func sameStrip(a, b *treated) bool {
	return a == b || a != nil && b != nil && a.plan == nil && b.plan == nil
}

// strips calls f for every strip there is, once.
func (p *player) strips(f func(*treated)) {
	var last *treated
	for _, list := range [][]playClip{p.clips, p.before} {
		for i := range list {
			if t := list[i].via; t != nil && t != last {
				f(t)
				last = t
			}
		}
	}
}

// prepare makes the strips of what sounds between two song frames, and gives back those that are far from there.
func (p *player) prepare(from, to int64) {
	p.strips(func(t *treated) {
		switch begin, end := t.start, t.start+t.to+t.ring; {
		case begin < to && end > from:
			t.ready()
		case t.plan != nil && (end < from-awayFrames || begin > to+awayFrames):
			t.release()
		}
	})
}

// awayFrames is how far the song must be from a strip for it to be given back: a second at 48 kHz.
const awayFrames = 48000

// reset empties the strips, as after a seek.
func (p *player) reset() {
	p.strips((*treated).forget)
}

// past lets nothing sound any more but what rings on behind its end.
func (p *player) past() {
	p.clips = slices.DeleteFunc(p.clips, func(x playClip) bool { return x.via == nil || x.via.ring == 0 })
}

// missing appends the pages needed for frames [from, to) that are absent.
func (p *player) missing(dst []pages.Missing, from, to int64) []pages.Missing {
	return missing(missing(dst, p.clips, from, to), p.before, from, to)
}

func missing(dst []pages.Missing, clips []playClip, from, to int64) []pages.Missing {
	for i := range clips {
		c := &clips[i]
		if c.start >= to {
			break
		}
		if c.end <= from || c.sound == nil {
			continue
		}
		if c.via != nil {
			dst = c.via.missing(dst, max(from, c.start)-c.via.start, min(to, c.end)-c.via.start)
			continue
		}
		a := max(from, c.start) - c.start + c.offset
		b := min(to, c.end) - c.start + c.offset - 1
		dst = absent(dst, c.sound, a, b)
	}
	return dst
}

// run adds the clips to what stands in out.
func (p *player) run(c *cursor, n int, out pair) {
	if !c.rolling && !p.roll.Moving() && p.roll.Now() == 0 {
		p.before = nil
		return
	}
	playClips(p.clips, out, c.frame, n)
	if p.before != nil {
		p.fadeIn(c, n, out)
	}
	if p.roll.Moving() || p.roll.Now() != 1 {
		for i := range out.l[:n] {
			g := p.roll.Next()
			out.l[i] *= g
			out.r[i] *= g
		}
	}
}

func playClips(clips []playClip, out pair, from int64, n int) {
	for i := range clips {
		x := &clips[i]
		if x.start >= from+int64(n) {
			break
		}
		if x.end > from && x.sound != nil {
			x.add(out, from, n)
		}
	}
}

// fadeIn goes from the list before to the one now.
func (p *player) fadeIn(c *cursor, n int, out pair) {
	clear(p.spare.l[:n])
	clear(p.spare.r[:n])
	playClips(p.before, p.spare, c.frame, n)
	for i := range out.l[:n] {
		g := project.Fade{}.At(min(1, float64(p.fade+i+1)/float64(p.frames)))
		out.l[i] = p.spare.l[i] + g*(out.l[i]-p.spare.l[i])
		out.r[i] = p.spare.r[i] + g*(out.r[i]-p.spare.r[i])
	}
	if p.fade += n; p.fade >= p.frames {
		p.before = nil
	}
}

// addTreated mixes the part of frames [from, from+n) in that comes out of the clip's strip.
func (x *playClip) addTreated(out pair, from int64, n int) {
	t := x.via
	a, b := max(from, t.start)-t.start, min(from+int64(n)-t.start, t.to+t.ring)
	if !t.render(a, b) {
		return
	}
	first, last := max(from, x.start), min(from+int64(n), x.end)
	for f := first; f < last; f++ {
		i, g := f-t.start-a, x.gain*x.shape(f-x.start)
		out.l[f-from] += t.out.l[i] * g
		out.r[f-from] += t.out.r[i] * g
	}
}

// add mixes the clip's part of frames [from, from+n) in.
func (x *playClip) add(out pair, from int64, n int) {
	if x.via != nil {
		x.addTreated(out, from, n)
		return
	}
	first, last := max(from, x.start), min(from+int64(n), x.end)
	for f := first; f < last; {
		at := f - x.start + x.offset
		page := at / pages.Frames
		in := int(at - page*pages.Frames)
		count := int(min(last-f, pages.Frames-int64(in)))
		data := x.sound.Page(int(page))
		if data == nil {
			return // checked before the block; a page dropped since is silent
		}
		l := data[0][in : in+count]
		r := l
		if len(data) > 1 {
			r = data[1][in : in+count]
		}
		o := int(f - from)
		dl, dr := out.l[o:o+count], out.r[o:o+count]
		if k := f - x.start; len(x.clip.Swell) == 0 && k >= x.in.Frames && k+int64(count) <= x.end-x.start-x.out.Frames {
			dsp.AddSingles(dl, l, x.gain)
			dsp.AddSingles(dr, r, x.gain)
		} else {
			for i := range dl {
				g := x.gain * x.shape(f+int64(i)-x.start)
				dl[i] += float64(l[i]) * g
				dr[i] += float64(r[i]) * g
			}
		}
		f += int64(count)
	}
}

// shape is the gain of fades and swell at frame k of the stretch.
func (x *playClip) shape(k int64) float64 {
	g := 1.0
	if k < x.in.Frames {
		g = x.in.At((float64(k) + 0.5) / float64(x.in.Frames))
	}
	if left := x.end - x.start - 1 - k; left < x.out.Frames {
		g *= x.out.At((float64(left) + 0.5) / float64(x.out.Frames))
	}
	if len(x.clip.Swell) > 0 {
		if db := x.clip.SwellAt(k + x.offset - x.shift); db > project.SwellOff {
			return g * dsp.Gain(db)
		}
		return 0
	}
	return g
}
