package effect

import (
	"fmt"
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

const (
	tapCount  = 16
	tapFields = 6 // on, time, level, pan, cut, blur
	tapsMax   = 4.0
)

// taps are up to sixteen echoes set one by one, all read from one line of four
// seconds: none goes round again. Times are in steps of a sixteenth note or in
// milliseconds and exact to the frame when they stand still; a new time is reached by
// a cross-fade of 20 ms. Each echo has a first-order high cut and a blur of two all-pass filters
// (7 and 11 ms).
var taps = Kind{
	Info: Info{
		ID: "taps", Version: 1, Name: "Taps", Family: "Time", Mix: 60, MixLaw: "add",
		Says:     "Up to sixteen echoes, each with its own time, level and place.",
		Synonyms: []string{"multi tap", "echo", "rhythm", "pattern", "cluster", "early reflections"},
		Plumbs:   []Plumb{{Param: "mix"}},
		Params:   tapParams(),
	},
	Linear: true,
	New:    func(rate float64) Processor { return newEchoes(rate) },
	Tail:   func([]float64, float64) float64 { return tapsMax + 0.6 },
	Rests:  func([]float64, float64) float64 { return tapsMax + 1 },
	Draw:   drawTaps,
}

func tapParams() []param.Param {
	start := [tapCount]struct{ on, time, level, pan float64 }{
		{1, 3, -10, -0.6}, {1, 5, -13, 0.6}, {1, 8, -16, -0.3}, {1, 11, -20, 0.3},
	}
	ps := []param.Param{
		{Name: "unit", Label: "Times in", Says: "Whether times are sixteenth notes, which follow the tempo, or steps of 50 ms.",
			Max: 1, Taper: param.Choice, Choices: []string{"1/16 notes", "50 ms steps"}},
	}
	for k := range tapCount {
		n, g, d := fmt.Sprint(k+1), fmt.Sprintf("Echo %d", k+1), start[k]
		if d.on == 0 {
			d.time, d.level = float64(k+1), -18
		}
		ps = append(ps, echoParams(n, g, d.on, d.time, d.level, d.pan)...)
	}
	return ps
}

// echoParams are those of one echo: its number, its group, and what it begins with.
func echoParams(n, g string, on, time, level, pan float64) []param.Param {
	return []param.Param{
		{
			Name:    "on" + n,
			Group:   g,
			Label:   "On",
			Says:    "Whether the echo is heard.",
			Max:     1,
			Default: on,
			Taper:   param.Switch,
		},
		{
			Name:    "time" + n,
			Group:   g,
			Label:   "Time",
			Unit:    "steps",
			Says:    "When the echo comes, in steps.",
			Min:     0.05,
			Max:     32,
			Default: time,
			Taper:   param.Linear,
			Step:    0.25,
			Digits:  2,
		},
		{
			Name:    "level" + n,
			Group:   g,
			Label:   "Level",
			Unit:    "dB",
			Says:    "How loud it is.",
			Min:     -60,
			Max:     6,
			Default: level,
			Taper:   param.Linear,
			Step:    0.5,
			Digits:  1,
		},
		{
			Name:    "pan" + n,
			Group:   g,
			Label:   "Pan",
			Says:    "Where it stands.",
			Min:     -1,
			Max:     1,
			Default: pan,
			Taper:   param.Linear,
			Step:    0.05,
			Digits:  2,
		},
		{
			Name:    "cut" + n,
			Group:   g,
			Label:   "High cut",
			Unit:    "Hz",
			Says:    "How dull it is. At 20 kHz nothing is cut.",
			Min:     300,
			Max:     20000,
			Default: 7000,
			Taper:   param.Log,
			Step:    3,
			Digits:  0,
		},
		{
			Name:   "blur" + n,
			Group:  g,
			Label:  "Blur",
			Unit:   "%",
			Says:   "How far it is smeared.",
			Min:    0,
			Max:    100,
			Taper:  param.Linear,
			Step:   1,
			Digits: 0,
		},
	}
}

// tapSeconds is when an echo comes.
func tapSeconds(unit, steps, tempo float64) float64 {
	if unit == 0 {
		return min(steps*15/tempo, tapsMax)
	}
	return min(steps*0.05, tapsMax)
}

type oneTap struct {
	gain      dsp.Glide
	now, next int // frames
	fade      int
	l, r      float64 // gains from level and pan
	cutHz     float64
	cut       dsp.Section
	zl, zr    dsp.Biquad
	blur      float64
	diff      [2][2]allpass
	used      bool
}

type echoes struct {
	rate       float64
	line       [2]*dsp.DelayLine
	tap        [tapCount]oneTap
	fresh      bool
	fadeFrames int
	outL, outR [Grid]float64
	a, b       [Grid]float64
	c, d       [Grid]float64
}

func newEchoes(rate float64) *echoes {
	n := int(tapsMax*rate) + 2*MaxFrames
	e := &echoes{rate: rate, line: [2]*dsp.DelayLine{dsp.NewDelayLine(n), dsp.NewDelayLine(n)}, fadeFrames: int(rate * 0.02)}
	for k := range e.tap {
		for side := range 2 {
			e.tap[k].diff[side][0].buf = make([]float64, int(rate*(0.007+0.0004*float64(side))))
			e.tap[k].diff[side][1].buf = make([]float64, int(rate*(0.011-0.0005*float64(side))))
		}
	}
	return e
}

func (e *echoes) Process(s *Span) {
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !e.fresh {
			e.look(s, from)
		}
		n := to - from
		l, r := s.L[from:to], s.R[from:to]
		e.line[0].WriteBlock(l)
		e.line[1].WriteBlock(r)
		clear(e.outL[:n])
		clear(e.outR[:n])
		for k := range e.tap {
			if t := &e.tap[k]; t.used {
				e.run(t, n)
			}
		}
		copy(l, e.outL[:n])
		copy(r, e.outR[:n])
		from = to
	}
}

func (e *echoes) look(s *Span, i int) {
	unit := s.Values[0].At(i)
	for k := range e.tap {
		t := &e.tap[k]
		v := s.Values[1+k*tapFields:]
		on := v[0].At(i)
		if !e.fresh {
			t.gain.Set(on)
		} else {
			t.gain.Aim(on, 240)
		}
		was := t.used
		t.used = t.gain.Moving() || t.gain.Now() > 0
		if !t.used {
			continue
		}
		frames := max(1, int(math.Round(tapSeconds(unit, v[1].At(i), s.Tempo)*e.rate)))
		switch {
		case !e.fresh || !was:
			t.now, t.next, t.fade = frames, frames, 0
			t.zl, t.zr = dsp.Biquad{}, dsp.Biquad{}
		case t.fade == 0 && frames != t.now:
			t.next, t.fade = frames, e.fadeFrames
		}
		g := dsp.Gain(v[2].At(i))
		t.l, t.r = g, g
		if p := v[3].At(i); p > 0 {
			t.l = g * (1 - p)
		} else {
			t.r = g * (1 + p)
		}
		if hz := v[4].At(i); hz != t.cutHz {
			t.cutHz, t.cut = hz, dsp.LowPass1(min(hz, e.rate*0.45), e.rate)
		}
		t.blur = v[5].At(i) / 100 * 0.7
	}
	e.fresh = true
}

// run adds one echo to the piece that has just been written.
func (e *echoes) run(t *oneTap, n int) {
	a, b := e.a[:n], e.b[:n]
	e.line[0].ReadBlock(a, t.now+n-1)
	e.line[1].ReadBlock(b, t.now+n-1)
	if t.fade > 0 {
		c, d := e.c[:n], e.d[:n]
		e.line[0].ReadBlock(c, t.next+n-1)
		e.line[1].ReadBlock(d, t.next+n-1)
		for i := range a {
			w := 0.0
			if t.fade > 0 {
				t.fade--
			}
			w = 0.5 + 0.5*math.Cos(math.Pi*float64(t.fade)/float64(e.fadeFrames))
			a[i] += w * (c[i] - a[i])
			b[i] += w * (d[i] - b[i])
		}
		if t.fade == 0 {
			t.now = t.next
		}
	}
	if t.cutHz < 20000 {
		dsp.RunStereo(&t.cut, &t.zl, &t.zr, a, b)
		t.zl.Flush()
		t.zr.Flush()
	}
	if t.blur > 0 {
		for k := range 2 {
			t.diff[0][k].gain, t.diff[1][k].gain = t.blur, t.blur
			t.diff[0][k].run(a)
			t.diff[1][k].run(b)
		}
	}
	for i := range a {
		g := t.gain.Next()
		e.outL[i] += g * t.l * a[i]
		e.outR[i] += g * t.r * b[i]
	}
}

func (e *echoes) Reset() {
	e.line[0].Clear()
	e.line[1].Clear()
	e.fresh = false
	for k := range e.tap {
		t := &e.tap[k]
		diff := t.diff
		for side := range diff {
			for i := range diff[side] {
				clear(diff[side][i].buf)
				diff[side][i].pos = 0
			}
		}
		*t = oneTap{diff: diff}
	}
}

func (e *echoes) CopyFrom(o Processor) {
	p := o.(*echoes)
	e.line[0].CopyFrom(p.line[0])
	e.line[1].CopyFrom(p.line[1])
	e.fresh = p.fresh
	for k := range e.tap {
		t, u := &e.tap[k], &p.tap[k]
		diff := t.diff
		for side := range diff {
			for i := range diff[side] {
				copy(diff[side][i].buf, u.diff[side][i].buf)
				diff[side][i].pos, diff[side][i].gain = u.diff[side][i].pos, u.diff[side][i].gain
			}
		}
		*t = *u
		t.diff = diff
	}
}

func drawTaps(_, tempo float64, v []float64) Picture {
	last := 1.0
	for k := range tapCount {
		if f := v[1+k*tapFields:]; f[0] != 0 {
			last = max(last, tapSeconds(v[0], f[1], tempo))
		}
	}
	quarter := 60 / tempo
	span := math.Ceil(last*1.1/quarter) * quarter
	x := Axis{Label: "time", Unit: "s", Max: span}
	for q := 0.0; q < span-1e-9 && len(x.Ticks) < 33; q += quarter {
		x.Ticks = append(x.Ticks, math.Round(q*1000)/1000)
	}
	p := Picture{Says: "Each echo in time; the lines are quarter notes. Drag one up, down or along.", X: x, Curves: []Curve{},
		Y: Axis{Label: "level", Unit: "dB", Min: -48, Max: 6, Ticks: []float64{-36, -24, -12, 0}}}
	spare := true // one that is off stands ready to be dragged
	for k := range tapCount {
		f := v[1+k*tapFields:]
		n := fmt.Sprint(k + 1)
		at := tapSeconds(v[0], f[1], tempo)
		if f[0] != 0 {
			side := 0
			if f[3] < -0.15 {
				side = -1
			} else if f[3] > 0.15 {
				side = 1
			}
			p.Bars = append(p.Bars, Bar{X: at, Y: max(-47, f[2]), Side: side})
		}
		if f[0] != 0 || spare {
			spare = spare && f[0] != 0
			unit := 15 / tempo
			if v[0] != 0 {
				unit = 0.05
			}
			p.Handles = append(
				p.Handles,
				Handle{
					Label:  n,
					X:      min(at, span),
					Y:      max(-46, f[2]),
					ParamX: "time" + n,
					ParamY: "level" + n,
					ParamZ: "pan" + n,
					Quiet:  f[0] == 0,
					ScaleX: unit,
				},
			)
		}
	}
	return p
}
