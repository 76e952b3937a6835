package effect

import (
	"fmt"
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// ImpulseSeconds is the longest impulse response that a file may hold.
const ImpulseSeconds = 12

// ImpulseTaker is a processor that can use a sound of the project as its impulse
// response. TakeImpulse is called before Prepare; load is called only when it is
// needed, and gives both sides at the processor's rate.
type ImpulseTaker interface {
	TakeImpulse(hash string, load func() (l, r []float64))
}

// convolver gives the sound the response of a place or thing, by partitioned
// convolution (dsp.Convolver). Responses are synthesised (impulses.go) or come from a file
// of up to 12 s; each is scaled to unit energy. Latency 1024 frames.
var convolver = Kind{
	Info: Info{
		ID: "convolver", Version: 2, Name: "Convolver", Family: "Space", Mix: 25, MixLaw: "add",
		Says:     "Plays the sound in a place or thing, from its impulse response.",
		Plumbs:   []Plumb{{Param: "length"}, {Param: "mix"}},
		Synonyms: []string{"impulse response", "ir", "space", "reverb", "room", "cabinet", "body", "resonance"},
		Sound:    "impulse response",
		Params: []param.Param{
			{Name: "space", Label: "Place", Says: "Whose response it is; “from a file” takes the one you load.",
				Max: float64(len(impulses)), Default: 2, Taper: param.Choice, Choices: impulseNames(), Structural: true},
			{Name: "length", Label: "Length", Unit: "%", Says: "How much of the response is used.",
				Min: 5, Max: 100, Default: 100, Taper: param.Linear, Step: 5, Digits: 0, Structural: true},
			{Name: "predelay", Label: "Pre-delay", Unit: "ms", Says: "How long after the sound it answers.",
				Min: 0, Max: 250, Default: 0, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "lowcut", Label: "Low cut", Unit: "Hz", Says: "What is kept out of it at the bottom.",
				Min: 20, Max: 1000, Default: 90, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "highcut", Label: "High cut", Unit: "Hz", Says: "What is kept out of it at the top.",
				Min: 1000, Max: 20000, Default: 16000, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "width", Label: "Width", Unit: "%", Says: "How far it spreads between the sides.",
				Min: 0, Max: 150, Default: 100, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "level", Label: "Level", Unit: "dB", Says: "Gain behind it.",
				Min: -36, Max: 24, Default: -5.5, Taper: param.Linear, Step: 0.5, Digits: 1},
		},
	},
	Linear:  true,
	New:     func(rate float64) Processor { return newPlace(rate, true) },
	Latency: func(float64, []float64) int { return dsp.ConvolveBlock },
	Tail:    convolverTail,
	Rests:   func(v []float64, tempo float64) float64 { return 1 + 1.5*convolverTail(v, tempo) },
	Draw:    drawConvolver,
}

func convolverTail(v []float64, _ float64) float64 {
	t := ImpulseSeconds * 1.0
	if i := int(v[0]); i < len(impulses) {
		p := impulses[i]
		t = p.seconds*max(1, p.low, p.high)*1.1 + 0.1
	}
	return t*v[1]/100 + v[2]/1000 + 0.1
}

// convolver1 had cuts that were never quite out, levelled the sides of a file's response each by itself, and began
// 5.5 dB louder.
var convolver1 = began(was(convolver, 1, func(rate float64) Processor { return newPlace(rate, false) }), "level", 0)

type place struct {
	rate        float64
	open        bool // cuts can be out, and the sides of a response keep their balance
	hash        string
	load        func() (l, r []float64)
	key         string
	conv        [2]*dsp.Convolver
	line        [2]*dsp.DelayLine
	late        int
	next, fade  int
	low, high   dsp.Section
	lowHz, hiHz float64
	ll, lr      dsp.Biquad
	hl, hr      dsp.Biquad
	fresh       bool
}

const placeFade = 512

func newPlace(rate float64, open bool) *place {
	n := int(0.26*rate) + 2*MaxFrames
	// the response comes with Prepare: to make one takes long, and it may be another than the one it begins with
	return &place{rate: rate, open: open, line: [2]*dsp.DelayLine{dsp.NewDelayLine(n), dsp.NewDelayLine(n)}}
}

// TakeImpulse remembers the file's response for Prepare.
func (p *place) TakeImpulse(hash string, load func() (l, r []float64)) { p.hash, p.load = hash, load }

// Prepare transforms the response, or finds it among those kept. Without a file
// there is silence.
func (p *place) Prepare(v []float64) {
	choice := int(v[0])
	key := fmt.Sprint(choice, v[1], p.hash)
	if key == p.key {
		return
	}
	p.key = key
	var x *response
	switch {
	case choice < len(impulses):
		x = shippedResponse(choice, v[1], p.rate)
	case p.load == nil:
		x = keptResponse("none", func() ([]float64, []float64, float64) { return []float64{0}, []float64{0}, 48000 })
	default:
		x = keptResponse(fmt.Sprintf("%s %g %g %v", p.hash, v[1], p.rate, p.open), func() ([]float64, []float64, float64) {
			l, r := p.load()
			l, r = append([]float64{}, l...), append([]float64{}, r...)
			if p.open {
				levelBoth(l, r)
			} else {
				level(l)
				level(r)
			}
			return shorten(l, v[1]), shorten(r, v[1]), p.rate
		})
	}
	p.load = nil
	p.conv = [2]*dsp.Convolver{dsp.NewConvolver(x.l), dsp.NewConvolver(x.r)}
	p.fresh = false
}

func (p *place) Process(s *Span) {
	late := int(math.Round(s.Values[2].At(0) / 1000 * p.rate))
	low, high := s.Values[3].At(0), s.Values[4].At(0)
	if !p.fresh {
		p.late, p.next, p.fade, p.fresh = late, late, 0, true
	} else if p.fade == 0 && late != p.late {
		p.next, p.fade = late, placeFade
	}
	if low != p.lowHz {
		p.lowHz, p.low = low, lowCutOf(p.open, low, p.rate)
	}
	if high != p.hiHz {
		p.hiHz, p.high = high, highCutOf(p.open, high, p.rate)
	}
	fade := p.fade
	for side, x := range [2][]float64{s.L, s.R} {
		line := p.line[side]
		fade = p.fade
		line.WriteBlock(x)
		n := len(x) - 1
		for i := range x {
			y := line.Read(n - i + p.late)
			if fade > 0 {
				fade--
				w := 0.5 + 0.5*math.Cos(math.Pi*float64(fade)/placeFade)
				y += w * (line.Read(n-i+p.next) - y)
			}
			x[i] = y
		}
	}
	if p.fade = fade; fade == 0 {
		p.late = p.next
	}
	dsp.RunStereo2(&p.low, &p.high, &p.ll, &p.lr, &p.hl, &p.hr, s.L, s.R)
	p.conv[0].Process(s.L)
	p.conv[1].Process(s.R)
	width, gain := &s.Values[5], &s.Values[6]
	k := dsp.Gain(gain.Now)
	for i := range s.L {
		if gain.Track != nil {
			k = dsp.Gain(gain.Track[i])
		}
		m, d := (s.L[i]+s.R[i])*0.5*k, (s.L[i]-s.R[i])*0.5*k*width.At(i)*0.01
		s.L[i], s.R[i] = m+d, m-d
	}
	p.ll.Flush()
	p.lr.Flush()
	p.hl.Flush()
	p.hr.Flush()
}

func (p *place) Reset() {
	for side := range p.conv {
		p.conv[side].Clear()
		p.line[side].Clear()
	}
	p.ll, p.lr, p.hl, p.hr = dsp.Biquad{}, dsp.Biquad{}, dsp.Biquad{}, dsp.Biquad{}
	p.fresh = false
}

func (p *place) CopyFrom(o Processor) {
	q := o.(*place)
	for side := range p.conv {
		p.conv[side].CopyFrom(q.conv[side])
		p.line[side].CopyFrom(q.line[side])
	}
	p.late, p.next, p.fade, p.fresh = q.late, q.next, q.fade, q.fresh
	p.low, p.high, p.lowHz, p.hiHz = q.low, q.high, q.lowHz, q.hiHz
	p.ll, p.lr, p.hl, p.hr = q.ll, q.lr, q.hl, q.hr
}

func drawConvolver(rate, _ float64, v []float64) Picture {
	y := Axis{Label: "level", Unit: "dB", Min: -60, Max: 0, Ticks: []float64{-50, -40, -30, -20, -10}}
	choice := int(v[0])
	if choice >= len(impulses) {
		x := Axis{Label: "time", Unit: "s", Max: 1, Ticks: []float64{0.25, 0.5, 0.75}}
		return Picture{
			Says:   "The response comes from the file that was loaded.",
			X:      x,
			Y:      y,
			Curves: []Curve{x.curve("response", "ghost", func(float64) float64 { return -60 })},
		}
	}
	r := shippedResponse(choice, v[1], rate)
	top := -200.0
	for _, e := range r.energy {
		top = max(top, e)
	}
	x := Axis{Label: "time", Unit: "s", Max: math.Round((r.step*120+v[2]/1000)*100) / 100}
	for k := 1; k < 4; k++ {
		x.Ticks = append(x.Ticks, math.Round(x.Max*float64(k)/4*100)/100)
	}
	main := x.curve("response", "main", func(t float64) float64 {
		k := int((t - v[2]/1000) / r.step)
		if t < v[2]/1000 || k >= len(r.energy) {
			return -60
		}
		return max(-60, r.energy[k]-top)
	})
	main.Fill = true
	return Picture{Says: "How the response dies away.", X: x, Y: y, Curves: []Curve{main},
		Handles: []Handle{{Label: "Pre-delay", X: v[2] / 1000, Y: -6, ParamX: "predelay", ScaleX: 0.001}}}
}
