package engine

import (
	"shoal/internal/dsp"
	"shoal/internal/param"
)

// gate is a switch that fades: a mute or a bypass, set by hand or by a line. A line switches at
// its frame; the fade begins there.
type gate struct {
	dsp.Glide
	line *slot // nil: no line and no passage
	lag  int
	shut float64 // where the line was last: 1 is muted or bypassed
}

// gate makes one for a switch of the document.
func (c *compiler) gate(owner string, d param.Param, shut bool, lag int) gate {
	g := gate{lag: lag}
	g.Set(boolGain(!shut))
	l, ok := c.lines[address{owner, d.Name}]
	if ok && len(l.Points) > 0 || c.passes(owner, d.Name) {
		g.line, g.shut = c.slot(owner, d.Name, d, 1-boolGain(!shut), lag), -1
	}
	return g
}

// follow takes the line's value for the next frames: no block has a jump inside it.
func (g *gate) follow(c *cursor) {
	if g.line == nil {
		return
	}
	at := c.hold
	if c.rolling {
		at = c.songFrame(g.lag, 0)
	}
	shut := g.line.valueAt(at)
	if shut == g.shut {
		return
	}
	if c.jumped || g.shut < 0 {
		g.Set(1 - shut)
	} else {
		g.Aim(1-shut, gateFrames)
	}
	g.shut = shut
}

// hand sets it, where no line does; a passage may have it for a while.
func (g *gate) hand(open bool) {
	if g.line == nil {
		g.Aim(boolGain(open), gateFrames)
		return
	}
	g.line.want = 1 - boolGain(open)
}

// goOn takes over where another plan's gate stands.
func (g *gate) goOn(old *gate) {
	open := g.Target()
	g.Glide = old.Glide
	if g.line != nil && old.line != nil {
		g.shut = old.shut
		return
	}
	g.Aim(open, gateFrames)
}
