package effect

import (
	"math"

	"shoal/internal/dsp"
	"shoal/internal/param"
)

// transient raises or lowers beginnings and what follows them, whatever their
// level. Beginnings are where a fast envelope (1 ms) runs ahead of a slow one that follows
// it (the speed); what follows is where a fast fall runs ahead of a slow one (the
// length). The difference in dB, less a dead zone of 1.5 dB and up to 12, says how much of the
// asked gain is given. With both at 0 nothing is touched.
var transient = Kind{
	Info: Info{
		ID: "transient", Version: 1, Name: "Transient shaper", Family: "Dynamics", Mix: 100, MixLaw: "blend", Keyed: true,
		Says:     "Makes beginnings harder or softer, and what rings on longer or shorter.",
		Plumbs:   []Plumb{{Param: "attack"}, {Param: "sustain"}},
		Synonyms: []string{"attack", "punch", "sustain", "snap", "soften", "drum", "envelope"},
		Live:     []string{"attack", "sustain", "reduction"},
		Params: []param.Param{
			{Name: "attack", Label: "Attack", Unit: "dB", Says: "How much louder or softer beginnings get.",
				Min: -18, Max: 18, Default: 4, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "sustain", Label: "Sustain", Unit: "dB", Says: "How much louder or softer what follows gets.",
				Min: -18, Max: 18, Default: 0, Taper: param.Linear, Step: 0.5, Digits: 1},
			{Name: "speed", Label: "Beginning", Unit: "ms", Says: "How long a beginning lasts.",
				Min: 4, Max: 120, Default: 25, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "length", Label: "Length", Unit: "ms", Says: "How long what follows lasts.",
				Min: 40, Max: 1500, Default: 320, Taper: param.Log, Step: 3, Digits: 0},
			{Name: "level", Label: "Output", Unit: "dB", Says: "Gain behind it.",
				Min: -18, Max: 18, Taper: param.Linear, Step: 0.5, Digits: 1},
		},
	},
	New:   func(rate float64) Processor { return &snap{rate: rate} },
	Rests: func(v []float64, _ float64) float64 { return 1 + faded(v[3]/1000) },
	Draw:  drawTransient,
}

type snap struct {
	rate             float64
	fast, slow       float64 // for beginnings
	short, long      float64 // for what follows
	rises, rests, gr float64
}

const (
	snapFloor = 1e-5
	snapDead  = 1.18 // 1.5 dB: what differs by less is no beginning
)

// shareOf turns a difference of two envelopes into 0 to 1.
func shareOf(above, below float64) float64 {
	if above <= below*snapDead || above < snapFloor {
		return 0
	}
	d := dsp.QuickLog(above/max(below, snapFloor))*(20/math.Ln10) - 1.438
	return max(0, min(1, d/10.5))
}

func (t *snap) Process(s *Span) {
	var v [5]float64
	keyL, keyR := s.KeyL, s.KeyR
	if keyL == nil {
		keyL, keyR = s.L, s.R
	}
	fastUp, fastDown := dsp.Decay(0.001, t.rate), dsp.Decay(0.06, t.rate)
	for from := 0; from < len(s.L); {
		to, _ := s.piece(from)
		s.read(v[:], from)
		slowUp := dsp.Decay(v[2]/1000, t.rate)
		shortDown, longDown := dsp.Decay(v[3]/5000, t.rate), dsp.Decay(v[3]/1000, t.rate)
		for i := from; i < to; i++ {
			x := larger(math.Abs(keyL[i]), math.Abs(keyR[i]))
			t.fast = follow(t.fast, x, fastUp, fastDown)
			t.slow = follow(t.slow, t.fast, slowUp, fastDown)
			t.short = follow(t.short, x, fastUp, shortDown)
			t.long = follow(t.long, t.short, fastUp, longDown)
			a, b := 0.0, 0.0
			if v[0] != 0 && t.fast > t.slow*snapDead {
				a = shareOf(t.fast, t.slow)
			}
			if v[1] != 0 && t.long > t.short*snapDead {
				b = shareOf(t.long, t.short)
			}
			t.rises, t.rests = larger(t.rises, a), larger(t.rests, b)
			db := v[0]*a + v[1]*b + v[4]
			if db != 0 {
				g := dsp.QuickExp(db * (math.Ln10 / 20))
				s.L[i] *= g
				s.R[i] *= g
			}
			if -db > t.gr {
				t.gr = -db
			}
		}
		t.fast, t.slow, t.short, t.long = dsp.Flush(t.fast), dsp.Flush(t.slow), dsp.Flush(t.short), dsp.Flush(t.long)
		from = to
	}
}

// follow moves an envelope towards x, with one factor up and another down.
func follow(env, x, up, down float64) float64 {
	if x > env {
		return x + (env-x)*up
	}
	return x + (env-x)*down
}

func (t *snap) Reset()               { *t = snap{rate: t.rate} }
func (t *snap) CopyFrom(o Processor) { *t = *o.(*snap) }

// Report gives how much of attack and sustain was given, 0 to 1, and the deepest reduction in dB.
func (t *snap) Report(dst []float64) {
	dst[0], dst[1], dst[2] = t.rises, t.rests, max(0, t.gr)
	t.rises, t.rests, t.gr = 0, 0, 0
}

// drawTransient runs the effect itself over a struck note.
func drawTransient(_, tempo float64, v []float64) Picture {
	const rate, seconds = 8000.0, 0.6
	x := Axis{Label: "time", Unit: "s", Max: seconds, Ticks: []float64{0.1, 0.2, 0.3, 0.4, 0.5}}
	y := Axis{Label: "level", Unit: "dB", Min: -48, Max: 18, Ticks: []float64{-36, -24, -12, 0, 12}}
	note := func(t float64) float64 {
		if t < 0.05 {
			return 0
		}
		return 0.8*math.Exp(-(t-0.05)/0.02) + 0.2*math.Exp(-(t-0.05)/0.15)
	}
	p := &snap{rate: rate}
	vals := make([]Value, len(v))
	for i := range v {
		vals[i] = Value{Now: v[i]}
	}
	n := int(rate * seconds)
	l, r := make([]float64, n), make([]float64, n)
	for i := range l {
		l[i] = note(float64(i) / rate)
		r[i] = l[i]
	}
	for at := 0; at < n; at += Grid {
		p.Process(&Span{L: l[at : at+Grid], R: r[at : at+Grid], Values: vals, Time: Time{Frame: int64(at), Tempo: tempo}})
	}
	before := x.curve("before", "ghost", func(t float64) float64 { return max(-48, dsp.Decibels(note(t))) })
	after := x.curve("after", "main", func(t float64) float64 { return max(-48, dsp.Decibels(l[min(n-1, int(t*rate))])) })
	after.Fill = true
	return Picture{
		Says:   "A struck note before (thin) and after.",
		X:      x,
		Y:      y,
		Curves: []Curve{before, after},
		Handles: []Handle{
			{Label: "Attack", X: 0.06, Y: v[0], ParamY: "attack"},
			{Label: "Sustain", X: 0.3, Y: v[1] - 20, ParamY: "sustain"},
		},
	}
}
