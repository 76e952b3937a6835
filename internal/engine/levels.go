package engine

import (
	"strings"

	"shoal/internal/dsp"
)

// MeasureAgain starts integrated loudness anew.
func (e *Engine) MeasureAgain() { e.loud.Reset() }

// Spot is where a song frame falls in bars and beats: see project.Clock.Spot.
func (e *Engine) Spot(frame int64) (bar, beat, hundredths int64) {
	return e.latest().clock.Spot(e.latest().clock.Tick(frame))
}

func (e *Engine) latest() *plan {
	if e.next != nil {
		return e.next
	}
	return e.now
}

// Fixed places of Levels: the main output's figures come first.
const (
	LevelMomentary = iota // LUFS
	LevelShort
	LevelIntegrated
	LevelTruePeak // dBTP since the last reading
	LevelFirst    // peaks follow: left and right of each Point in dB, then reports
)

// Levels writes the levels since the last call to dst and returns how many
// values there are. dst must have room for LevelFirst + 2 × points + reports, and
// 2 × points more with RMS.
func (e *Engine) Levels(dst []float32) int {
	bound := func(v float64) float32 { return float32(max(v, dsp.Off)) }
	dst[LevelMomentary], dst[LevelShort] = bound(e.loud.Momentary()), bound(e.loud.Short())
	dst[LevelIntegrated] = bound(e.loud.Integrated())
	peak := max(e.tpL.Take(), e.tpR.Take())
	e.most = max(e.most, peak)
	dst[LevelTruePeak] = bound(dsp.Decibels(peak))
	w := levelWriter{dst, LevelFirst}
	e.measured(func(p *plan) { w.pairs(p, (*meter).db) })
	e.measured(w.reports)
	if e.power {
		e.measured(func(p *plan) { w.pairs(p, (*meter).rms) })
	}
	return w.at
}

// levelWriter writes values as long as there is room.
type levelWriter struct {
	dst []float32
	at  int
}

func (w *levelWriter) put(v float64) {
	if w.at < len(w.dst) {
		w.dst[w.at] = float32(v)
		w.at++
	}
}

func (w *levelWriter) pairs(p *plan, of func(*meter) (l, r float64)) {
	for _, m := range p.meters {
		l, r := of(m)
		w.put(max(l, dsp.Off))
		w.put(max(r, dsp.Off))
	}
}

func (w *levelWriter) reports(p *plan) {
	for _, s := range p.reports {
		s.reporter.Report(s.report)
		for _, v := range s.report {
			w.put(v)
		}
	}
}

// Delay is a stage that the whole mix waits for.
type Delay struct {
	Stage  string `json:"stage" required:"true"`
	Frames int    `json:"frames" required:"true"`
}

// Lateness is how late the output is, and because of which stages.
type Lateness struct {
	Stages []Delay `json:"stages" required:"true"` // those on the way that takes longest
	Frames int     `json:"frames" required:"true"`
}

// Waits tells how late the output is, and why.
func (e *Engine) Waits() Lateness {
	p := e.latest()
	w := Lateness{[]Delay{}, p.latency}
	for _, n := range p.late {
		if id, ok := strings.CutPrefix(n.name, "stage "); ok {
			w.Stages = append(w.Stages, Delay{id, n.latency})
		}
	}
	return w
}
