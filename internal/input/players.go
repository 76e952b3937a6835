package input

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/synth"
)

// ticks of an eighth note, on which the players play.
const eighth = 480

// playerPage is how many frames of a player are made at once.
const playerPage = 4096

// player strikes on the song's eighths. A stroke is a function of its time alone.
type player struct {
	Setting
	ring   float64 // seconds for which a stroke is heard at most
	stroke func(eighth int64, section int) stroke
}

// stroke is what is played on an eighth: nothing where its gain is 0.
type stroke struct {
	gain, hz float64
	at       func(s *stroke, seconds float64) float64
}

func (p *player) size() int { return playerPage }

func (p *player) page(k int64, l, r []float64) {
	from := k * playerPage
	before := int64(p.ring * p.Rate)
	first := max(0, int64(p.Clock.Tick(max(0, from-before))/eighth))
	for n := first; ; n++ {
		begins := p.Clock.Frame(n * eighth)
		if begins >= from+playerPage {
			break
		}
		s := p.stroke(n, p.section(n*eighth))
		if s.gain == 0 {
			continue
		}
		for i := max(0, begins-from); i < min(playerPage, begins+before-from); i++ {
			l[i] += s.gain * s.at(&s, float64(from+i-begins)/p.Rate)
		}
	}
	copy(r, l)
}

// section is the section in which a tick lies.
func (p *player) section(tick int64) (n int) {
	for i, at := range p.Sections {
		if at <= tick {
			n = i
		}
	}
	return n
}

// figures are what the marimba plays in a bar of eighths, as notes above its lowest; -1 rests. Each section has another.
var figures = [][]float64{
	{0, -1, 7, -1, 12, 7},
	{0, 7, 12, -1, 15, 12},
	{0, 3, 7, 12, 7, 3},
	{12, 7, 15, 7, 19, 15},
}

// newMarimba plays bars of rosewood: 1 : 4 : 10.
func newMarimba(s Setting) voice {
	const lowest = 57
	return &player{Setting: s, ring: 1.2, stroke: func(n int64, section int) stroke {
		f := figures[section%len(figures)]
		note := f[n%int64(len(f))]
		if note < 0 {
			return stroke{}
		}
		return stroke{gain: 0.2 + 0.05*dsp.White(0x3a1, n), hz: synth.Hz(lowest + note), at: marimbaBar}
	}}
}

func marimbaBar(s *stroke, t float64) float64 {
	turn := 2 * math.Pi * s.hz * t
	rise := min(1, t/0.001)
	return rise * (dsp.Exp(-t*5)*math.Sin(turn) + 0.25*dsp.Exp(-t*14)*math.Sin(3.95*turn) + 0.1*dsp.Exp(-t*40)*math.Sin(9.3*turn))
}

// newHandDrum plays a low stroke on the first and fourth of six, taps between.
func newHandDrum(s Setting) voice {
	return &player{Setting: s, ring: 0.6, stroke: func(n int64, _ int) stroke {
		away := 1 + 0.15*dsp.White(0xd2, n)
		switch n % 6 {
		case 0, 3:
			return stroke{gain: 0.4 * away, hz: 96, at: skin}
		case 2, 5:
			return stroke{gain: 0.2 * away, hz: 210, at: skin}
		}
		return stroke{}
	}}
}

// skin is a stroke on a skin, whose pitch falls as it comes to rest.
func skin(s *stroke, t float64) float64 {
	fall := 0.022 * (1 - dsp.Exp(-t/0.022))
	turn := 2 * math.Pi * s.hz * (t + 0.5*fall)
	return min(1, t/0.001) * (dsp.Exp(-t*11)*math.Sin(turn) + 0.35*dsp.Exp(-t*26)*math.Sin(1.593*turn))
}
