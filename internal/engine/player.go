package engine

import (
	"math"
	"slices"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// player reads a track's clips.
type player struct {
	clips []playClip
	roll  dsp.Glide // fades when the song stops
}

type playClip struct {
	sound           *pages.Sound
	start, end      int64 // song frames
	offset          int64
	gain            float64
	fadeIn, fadeOut int64
}

// edgeSeconds is the fade at the edges of every clip that is not exact.
const edgeSeconds = 0.002

func newPlayer(p *project.Project, ch *project.Channel, clock *project.Clock, lib *pages.Library) *player {
	pl := &player{}
	edge := int64(math.Round(edgeSeconds * float64(p.SampleRate)))
	for _, x := range ch.Clips {
		a, _ := p.AudioByHash(x.Audio)
		c := playClip{sound: lib.Sound(a.Hash, a.Frames, a.Channels), start: x.BeginsAt(clock), offset: x.Offset,
			gain: dsp.Gain(x.Gain), fadeIn: x.FadeIn, fadeOut: x.FadeOut}
		c.end = c.start + x.Frames
		if !x.Exact {
			half := x.Frames / 2
			c.fadeIn, c.fadeOut = max(c.fadeIn, min(edge, half)), max(c.fadeOut, min(edge, half))
		}
		pl.clips = append(pl.clips, c)
	}
	slices.SortStableFunc(pl.clips, func(a, b playClip) int {
		switch {
		case a.start < b.start:
			return -1
		case a.start > b.start:
			return 1
		}
		return 0
	})
	return pl
}

// missing appends the pages needed for frames [from, to) that are absent.
func (p *player) missing(dst []pages.Missing, from, to int64) []pages.Missing {
	for i := range p.clips {
		c := &p.clips[i]
		if c.start >= to {
			break
		}
		if c.end <= from {
			continue
		}
		a := max(from, c.start) - c.start + c.offset
		b := min(to, c.end) - c.start + c.offset - 1
		for k := a / pages.Frames; k <= b/pages.Frames; k++ {
			if c.sound.Page(int(k)) == nil {
				dst = append(dst, pages.Missing{Hash: c.sound.Hash, Page: int(k)})
			}
		}
	}
	return dst
}

func (p *player) run(c *cursor, n int, out pair) {
	if !c.rolling && !p.roll.Moving() && p.roll.Now() == 0 {
		return
	}
	from := c.frame
	for i := range p.clips {
		x := &p.clips[i]
		if x.start >= from+int64(n) {
			break
		}
		if x.end > from {
			x.add(out, from, n)
		}
	}
	if p.roll.Moving() || p.roll.Now() != 1 {
		for i := range out.l[:n] {
			g := p.roll.Next()
			out.l[i] *= g
			out.r[i] *= g
		}
	}
}

// add mixes the clip's part of frames [from, from+n) in.
func (x *playClip) add(out pair, from int64, n int) {
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
		if k := f - x.start; k >= x.fadeIn && k+int64(count) <= x.end-x.start-x.fadeOut {
			dsp.AddSingles(dl, l, x.gain)
			dsp.AddSingles(dr, r, x.gain)
		} else {
			for i := range dl {
				g := x.gain * x.edge(f+int64(i)-x.start)
				dl[i] += float64(l[i]) * g
				dr[i] += float64(r[i]) * g
			}
		}
		f += int64(count)
	}
}

// edge is the raised-cosine fade at frame k of the clip.
func (x *playClip) edge(k int64) float64 {
	g := 1.0
	if k < x.fadeIn {
		g = 0.5 - 0.5*math.Cos(math.Pi*(float64(k)+0.5)/float64(x.fadeIn))
	}
	if left := x.end - x.start - 1 - k; left < x.fadeOut {
		g *= 0.5 - 0.5*math.Cos(math.Pi*(float64(left)+0.5)/float64(x.fadeOut))
	}
	return g
}
