package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// amplifier is a row of simple parts: a high pass, two driven stages with the
// saturation's curves at eight times the rate, a tone stack of shelves and a bell, and a
// cabinet, which is a set of resonances and cuts made up for it (no recording of one).
// The response of tone and cabinet is the picture. Latency 71 frames.
var amplifier = Kind{
	Info: Info{
		ID: "amplifier", Version: 3, Name: "Amplifier", Family: "Colour", Mix: 100, MixLaw: "blend",
		Says:     "Drives the signal through an amplifier with tone controls and a cabinet.",
		Synonyms: []string{"amp", "cabinet", "speaker", "guitar", "overdrive", "horn", "radio"},
		Plumbs:   []Plumb{{Param: "drive"}, {Param: "level"}},
		Params: []param.Param{
			{Name: "drive", Label: "Drive", Unit: "dB", Says: "How hard it is pushed.",
				Min: -6, Max: 48, Default: 12, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "tight", Label: "Tightness", Unit: "Hz", Says: "What is kept out of the driven stages at the bottom.",
				Min: 20, Max: 600, Default: 90, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "low", Label: "Low", Unit: "dB", Says: "Tone: below 150 Hz.",
				Min: -12, Max: 12, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "mid", Label: "Middle", Unit: "dB", Says: "Tone: around 600 Hz.",
				Min: -12, Max: 12, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "high", Label: "High", Unit: "dB", Says: "Tone: above 2.5 kHz.",
				Min: -12, Max: 12, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "cabinet", Label: "Cabinet", Says: "What it plays through.",
				Max: float64(len(cabinets) - 1), Default: 1, Taper: param.Choice, Choices: cabinetNames()},
			{Name: "level", Label: "Output", Unit: "dB", Says: "Gain behind it.",
				Min: -36, Max: 12, Default: -7, Taper: param.Linear, Step: 0.5, Digits: 1},
		},
	},
	New:     func(rate float64) Processor { return newAmp(rate, false) },
	Latency: func(float64, []float64) int { return dsp.Oversample8Latency },
	Tail:    func([]float64, float64) float64 { return 0.2 },
	Rests:   func([]float64, float64) float64 { return 0.5 },
	Draw:    drawAmplifier,
}

// amplifier1 began 4 dB louder.
var amplifier1 = began(was(amplifier, 1, amplifier2.New), "level", -3)

// amplifier2 had more aliases of high tones.
var amplifier2 = was(amplifier, 2, func(rate float64) Processor { return newAmp(rate, true) })

// cabinet is a box and a loudspeaker: cuts at both ends, and resonances.
type cabinet struct {
	name      string
	low, high float64
	bells     [3][3]float64 // Hz, dB, Q
	gain      float64       // dB, so that all are about as loud
}

var cabinets = []cabinet{
	{name: "none"},
	{"small box", 110, 4800, [3][3]float64{{180, 3.5, 1.2}, {1300, -3, 1}, {2900, 5, 1.6}}, 1},
	{"large box", 65, 4200, [3][3]float64{{95, 4, 1.3}, {450, -2.5, 0.8}, {2300, 4, 1.4}}, 1},
	{"tin horn", 480, 3600, [3][3]float64{{900, 6, 2.5}, {1700, 5, 3}, {2700, 4, 3}}, 0},
}

func cabinetNames() []string {
	var n []string
	for _, c := range cabinets {
		n = append(n, c.name)
	}
	return n
}

const ampSections = 9

// ampVoice returns the sections of tone and cabinet; unused ones change nothing.
func ampVoice(v []float64, rate float64) (s [ampSections]dsp.Section, gain float64) {
	for i := range s {
		s[i] = dsp.Through
	}
	s[0] = dsp.Shelf(false, 150, v[2], 0.6, rate)
	s[1] = dsp.Bell(600, v[3], 0.7, rate)
	s[2] = dsp.Shelf(true, 2500, v[4], 0.6, rate)
	c := cabinets[int(v[5])]
	if c.low > 0 {
		s[3] = dsp.HighPass(c.low, 0.8, rate)
		s[4] = dsp.LowPass(c.high, 0.541, rate)
		s[5] = dsp.LowPass(c.high, 1.307, rate)
		for i, b := range c.bells {
			s[6+i] = dsp.Bell(b[0], b[1], b[2], rate)
		}
	}
	return s, dsp.Gain(c.gain)
}

type amp struct {
	rate         float64
	over         [2]*dsp.Oversample8
	anti         [2]bent
	tight, block dsp.Section
	tightHz      float64
	tightZ       [2]dsp.Biquad
	blockZ       [2]dsp.Biquad
	voice        [ampSections]dsp.Section
	z            [2][ampSections]dsp.Biquad
	tone         [4]float64
	trim         float64
	fresh        bool
	fade         dsp.Glide
	runL, runR   func([]float64)
}

func newAmp(rate float64, plain bool) *amp {
	a := &amp{
		rate:  rate,
		over:  [2]*dsp.Oversample8{dsp.NewOversample8(MaxFrames), dsp.NewOversample8(MaxFrames)},
		anti:  [2]bent{{plain: plain}, {plain: plain}},
		block: dsp.HighPass1(8, rate),
	}
	a.runL = func(x []float64) { a.drive(0, x) }
	a.runR = func(x []float64) { a.drive(1, x) }
	return a
}

// drive is the two stages at eight times the rate: an uneven one, then an even one.
func (a *amp) drive(side int, x []float64) {
	a.anti[side].process(softTube, x)
	for i, v := range x {
		v = larger(-3, smaller(3, v))
		x[i] = v - v*v*v/27 // a third-order curve up to ±3, where it is level
	}
}

func (a *amp) Process(s *Span) {
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !a.fresh {
			a.look(s, from)
		}
		a.run(s, from, to)
		from = to
	}
}

func (a *amp) look(s *Span, i int) {
	var v [7]float64
	s.read(v[:], i)
	if !a.fresh || v[1] != a.tightHz {
		a.tightHz, a.tight = v[1], dsp.HighPass1(v[1], a.rate)
	}
	tone := [4]float64{v[2], v[3], v[4], v[5]}
	switch {
	case !a.fresh:
		a.fade.Set(1)
		a.tone = tone
		a.voice, a.trim = ampVoice(v[:], a.rate)
	case tone[3] != a.tone[3] && a.fade.Now() > 0: // another cabinet: fade out first
		a.fade.Aim(0, 240)
	case tone != a.tone:
		if tone[3] != a.tone[3] {
			a.z = [2][ampSections]dsp.Biquad{}
		}
		a.tone = tone
		a.voice, a.trim = ampVoice(v[:], a.rate)
		a.fade.Aim(1, 240)
	}
	a.fresh = true
}

func (a *amp) run(s *Span, from, to int) {
	drive, level := &s.Values[0], &s.Values[6]
	l, r := s.L[from:to], s.R[from:to]
	dsp.RunStereo(&a.tight, &a.tightZ[0], &a.tightZ[1], l, r)
	for i := range l {
		k := dsp.Gain(drive.At(from + i))
		l[i] *= k
		r[i] *= k
	}
	a.over[0].Process(l, a.runL)
	a.over[1].Process(r, a.runR)
	dsp.RunStereo(&a.block, &a.blockZ[0], &a.blockZ[1], l, r)
	for i := range a.voice {
		if a.voice[i] != dsp.Through {
			dsp.RunStereo(&a.voice[i], &a.z[0][i], &a.z[1][i], l, r)
		}
		a.z[0][i].Flush()
		a.z[1][i].Flush()
	}
	for i := range l {
		g := a.trim * a.fade.Next() * dsp.Gain(level.At(from+i)-max(0, drive.At(from+i))*0.45)
		l[i] *= g
		r[i] *= g
	}
	for side := range a.tightZ {
		a.tightZ[side].Flush()
		a.blockZ[side].Flush()
	}
}

func (a *amp) Reset() {
	a.over[0].Clear()
	a.over[1].Clear()
	a.anti[0].clear()
	a.anti[1].clear()
	a.tightZ, a.blockZ, a.z = [2]dsp.Biquad{}, [2]dsp.Biquad{}, [2][ampSections]dsp.Biquad{}
	a.fresh = false
}

func (a *amp) CopyFrom(o Processor) {
	p := o.(*amp)
	over, l, r := a.over, a.runL, a.runR
	*a = *p
	a.over, a.runL, a.runR = over, l, r
	a.over[0].CopyFrom(p.over[0])
	a.over[1].CopyFrom(p.over[1])
}

func drawAmplifier(rate, _ float64, v []float64) Picture {
	y := Axis{Label: "gain", Unit: "dB", Min: -36, Max: 18, Ticks: []float64{-24, -12, 0, 12}}
	s, gain := ampVoice(v, rate)
	tight := dsp.HighPass1(v[1], rate)
	main := hertz.curve("tone and cabinet", "main", func(f float64) float64 {
		f = min(f, rate*0.49)
		p := gain * gain * tight.Power(f, rate)
		for i := range s {
			p *= s[i].Power(f, rate)
		}
		return max(-48, 10*math.Log10(p+1e-12))
	})
	main.Fill = true
	return Picture{
		Says:     "What tightness, tone and cabinet make of the spectrum; the drive comes on top.",
		X:        hertz,
		Y:        y,
		Spectrum: true,
		Curves:   []Curve{main},
		Handles: []Handle{
			{Label: "Low", X: 90, Y: v[2], ParamY: "low"},
			{Label: "Middle", X: 600, Y: v[3], ParamY: "mid"},
			{Label: "High", X: 3500, Y: v[4], ParamY: "high"},
		},
	}
}
