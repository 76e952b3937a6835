package effect

import (
	"math"

	"shoal/internal/dsp"
)

// Splicing: a head reads a line while it slides through half of a window. At its end it is set back by that half, give or take
// up to a quarter of the window, to where the sound goes on most alike (cross-correlation, as in WSOLA: Verhelst and
// Roelands, ICASSP 1993), and cross-faded. The frequency is exact, and a held tone stays as loud as it is.
const (
	spliceSeconds = 0.02 // of a cross-fade, and of what is compared
	spliceBase    = 80   // frames of delay that are kept for the interpolator and for a head that fades
	spliceCoarse  = 4    // frames between the places that are looked at first
)

// splicer changes the pitch of one side by a ratio near 1.
type splicer struct {
	line   *dsp.DelayLine
	width  float64 // of the window, frames
	place  float64 // 0 to 1 through half of it
	offset float64 // frames by which the head stands off its place
	old    float64 // delay of the head that fades
	fade   int     // frames of that left
	fades  int
	alike  float64 // how alike both heads are, -1 to 1
}

func newSplicer(seconds, rate float64) splicer {
	dsp.Smooths()
	fades := int(spliceSeconds * rate)
	return splicer{line: dsp.NewDelayLine(int(seconds*rate) + fades + 2*spliceBase), width: seconds * rate, fades: fades, place: 0.5}
}

// begin sets the place that belongs to a frame of the song: a print is what is heard from elsewhere.
func (p *splicer) begin(frame int64, slide float64) {
	p.place = 0.5 + math.Mod(float64(frame)*slide/(p.width/2), 1)
	p.place -= math.Floor(p.place)
}

func (p *splicer) at(place float64) float64 { return spliceBase + p.width/4 + place*p.width/2 }

// step takes in a sample and moves the head; it reports whether it has come to its end. slide is 1 - ratio.
func (p *splicer) step(x, slide float64) bool {
	p.line.Write(x)
	p.place += slide / (p.width / 2)
	p.old += slide
	if p.place >= 0 && p.place < 1 {
		return false
	}
	whole := math.Floor(p.place)
	p.old = p.at(p.place) + p.offset
	p.place -= whole
	p.fade, p.offset = p.fades, 0
	return true
}

// read gives the sound at the head, and what still fades of the head before.
func (p *splicer) read() float64 {
	y := p.line.ReadSmooth(p.at(p.place) + p.offset)
	if p.fade == 0 {
		return y
	}
	w := 0.5 - 0.5*math.Cos(math.Pi*float64(p.fade)/float64(p.fades+1))
	v := 1 - w
	p.fade--
	return (w*p.line.ReadSmooth(p.old) + v*y) / math.Sqrt(w*w+v*v+2*p.alike*w*v)
}

// next shifts one sample of a side that stands alone.
func (p *splicer) next(x, slide float64) float64 {
	if p.step(x, slide) {
		align(p)
	}
	return p.read()
}

// align sets sides that have come to their end at once where they go on most alike, both by as much.
func align(sides ...*splicer) {
	p := sides[0]
	reach := int(p.width / 4)
	nominal := int(math.Round(p.at(p.place)))
	score := func(offset, step int) float64 {
		sum := 0.0
		for _, q := range sides {
			sum += q.likeness(nominal+offset, step)
		}
		return sum/float64(len(sides)) - 0.02*math.Abs(float64(offset))/float64(reach)
	}
	best, most := 0, math.Inf(-1)
	for o := -reach; o <= reach; o += spliceCoarse {
		if s := score(o, spliceCoarse); s > most {
			best, most = o, s
		}
	}
	middle := best
	most = math.Inf(-1)
	for o := max(-reach, middle-spliceCoarse); o <= min(reach, middle+spliceCoarse); o++ {
		if s := score(o, 1); s > most {
			best, most = o, s
		}
	}
	// between frames: the top of the parabola through three scores
	a, b, c := score(best-1, 1), most, score(best+1, 1)
	fine := 0.0
	if d := a - 2*b + c; d < 0 {
		fine = max(-0.5, min(0.5, 0.5*(a-c)/d))
	}
	for _, q := range sides {
		q.alike = max(-0.9, min(1, q.likeness(nominal+best, 1)))
		q.offset = float64(nominal+best) + fine - q.at(q.place)
		q.offset += q.old - math.Round(q.old) // what was compared stood on whole frames
	}
}

// likeness compares what the head that fades has read with what stands at another delay.
func (p *splicer) likeness(delay, step int) float64 {
	old := int(math.Round(p.old))
	var both, one, other float64
	for j := 0; j < p.fades; j += step {
		a, b := p.line.Read(old+j), p.line.Read(delay+j)
		both, one, other = both+a*b, one+a*a, other+b*b
	}
	return both / (math.Sqrt(one*other) + 1e-20)
}

func (p *splicer) reset() {
	p.line.Clear()
	*p = splicer{line: p.line, width: p.width, fades: p.fades, place: 0.5}
}

func (p *splicer) copyFrom(o *splicer) {
	line, width := p.line, p.width
	line.CopyFrom(o.line)
	*p = *o
	p.line, p.width = line, width
	if width != o.width { // it stands elsewhere in another window
		p.fade, p.offset = 0, 0
	}
}
