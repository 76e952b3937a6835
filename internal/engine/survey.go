package engine

import (
	"context"
	"math"

	"shoal/internal/dsp"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Survey is what was measured over the last while of playing: what soundings are built on.
type Survey struct {
	// Peaks are the highest levels in dB by point, as "kind owner".
	Peaks map[string]float64 `json:"peaks" required:"true"`
	// Ever are the highest since the structure last changed.
	Ever     map[string]float64 `json:"ever" required:"true"`
	TruePeak float64            `json:"truePeak" required:"true"` // dBTP of the main output
	Sums     []SumFigure        `json:"sums" required:"true"`     // where several signals meet
	Seconds  float64            `json:"seconds" required:"true"`  // of playing that it is built on
	Tails    []TailFigure       `json:"tails,omitempty"`          // of passages that were played to their end
	Load     float64            `json:"load" required:"true"`     // part of real time that rendering takes; 0: not known
}

// SumFigure is what became of signals that meet.
type SumFigure struct {
	Channel string  `json:"channel" required:"true"` // whose input, or the fork whose end it is
	Loudest string  `json:"loudest" required:"true"` // the louder of the two loudest: a channel, send or path
	Second  string  `json:"second" required:"true"`
	Part    float64 `json:"part" required:"true"`   // power of the louder in dB
	Sum     float64 `json:"sum" required:"true"`    // power of the sum in dB
	Lag     int     `json:"lag" required:"true"`    // frames by which the second arrives later
	Turned  bool    `json:"turned" required:"true"` // it arrives upside down
	Alike   float64 `json:"alike" required:"true"`  // correlation there, 0 to 1
}

// surveySeconds is how long a window of the survey is: figures are one to two of them old.
const surveySeconds = 15

// surveyEvery is which part of all blocks the sums are measured on, and surveyReach how far
// in frames arrival times are compared.
const (
	surveyEvery = 16
	surveyReach = 63
)

// summed gathers the powers of what meets at a sum.
type summed struct {
	parts []float64
	total float64
	first int // the pair that is compared in time; first < 0: not yet known
	other int
	cross [2*surveyReach + 1]float64
	pow   [2]float64
}

func newSummed(parts int) *summed { return &summed{parts: make([]float64, parts), first: -1} }

func mean(l, r []float64) float64 {
	t := 0.0
	for i, v := range l {
		t += v*v + r[i]*r[i]
	}
	return t
}

// take adds a block: part k's signal.
func (m *summed) take(k int, l, r []float64) { m.parts[k] += mean(l, r) }

// done ends a block with the sum itself, and the two loudest compared in time.
func (m *summed) done(l, r []float64, part func(k int) (l, r []float64)) {
	m.total += mean(l, r)
	a, b := -1, -1
	for k, v := range m.parts {
		switch {
		case a < 0 || v > m.parts[a]:
			a, b = k, a
		case b < 0 || v > m.parts[b]:
			b = k
		}
	}
	if b < 0 || m.parts[b] == 0 || m.total > 0.9*m.parts[a] {
		return // nothing is lost
	}
	if a != m.first || b != m.other {
		m.first, m.other = a, b
		m.cross, m.pow = [2*surveyReach + 1]float64{}, [2]float64{}
	}
	al, ar := part(a)
	bl, br := part(b)
	n := len(al) - surveyReach
	if n < 32 {
		return
	}
	for lag := -surveyReach; lag <= surveyReach; lag++ {
		x, y := 0, lag // y later than x
		if lag < 0 {
			x, y = -lag, 0
		}
		t := 0.0
		for i := range n {
			t += al[x+i]*bl[y+i] + ar[x+i]*br[y+i]
		}
		m.cross[lag+surveyReach] += t
	}
	m.pow[0] += mean(al[:n], ar[:n])
	m.pow[1] += mean(bl[:n], br[:n])
}

// figure reads what was found.
func (m *summed) figure(channel string, name func(k int) string) (SumFigure, bool) {
	if m.first < 0 || m.pow[0] == 0 || m.pow[1] == 0 {
		return SumFigure{}, false
	}
	f := SumFigure{
		Channel: channel,
		Loudest: name(m.first),
		Second:  name(m.other),
		Part:    dsp.Decibels(math.Sqrt(m.parts[m.first])),
		Sum:     dsp.Decibels(math.Sqrt(m.total)),
	}
	best := 0.0
	for i, v := range m.cross {
		if math.Abs(v) > math.Abs(best)*1.0001 {
			best = v
			f.Lag = i - surveyReach
		}
	}
	f.Turned, f.Alike = best < 0, min(1, math.Abs(best)/math.Sqrt(m.pow[0]*m.pow[1]))
	return f, true
}

// survey gathers a plan's figures.
func (p *plan) survey() Survey {
	s := Survey{Peaks: map[string]float64{}, Ever: map[string]float64{}, TruePeak: dsp.Off, Sums: []SumFigure{}, Tails: p.tails()}
	for i, m := range p.meters {
		pt := p.points[i]
		lately := max(m.l, m.r, m.now, m.before)
		s.Peaks[pt.Kind+" "+pt.Owner] = dsp.Decibels(math.Float64frombits(lately))
		s.Ever[pt.Kind+" "+pt.Owner] = dsp.Decibels(math.Float64frombits(max(lately, m.ever)))
	}
	for _, x := range p.meetings {
		if f, ok := x.figure(); ok {
			s.Sums = append(s.Sums, f)
		}
	}
	return s
}

// turnSurvey begins a new window: what was measured two windows ago is forgotten.
func (p *plan) turnSurvey() {
	for _, m := range p.meters {
		m.before, m.now, m.ever = m.now, 0, max(m.ever, m.now)
	}
	for _, x := range p.meetings {
		x.turn()
	}
}

// Survey tells what was measured lately.
func (e *Engine) Survey() Survey {
	s := e.latest().survey()
	s.TruePeak = dsp.Decibels(max(e.most, e.mostBefore))
	s.Seconds = float64(e.surveyed) / e.rate
	return s
}

// surveyOn counts frames that were played and begins a window when it is time.
func (e *Engine) surveyOn(n int) {
	if !e.now.cursor.rolling {
		return
	}
	e.surveyed += n
	if e.window += n; float64(e.window) < surveySeconds*e.rate {
		return
	}
	e.window = 0
	e.now.turnSurvey()
	e.most, e.mostBefore = 0, e.most
}

// Measure plays a range through offline, hears everything, and tells what was measured.
func Measure(ctx context.Context, doc *project.Project, lib *pages.Library, to int64, load Loader, progress func(float64)) (Survey, error) {
	var at *plan
	l, r := dsp.NewTruePeak(4, 12), dsp.NewTruePeak(4, 12)
	most := 0.0
	err := offline(ctx, doc, lib, Job{To: to}, load, func(a, b []float64) error {
		l.Feed(a)
		r.Feed(b)
		most = max(most, l.Take(), r.Take())
		return nil
	}, progress, true, func(p *plan) { at = p })
	if err != nil {
		return Survey{}, err
	}
	s := at.survey()
	s.TruePeak, s.Seconds = dsp.Decibels(most), float64(to)/float64(doc.SampleRate)
	return s, nil
}
