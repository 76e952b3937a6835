package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// gate lets through what is above its threshold and turns down the rest. It opens when
// the peak level (falling by 63 % in 8 ms) reaches the threshold, and closes when that
// has been under threshold less hysteresis for the hold time. Opening is a straight
// ramp of the gain in the attack time or the look-ahead, whichever is shorter, so
// that with look-ahead it is open when the sound comes. Closing falls in dB, 63 % in the release time,
// towards the range or, with a gentle ratio, by (ratio - 1) dB for every dB below the
// threshold.
var gate = Kind{
	Info: Info{
		ID: "gate", Version: 1, Name: "Gate", Family: "Dynamics", Mix: 100, MixLaw: "blend", Keyed: true,
		Says:     "Turns down what lies below a threshold: spill, hum, the space between.",
		Synonyms: []string{"expander", "noise gate", "duck noise", "silence", "spill", "clean"},
		Plumbs:   []Plumb{{Param: "threshold"}, {Param: "release"}},
		Live:     []string{"in", "out", "reduction"},
		Params: []param.Param{
			{Name: "threshold", Label: "Threshold", Unit: "dB", Says: "It opens at this level.",
				Min: -80, Max: 0, Default: -48, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "hysteresis", Label: "Hysteresis", Unit: "dB", Says: "How far below that it closes again, so that it does not chatter.",
				Min: 0, Max: 24, Default: 5, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "range", Label: "Range", Unit: "dB", Says: "How far it turns down at most.",
				Min: -100, Max: 0, Default: -40, Taper: param.Linear, Step: 1, Digits: 0},
			{Name: "ratio", Label: "Ratio", Unit: ": 1", Says: "How steeply it turns down below the threshold; high is on and off.",
				Min: 1, Max: 50, Default: 50, Taper: param.Log, Step: 5, Digits: 1},
			{Name: "attack", Label: "Attack", Unit: "ms", Says: "How long it takes to open.",
				Min: 0.05, Max: 100, Default: 1, Taper: param.Log, Step: 5, Digits: 2},
			{Name: "hold", Label: "Hold", Unit: "ms", Says: "How long it stays open after the level has fallen.",
				Min: 0, Max: 1000, Default: 60, Taper: param.Linear, Step: 5, Digits: 0},
			{Name: "release", Label: "Release", Unit: "ms", Says: "How fast it closes: 63 % of the way in this time.",
				Min: 5, Max: 3000, Default: 140, Taper: param.Log, Step: 5, Digits: 0},
			{Sheet: "Key", Name: "keylow", Label: "Key low cut", Unit: "Hz", Says: "What it does not listen to at the bottom. At 20 Hz it is out.",
				Min: 20, Max: 4000, Default: 20, Taper: param.Log, Step: 3, Digits: 0},
			{Sheet: "Key", Name: "keyhigh", Label: "Key high cut", Unit: "Hz", Says: "What it does not listen to at the top. At 20 kHz it is out.",
				Min: 200, Max: 20000, Default: 20000, Taper: param.Log, Step: 3, Digits: 0},
			{
				Sheet:      "Key",
				Name:       "ahead",
				Label:      "Look-ahead",
				Unit:       "ms",
				Says:       "How early it hears the sound coming. It makes the stage later by as much.",
				Max:        3,
				Default:    1,
				Taper:      param.Choice,
				Choices:    []string{"0", "1", "3", "8"},
				Structural: true,
			},
		},
	},
	New:     func(rate float64) Processor { return newDoor(rate) },
	Latency: func(rate float64, v []float64) int { return gateAhead(rate, v[9]) },
	Rests:   func(v []float64, _ float64) float64 { return 0.2 + v[5]/1000 + faded(v[6]/1000) },
	Draw:    drawGate,
}

func gateAhead(rate, choice float64) int {
	return int(math.Round([]float64{0, 0.001, 0.003, 0.008}[int(choice)] * rate))
}

// keyFilter is the pair of cuts that a detector listens through.
type keyFilter struct {
	lowHz, highHz  float64
	low, high      dsp.Section
	ll, lr, hl, hr dsp.Biquad
	bufL, bufR     [MaxFrames]float64
}

func (k *keyFilter) set(low, high, rate float64) {
	if low != k.lowHz {
		k.lowHz, k.low = low, dsp.HighPass(low, math.Sqrt2/2, rate)
	}
	if high != k.highHz {
		k.highHz, k.high = high, dsp.LowPass(min(high, rate*0.45), math.Sqrt2/2, rate)
	}
}

// run returns what the detector hears of a piece.
func (k *keyFilter) run(l, r []float64) ([]float64, []float64) {
	if k.lowHz <= 20 && k.highHz >= 20000 {
		return l, r
	}
	a, b := k.bufL[:len(l)], k.bufR[:len(r)]
	copy(a, l)
	copy(b, r)
	if k.lowHz > 20 {
		dsp.RunStereo(&k.low, &k.ll, &k.lr, a, b)
	}
	if k.highHz < 20000 {
		dsp.RunStereo(&k.high, &k.hl, &k.hr, a, b)
	}
	k.ll.Flush()
	k.lr.Flush()
	k.hl.Flush()
	k.hr.Flush()
	return a, b
}

type door struct {
	rate           float64
	ahead          int
	delay          [2]*dsp.Shift
	key            keyFilter
	env            float64
	open           bool
	held           int
	gain           float64 // dB, 0 or below, while closing
	lin            float64
	in, out, least float64
	values         [9]float64
	fresh          bool
	fall           float64
}

func newDoor(rate float64) *door {
	d := &door{rate: rate, fall: dsp.Decay(0.008, rate)}
	d.size(gateAhead(rate, 1))
	return d
}

func (d *door) size(ahead int) {
	d.ahead = ahead
	d.delay = [2]*dsp.Shift{dsp.NewShift(ahead), dsp.NewShift(ahead)}
	d.Reset()
}

// Prepare sizes the look-ahead.
func (d *door) Prepare(v []float64) {
	if a := gateAhead(d.rate, v[9]); a != d.ahead {
		d.size(a)
	}
}

func (d *door) Reset() {
	d.delay[0].Clear()
	d.delay[1].Clear()
	*d = door{rate: d.rate, ahead: d.ahead, delay: d.delay, fall: d.fall, gain: -100, least: 1}
}

func (d *door) CopyFrom(o Processor) {
	p := o.(*door)
	delay, ahead := d.delay, d.ahead
	*d = *p
	d.delay, d.ahead = delay, ahead
	d.delay[0].CopyFrom(p.delay[0])
	d.delay[1].CopyFrom(p.delay[1])
}

func (d *door) Process(s *Span) {
	keyL, keyR := s.KeyL, s.KeyR
	if keyL == nil {
		keyL, keyR = s.L, s.R
	}
	var gains [Grid]float64
	for from := 0; from < len(s.L); {
		to, _ := s.piece(from)
		s.read(d.values[:], from)
		v := &d.values
		d.key.set(v[7], v[8], d.rate)
		a, b := d.key.run(keyL[from:to], keyR[from:to])
		up, down := dsp.Gain(v[0]), dsp.Gain(v[0]-v[1])
		if !d.fresh {
			d.gain, d.fresh = v[2], true // as after a long silence
			if v[3] < 50 {
				d.gain = larger(v[2], -(v[0]+120)*(v[3]-1))
			}
			d.lin = gateGain(d.gain)
		}
		attack := v[4] / 1000 * d.rate
		if d.ahead > 0 {
			attack = min(attack, float64(d.ahead))
		}
		rise := 1 / max(1, attack)
		hold := int(v[5] / 1000 * d.rate)
		release := dsp.Decay(v[6]/1000, d.rate)
		for i := range a {
			x := larger(math.Abs(a[i]), math.Abs(b[i]))
			if x >= d.env {
				d.env = x
			} else {
				d.env = x + (d.env-x)*d.fall
			}
			d.in = larger(d.in, x)
			switch {
			case d.env >= up:
				d.open, d.held = true, hold
			case d.env < down && d.open:
				if d.held--; d.held < 0 {
					d.open = false
				}
			}
			if d.open {
				if d.lin < 1 {
					d.lin = smaller(1, d.lin+rise)
					d.gain = dsp.Decibels(d.lin)
				}
			} else {
				want := v[2]
				if v[3] < 50 {
					under := v[0] - dsp.QuickLog(larger(d.env, 1e-6))*(20/math.Ln10)
					want = larger(v[2], -under*(v[3]-1))
				}
				if before := d.gain; before != want {
					d.gain = want + (before-want)*release
					if math.Abs(d.gain-want) < 1e-5 {
						d.gain = want
					}
					d.lin = gateGain(d.gain)
				}
			}
			gains[i] = d.lin
		}
		d.env = dsp.Flush(d.env)
		l, r := s.L[from:to], s.R[from:to]
		d.delay[0].Process(l)
		d.delay[1].Process(r)
		for i := range l {
			l[i] *= gains[i]
			r[i] *= gains[i]
			d.out = larger(d.out, larger(math.Abs(l[i]), math.Abs(r[i])))
			d.least = smaller(d.least, gains[i])
		}
		from = to
	}
}

func gateGain(db float64) float64 { return dsp.QuickExp(larger(db, -120) * (math.Ln10 / 20)) }

// Report gives peak in, peak out and the deepest reduction since the last report, in dB.
func (d *door) Report(dst []float64) {
	dst[0], dst[1], dst[2] = dsp.Decibels(d.in), dsp.Decibels(d.out), -dsp.Decibels(d.least)
	d.in, d.out, d.least = 0, 0, d.lin
}

func drawGate(_, _ float64, v []float64) Picture {
	level := Axis{Unit: "dB", Min: -90, Max: 0, Ticks: []float64{-75, -60, -45, -30, -15}}
	x, y := level, level
	x.Label, y.Label = "in", "out"
	closed := func(in float64) float64 {
		if v[3] >= 50 {
			return in + v[2]
		}
		return in + max(v[2], -(v[0]-in)*(v[3]-1))
	}
	rising := x.curve("rising", "main", func(in float64) float64 {
		if in >= v[0] {
			return in
		}
		return max(-90, closed(in))
	})
	rising.Fill = true
	falling := x.curve("falling", "part", func(in float64) float64 {
		if in >= v[0]-v[1] {
			return in
		}
		return max(-90, closed(in))
	})
	return Picture{
		Says:   "Output against input: the dark line while the level rises, the thin one while it falls.",
		X:      x,
		Y:      y,
		Curves: []Curve{x.curve("unchanged", "ghost", func(in float64) float64 { return in }), falling, rising},
		Handles: []Handle{
			{Label: "Threshold", X: v[0], Y: v[0], ParamX: "threshold"},
			{Label: "Range", X: v[0] - 6, Y: max(-86, v[0]-6+v[2]), ParamY: "range"},
		},
		Live: &Live{X: 0, Y: 1, Reduction: 2},
	}
}
