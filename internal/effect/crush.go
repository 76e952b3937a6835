package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// crush reduces resolution: values are rounded to so many bits, and held from one
// tick of a slower clock to the next. It aliases on purpose. Filter is a second-order low
// pass at half the slow rate behind it; jitter makes the slow clock uneven (hashed noise
// over its ticks).
var crush = Kind{
	Info: Info{
		ID: "crush", Version: 1, Name: "Bit and rate reduction", Family: "Colour", Mix: 100, MixLaw: "blend",
		Says:     "Takes away resolution: fewer bits, a slower clock, the grit that follows.",
		Plumbs:   []Plumb{{Param: "bits"}, {Param: "rate"}},
		Synonyms: []string{"bitcrusher", "lo-fi", "sample rate", "digital", "decimate", "grit", "alias"},
		Params: []param.Param{
			{Name: "bits", Label: "Bits", Unit: "", Says: "How finely levels are told apart.",
				Min: 1, Max: 16, Default: 10, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "rate", Label: "Clock", Unit: "Hz", Says: "How often a new value is taken.",
				Min: 200, Max: 48000, Default: 16000, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "jitter", Label: "Jitter", Unit: "%", Says: "How uneven the clock is.",
				Min: 0, Max: 100, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "filter", Label: "Filter", Says: "Softens what the slow clock adds.", Max: 1, Taper: param.Switch},
		},
	},
	New:  func(rate float64) Processor { return &grit{rate: rate} },
	Draw: drawCrush,
}

type grit struct {
	rate    float64
	phase   float64
	ticks   int64
	l, r    float64
	low     dsp.Section
	lowHz   float64
	zl, zr  dsp.Biquad
	started bool
}

func (g *grit) Process(s *Span) {
	bits, clock, jitter := &s.Values[0], &s.Values[1], &s.Values[2]
	first := !g.started
	if first { // a pure function of song time, as far as the clock is steady
		turns := float64(s.Frame-1) * min(1, clock.Now/g.rate)
		g.ticks = int64(math.Floor(turns))
		g.phase = turns - math.Floor(turns)
		g.started = true
	}
	steps := math.Exp2(bits.Now - 1)
	for i := range s.L {
		if bits.Track != nil {
			steps = math.Exp2(bits.Track[i] - 1)
		}
		g.phase += smaller(1, clock.At(i)/g.rate)
		if g.phase >= 1 || first {
			if g.phase >= 1 {
				g.phase -= math.Floor(g.phase)
				g.ticks++
				g.phase += jitter.At(i) * 0.004 * dsp.White(41, g.ticks)
			}
			first = false
			g.l, g.r = math.Round(s.L[i]*steps)/steps, math.Round(s.R[i]*steps)/steps
		}
		s.L[i], s.R[i] = g.l, g.r
	}
	if s.Values[3].At(0) != 0 {
		hz := min(clock.At(0)/2, g.rate*0.45)
		if hz != g.lowHz {
			g.lowHz, g.low = hz, dsp.LowPass(hz, math.Sqrt2/2, g.rate)
		}
		dsp.RunStereo(&g.low, &g.zl, &g.zr, s.L, s.R)
		g.zl.Flush()
		g.zr.Flush()
	}
}

func (g *grit) Reset()               { *g = grit{rate: g.rate} }
func (g *grit) CopyFrom(o Processor) { *g = *o.(*grit) }

func drawCrush(_, _ float64, v []float64) Picture {
	x := Axis{Label: "time", Unit: "ms", Max: 2, Ticks: []float64{0.5, 1, 1.5}}
	y := Axis{Label: "sample", Unit: "", Min: -1, Max: 1, Ticks: []float64{-0.5, 0, 0.5}}
	sine := func(ms float64) float64 { return 0.85 * math.Sin(2*math.Pi*ms) }
	steps := math.Exp2(v[0] - 1)
	return Picture{Says: "A sine of 1 kHz (thin) and what is left of it.", X: x, Y: y, Curves: []Curve{
		x.curve("before", "ghost", sine),
		x.curve("after", "main", func(ms float64) float64 {
			held := math.Floor(ms*v[1]/1000) / v[1] * 1000
			return math.Round(sine(held)*steps) / steps
		})}}
}
