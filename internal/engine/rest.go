package engine

import (
	"math"

	"shoal/internal/dsp"
)

// A stage rests while nothing goes into it and nothing is left in it of what did: most tracks
// of a session are silent most of the time, and need not cost anything then. It begins after
// as long a silence as its effect needs to be as good as new, and ends with the first sample that
// is not zero. Both are looked at where the song's grid of blocks begins, so that nothing
// depends on how long the blocks are that are asked for.
type rest struct {
	silent int  // frames for which nothing came in or out
	in     bool // nothing comes in
	begun  bool
}

const (
	// forever is how long a stage has been silent that has never heard anything.
	forever = math.MaxInt / 2
	// inaudible is -180 dBFS as a bit pattern (see dsp.PeakBits): what is below is silence.
	inaudible = 0x3e112e0be826d695
	// restless is after how many frames it is asked how long it takes.
	restless = 4800
)

// rests reports whether the stage can leave its block as it is, which is silence.
func (s *stageStep) rests(c *cursor, l, r []float64) bool {
	x := &s.rest
	if s.kind.Rests == nil || s.heard.Moving() || s.left > 0 || s.broken || s.listened ||
		!silence(l, r) || s.keyBuf.l != nil && !silence(s.keyBuf.l[:len(l)], s.keyBuf.r[:len(l)]) {
		*x = rest{}
		return false
	}
	x.in = true
	if s.mix.onItsWay() || (s.stirred || len(s.moving) > 0) && s.busy() {
		x.begun = false
		return false
	}
	if !x.begun && c.frame&(Block-1) == 0 && x.silent > restless && x.silent > s.needs() {
		s.proc.Reset()
		x.begun = true
	}
	return x.begun
}

// out counts a block that was run though nothing came in; peak is that of its output.
func (x *rest) out(peak uint64, n int) {
	if peak >= inaudible {
		x.silent = 0
	} else {
		x.silent = min(forever, x.silent+n)
	}
}

// needs is how many frames of silence it needs before it rests.
func (s *stageStep) needs() int {
	if s.rest.silent >= forever {
		return 0
	}
	for i := range s.span.Values {
		s.values[i] = s.span.Values[i].Now
	}
	return int(s.kind.Rests(s.values, s.span.Tempo)*s.rate) + s.dry.l.Frames()
}

// busy reports whether a parameter, besides the mix, is on its way somewhere from block to block, which goes on
// only while the stage is run.
func (s *stageStep) busy() bool {
	for _, p := range s.slots {
		if p.onItsWay() {
			return true
		}
	}
	return false
}

func (s *slot) onItsWay() bool {
	return s.hand.Moving() || s.mending > 0 || len(s.spans) > 0 || s.hold != nil && s.hold.slot.onItsWay()
}

func silence(l, r []float64) bool { return dsp.Silent(l) && dsp.Silent(r) }
