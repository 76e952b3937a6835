package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// reverse plays the sound backwards piece by piece: while one piece goes in, the
// one before it comes out from its end to its beginning. Pieces begin on the grid of the
// song (whole multiples of their length), so that a print equals what was heard. Their edges
// are cross-faded. Set in notes or in milliseconds, up to 4 s.
var reverse = Kind{
	Info: Info{
		ID: "reverse", Version: 1, Name: "Reverse", Family: "Transition", Mix: 100, MixLaw: "blend",
		Says:     "Plays the sound backwards, piece by piece in step with the song.",
		Synonyms: []string{"backwards", "reverse delay", "rewind", "inverse"},
		Plumbs:   []Plumb{{Param: "note"}, {Param: "time"}, {Param: "soft"}},
		Params: []param.Param{
			{Name: "sync", Label: "Length in", Says: "Whether the length is a note length, which follows the tempo, or milliseconds.",
				Max: 1, Taper: param.Choice, Choices: []string{"notes", "milliseconds"}},
			param.Param{Name: "note", Label: "Length", Says: "How long a piece is, as a note length.",
				Max: float64(len(notes) - 1), Default: 8, Taper: param.Choice, Choices: noteNames()}.Only("sync", 0),
			param.Param{Name: "time", Label: "Length", Unit: "ms", Says: "How long a piece is, in milliseconds.",
				Min: 40, Max: 4000, Default: 500, Taper: param.Log, Step: 3, Digits: 0}.Only("sync", 1),
			{Name: "soft", Label: "Soft edges", Unit: "%", Says: "How much of a piece is spent fading in and out.",
				Min: 1, Max: 100, Default: 12, Taper: param.Linear, Step: 1, Digits: 0},
		},
	},
	New:  func(rate float64) Processor { return newBack(rate) },
	Tail: func(v []float64, tempo float64) float64 { return 2*reverseSeconds(v, tempo) + 0.05 },
	Draw: drawReverse,
}

const backMax = 4.0

func reverseSeconds(v []float64, tempo float64) float64 {
	if v[0] == 0 {
		return max(0.04, min(backMax, notes[int(v[1])].quarters*60/tempo))
	}
	return v[2] / 1000
}

// back reads with two heads, half a piece apart in their fades: the piece that is
// ending fades out while the next one fades in.
type back struct {
	rate   float64
	line   [2]*dsp.DelayLine
	length int
	at     int // frames into the piece that goes in
	fresh  bool
	old    int // frames of the last piece's end still to be faded, and where it reads
	oldAt  int
	edge   int
}

func newBack(rate float64) *back {
	n := int(2.2*backMax*rate) + 2*MaxFrames
	return &back{rate: rate, line: [2]*dsp.DelayLine{dsp.NewDelayLine(n), dsp.NewDelayLine(n)}}
}

func (b *back) Process(s *Span) {
	n := len(s.L)
	b.line[0].WriteBlock(s.L)
	b.line[1].WriteBlock(s.R)
	for i := range n {
		if !b.fresh || b.at >= b.length {
			b.begin(s, i)
		}
		// the piece before ended b.at+1 writes before this sample, at its newest
		here := n - 1 - i
		d := here + 2*b.at + 1
		l, r := b.line[0].Read(d), b.line[1].Read(d)
		g := 1.0
		if b.at < b.edge {
			g = 0.5 - 0.5*math.Cos(math.Pi*(float64(b.at)+0.5)/float64(b.edge))
		}
		l, r = l*g, r*g
		if b.old > 0 { // the last piece runs on past its beginning while it fades
			w := 0.5 - 0.5*math.Cos(math.Pi*(float64(b.old)-0.5)/float64(b.edge))
			d := here + 2*b.oldAt + 1
			l += w * b.line[0].Read(d)
			r += w * b.line[1].Read(d)
			b.old--
			b.oldAt++
		}
		s.L[i], s.R[i] = l, r
		b.at++
	}
}

// begin starts a piece; the first one may be in its middle, as the song's grid has it.
func (b *back) begin(s *Span, i int) {
	var v [4]float64
	s.read(v[:], i)
	if b.fresh {
		b.old, b.oldAt = b.edge, b.at
	}
	seconds := reverseSeconds(v[:], s.Tempo)
	b.length = max(64, int(math.Round(seconds*b.rate)))
	b.edge = max(16, int(float64(b.length)*v[3]/200))
	b.old = min(b.old, b.edge)
	b.at = 0
	if !b.fresh {
		frame := s.Frame + int64(i)
		b.at = int(((frame % int64(b.length)) + int64(b.length)) % int64(b.length))
		b.fresh = true
	}
}

func (b *back) Reset() {
	b.line[0].Clear()
	b.line[1].Clear()
	*b = back{rate: b.rate, line: b.line}
}

func (b *back) CopyFrom(o Processor) {
	p, line := o.(*back), b.line
	*b = *p
	b.line = line
	b.line[0].CopyFrom(p.line[0])
	b.line[1].CopyFrom(p.line[1])
}

func drawReverse(_, tempo float64, v []float64) Picture {
	t := reverseSeconds(v, tempo)
	x := Axis{Label: "time", Unit: "s", Max: 4 * t, Ticks: []float64{t, 2 * t, 3 * t}}
	for i := range x.Ticks {
		x.Ticks[i] = math.Round(x.Ticks[i]*1000) / 1000
	}
	y := Axis{Label: "reads", Unit: "s ago", Max: 2 * t, Ticks: []float64{t / 2, t, 1.5 * t}}
	for i := range y.Ticks {
		y.Ticks[i] = math.Round(y.Ticks[i]*1000) / 1000
	}
	p := Picture{Says: "From how long ago it plays; rising lines are backwards.", X: x, Y: y,
		Curves: []Curve{x.curve("reads", "main", func(s float64) float64 { return 2 * math.Mod(s, t) })}}
	if v[0] != 0 {
		p.Handles = []Handle{{Label: "Length", X: t, Y: t, ParamX: "time", ScaleX: 0.001}}
	}
	return p
}
