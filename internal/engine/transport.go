package engine

import (
	"math"
)

// Loop sets the loop in song frames; to <= from takes it away.
func (e *Engine) Loop(from, to int64) {
	e.loopOn, e.from, e.to = to > from, from, to
	for _, p := range e.plans() {
		c := &p.cursor
		c.loopOn, c.from, c.to = e.loopOn, from, to
		c.wrapped = false
	}
	if e.loopOn && e.now.cursor.rolling && e.Position() >= to { // beyond its end it would never come to it
		e.GoTo(from)
	}
}

// StopAtEnd chooses whether the song stops where its last clip ends, with its tails ringing on, or goes on.
func (e *Engine) StopAtEnd(on bool) { e.stopsAtEnd = on }

// pastEnd reports whether what is given out is beyond the song's end, and no loop holds it.
func (e *Engine) pastEnd() bool {
	c := &e.now.cursor
	return e.now.end > 0 && (!e.loopOn || c.frame > e.to) && e.Position() >= e.now.end
}

// begin is where Play begins: where the song stands; but beyond a loop in the loop, and at the end at the beginning.
func (e *Engine) begin(hold int64) int64 {
	switch {
	case e.loopOn && hold >= e.to:
		return e.from
	case !e.loopOn && e.stopsAtEnd && e.now.end > 0 && hold >= e.now.end:
		return 0
	}
	return hold
}

// Play starts from where the song stands.
func (e *Engine) Play() {
	e.guard.on, e.guard.quiet = false, 0
	e.guard.gain.Aim(1, int(guardFor*e.rate))
	if e.now.cursor.rolling || e.count() {
		return
	}
	e.seek = nil
	e.master.Aim(1, int(jumpSeconds*e.rate))
	e.finishFade()
	c := &e.now.cursor
	c.hold = e.begin(c.hold)
	if e.quiet > int(e.rate) { // nothing rings: begin as a print would
		e.now.reset()
		e.discard = e.now.latency
		e.master.Set(1)
	}
	c.frame, c.rolling, c.jumped, c.wrapped = c.hold, true, true, false
	for _, p := range e.now.players {
		p.roll.Set(1)
	}
}

// Stop lets tails ring; when already stopped it cuts them.
func (e *Engine) Stop() {
	c := &e.now.cursor
	if e.click.left > 0 {
		e.click.left = 0
		return
	}
	if !c.rolling {
		e.now.reset()
		e.quiet = math.MaxInt32
		return
	}
	e.finishFade()
	c = &e.now.cursor
	c.hold = e.Position()
	c.rolling = false
	for _, p := range e.now.players {
		p.roll.Aim(0, int(jumpSeconds*e.rate))
	}
}

func (e *Engine) finishFade() {
	if e.next != nil {
		e.turn()
	}
}

// GoTo moves to a song frame. While playing, the sound fades out over 5 ms,
// all state is emptied, and it goes on there.
func (e *Engine) GoTo(frame int64) {
	frame = max(frame, 0)
	if !e.now.cursor.rolling {
		for _, p := range e.plans() { // one that waits for its fade is what Play begins with
			p.cursor.hold = frame
		}
		return
	}
	e.seek = &frame
	e.master.Aim(0, int(jumpSeconds*e.rate))
}

func (e *Engine) jump() {
	e.finishFade()
	c := &e.now.cursor
	e.now.reset()
	c.frame, c.hold, c.jumped = *e.seek, *e.seek, true
	e.seek = nil
	e.discard = e.now.latency
	e.master.Aim(1, int(jumpSeconds*e.rate))
}

// Position is the song frame that the next block given out begins with.
func (e *Engine) Position() int64 {
	if e.seek != nil {
		return *e.seek
	}
	c := &e.now.cursor
	if !c.rolling {
		return c.hold
	}
	if e.discard > 0 {
		return c.hold
	}
	return max(0, c.songFrame(e.now.latency, 0))
}

// State tells what the engine is doing.
func (e *Engine) State() State {
	switch {
	case len(e.missing) > 0:
		return Waiting
	case e.now.cursor.rolling || e.click.left > 0:
		return Playing
	}
	return Stopped
}

// Quiet reports whether the song stands and nothing has rung for a second.
func (e *Engine) Quiet() bool {
	return e.AtRest() && e.next == nil
}

// AtRest is the same while a change of structure still waits for its fade.
func (e *Engine) AtRest() bool {
	return !e.now.cursor.rolling && e.click.left == 0 && e.quiet > int(e.rate) && e.seek == nil
}
