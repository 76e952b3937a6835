package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

const phaserMost = 12

// phaser mixes the signal with itself behind a row of first-order all-pass filters
// (Smith, "An Allpass Approach to Digital Phasing and Flanging", ICMC 1984), whose common
// frequency moves: every two filters make a notch. Feedback, to 95 %, sharpens
// them.
var phaser = Kind{
	Info: Info{
		ID: "phaser", Version: 1, Name: "Phaser", Family: "Movement", Mix: 70, MixLaw: "blend",
		Says:     "Sends a few soft notches through the sound.",
		Plumbs:   []Plumb{{Param: "depth"}, {Param: "rate"}, {Param: "note"}},
		Synonyms: []string{"all pass", "notches", "swirl", "phase", "sweep"},
		Params: append([]param.Param{
			{Name: "stages", Label: "Filters", Says: "How many filters stand in a row; every two make a notch.",
				Max: 4, Default: 2, Taper: param.Choice, Choices: []string{"2", "4", "6", "8", "12"}},
			{Name: "freq", Label: "Frequency", Unit: "Hz", Says: "Around which frequency they move.",
				Min: 60, Max: 6000, Default: 700, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "depth", Label: "Depth", Unit: "oct", Says: "How far they move either way.",
				Min: 0, Max: 4, Default: 1.6, Taper: param.Linear, Step: 0.1, Digits: 2},
			{Name: "feedback", Label: "Feedback", Unit: "%", Says: "How much goes round again; below 0 turned upside down.",
				Min: -95, Max: 95, Default: 30, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "sides", Label: "Sides apart", Unit: "°", Says: "How far the right side lags behind the left.",
				Min: 0, Max: 180, Default: 45, Taper: param.Linear, Step: 5, Digits: 0},
		}, cycleParams(0.3, 13)...),
	},
	New:   func(rate float64) Processor { return &swirl{rate: rate} },
	Tail:  phaserTail,
	Rests: func(v []float64, tempo float64) float64 { return 0.1 + phaserTail(v, tempo) },
	Draw:  drawPhaser,
}

// phaserTail bounds how long the loop rings: once round takes as long as all filters delay the lowest frequency that they get
// to, which is 1/(πf) each.
func phaserTail(v []float64, _ float64) float64 {
	lowest := max(20, v[1]*math.Exp2(-v[2]))
	return tailOf(float64(phaserStages[int(v[0])])/(math.Pi*lowest), math.Abs(v[3])/100)
}

var phaserStages = []int{2, 4, 6, 8, 12}

type swirl struct {
	rate     float64
	lfo      lfo
	fresh    bool
	count    int
	z        [2][phaserMost]float64
	last     [2]float64
	from, to [2]float64 // all-pass coefficients
	blend    dsp.Glide  // fades out and in when the number of filters changes
}

func (p *swirl) Process(s *Span) {
	var v [8]float64
	for from := 0; from < len(s.L); {
		to, onGrid := s.piece(from)
		if onGrid || !p.fresh {
			s.read(v[:], from)
			p.look(s, from, v[:])
		}
		feedback := &s.Values[3]
		start := (s.Frame + int64(from)) & (Grid - 1)
		blend := p.blend
		for side, x := range [2][]float64{s.L[from:to], s.R[from:to]} {
			g := blend
			z := &p.z[side]
			last := p.last[side]
			for i, u := range x {
				c := p.from[side] + (p.to[side]-p.from[side])*float64(start+int64(i))/Grid
				w := u + feedback.At(from+i)*0.01*bounded(last)
				for k := range z[:p.count] {
					y := c*w + z[k]
					z[k] = w - c*y
					w = y
				}
				last = w
				x[i] = (u + w*g.Next()) * (1 / math.Sqrt2)
			}
			for k := range z {
				z[k] = dsp.Flush(z[k])
			}
			p.last[side] = dsp.Flush(last)
			if side == 1 {
				p.blend = g
			}
		}
		from = to
	}
}

func (p *swirl) look(s *Span, i int, v []float64) {
	hz, q := cycle(v[5:])
	a, b := p.lfo.look(s, i, p.rate, hz, q)
	at := func(phase float64) float64 {
		g := dsp.Warp(v[1]*dsp.Exp(v[2]*math.Ln2*wave(waveSine, phase, 0)), p.rate)
		return (g - 1) / (g + 1)
	}
	lag := v[4] / 360
	count := phaserStages[int(v[0])]
	if !p.fresh {
		p.to = [2]float64{at(a), at(a - lag)}
		p.count = count
		p.blend.Set(1)
	}
	p.from, p.to, p.fresh = p.to, [2]float64{at(b), at(b - lag)}, true
	if count != p.count {
		if p.blend.Now() > 0 {
			p.blend.Aim(0, 240)
			return
		}
		p.count, p.z, p.last = count, [2][phaserMost]float64{}, [2]float64{}
		p.blend.Aim(1, 240)
	}
}

func (p *swirl) Reset()               { *p = swirl{rate: p.rate} }
func (p *swirl) CopyFrom(o Processor) { *p = *o.(*swirl) }

func drawPhaser(rate, tempo float64, v []float64) Picture {
	y := Axis{Label: "gain", Unit: "dB", Min: -36, Max: 18, Ticks: []float64{-24, -12, 0, 12}}
	at := func(octaves float64) func(float64) float64 {
		g := dsp.Warp(v[1]*math.Exp2(octaves), rate)
		n := float64(phaserStages[int(v[0])])
		return func(f float64) float64 {
			// the phase of one all-pass; the loop closes with one frame of delay
			w := 2 * math.Pi * min(f/rate, 0.499)
			phi := -2 * n * math.Atan(math.Tan(w/2)/g)
			loop := v[3] / 100
			dr, di := 1-loop*math.Cos(phi-w), -loop*math.Sin(phi-w)
			nr, ni := math.Cos(phi), math.Sin(phi)
			d := dr*dr + di*di
			re, im := (1+(nr*dr+ni*di)/d)/math.Sqrt2, (ni*dr-nr*di)/d/math.Sqrt2
			return max(-48, 10*math.Log10(re*re+im*im+1e-12))
		}
	}
	main := hertz.curve("in the middle", "main", at(0))
	return Picture{Says: "Its notches in the middle and at the ends of their travel.", X: hertz, Y: y, Spectrum: true,
		Curves:  []Curve{hertz.curve("lowest", "part", at(-v[2])), hertz.curve("highest", "part", at(v[2])), main},
		Handles: []Handle{{Label: "Frequency", X: v[1], Y: 0, ParamX: "freq", ParamZ: "depth"}}}
}
