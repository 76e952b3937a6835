package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// spinDown slows the sound to a stop, as a turntable or a tape does when its
// motor is switched off, holds silence, and comes back: at once by a cross-fade of
// 15 ms, or by spinning up. While it runs freely it is exact. Speed over time is 1 - u,
// (1 - u)², or cos(πu/2), with u from 0 to 1 over the time. The line is read by a band-limited
// interpolator (16-tap windowed sinc); it holds more than it can fall behind: two thirds of 8 s down and of 4 s up.
var spinDown = Kind{
	Info: Info{
		ID: "spindown", Version: 2, Name: "Spin-down", Family: "Transition", Mix: 100, MixLaw: "blend",
		Says:     "Slows the sound to a stop when you say so, and lets it come back.",
		Synonyms: []string{"tape stop", "turntable", "brake", "slow down", "stop", "halt", "power off"},
		Plumbs:   []Plumb{{Param: "note"}, {Param: "time"}, {Param: "dull"}},
		Live:     []string{"speed"},
		Params: []param.Param{
			{Name: "stop", Label: "Stop", Says: "Switch it on to slow down and hold; off lets the sound come back.",
				Max: 1, Taper: param.Switch},
			{Name: "sync", Label: "Times in", Says: "Whether the times are note lengths, which follow the tempo, or seconds.",
				Max: 1, Taper: param.Choice, Choices: []string{"notes", "seconds"}},
			param.Param{Name: "note", Label: "Down in", Says: "How long it takes to stop, as a note length.",
				Max: float64(len(cycleNotes) - 1), Default: 13, Taper: param.Choice, Choices: cycleNames()}.Only("sync", 0),
			param.Param{Name: "time", Label: "Down in", Unit: "s", Says: "How long it takes to stop, in seconds.",
				Min: 0.05, Max: 8, Default: 1.5, Taper: param.Log, Step: 3, Digits: 2}.Only("sync", 1),
			{Name: "curve", Label: "Curve", Says: "How the speed falls.",
				Max: 2, Taper: param.Choice, Choices: []string{"even", "sudden, then slow", "slow, then sudden"}},
			{Name: "up", Label: "Up again", Says: "Whether it comes back at once, or spins up.",
				Max: 1, Taper: param.Choice, Choices: []string{"at once", "spinning up"}},
			param.Param{Name: "uptime", Label: "Up in", Unit: "s", Says: "How long spinning up takes.",
				Min: 0.05, Max: 4, Default: 0.4, Taper: param.Log, Step: 3, Digits: 2}.Only("up", 1),
			{Name: "dull", Label: "Dull", Unit: "%", Says: "How much the highs go before the sound stops.",
				Min: 0, Max: 100, Default: 30, Taper: param.Linear, Step: 1, Digits: 0},
		},
	},
	New:  func(rate float64) Processor { return newBrake(rate, true) },
	Draw: drawSpinDown,
}

// spinDown1 jumped where it was stopped again before it was quite back.
var spinDown1 = was(spinDown, 1, func(rate float64) Processor { return newBrake(rate, false) })

// brakeSeconds is what the line holds: 8 s at most are fallen behind. The first version held 16.
func brakeSeconds(even bool) float64 {
	if even {
		return 9
	}
	return 16
}

type brake struct {
	rate    float64
	line    [2]*dsp.DelayLine
	state   int
	at      float64 // frames into the movement
	length  float64
	lag     float64 // how far behind the live signal it reads
	fade    int     // frames of the cross-fade to the live signal left
	fadeLen int
	lowest  float64
	level   float64
	dull    [2]float64
	even    bool // it goes over from whatever it does into stopping again
	old     brakeEnd
}

// brakeEnd is what is left of a return that was not finished when it was stopped again.
type brakeEnd struct {
	fade       int
	lag, level float64
}

const (
	brakeFree = iota
	brakeDown
	brakeHeld
	brakeUp
	brakeBack // cross-fading to the live signal
)

func newBrake(rate float64, even bool) *brake {
	dsp.Fractions()
	n := int(brakeSeconds(even)*rate) + 64
	return &brake{
		rate: rate, line: [2]*dsp.DelayLine{dsp.NewDelayLine(n), dsp.NewDelayLine(n)}, fadeLen: int(rate * 0.015), lowest: 1, even: even,
	}
}

// brakeSpeed is the speed a part u of the way down.
func brakeSpeed(curve, u float64) float64 {
	u = max(0, min(1, u))
	switch curve {
	case 1:
		return (1 - u) * (1 - u)
	case 2:
		return math.Cos(math.Pi / 2 * u)
	}
	return 1 - u
}

// brakeDownSeconds is how long it takes to stop.
func brakeDownSeconds(v []float64, tempo float64) float64 {
	if v[1] == 0 {
		return min(8, cycleNotes[int(v[2])].quarters*60/tempo)
	}
	return v[3]
}

// stops begins to slow down, from the speed that there is.
func (b *brake) stops(curve, length float64) {
	from := 0.0
	if b.even && b.state == brakeUp {
		from = brakeAt(curve, 1-brakeSpeed(curve, b.at/b.length))
	}
	if b.even && b.state == brakeBack {
		b.old = brakeEnd{b.fade, b.lag, b.level}
		b.dull = [2]float64{}
	}
	if b.state == brakeFree || b.state == brakeBack {
		b.lag = 0
	}
	b.state, b.length, b.at, b.fade = brakeDown, length, from*length, 0
}

// brakeAt is how far down it is at a speed.
func brakeAt(curve, speed float64) float64 {
	switch curve {
	case 1:
		return 1 - math.Sqrt(speed)
	case 2:
		return math.Acos(speed) * 2 / math.Pi
	}
	return 1 - speed
}

func (b *brake) Process(s *Span) {
	var v [8]float64
	s.read(v[:], 0)
	switch stop := v[0] != 0; {
	case stop && (b.state == brakeFree || b.state == brakeUp || b.state == brakeBack):
		b.stops(v[4], max(1, brakeDownSeconds(v[:], s.Tempo)*b.rate))
	case !stop && (b.state == brakeDown || b.state == brakeHeld):
		if v[5] == 0 || b.state == brakeDown {
			b.state, b.fade = brakeBack, b.fadeLen
		} else {
			b.state, b.at, b.length, b.lag = brakeUp, 0, max(1, v[6]*b.rate), 0
		}
	}
	b.line[0].WriteBlock(s.L)
	b.line[1].WriteBlock(s.R)
	if b.state == brakeFree {
		return
	}
	n := len(s.L)
	for i := range n {
		speed := 1.0
		switch b.state {
		case brakeFree:
			continue
		case brakeDown:
			speed = brakeSpeed(v[4], b.at/b.length)
			if b.at++; b.at >= b.length {
				b.state = brakeHeld
			}
		case brakeHeld:
			speed = 0
		case brakeUp:
			speed = 1 - brakeSpeed(v[4], b.at/b.length)
			if b.at++; b.at >= b.length {
				b.state, b.fade = brakeBack, b.fadeLen
			}
		}
		b.lowest = smaller(b.lowest, speed)
		l, r := 0.0, 0.0
		if b.state != brakeHeld {
			here := n - 1 - i // sample i of the block lies so many writes back
			l, r = b.read(b.line[0], here), b.read(b.line[1], here)
		}
		b.lag += 1 - speed
		if top := brakeSeconds(b.even) * b.rate; b.lag > top-float64(MaxFrames) {
			b.lag = top - float64(MaxFrames)
		}
		c := 1 - v[7]/100*(1-speed)*0.97 // a one-pole that closes as it slows
		b.dull[0] += c * (l - b.dull[0])
		b.dull[1] += c * (r - b.dull[1])
		l, r = b.dull[0], b.dull[1]
		if b.state != brakeBack { // the last of it fades: a signal at rest has an offset
			b.level = smaller(1, speed/0.08)
		}
		l, r = l*b.level, r*b.level
		if b.state == brakeBack {
			w := 0.5 - 0.5*math.Cos(math.Pi*float64(b.fade)/float64(b.fadeLen))
			s.L[i] += w * (l - s.L[i])
			s.R[i] += w * (r - s.R[i])
			if b.fade--; b.fade <= 0 {
				b.state, b.lag, b.dull = brakeFree, 0, [2]float64{}
			}
			continue
		}
		if b.old.fade > 0 {
			l, r = b.goOver(l, r, n-1-i)
		}
		s.L[i], s.R[i] = l, r
	}
	b.dull[0], b.dull[1] = dsp.Flush(b.dull[0]), dsp.Flush(b.dull[1])
}

// goOver fades what was still coming back when it was stopped again.
func (b *brake) goOver(l, r float64, here int) (float64, float64) {
	w := 0.5 - 0.5*math.Cos(math.Pi*float64(b.old.fade)/float64(b.fadeLen))
	lag := b.lag
	b.lag = b.old.lag
	x, y := b.old.level*b.read(b.line[0], here), b.old.level*b.read(b.line[1], here)
	b.lag = lag
	b.old.fade--
	return l + w*(x-l), r + w*(y-r)
}

// read takes a line at the lag. Its interpolator needs what comes after: while that is
// not there yet, a shorter one serves, and nearest to the live signal a straight line.
func (b *brake) read(line *dsp.DelayLine, here int) float64 {
	switch {
	case b.lag < 1:
		x := line.Read(here)
		return x + (line.Read(here+1)-x)*b.lag
	case b.lag < dsp.FractionMargin+1:
		return line.ReadAt(b.lag + float64(here))
	}
	return line.ReadSinc(b.lag + float64(here))
}

// Report gives the lowest speed since the last report.
func (b *brake) Report(dst []float64) {
	dst[0] = b.lowest
	b.lowest = 1
	if b.state == brakeHeld {
		b.lowest = 0
	}
}

func (b *brake) Reset() {
	b.line[0].Clear()
	b.line[1].Clear()
	*b = brake{rate: b.rate, line: b.line, fadeLen: b.fadeLen, lowest: 1, even: b.even}
}

func (b *brake) CopyFrom(o Processor) {
	p, line := o.(*brake), b.line
	*b = *p
	b.line = line
	b.line[0].CopyFrom(p.line[0])
	b.line[1].CopyFrom(p.line[1])
}

func drawSpinDown(_, tempo float64, v []float64) Picture {
	down := brakeDownSeconds(v, tempo)
	hold := down * 0.3
	up := 0.015
	if v[5] != 0 {
		up = v[6]
	}
	x := Axis{Label: "time", Unit: "s", Max: down + hold + up + 0.1*down}
	for k := 1; k < 4; k++ {
		x.Ticks = append(x.Ticks, math.Round(x.Max*float64(k)/4*100)/100)
	}
	y := Axis{Label: "speed", Unit: "%", Max: 110, Ticks: []float64{25, 50, 75, 100}}
	main := x.curve("speed", "main", func(t float64) float64 {
		switch {
		case t < down:
			return 100 * brakeSpeed(v[4], t/down)
		case t < down+hold:
			return 0
		case t < down+hold+up:
			return 100 * (1 - brakeSpeed(v[4], (t-down-hold)/up))
		}
		return 100
	})
	main.Fill = true
	p := Picture{Says: "Speed over time from the moment it is told to stop, and after it is let go.", X: x, Y: y, Curves: []Curve{main}}
	if v[1] != 0 {
		p.Handles = []Handle{{Label: "Down", X: down, Y: 4, ParamX: "time"}}
	}
	return p
}
