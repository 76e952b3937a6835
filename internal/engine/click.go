package engine

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/project"
)

// click is what a listener hears of the song's beats: it is mixed into what their ears get, behind all meters, and is in no
// print.
type click struct {
	on    bool
	gain  float64
	hz    float64 // of the stroke that sounds
	since int     // frames since it began
	// While it counts in, the song stands: for so many frames more, of so many a beat, so many beats a bar.
	left, beat, bar int
}

const (
	clickSeconds = 0.04
	clickHz      = 1500
	clickFirst   = 2100 // of the first beat of a bar
)

// Click lets the beats be heard at a level in dB, or not.
func (e *Engine) Click(on bool, level float64) {
	e.click.on, e.click.gain = on, dsp.Gain(level)
	e.click.since = math.MaxInt32
}

// CountIn lets the next Play begin after so many bars, which are counted while the song stands.
func (e *Engine) CountIn(bars int) { e.bars = max(0, min(bars, 8)) }

// Counting is how many beats are still counted before the song begins; 0: none.
func (e *Engine) Counting() int {
	if e.click.left == 0 {
		return 0
	}
	return (e.click.left + e.click.beat - 1) / e.click.beat
}

// count begins to count in; false: nothing is to be counted.
func (e *Engine) count() bool {
	bars := e.bars
	if e.bars = 0; bars == 0 {
		return false
	}
	clock := e.latest().clock
	at := e.begin(e.now.cursor.hold)
	meter := clock.MeterAt(int64(clock.Tick(at)))
	perQuarter := e.rate * 60 / clock.Tempo(at)
	e.click.beat = max(1, int(math.Round(perQuarter*float64(meter.BarTicks())/float64(meter.Beats)/project.TicksPerQuarter)))
	e.click.bar = meter.Beats
	e.click.left = bars * meter.Beats * e.click.beat
	return true
}

// clicks mixes the beats into a block that is given out.
func (e *Engine) clicks(n int) {
	if e.click.left > 0 {
		e.countOn(n)
		return
	}
	c := &e.now.cursor
	if !e.click.on || !c.rolling {
		e.click.since = math.MaxInt32
		return
	}
	from := c.songFrame(e.now.latency, -n)
	at, first := nextBeat(e.now.clock, max(0, from))
	for i := range n {
		if from+int64(i) == at {
			e.click.strike(first)
			at, first = nextBeat(e.now.clock, at+1)
		}
		e.click.sound(e, i)
	}
}

// countOn goes on counting; behind its last frame the song begins.
func (e *Engine) countOn(n int) {
	for i := range n {
		done := e.click.left % (e.click.bar * e.click.beat)
		if e.click.left%e.click.beat == 0 {
			e.click.strike(done == 0)
		}
		e.click.sound(e, i)
		e.click.left--
	}
	if e.click.left == 0 {
		e.Play()
	}
}

func (x *click) strike(first bool) {
	x.since, x.hz = 0, clickHz
	if first {
		x.hz = clickFirst
	}
}

// sound adds a frame of the stroke that sounds.
func (x *click) sound(e *Engine, i int) {
	t := float64(x.since) / e.rate
	if t > clickSeconds {
		return
	}
	x.since++
	v := x.gain * min(1, t/0.0005) * dsp.Exp(-t*120) * math.Sin(2*math.Pi*x.hz*t)
	e.L[i] += v
	e.R[i] += v
}

// nextBeat is the first frame from one on at which a beat begins, and whether a bar does.
func nextBeat(clock *project.Clock, from int64) (frame int64, first bool) {
	tick := int64(clock.Tick(from))
	for {
		m := clock.MeterAt(tick)
		perBeat := m.BarTicks() / int64(m.Beats)
		k := (tick - m.Tick + perBeat - 1) / perBeat
		begins := m.Tick + k*perBeat
		if next := clock.MeterAt(begins); next.Tick > m.Tick {
			begins, k = next.Tick, 0
		}
		if f := clock.Frame(begins); f >= from {
			return f, k%int64(m.Beats) == 0
		}
		tick = begins + 1
	}
}
