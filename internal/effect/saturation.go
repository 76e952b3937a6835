package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// The curves of saturation, each with slope 1 at zero; those with corners or folds with
// their two antiderivatives.
var (
	softTape  = dsp.NewSoft(0)    // alike on both sides: odd harmonics
	softTube  = dsp.NewSoft(0.45) // off its middle: even harmonics too
	shapeClip = dsp.Shape{        // cut off at full scale
		F: func(x float64) float64 { return larger(-1, smaller(1, x)) },
		F1: func(x float64) float64 {
			if a := math.Abs(x); a > 1 {
				return a - 0.5
			}
			return x * x / 2
		},
		F2: func(x float64) float64 {
			a := math.Abs(x)
			if a <= 1 {
				return x * x * x / 6
			}
			y := a*a/2 - a/2 + 1./6
			if x < 0 {
				return -y
			}
			return y
		},
	}
	shapeFold = dsp.Shape{ // sin x: what goes over the top comes back down
		F:  math.Sin,
		F1: func(x float64) float64 { return 1 - math.Cos(x) },
		F2: func(x float64) float64 { return x - math.Sin(x) },
	}
)

// saturationCurve is the curve of a character, as it is drawn.
func saturationCurve(character int) func(float64) float64 {
	switch character {
	case 0:
		return softTape.At
	case 1:
		return softTube.At
	case 2:
		return shapeClip.F
	}
	return shapeFold.F
}

// saturation bends the wave by one of four curves, at eight times the rate and with
// antiderivative antialiasing: of the second order for the curves with corners or folds
// (Bilbao et al. 2017), of the first, over half steps, for the smooth ones
// (Parker et al., DAFx 2016). Tilt
// leans the spectrum before the curve and back behind it, so that lows or highs are bent
// more. Compensate takes off half the drive (in dB). Latency 71 frames.
var saturation = Kind{
	Info: Info{
		ID: "saturation", Version: 2, Name: "Saturation", Family: "Colour", Mix: 100, MixLaw: "blend",
		Says:     "Adds harmonics by bending the wave: soft, warm, hard or folded.",
		Synonyms: []string{"distortion", "overdrive", "warm", "tape", "tube", "clip", "dirt", "harmonics", "fuzz", "fold"},
		Plumbs:   []Plumb{{Param: "drive"}, {Param: "mix"}},
		Params: []param.Param{
			{Name: "character", Label: "Character", Says: "Which curve bends the wave.",
				Max: 3, Taper: param.Choice, Choices: []string{"tape-like", "tube-like", "hard clip", "fold"}},
			{Name: "drive", Label: "Drive", Unit: "dB", Says: "How hard the signal is pushed into the curve.",
				Min: -12, Max: 36, Default: 9, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "tilt", Label: "Tilt", Unit: "dB", Says: "Above 0 the highs are bent more, below 0 the lows.",
				Min: -12, Max: 12, Taper: param.Linear, Step: 0.5, Digits: 1},
			{
				Name:    "compensate",
				Label:   "Keep level",
				Says:    "Takes off half the drive behind the curve, so that more drive is not just louder.",
				Max:     1,
				Default: 1,
				Taper:   param.Switch,
			},
			{Name: "level", Label: "Output", Unit: "dB", Says: "Gain behind it.",
				Min: -36, Max: 12, Default: -2, Taper: param.Linear, Step: 0.5, Digits: 1},
		},
	},
	New:     func(rate float64) Processor { return newBender(rate, false) },
	Latency: func(float64, []float64) int { return dsp.Oversample8Latency },
	Rests:   func([]float64, float64) float64 { return 0.3 },
	Draw:    drawSaturation,
}

// saturation1 had more aliases of high tones where its curve is smooth.
var saturation1 = was(saturation, 1, func(rate float64) Processor { return newBender(rate, true) })

// bender shapes a stereo signal at eight times the rate.
type bender struct {
	rate         float64
	over         [2]*dsp.Oversample8
	anti         [2]dsp.Antialiased
	smooth       [2]bent
	now          int       // the character
	fade         dsp.Glide // to silence and back while the curve changes
	pre, post    dsp.Section
	preZ, postZ  [2]dsp.Biquad
	tilt         float64
	block        dsp.Section
	blockZ       [2]dsp.Biquad
	fresh        bool
	bendL, bendR func([]float64)
}

func newBender(rate float64, plain bool) *bender {
	b := &bender{rate: rate, over: [2]*dsp.Oversample8{dsp.NewOversample8(MaxFrames), dsp.NewOversample8(MaxFrames)},
		smooth: [2]bent{{plain: plain}, {plain: plain}},
		pre:    dsp.Through, post: dsp.Through, block: dsp.HighPass1(5, rate)}
	b.bendL = func(x []float64) { b.bend(0, x) }
	b.bendR = func(x []float64) { b.bend(1, x) }
	return b
}

func (b *bender) bend(side int, x []float64) {
	switch b.now {
	case 0:
		b.smooth[side].process(softTape, x)
	case 1:
		b.smooth[side].process(softTube, x)
	default:
		a, s := &b.anti[side], &shapeClip
		if b.now == 3 {
			s = &shapeFold
		}
		for i, v := range x {
			x[i] = a.Next(s, v)
		}
	}
}

func (b *bender) Process(s *Span) {
	b.choose(int(s.Values[0].At(0)))
	if t := s.Values[2].At(0); t != b.tilt {
		b.tilt = t
		b.pre, b.post = dsp.Through, dsp.Through
		if t != 0 {
			b.pre = dsp.Shelf(true, 900, t, 0.5, b.rate)
			b.post = dsp.Shelf(true, 900, -t, 0.5, b.rate)
		}
	}
	drive, level := &s.Values[1], &s.Values[4]
	keep := s.Values[3].At(0) != 0
	for side, x := range [2][]float64{s.L, s.R} {
		if b.tilt != 0 {
			b.preZ[side].Run(&b.pre, x)
		}
		k := dsp.Gain(drive.Now)
		for i := range x {
			if drive.Track != nil {
				k = dsp.Gain(drive.Track[i])
			}
			x[i] *= k
		}
	}
	b.over[0].Process(s.L, b.bendL)
	b.over[1].Process(s.R, b.bendR)
	fade := b.fade
	for side, x := range [2][]float64{s.L, s.R} {
		b.blockZ[side].Run(&b.block, x)
		if b.tilt != 0 {
			b.postZ[side].Run(&b.post, x)
		}
		g := fade
		out := func(i int) float64 {
			db := level.At(i)
			if keep {
				db -= drive.At(i) / 2
			}
			return dsp.Gain(db)
		}
		k := out(0)
		still := level.Track == nil && drive.Track == nil
		for i := range x {
			if !still {
				k = out(i)
			}
			x[i] *= k * g.Next()
		}
		b.blockZ[side].Flush()
		b.preZ[side].Flush()
		b.postZ[side].Flush()
		if side == 1 {
			b.fade = g
		}
	}
}

// choose changes the curve while nothing is heard.
func (b *bender) choose(want int) {
	if !b.fresh {
		b.fresh, b.now = true, want
		b.fade.Set(1)
		return
	}
	if want == b.now {
		if !b.fade.Moving() && b.fade.Now() == 0 {
			b.fade.Aim(1, 240)
		}
		return
	}
	if b.fade.Now() > 0 {
		b.fade.Aim(0, 240)
		return
	}
	b.now = want
	b.straighten()
	b.fade.Aim(1, 240)
}

// straighten forgets what was bent.
func (b *bender) straighten() {
	b.anti = [2]dsp.Antialiased{}
	b.smooth[0].clear()
	b.smooth[1].clear()
}

func (b *bender) Reset() {
	b.over[0].Clear()
	b.over[1].Clear()
	b.straighten()
	b.preZ, b.postZ, b.blockZ = [2]dsp.Biquad{}, [2]dsp.Biquad{}, [2]dsp.Biquad{}
	b.fresh, b.tilt = false, 0
}

func (b *bender) CopyFrom(o Processor) {
	p := o.(*bender)
	b.over[0].CopyFrom(p.over[0])
	b.over[1].CopyFrom(p.over[1])
	b.smooth = p.smooth
	b.anti, b.now, b.fade, b.fresh = p.anti, p.now, p.fade, p.fresh
	b.pre, b.post, b.preZ, b.postZ, b.tilt, b.blockZ = p.pre, p.post, p.preZ, p.postZ, p.tilt, p.blockZ
}

func drawSaturation(_, _ float64, v []float64) Picture {
	axis := Axis{Min: -1, Max: 1, Ticks: []float64{-0.5, 0, 0.5}}
	x, y := axis, axis
	x.Label, y.Label = "in", "out"
	k, f := dsp.Gain(v[1]), saturationCurve(int(v[0]))
	level := v[4]
	if v[3] != 0 {
		level -= v[1] / 2
	}
	out := dsp.Gain(level)
	curve := func(in float64) float64 { return max(-1.5, min(1.5, out*f(k*in))) }
	wave := x.curve("a sine", "part", func(t float64) float64 { return curve(0.5 * math.Sin(2*math.Pi*(t+1)/2)) })
	return Picture{Says: "Output against input sample by sample; the thin line is a sine at −6 dB behind it.", X: x, Y: y,
		Curves:  []Curve{x.curve("unchanged", "ghost", func(in float64) float64 { return in }), wave, x.curve("out", "main", curve)},
		Handles: []Handle{{Label: "Drive", X: 1 / max(k, 1), Y: curve(1 / max(k, 1)), ParamY: "drive"}}}
}
