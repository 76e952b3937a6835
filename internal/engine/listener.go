package engine

import (
	"fmt"

	"shoal/internal/effect"
)

// What belongs to one listener, never to the document.

// Listen lets somebody hear one point instead of the main output; the zero value
// is the main output again.
func (e *Engine) Listen(point Listening) error {
	point.live = e.point.live
	e.point, e.turned = point, true
	return e.SetDocument(e.Document())
}

// Trial chooses which alternative of a channel's chain is heard: a trial's id, or empty for
// the chain. match is how much each is turned up or down for this, in dB by trial.
func (e *Engine) Trial(channel, trial string, match map[string]float64) {
	e.trial[channel], e.match[channel] = trial, match
	for _, p := range e.plans() {
		if t := p.trials[channel]; t != nil {
			t.choose(trial, match, int(fadeSeconds*e.rate))
		}
	}
}

// RMS lets levels hold mean levels behind the peaks.
func (e *Engine) RMS(on bool) {
	e.power = on
	for _, p := range e.plans() {
		p.power = on
	}
}

// Clock gives the engine a clock in nanoseconds to measure its stages by.
func (e *Engine) Clock(now func() int64) {
	e.clock = now
	for _, p := range e.plans() {
		p.probe.begin(p.steps, now)
	}
}

// Learn asks a stage for the parameter values that it has worked out from what it heard.
func (e *Engine) Learn(stage string) (map[string]float64, error) {
	s, ok := e.latest().stages[stage]
	if !ok {
		return nil, fmt.Errorf("there is no stage %s", stage)
	}
	l, ok := s.proc.(effect.Learner)
	if !ok {
		return nil, fmt.Errorf("%s learns nothing", s.kind.Name)
	}
	return l.Learn(), nil
}
