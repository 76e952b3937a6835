package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

const (
	delayMax    = 4.0 // seconds
	delayParams = 13
	dampHz      = 2500 // where damping turns
	duckFloor   = -30  // dB: the level at which echoes have stepped back all the way
)

// delay repeats the signal. Times are whole frames when they stand still, so
// echoes are exact to the sample; while they move the line is read by Hermite
// interpolation. The cuts (first order, in Hz) and a saturator that only works
// above full scale stand inside the loop, and feedback ends at 100 %, so it
// cannot run away. With both cuts at the end of their travel they are out.
var delay = Kind{
	Info: Info{
		ID: "delay", Version: 2, Name: "Delay", Family: "Time", Mix: 25, MixLaw: "add", Keyed: true,
		Says:     "Repeats the signal after a time, again and again, softer each time.",
		Plumbs:   []Plumb{{Param: "note"}, {Param: "time"}, {Param: "feedback"}},
		Synonyms: []string{"echo", "repeat", "ping pong", "slap", "bounce"},
		Params: []param.Param{
			{Name: "sync", Label: "Time in", Says: "Whether the time is a note length, which follows the tempo, or milliseconds.",
				Max: 1, Taper: param.Choice, Choices: []string{"notes", "milliseconds"}},
			param.Param{Name: "note", Label: "Note", Says: "The time between echoes as a note length.",
				Max: float64(len(notes) - 1), Default: 7, Taper: param.Choice, Choices: noteNames()}.Only("sync", 0),
			param.Param{Name: "time", Label: "Time", Unit: "ms", Says: "The time between echoes, when it is set in milliseconds.",
				Min: 1, Max: 4000, Default: 350, Taper: param.Log, Step: 2, Digits: 1}.Only("sync", 1),
			{Name: "feedback", Label: "Feedback", Unit: "%", Says: "How much of each echo goes round again.",
				Min: 0, Max: 100, Default: 35, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "route", Label: "Route", Says: "Where the echoes go: straight on, across to the other side, or from side to side.",
				Max: 2, Taper: param.Choice, Choices: []string{"straight", "crossed", "side to side"}},
			{Name: "lowcut", Label: "Low cut", Unit: "Hz", Says: "Takes the lows out of each echo. At 20 Hz it is out.",
				Min: 20, Max: 2000, Default: 120, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "highcut", Label: "High cut", Unit: "Hz", Says: "Takes the highs out of each echo. At 20 kHz it is out.",
				Min: 500, Max: 20000, Default: 6000, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "width", Label: "Width", Unit: "%", Says: "How far apart the echoes of left and right are.",
				Min: 0, Max: 100, Default: 100, Taper: param.Linear, Step: 1, Digits: 0},
			{
				Sheet:   "Further",
				Name:    "change",
				Label:   "Change of time",
				Says:    "How a new time is reached: gliding, which bends the pitch, or by a cross-fade.",
				Default: 1,
				Max:     1,
				Taper:   param.Choice,
				Choices: []string{"glide", "cross-fade"},
			},
			{Sheet: "Further", Name: "pan", Label: "Input pan", Unit: "", Says: "From where the signal goes in, between left and right.",
				Min: -1, Max: 1, Taper: param.Linear, Step: 0.05, Digits: 2},
			{Name: "damping", Label: "Damping", Unit: "%", Says: "How much duller each echo is than the one before.",
				Min: 0, Max: 100, Taper: param.Linear, Step: 1, Digits: 0},
			{Sheet: "Further", Name: "duck", Label: "Duck", Unit: "dB", Says: "How far the echoes step back while the signal, or the key, is there.",
				Min: 0, Max: 24, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Sheet: "Further", Name: "duckrelease", Label: "Duck release", Unit: "ms", Says: "How fast they come forward again.",
				Min: 20, Max: 2000, Default: 250, Taper: param.Log, Step: 3, Digits: 0},
		},
	},
	New:   func(rate float64) Processor { return newEcho(rate, true) },
	Tail:  delayTail,
	Rests: func(v []float64, tempo float64) float64 { return delaySeconds(v, tempo) + 0.1 + faded(v[12]/1000) },
	Draw:  drawDelay,
}

// delay1 lost what was panned away where echoes go from side to side.
var delay1 = was(delay, 1, func(rate float64) Processor { return newEcho(rate, false) })

func delaySeconds(v []float64, tempo float64) float64 {
	if v[0] == 0 {
		return min(notes[int(v[1])].quarters*60/tempo, delayMax)
	}
	return v[2] / 1000
}

func delayTail(v []float64, tempo float64) float64 {
	t, fb := delaySeconds(v, tempo), v[3]/100
	if fb <= 0 {
		return t + 0.05
	}
	if fb >= 0.999 {
		return 60
	}
	return min(60, t*(1+math.Ceil(-100/dsp.Decibels(fb))))
}

type echo struct {
	rate       float64
	whole      bool // where echoes go from side to side, panning the input loses nothing
	l, r       *dsp.DelayLine
	frames     float64 // where the line is read
	next       float64 // where a cross-fade leads
	fade       int     // frames of the cross-fade left
	fadeFrames int
	glide      float64
	fresh      bool
	low, high  dsp.Section
	lowHz      float64
	highHz     float64
	lowL, lowR dsp.Biquad
	hiL, hiR   dsp.Biquad
	last       [delayParams]float64
	damp       dsp.Section
	dampL      dsp.Biquad
	dampR      dsp.Biquad
	duckEnv    float64
	tempo      float64
	*echoRoom
}

// echoRoom is what a delay needs only while it works.
type echoRoom struct {
	bl, br   [MaxFrames]float64
	wl, wr   [MaxFrames]float64
	dl, dr   [MaxFrames]float64 // what goes round again, damped
	duckGain [MaxFrames]float64
}

func (e *echo) Borrow(o Processor) { e.echoRoom = o.(*echo).echoRoom }

func newEcho(rate float64, whole bool) *echo {
	n := int(rate*delayMax) + 8
	return &echo{rate: rate, whole: whole, echoRoom: new(echoRoom), l: dsp.NewDelayLine(n), r: dsp.NewDelayLine(n), fresh: true,
		fadeFrames: int(rate * 0.03), glide: 1 - dsp.Decay(0.06, rate)}
}

func (e *echo) Process(s *Span) {
	ducks := e.listen(s)
	e.enter(s)
	e.echoes(s)
	if ducks {
		for i := range s.L {
			s.L[i] *= e.duckGain[i]
			s.R[i] *= e.duckGain[i]
		}
	}
	e.flush()
}

// listen works out how far the echoes step back, before the input is overwritten.
func (e *echo) listen(s *Span) bool {
	duck := &s.Values[11]
	if duck.Track == nil && duck.Now == 0 {
		e.duckEnv = 0
		return false
	}
	keyL, keyR := s.KeyL, s.KeyR
	if keyL == nil {
		keyL, keyR = s.L, s.R
	}
	up, down := dsp.Decay(0.004, e.rate), dsp.Decay(s.Values[12].At(0)/1000, e.rate)
	env := e.duckEnv
	for i := range s.L {
		env = follow(env, larger(math.Abs(keyL[i]), math.Abs(keyR[i])), up, down)
		share := larger(0, smaller(1, 1+(dsp.QuickLog(larger(env, 1e-6))*(20/math.Ln10)-duckFloor)/20))
		e.duckGain[i] = dsp.QuickExp(-duck.At(i) * share * (math.Ln10 / 20))
	}
	e.duckEnv = dsp.Flush(env)
	return true
}

// enter pans the input.
func (e *echo) enter(s *Span) {
	pan := &s.Values[9]
	if e.whole && s.Values[4].At(0) == 2 {
		for i, l := range s.L { // as much of either side as the pan says, and all of it together
			p := pan.At(i)
			a, b := 1-larger(0, p), 1-larger(0, -p)
			m := (a*l + b*s.R[i]) / (a + b)
			s.L[i], s.R[i] = m, m
		}
		return
	}
	if pan.Track == nil && pan.Now == 0 {
		return
	}
	for i := range s.L {
		if p := pan.At(i); p > 0 {
			s.L[i] *= 1 - p
		} else {
			s.R[i] *= 1 + p
		}
	}
}

func (e *echo) echoes(s *Span) {
	if e.rests(s) {
		e.still(s, 0, len(s.L))
		return
	}
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || e.fresh {
			e.look(s, from)
		}
		e.run(s, from, to)
		from = to
	}
}

func (e *echo) flush() {
	e.dampL.Flush()
	e.dampR.Flush()
	e.lowL.Flush()
	e.lowR.Flush()
	e.hiL.Flush()
	e.hiR.Flush()
}

// rests reports whether nothing moves over the whole span, and the delay is longer than it.
func (e *echo) rests(s *Span) bool {
	if e.fresh || e.fade > 0 || e.next != e.frames || int(e.frames) < len(s.L) || s.Tempo != e.tempo {
		return false
	}
	if s.Still {
		return true
	}
	for k := range e.last {
		if v := &s.Values[k]; v.Track != nil || v.Now != e.last[k] {
			return false
		}
	}
	return true
}

// look takes the parameters at a grid point.
func (e *echo) look(s *Span, i int) {
	v := &e.last
	s.read(v[:], i)
	e.tempo = s.Tempo
	want := max(1, math.Round(delaySeconds(v[:], s.Tempo)*e.rate))
	switch {
	case e.fresh:
		e.frames, e.next = want, want
	case v[8] == 0:
		if e.fade == 0 {
			e.next = want
		}
	case e.fade == 0 && want != e.frames:
		e.next, e.fade = want, e.fadeFrames
	}
	if e.fresh {
		e.damp = dsp.LowPass1(dampHz, e.rate)
	}
	if e.fresh || v[5] != e.lowHz {
		e.lowHz, e.low = v[5], dsp.HighPass1(v[5], e.rate)
	}
	if e.fresh || v[6] != e.highHz {
		e.highHz, e.high = v[6], dsp.LowPass1(min(v[6], e.rate*0.45), e.rate)
	}
	e.fresh = false
}

// still runs a piece while the time stands still: whole stretches are read,
// filtered and written at once.
func (e *echo) still(s *Span, from, to int) {
	n := to - from
	l, r := e.bl[:n], e.br[:n]
	e.l.ReadBlock(l, int(e.frames)-1)
	e.r.ReadBlock(r, int(e.frames)-1)
	switch {
	case e.lowHz > 20 && e.highHz < 20000:
		dsp.RunStereo2(&e.low, &e.high, &e.lowL, &e.lowR, &e.hiL, &e.hiR, l, r)
	case e.lowHz > 20:
		dsp.RunStereo(&e.low, &e.lowL, &e.lowR, l, r)
	case e.highHz < 20000:
		dsp.RunStereo(&e.high, &e.hiL, &e.hiR, l, r)
	}
	al, ar := e.again(&s.Values[10], from, l, r)
	e.feed(s, from, al, ar)
	e.l.WriteBlock(e.wl[:n])
	e.r.WriteBlock(e.wr[:n])
	xs, ys := s.L[from:to], s.R[from:to]
	width := &s.Values[7]
	if width.Track == nil && width.Now == 100 {
		copy(xs, l)
		copy(ys, r)
		return
	}
	for i := range xs {
		m, d := (l[i]+r[i])*0.5, (l[i]-r[i])*0.5*(width.At(from+i)*0.01)
		xs[i], ys[i] = m+d, m-d
	}
}

// again is what goes round again of what was read: damped, and bounded where it is above
// full scale.
func (e *echo) again(damping *Value, from int, l, r []float64) (al, ar []float64) {
	damped := damping.Track != nil || damping.Now > 0
	loud := dsp.Peak(l, r) > 1
	if !damped && !loud {
		return l, r
	}
	al, ar = e.dl[:len(l)], e.dr[:len(r)]
	copy(al, l)
	copy(ar, r)
	if damped {
		dsp.RunStereo(&e.damp, &e.dampL, &e.dampR, al, ar)
		for i := range al {
			d := damping.At(from+i) * 0.01
			al[i], ar[i] = l[i]+d*(al[i]-l[i]), r[i]+d*(ar[i]-r[i])
		}
	}
	if loud {
		for i := range al {
			al[i], ar[i] = bounded(al[i]), bounded(ar[i])
		}
	}
	return al, ar
}

// feed makes what goes into the lines: the input, and by the route what goes round again.
func (e *echo) feed(s *Span, from int, al, ar []float64) {
	n := len(al)
	xs, ys, wl, wr := s.L[from:from+n], s.R[from:from+n], e.wl[:n], e.wr[:n]
	feedback, route := &s.Values[3], int(s.Values[4].At(from))
	if route == 2 { // all of it starts on the left and goes from side to side
		for i, x := range xs {
			wr[i] = (x + ys[i]) * 0.5
		}
		xs = wr
	}
	if route != 0 {
		al, ar = ar, al
	}
	if feedback.Track == nil {
		fb := feedback.Now * 0.01
		dsp.Feed(wl, xs, al, fb)
		if route != 2 {
			dsp.Feed(wr, ys, ar, fb)
		}
	} else {
		for i, x := range xs {
			fb := feedback.Track[from+i] * 0.01
			wl[i], wr[i] = dsp.Flush(x+fb*al[i]), dsp.Flush(ys[i]+fb*ar[i])
		}
	}
	if route == 2 {
		copy(wr, ar)
	}
}

func (e *echo) run(s *Span, from, to int) {
	if e.fade == 0 && e.next == e.frames && int(e.frames) >= to-from {
		e.still(s, from, to)
		return
	}
	route := int(s.Values[4].At(from))
	width := &s.Values[7]
	feedback := &s.Values[3]
	for i := from; i < to; i++ {
		var l, r float64
		switch {
		case e.fade > 0:
			w := 0.5 + 0.5*math.Cos(math.Pi*float64(e.fade)/float64(e.fadeFrames))
			a, b := e.frames-1, e.next-1
			l = e.l.ReadAt(max(a, 0))*(1-w) + e.l.ReadAt(max(b, 0))*w
			r = e.r.ReadAt(max(a, 0))*(1-w) + e.r.ReadAt(max(b, 0))*w
			if e.fade--; e.fade == 0 {
				e.frames = e.next
			}
		case e.next != e.frames: // gliding
			d := e.next - e.frames
			if math.Abs(d) < 0.002 {
				e.frames = e.next
			} else {
				e.frames += max(-0.5, min(0.5, d*e.glide))
			}
			l, r = e.l.ReadAt(max(e.frames-1, 1)), e.r.ReadAt(max(e.frames-1, 1))
		default:
			n := int(e.frames) - 1
			l, r = e.l.Read(n), e.r.Read(n)
		}
		if e.lowHz > 20 {
			l, r = e.lowL.Next(&e.low, l), e.lowR.Next(&e.low, r)
		}
		if e.highHz < 20000 {
			l, r = e.hiL.Next(&e.high, l), e.hiR.Next(&e.high, r)
		}
		al, ar := l, r
		if d := s.Values[10].At(i) * 0.01; d > 0 || s.Values[10].Track != nil {
			al, ar = l+d*(e.dampL.Next(&e.damp, l)-l), r+d*(e.dampR.Next(&e.damp, r)-r)
		}
		fb := feedback.At(i) * 0.01
		x, y := s.L[i], s.R[i]
		switch route {
		case 1: // each side feeds the other
			x, y = x+fb*bounded(ar), y+fb*bounded(al)
		case 2: // all of it starts on the left and goes from side to side
			x, y = (x+y)*0.5+fb*bounded(ar), bounded(al)
		default:
			x, y = x+fb*bounded(al), y+fb*bounded(ar)
		}
		e.l.Write(dsp.Flush(x))
		e.r.Write(dsp.Flush(y))
		if w := width.At(i); w != 100 {
			m, d := (l+r)*0.5, (l-r)*0.5*(w*0.01)
			l, r = m+d, m-d
		}
		s.L[i], s.R[i] = l, r
	}
}

// bounded passes what is below full scale untouched and bends the rest
// towards twice full scale.
func bounded(x float64) float64 {
	if math.Abs(x) <= 1 {
		return x
	}
	return bend(x)
}

func bend(x float64) float64 {
	if x > 0 {
		return 1 + dsp.Tanh(x-1)
	}
	return -1 + dsp.Tanh(x+1)
}

func (e *echo) Reset() {
	e.l.Clear()
	e.r.Clear()
	e.lowL, e.lowR, e.hiL, e.hiR = dsp.Biquad{}, dsp.Biquad{}, dsp.Biquad{}, dsp.Biquad{}
	e.dampL, e.dampR, e.duckEnv = dsp.Biquad{}, dsp.Biquad{}, 0
	e.fade, e.fresh = 0, true
}

func (e *echo) CopyFrom(o Processor) {
	p := o.(*echo)
	l, r, room := e.l, e.r, e.echoRoom
	*e = *p
	e.l, e.r, e.echoRoom = l, r, room
	e.l.CopyFrom(p.l)
	e.r.CopyFrom(p.r)
}
