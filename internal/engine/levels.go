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

// Plan counts the plans that were made: as long as it stays, so does the layout.
func (e *Engine) Plan() int { return e.plansMade }

// Layout says what Levels holds: one Point a pair of peaks.
func (e *Engine) Layout() []Point { return e.latest().points }

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
	p := e.latest()
	bound := func(v float64) float32 { return float32(max(v, dsp.Off)) }
	dst[LevelMomentary], dst[LevelShort] = bound(e.loud.Momentary()), bound(e.loud.Short())
	dst[LevelIntegrated] = bound(e.loud.Integrated())
	peak := max(e.tpL.Take(), e.tpR.Take())
	e.most = max(e.most, peak)
	dst[LevelTruePeak] = bound(dsp.Decibels(peak))
	k := LevelFirst
	for _, m := range p.meters {
		if k+2 > len(dst) {
			return k
		}
		l, r := m.db()
		dst[k], dst[k+1] = bound(l), bound(r)
		k += 2
	}
	for _, s := range p.reports {
		if k+len(s.report) > len(dst) {
			return k
		}
		s.reporter.Report(s.report)
		for _, v := range s.report {
			dst[k] = float32(v)
			k++
		}
	}
	if !e.power {
		return k
	}
	for _, m := range p.meters {
		if k+2 > len(dst) {
			return k
		}
		l, r := m.rms()
		dst[k], dst[k+1] = bound(l), bound(r)
		k += 2
	}
	return k
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
