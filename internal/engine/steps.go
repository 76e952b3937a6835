package engine

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/effect"
)

// Block is the most frames that are rendered at once.
const Block = effect.MaxFrames

// pair is a stereo buffer.
type pair struct{ l, r []float64 }

func newPair() pair { return pair{make([]float64, Block), make([]float64, Block)} }

// step is one thing a plan does to its buffers over n frames.
type step interface {
	run(c *cursor, n int)
}

// twin is a step whose state goes on in another plan.
type twin interface {
	step
	key() string
	copyFrom(twin)
	reset()
}

// shift2 delays a pair.
type shift2 struct{ l, r *dsp.Shift }

func newShift2(frames int) shift2 { return shift2{dsp.NewShift(frames), dsp.NewShift(frames)} }

func (s shift2) process(p pair, n int) {
	s.l.Process(p.l[:n])
	s.r.Process(p.r[:n])
}

func (s shift2) feed(l, r []float64) {
	s.l.Feed(l)
	s.r.Feed(r)
}

func (s shift2) clear() { s.l.Clear(); s.r.Clear() }

func (s shift2) copyFrom(o shift2) { s.l.CopyFrom(o.l); s.r.CopyFrom(o.r) }

// inflow is one signal arriving at a sum.
type inflow struct {
	from  pair
	shift shift2 // zero frames where nothing has to wait
	name  string
}

// arrived gives the signal as late as it has to be; what waits is worked out in tmp.
func (f *inflow) arrived(tmp pair, n int) (l, r []float64) {
	l, r = f.from.l[:n], f.from.r[:n]
	if f.shift.l.Frames() == 0 {
		return l, r
	}
	copy(tmp.l, l)
	copy(tmp.r, r)
	f.shift.process(tmp, n)
	return tmp.l[:n], tmp.r[:n]
}

// copyStep puts a signal aside for a key, a send or a path, delayed if need be.
type copyStep struct {
	id       string
	from, to pair
	shift    shift2
}

func (s *copyStep) run(_ *cursor, n int) {
	copy(s.to.l[:n], s.from.l[:n])
	copy(s.to.r[:n], s.from.r[:n])
	s.shift.process(s.to, n)
}

func (s *copyStep) key() string     { return "copy " + s.id }
func (s *copyStep) reset()          { s.shift.clear() }
func (s *copyStep) copyFrom(o twin) { s.shift.copyFrom(o.(*copyStep).shift) }

// delayStep makes a signal wait, in place.
type delayStep struct {
	id    string
	buf   pair
	shift shift2
}

func (s *delayStep) run(_ *cursor, n int) { s.shift.process(s.buf, n) }
func (s *delayStep) key() string          { return "delay " + s.id }
func (s *delayStep) reset()               { s.shift.clear() }
func (s *delayStep) copyFrom(o twin)      { s.shift.copyFrom(o.(*delayStep).shift) }

// strip is the end of a channel: fader, pan and mute.
type strip struct {
	id         string
	buf        pair
	stereo     bool
	lag        int
	fader, pan *slot
	open       gate // mute
}

func (s *strip) run(c *cursor, n int) {
	if !s.stereo {
		for i, l := range s.buf.l[:n] {
			m := (l + s.buf.r[i]) * 0.5
			s.buf.l[i], s.buf.r[i] = m, m
		}
	}
	f, p := s.fader.fill(c, s.lag, n), s.pan.fill(c, s.lag, n)
	law := panStereo
	if !s.stereo {
		law = panMono
	}
	s.open.follow(c)
	applyGain(s.buf, s.buf, n, &f, &p, law, &s.open.Glide, &ungated)
}

// applyGain gives dst what stands in src, which may be dst itself, multiplied by a level
// in dB, a pan and two gates.
func applyGain(dst, src pair, n int, level, pan *effect.Value, law func(float64) (l, r float64), open, gate *dsp.Glide) {
	al, ar := src.l[:n], src.r[:n]
	l, r := dst.l[:n], dst.r[:n]
	if level.Track == nil && pan.Track == nil && !open.Moving() && !gate.Moving() {
		g := dsp.Gain(level.Now) * open.Now() * gate.Now()
		gl, gr := law(pan.Now)
		gl *= g
		gr *= g
		if gl == 1 && gr == 1 {
			if &l[0] != &al[0] {
				copy(l, al)
				copy(r, ar)
			}
			return
		}
		dsp.ScaleTo(l, al, gl)
		dsp.ScaleTo(r, ar, gr)
		return
	}
	var room [Block]float64
	gain := room[:n]
	level.Gains(gain)
	if open.Moving() || gate.Moving() {
		for i := range gain {
			gain[i] *= open.Next() * gate.Next()
		}
	} else if through := open.Now() * gate.Now(); through != 1 {
		dsp.Scale(gain, through)
	}
	gl, gr := law(pan.Now)
	for i, k := range gain {
		if pan.Track != nil {
			gl, gr = law(pan.Track[i])
		}
		l[i], r[i] = al[i]*(gl*k), ar[i]*(gr*k)
	}
}

// panStereo is a balance: it attenuates the far side only.
func panStereo(p float64) (l, r float64) {
	if p > 0 {
		return 1 - p, 1
	}
	return 1, 1 + p
}

// panMono is the sine/cosine law, -3 dB at the centre.
func panMono(p float64) (l, r float64) {
	if p == 0 {
		return math.Sqrt2 / 2, math.Sqrt2 / 2
	}
	a := (p + 1) * math.Pi / 4
	return math.Cos(a), math.Sin(a)
}

func (s *strip) key() string { return "strip " + s.id }
func (s *strip) reset()      {}
func (s *strip) copyFrom(o twin) {
	s.open.goOn(&o.(*strip).open)
}

// ungated is a gate that stays open.
var ungated = func() (g dsp.Glide) { g.Set(1); return }()

// outflow is where a channel's signal goes on to its output. It stands behind the sends,
// so that a channel can be silenced there and still feed a return that is soloed.
type outflow struct {
	id   string
	buf  pair
	gate dsp.Glide // solo
	mono bool      // for the main output: both sides are their sum
}

func (s *outflow) run(_ *cursor, n int) {
	l, r := s.buf.l[:n], s.buf.r[:n]
	if s.mono {
		for i, x := range l {
			m := (x + r[i]) * 0.5
			l[i], r[i] = m, m
		}
	}
	if !s.gate.Moving() {
		switch s.gate.Now() {
		case 1:
		case 0:
			clear(l)
			clear(r)
		}
		return
	}
	for i := range l {
		g := s.gate.Next()
		l[i] *= g
		r[i] *= g
	}
}

func (s *outflow) key() string { return "outflow " + s.id }
func (s *outflow) reset()      {}
func (s *outflow) copyFrom(o twin) {
	gate := s.gate.Target()
	s.gate = o.(*outflow).gate
	s.gate.Aim(gate, gateFrames)
}

// gateFrames is how long mutes, bypasses and solo take: 5 ms at 48 kHz.
const gateFrames = 240

// sendStep copies a signal to where a return picks it up.
type sendStep struct {
	id         string
	channel    string
	target     string
	from, to   pair
	lag        int
	level, pan *slot
	open       gate      // mute
	gate       dsp.Glide // what a listener hears
}

func (s *sendStep) run(c *cursor, n int) {
	v, p := s.level.fill(c, s.lag, n), s.pan.fill(c, s.lag, n)
	s.open.follow(c)
	applyGain(s.to, s.from, n, &v, &p, panStereo, &s.open.Glide, &s.gate)
}

func (s *sendStep) key() string { return "send " + s.id }
func (s *sendStep) reset()      {}
func (s *sendStep) copyFrom(o twin) {
	old := o.(*sendStep)
	s.open.goOn(&old.open)
	gate := s.gate.Target()
	s.gate = old.gate
	s.gate.Aim(gate, gateFrames)
}

// mixIn mixes wet into dry, in dry's place. Blend is a linear cross-fade; add
// leaves the dry signal alone. heard fades the whole stage in and out.
func mixIn(dry, wet pair, n int, mix *effect.Value, add bool, heard *dsp.Glide) {
	if mix.Track == nil && !heard.Moving() {
		m := mix.Now * 0.01 * heard.Now()
		switch {
		case m == 0:
		case add:
			dsp.AddScaled(dry.l[:n], wet.l[:n], m)
			dsp.AddScaled(dry.r[:n], wet.r[:n], m)
		case m == 1:
			copy(dry.l[:n], wet.l[:n])
			copy(dry.r[:n], wet.r[:n])
		default:
			dsp.Toward(dry.l[:n], wet.l[:n], m)
			dsp.Toward(dry.r[:n], wet.r[:n], m)
		}
		return
	}
	fading, through := heard.Moving(), heard.Now()
	for i := range dry.l[:n] {
		if fading {
			through = heard.Next()
		}
		m := mix.At(i) * 0.01 * through
		if add {
			dry.l[i] += m * wet.l[i]
			dry.r[i] += m * wet.r[i]
		} else {
			dry.l[i] += m * (wet.l[i] - dry.l[i])
			dry.r[i] += m * (wet.r[i] - dry.r[i])
		}
	}
}
