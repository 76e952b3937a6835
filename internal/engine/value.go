package engine

import (
	"math"
	"sort"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/param"
	"shoal/internal/project"
)

// slot is one moving parameter of a plan: its base is a hand's value or a line.
type slot struct {
	owner, name string
	desc        param.Param
	hand        dsp.Glide // along the taper, or the value itself for choices
	want        float64   // the value the hand has set, exactly
	line        *line
	mended      float64 // how far it was from where a changed line has it
	mending     int     // frames until that is made up for
	taken       bool    // a hand holds it, though it has a line
	track       []float64
	rank        int        // of a crossover: how many there are; only one of as many goes on as it was
	follows     []followed // levels that move it
	pulls       []pull     // movers on it
	hold        *hold      // the handle that it hangs on
	spans       []*span    // what passages do to it
	passed      *span      // the one that has it
	over        []float64
	was         float64 // the place that it had last
	off         float64 // how far from there it began, when another had it
	left        int     // frames until that is made up for
	stirred     *bool   // set when a hand moves the value, so that a stage at rest need not look
}

func newSlot(owner, name string, d param.Param, v float64) *slot {
	s := &slot{owner: owner, name: name, desc: d, want: v}
	s.hand.Set(s.place(v))
	return s
}

func (s *slot) place(v float64) float64 {
	if s.desc.Stepped() {
		return v
	}
	return s.desc.Place(v)
}

// aim moves the base to v, smoothly where the parameter can be smooth.
func (s *slot) aim(v float64, frames int) {
	s.want = v
	if s.stirred != nil {
		*s.stirred = true
	}
	if s.desc.Stepped() {
		s.hand.Set(v)
		return
	}
	if p := s.desc.Place(v); p != s.hand.Target() {
		if s.track == nil {
			s.track = make([]float64, Block)
		}
		s.hand.Aim(p, frames)
	}
}

func (s *slot) value(place float64) float64 {
	if s.desc.Stepped() {
		return place
	}
	return s.desc.Clamp(s.desc.At(place))
}

// moves reports whether the value changes, or may, from block to block.
func (s *slot) moves() bool {
	return s.line != nil || s.hand.Moving() || s.hold != nil || s.pulled() || len(s.spans) > 0
}

// base is the value a hand has set, without a line.
func (s *slot) base() float64 { return s.want }

// fill gives the value over the next n frames at the stage's own time.
func (s *slot) fill(c *cursor, lag, n int) effect.Value {
	if !s.moves() { // most are like this
		return effect.Value{Now: s.want}
	}
	if s.pulled() {
		return s.fillMoved(c, lag, n)
	}
	return s.fillBase(c, lag, n)
}

// fillBase gives the base: a passage's while it lasts, else a handle's, or the line's, or the hand's.
func (s *slot) fillBase(c *cursor, lag, n int) effect.Value {
	if len(s.spans) > 0 {
		return s.fillOver(c, lag, n)
	}
	return s.fillUnder(c, lag, n)
}

// fillUnder gives the base where no passage has it.
func (s *slot) fillUnder(c *cursor, lag, n int) effect.Value {
	if s.hold != nil {
		return s.fillHeld(c, lag, n)
	}
	return s.fillOwn(c, lag, n)
}

// fillOwn is the value that a hand or the line gives.
func (s *slot) fillOwn(c *cursor, lag, n int) effect.Value {
	if s.line != nil && len(s.line.frames) > 0 && !s.taken {
		s.hand.Skip(n)
		return s.fillLine(c, lag, n)
	}
	if !s.hand.Moving() {
		return effect.Value{Now: s.want}
	}
	for i := range s.track[:n] {
		s.track[i] = s.value(s.hand.Next())
	}
	return effect.Value{Now: s.track[0], Track: s.track[:n]}
}

func (s *slot) fillLine(c *cursor, lag, n int) effect.Value {
	if !c.rolling {
		s.mending = 0
		return effect.Value{Now: s.line.at(c.hold, s)}
	}
	if c.jumped {
		s.mending = 0
	}
	first := c.songFrame(lag, 0)
	v := effect.Value{Step: c.jumped || s.line.stepsAt(first)}
	if s.mending == 0 && c.songFrame(lag, n-1) == first+int64(n-1) {
		if s.line.fill(s.track[:n], first, s) {
			v.Track = s.track[:n]
		}
		v.Now = s.track[0]
		return v
	}
	moving := false
	for i := range s.track[:n] {
		s.track[i] = s.line.at(c.songFrame(lag, i), s)
		if s.mending > 0 {
			s.mending--
			s.track[i] = s.value(max(0, min(1, s.place(s.track[i])+s.mend())))
		}
		moving = moving || s.track[i] != s.track[0]
	}
	v.Now = s.track[0]
	if moving {
		v.Track = s.track[:n]
	}
	return v
}

// line is an automation line in frames.
type line struct {
	source *project.Line
	frames []int64
	shares []float64 // what part of the way to the next point a frame is
	values []float64
	places []float64
	hold   []bool
	shapes []string
	bends  []float64
	low    float64 // the lowest place of its points, and the highest
	high   float64
	now    int // the segment last used
}

// lineTime is what the points of lines are counted in.
type lineTime interface{ Frame(tick int64) int64 }

func newLine(l *project.Line, s *slot, time lineTime) *line {
	x := &line{source: l, low: 1}
	for _, p := range l.Points {
		x.frames = append(x.frames, time.Frame(p.Tick))
		x.values = append(x.values, p.Value)
		x.places = append(x.places, s.place(p.Value))
		x.low, x.high = min(x.low, s.place(p.Value)), max(x.high, s.place(p.Value))
		x.hold = append(x.hold, p.Shape == project.Hold || s.desc.Stepped())
		x.shapes, x.bends = append(x.shapes, p.Shape), append(x.bends, p.Bend)
	}
	for i := 1; i < len(x.frames); i++ {
		x.shares = append(x.shares, 1/float64(max(1, x.frames[i]-x.frames[i-1])))
	}
	return x
}

// seek finds the last point at or before a frame; -1 before the first. It
// looks at the neighbours first, so that its cost does not grow with the points.
func (l *line) seek(f int64) int {
	i := l.now
	if i >= 0 && i < len(l.frames) && l.frames[i] <= f {
		for step := 0; step < 4; step++ {
			if i+1 >= len(l.frames) || l.frames[i+1] > f {
				l.now = i
				return i
			}
			i++
		}
	}
	i = sort.Search(len(l.frames), func(k int) bool { return l.frames[k] > f }) - 1
	l.now = max(i, 0)
	return i
}

func (l *line) at(f int64, s *slot) float64 {
	i := l.seek(f)
	switch {
	case i < 0:
		return l.values[0]
	case i+1 >= len(l.frames) || l.hold[i]:
		return l.values[i]
	}
	t := float64(f-l.frames[i]) * l.shares[i]
	if l.shapes[i] != project.Ramp {
		t = project.Bent(l.shapes[i], l.bends[i], t)
	} else if s.desc.Straight(l.values[i], l.values[i+1]) {
		return l.values[i] + (l.values[i+1]-l.values[i])*t
	}
	return s.value(l.places[i] + (l.places[i+1]-l.places[i])*t)
}

// fill gives the values from a frame on and reports whether they move. It is what at gives, but looks for
// each segment once; a ramp on a logarithmic travel goes from grid point to grid point, each value the one
// before times the same, counted from the grid, so that a block's beginning does not change it.
func (l *line) fill(dst []float64, f int64, s *slot) (moving bool) {
	for at := 0; at < len(dst); {
		i := l.seek(f + int64(at))
		end := len(dst)
		if i+1 < len(l.frames) {
			end = int(min(int64(end), l.frames[max(i+1, 0)]-f))
		}
		part := dst[at:end]
		switch {
		case i < 0 || i+1 >= len(l.frames) || l.hold[i] || l.values[i] == l.values[i+1]:
			v := l.at(f+int64(at), s)
			for k := range part {
				part[k] = v
			}
			moving = moving || v != dst[0]
		case l.shapes[i] == project.Ramp && s.desc.Taper == param.Log:
			l.slide(part, f+int64(at), i, s)
			moving = true
		case l.shapes[i] == project.Ramp && s.desc.Straight(l.values[i], l.values[i+1]):
			dsp.Rise(part, l.values[i], l.values[i+1]-l.values[i], f+int64(at)-l.frames[i], l.shares[i])
			moving = true
		default:
			for k := range part {
				part[k] = l.at(f+int64(at+k), s)
			}
			moving = true
		}
		at = end
	}
	return moving
}

// slide gives the values of a ramp along a logarithmic travel.
func (l *line) slide(dst []float64, f int64, i int, s *slot) {
	step := (l.places[i+1] - l.places[i]) * l.shares[i]
	span := math.Log(s.desc.Max / s.desc.Min)
	ratio := dsp.Exp(step * span)
	for k := 0; k < len(dst); {
		off := int((f + int64(k)) & (effect.Grid - 1))
		grid := f + int64(k-off)
		v := s.desc.Min * dsp.Exp((l.places[i]+step*float64(grid-l.frames[i]))*span) // may lie before the ramp: it is only counted from
		for range off {
			v *= ratio
		}
		for to := min(len(dst), k+effect.Grid-off); k < to; k++ {
			dst[k] = s.desc.Clamp(v)
			v *= ratio
		}
	}
}

// stepsAt reports whether the line jumps exactly at a frame.
func (l *line) stepsAt(f int64) bool {
	i := l.seek(f)
	return i > 0 && l.frames[i] == f && (l.hold[i-1] || l.frames[i-1] == f) && l.values[i] != l.values[i-1]
}

// next is how many frames from f the next jump of what moves it is, or a large number.
func (s *slot) next(f int64) int64 {
	n := int64(Block)
	if s.line != nil {
		n = s.line.next(f)
	}
	for _, x := range s.spans {
		n = min(n, x.next(f))
	}
	return n
}

// next returns how many frames from f the next jump is, or a large number.
func (l *line) next(f int64) int64 {
	for i := l.seek(f) + 1; i < len(l.frames) && l.frames[i] < f+Block; i++ {
		if i > 0 && (l.hold[i-1] || l.frames[i-1] == l.frames[i]) {
			return l.frames[i] - f
		}
	}
	return Block
}

// digest tells a line's points from others in the shape of a plan (FNV-1a over what they hold).
func digest(l *project.Line) uint64 {
	h := uint64(14695981039346656037)
	add := func(v uint64) { h = (h ^ v) * 1099511628211 }
	for i := range l.Points {
		p := &l.Points[i]
		add(uint64(p.Tick))
		add(math.Float64bits(p.Value))
		add(math.Float64bits(p.Bend))
		for _, b := range []byte(p.Shape) {
			add(uint64(b))
		}
	}
	return h
}
