package engine

import (
	"encoding/json"
	"fmt"
	"math"
	"slices"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// handSeconds is how long a control moved by hand takes to get there; fadeSeconds
// how long two plans play together when the structure changes; jumpSeconds how
// long the fades around a seek and at a stop are.
const (
	handSeconds = 0.020
	fadeSeconds = 0.010
	jumpSeconds = 0.005
)

// State tells what the engine is doing.
type State int

// The states.
const (
	Stopped State = iota
	Playing
	Waiting // for pages that are missing
)

// Engine plays a document. It is not safe for use by several goroutines.
type Engine struct {
	lib      *pages.Library
	now      *plan
	next     *plan // while a change of structure fades in
	pending  *project.Project
	prepared *prepared
	fade     int // frames of the cross-fade done
	rate     float64

	hearing   Hearing
	loopOn    bool
	from      int64
	to        int64
	master    dsp.Glide // around seeks
	seek      *int64    // waiting for the fade before it
	plansMade int
	// the strips of pieces whose levels are told, and how often they have changed
	seen, lookedAt []seenPiece
	stripsTurned   int
	discard        int // frames to drop after a jump, so that sound starts at once
	quiet          int // frames for which the output has been silent
	guard          guard
	stopsAtEnd     bool
	missing        []pages.Missing
	point          Listening
	turned         bool // another point is listened to, which the plan does not know yet
	watch          *watch
	power          bool
	clock          func() int64
	surveyed       int     // frames played, for the survey
	window         int     // of them in this window
	most           float64 // highest true peak of this window and of the one before
	mostBefore     float64
	trial          map[string]string             // the trial heard, by channel
	match          map[string]map[string]float64 // dB by channel and trial

	inputs    map[string]*live // that arrive at rows which are ready, by row
	recording recorder
	click     click
	bars      int // that are counted before the next Play

	L, R []float64 // the last block
	loud *dsp.Loudness
	tpL  *dsp.TruePeak
	tpR  *dsp.TruePeak
}

// New makes an engine for a document.
func New(doc *project.Project, lib *pages.Library) (*Engine, error) {
	e := &Engine{
		lib:   lib,
		rate:  float64(doc.SampleRate),
		trial: map[string]string{},
		match: map[string]map[string]float64{},
		L:     make([]float64, Block),
		R:     make([]float64, Block),
	}
	p, err := compile(doc, lib, nil, Listening{})
	if err != nil {
		return nil, fmt.Errorf("compile %s: %w", doc.Name, err)
	}
	e.now = p
	e.master.Set(1)
	e.guard.gain.Set(1)
	e.loud = dsp.NewLoudness(e.rate, false)
	e.tpL, e.tpR = dsp.NewTruePeak(4, 12), dsp.NewTruePeak(4, 12)
	e.quiet = math.MaxInt32
	return e, nil
}

// SetDocument takes a new revision. Where only values differ they move
// smoothly; where the structure differs a new plan fades in over 10 ms, and what
// stands in both goes on as it was.
func (e *Engine) SetDocument(doc *project.Project) error {
	if doc.SampleRate != int(e.rate) {
		return fmt.Errorf("the engine runs at %g Hz and the project at %d Hz", e.rate, doc.SampleRate)
	}
	if e.next != nil && e.AtRest() { // nobody hears the fade, and nothing is run that would end it
		e.turn()
	}
	if e.next != nil { // one fade after another
		e.pending = doc
		return nil
	}
	ready := e.prepared
	e.prepared = nil
	e.retime(doc)
	if rows := e.liveRows(doc); !slices.Equal(rows, e.point.live) {
		e.point.live, e.turned = rows, true
	}
	freed := doc != e.now.doc && e.lib.Release()
	if freed || e.turned {
		ready = nil
	}
	same := !freed && e.now.sameWater(doc)
	if same && onlyPoints(e.now.doc, doc) {
		e.now.relines(doc)
		return nil
	}
	if same && !e.turned && !e.now.stale() && onlyClips(e.now.doc, doc) {
		e.now.reclips(doc)
		return nil
	}
	c, p, err := e.graphOf(doc, ready)
	e.turned = false
	if err != nil {
		return fmt.Errorf("compile %s: %w", doc.Name, err)
	}
	if c.plan.shape == e.now.shape {
		e.now.update(doc, int(handSeconds*e.rate))
		e.now.water, e.now.awaited = c.plan.water, c.plan.awaited
		e.now.hear(&e.hearing, gateFrames)
		return nil
	}
	if p == nil {
		c.old = e.now
		if p, err = c.build(); err != nil {
			return fmt.Errorf("compile %s: %w", doc.Name, err)
		}
	}
	e.bringIn(p)
	return nil
}

// turn lets the plan that has been brought in go on alone.
func (e *Engine) turn() {
	e.next.takeOver()
	e.now, e.next = e.next, nil
}

// bringIn lets a plan of another shape fade in: what stands in both goes on, and both give the same song frame.
func (e *Engine) bringIn(p *plan) {
	p.hear(&e.hearing, 0)
	for id, t := range p.trials {
		t.choose(e.trial[id], e.match[id], 0)
	}
	p.setWatch(e.watch)
	p.connect(e.inputs)
	p.power = e.power
	p.probe.begin(p.steps, e.clock)
	p.adopt(e.now)
	d := p.latency - e.now.latency
	p.cursor = e.now.cursor
	if d < 0 { // the new plan is earlier: read again what its output has not given yet
		p.cursor.frame += int64(d)
		if p.cursor.wrapped && p.cursor.frame < p.cursor.from {
			p.cursor.frame += p.cursor.to - p.cursor.from
		}
	}
	e.past(p)
	for d > 0 { // it is later: run it on so that both give the same song frame
		n := p.room(min(d, Block))
		if len(p.check(n)) > 0 {
			break
		}
		p.run(n)
		d -= n
	}
	e.next, e.fade = p, 0
	e.plansMade++
}

// Document is the revision that plays, or will in a moment. It must not be changed.
func (e *Engine) Document() *project.Project {
	if e.pending != nil {
		return e.pending
	}
	return e.latest().doc
}

// Move sets a parameter at once, ahead of the document. It reports whether
// there is such a parameter.
func (e *Engine) Move(owner, name string, v float64) bool {
	e.touched(owner)
	frames := int(handSeconds * e.rate)
	ok := e.now.aim(owner, name, v, frames)
	if e.next != nil {
		ok = e.next.aim(owner, name, v, frames) || ok
	}
	if !ok {
		ok = e.movePieces(owner, name, v, frames)
	}
	return ok
}

// movePieces sets a parameter of a treatment, in all strips that run.
func (e *Engine) movePieces(owner, name string, v float64, frames int) (ok bool) {
	if _, ok = e.latest().doc.TreatmentOf(owner); !ok {
		return false
	}
	for _, p := range e.pieces() {
		p.aim(owner, name, v, frames)
	}
	return true
}

// pieces are the plans of all strips that run.
func (e *Engine) pieces() (plans []*plan) {
	for _, p := range e.plans() {
		for _, pl := range p.players {
			pl.strips(func(t *treated) {
				if t.plan != nil {
					plans = append(plans, t.plan)
				}
			})
		}
	}
	return plans
}

func (e *Engine) plans() []*plan {
	if e.next != nil {
		return []*plan{e.now, e.next}
	}
	return []*plan{e.now}
}

// Latency is how many frames the output is behind the tracks.
func (e *Engine) Latency() int { return e.now.latency }

// Missing lists the pages for which the engine waits.
func (e *Engine) Missing() []pages.Missing { return e.missing }

// Ahead lists the pages that will be needed within so many frames and are absent.
func (e *Engine) Ahead(frames int64) []pages.Missing {
	p := e.now
	if e.next != nil {
		p = e.next
	}
	var out []pages.Missing
	at := p.cursor.frame
	if !p.cursor.rolling {
		at = p.cursor.hold
	}
	if e.seek != nil {
		at = *e.seek
	}
	end := at + frames
	e.takeWorks(at)
	if e.takePrints(at) {
		e.turned = true
		_ = e.SetDocument(e.Document()) // it was valid when it was given
		p = e.latest()
	}
	for _, pl := range p.players {
		pl.prepare(at, end)
	}
	out = e.coming(p.wanting(out), at, end, e.lib.Announced)
	for _, x := range p.awaited {
		if e.lib.Awaits(x.key) {
			out = missing(out, x.clips, at, end)
		}
	}
	out = p.underWater(out, at, end)
	if e.loopOn && at < e.to && end > e.to {
		for _, pl := range p.players {
			out = pl.missing(out, e.from, min(e.to, e.from+end-e.to))
		}
		end = e.to
	}
	for _, pl := range p.players {
		out = pl.missing(out, at, end)
	}
	return out
}

// Render makes the next block, of at most max frames, in L and R, and returns
// its length: 0 when pages are missing. It does not allocate.
func (e *Engine) Render(most int) int {
	for {
		if e.click.left > 0 {
			most = min(most, e.click.left)
		}
		n := e.block(most)
		if n == 0 {
			return 0
		}
		if e.discard >= n {
			e.discard -= n
			continue
		}
		if e.discard > 0 {
			copy(e.L, e.L[e.discard:n])
			copy(e.R, e.R[e.discard:n])
			n -= e.discard
			e.discard = 0
		}
		e.listen(n)
		e.clicks(n)
		return n
	}
}

func (e *Engine) block(most int) int {
	if e.seek != nil && !e.master.Moving() && e.master.Now() == 0 {
		e.jump()
	}
	if e.stopsAtEnd && !e.recording.on && e.now.cursor.rolling && e.seek == nil && e.pastEnd() {
		e.Stop()
	}
	if e.next == nil && e.pending != nil {
		doc := e.pending
		e.pending = nil
		_ = e.SetDocument(doc) // was valid when it was given
	}
	if e.next == nil && e.now.stale() {
		_ = e.SetDocument(e.now.doc)
	}
	n := min(most, Block)
	if e.master.Moving() || e.discard > 0 {
		n = min(n, 64)
	}
	n = e.now.room(n)
	if e.next != nil {
		n = min(e.next.room(n), int(fadeSeconds*e.rate)-e.fade)
	}
	e.missing = e.now.check(n)
	if e.next != nil && len(e.missing) == 0 {
		e.missing = e.next.check(n)
	}
	if len(e.missing) > 0 {
		if e.seek == nil {
			return 0
		}
		e.master.Set(0) // while it waits nothing is heard that could fade out
		e.jump()
		return e.block(most)
	}
	was := e.now.cursor
	e.now.run(n)
	e.record(&was, n)
	copy(e.L, e.now.out.l[:n])
	copy(e.R, e.now.out.r[:n])
	if e.next != nil {
		e.next.run(n)
		total := fadeSeconds * e.rate
		for i := range e.L[:n] {
			g := 0.5 - 0.5*math.Cos(math.Pi*float64(e.fade+i+1)/total)
			e.L[i] += g * (e.next.out.l[i] - e.L[i])
			e.R[i] += g * (e.next.out.r[i] - e.R[i])
		}
		if e.fade += n; e.fade >= int(total) {
			e.turn()
		}
	}
	if e.master.Moving() || e.master.Now() != 1 {
		for i := range e.L[:n] {
			g := e.master.Next()
			e.L[i] *= g
			e.R[i] *= g
		}
	}
	return n
}

// listen measures what is heard, and mutes it when it runs away.
func (e *Engine) listen(n int) {
	l, r := e.L[:n], e.R[:n]
	peak := dsp.Peak(l, r)
	if peak > 1e-5 {
		e.quiet = 0
	} else if e.quiet < math.MaxInt32-n {
		e.quiet += n
	}
	e.protect(l, r, peak)
	if e.now.cursor.rolling || peak > 1e-6 {
		e.loud.Feed(l, r)
		e.tpL.Feed(l)
		e.tpR.Feed(r)
	}
	e.surveyOn(n)
}

// Broken lists the stages that were silenced because they made something that
// is no number.
func (e *Engine) Broken() []string {
	var ids []string
	for id, s := range e.now.stages {
		if s.broken {
			ids = append(ids, id)
		}
	}
	return ids
}

// Draw returns the picture of a stage or fork with its present values, as JSON.
func (e *Engine) Draw(stage string) ([]byte, error) {
	p := e.latest()
	if f, _, ok := p.doc.ForkByID(stage); ok {
		return json.Marshal(p.drawFork(f, e.rate))
	}
	s, ok := p.stages[stage]
	if !ok {
		return e.drawTreatment(stage)
	}
	if s.kind.Draw == nil {
		return nil, fmt.Errorf("there is no stage %s to draw", stage)
	}
	v := make([]float64, len(s.slots))
	for i, x := range s.slots {
		v[i] = x.base()
	}
	at := p.cursor.hold
	picture := s.kind.Draw(e.rate, p.clock.Tempo(at), v)
	picture.Plumbs = s.kind.Hanging(v)
	return json.Marshal(picture)
}

// drawTreatment is the picture of a stage of a treatment, with the values that the document gives it.
func (e *Engine) drawTreatment(stage string) ([]byte, error) {
	doc := e.latest().doc
	s, _, ok := doc.StageByID(stage)
	if !ok {
		return nil, fmt.Errorf("there is no stage %s to draw", stage)
	}
	kind, ok := effect.Of(s.Effect, s.Version)
	if !ok || kind.Draw == nil {
		return nil, fmt.Errorf("stage %s has no picture", stage)
	}
	v := make([]float64, len(kind.Params))
	for i := range v {
		v[i] = valueOf(s, &kind.Params[i])
	}
	picture := kind.Draw(e.rate, doc.Clock().Tempo(0), v)
	picture.Plumbs = kind.Hanging(v)
	return json.Marshal(picture)
}
