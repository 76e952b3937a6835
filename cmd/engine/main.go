//go:build js && wasm

// Command engine is the engine for the browser: WebAssembly exports around
// internal/engine and nothing else. Text goes in through a scratch buffer that
// the caller fills, and comes out through the text that an export leaves.
// Exports never block; after a failure text says why.
package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"runtime"
	"runtime/debug"
	"strings"
	"time"
	"unsafe"

	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// maxPages bounds the audio kept in memory, in sides of pages: 120 MB.
const maxPages = 960

var (
	lib     = pages.New(maxPages)
	eng     *engine.Engine
	scratch []byte
	text    []byte
	out     = make([]float32, 2*engine.Block)
	levels  = make([]float32, 32768)
	where   [3]float64 // bar, beat and hundredths
	// base is the newest revision; while something is tried on it, the engine plays that
	// instead.
	base  *project.Project
	tried []project.Change
	// lastCosts are those that were last asked for.
	lastCosts []engine.Cost
	// rehearsal is under way; rehearsed are the effects that need none any more.
	rehearsal *engine.Rehearsal
	rehearsed = map[string]bool{}
	begun     = time.Now() // the monotonic clock is the fine one here; the time of day comes in milliseconds
)

// garbage is how much of it, in per cent of what is held, is let lie: nearly all of the memory is sound, which costs nothing to
// look through.
const garbage = 25

func main() {
	debug.SetGCPercent(garbage)
	select {}
}

// undisturbed builds something large without looking for garbage again and again while it grows: none of it is.
func undisturbed(build func() error) error {
	debug.SetGCPercent(-1)
	defer debug.SetGCPercent(garbage)
	return build()
}

// overdue looks for garbage when there is more than there should be before it was looked for. A page calls in for a moment at a
// time, and a search that has begun can stay where it is between the calls, while each Play and each edit leave an old plan
// behind, until a tab has no memory left.
func overdue() {
	var m runtime.MemStats
	runtime.ReadMemStats(&m)
	if m.HeapAlloc > m.NextGC+m.NextGC/8 {
		runtime.GC()
	}
}

// tidy gives a search for garbage that has begun a moment of its own, where there is time: else it stands still between the calls
// until all of it is overdue, and the sound has a gap.
//
//go:wasmexport tidy
func tidy() { runtime.Gosched() }

func pointer[T any](s []T) int32 { return int32(uintptr(unsafe.Pointer(unsafe.SliceData(s)))) }

func fail(err error) int32 {
	text = []byte(err.Error())
	return 1
}

// room makes the scratch buffer at least n bytes long and returns where it is.
//
//go:wasmexport room
func room(n int32) int32 {
	if int(n) > len(scratch) {
		scratch = make([]byte, n)
	}
	return pointer(scratch)
}

//go:wasmexport textAt
func textAt() int32 { return pointer(text) }

//go:wasmexport textLength
func textLength() int32 { return int32(len(text)) }

//go:wasmexport outAt
func outAt() int32 { return pointer(out) }

//go:wasmexport levelsAt
func levelsAt() int32 { return pointer(levels) }

// document takes a revision of the project from the scratch buffer; fresh
// starts a new engine with it. 0 is success.
//
//go:wasmexport document
func document(n int32, fresh bool) int32 {
	p, err := project.Read(scratch[:n], engine.EffectInfo)
	if err != nil {
		return fail(err)
	}
	return use(p, fresh)
}

// coming is a revision, with what is tried on it, that was read and is not heard yet.
var coming *project.Project

// revision reads what a revision says otherwise than the one before: the scratch buffer holds a project.Revision as JSON. 0 is
// success; prepare and adopt come next. They are three, for a page renders between them.
//
//go:wasmexport revision
func revision(n int32) int32 {
	if base == nil {
		return fail(errors.New("there is no revision before it"))
	}
	p, err := project.ReadRevision(base, scratch[:n], engine.EffectInfo)
	if err != nil {
		return fail(err)
	}
	base = p
	coming = onTrial()
	return 0
}

// prepare makes what the revision that was read will want.
//
//go:wasmexport prepare
func prepare() { eng.Prepare(coming) }

// adopt lets the revision be heard that was read. 0 is success.
//
//go:wasmexport adopt
func adopt() int32 {
	doc := coming
	coming = nil
	return revise(doc)
}

// revise gives a valid revision to the engine.
func revise(doc *project.Project) int32 {
	if err := eng.SetDocument(doc); err != nil {
		return fail(err)
	}
	overdue()
	return 0
}

// use lets a valid revision be heard.
func use(p *project.Project, fresh bool) int32 {
	base = p
	if eng != nil && !fresh {
		return revise(onTrial())
	}
	tried = nil
	lib = pages.New(maxPages)
	var e *engine.Engine
	if err := undisturbed(func() (err error) {
		e, err = engine.New(p, lib)
		return err
	}); err != nil {
		return fail(err)
	}
	eng = e
	eng.Clock(func() int64 { return int64(time.Since(begun)) })
	return 0
}

// onTrial is the newest revision with what is tried on it, as far as that still fits.
func onTrial() *project.Project {
	if len(tried) > 0 {
		if p, _, err := project.Apply(base, tried, engine.EffectInfo); err == nil {
			return p
		}
		tried = nil
	}
	return base
}

// try reads changes that are heard without being made: the scratch buffer holds them as a
// JSON list. An empty list ends it. 0 is success; prepare and adopt come next.
//
//go:wasmexport try
func try(n int32) int32 {
	var wire []project.Wire
	err := json.Unmarshal(scratch[:n], &wire)
	if err != nil {
		return fail(err)
	}
	batch, err := project.Decode(wire)
	if err != nil {
		return fail(err)
	}
	with, _, err := project.Apply(base, batch, engine.EffectInfo)
	if err != nil {
		return fail(err)
	}
	tried, coming = batch, with
	return 0
}

// listen chooses what to listen to instead of the main output: the scratch buffer holds an
// engine.Listening as JSON.
//
//go:wasmexport listen
func listen(n int32) int32 {
	var point engine.Listening
	if err := json.Unmarshal(scratch[:n], &point); err != nil {
		return fail(err)
	}
	if err := eng.Listen(point); err != nil {
		return fail(err)
	}
	return 0
}

// trial chooses which alternative of a chain is heard; the scratch buffer holds JSON.
//
//go:wasmexport trial
func trial(n int32) int32 {
	var t struct {
		Channel string             `json:"channel"`
		Trial   string             `json:"trial"`
		Match   map[string]float64 `json:"match"`
	}
	if err := json.Unmarshal(scratch[:n], &t); err != nil {
		return fail(err)
	}
	eng.Trial(t.Channel, t.Trial, t.Match)
	return 0
}

//go:wasmexport rms
func rms(on bool) { eng.RMS(on) }

// watch keeps the spectrum of the stage named in the scratch buffer.
//
//go:wasmexport watch
func watch(n int32) { eng.Watch(string(scratch[:n])) }

//go:wasmexport play
func play() {
	eng.Play()
	overdue()
}

//go:wasmexport stop
func stop() { eng.Stop() }

// anyway lets what is muted for protection be heard 20 dB down, or not.
//
//go:wasmexport anyway
func anyway(on bool) { eng.HearAnyway(on) }

// atEnd chooses whether the song stops where its last clip ends.
//
//go:wasmexport atEnd
func atEnd(stops bool) { eng.StopAtEnd(stops) }

// fault ends the program as a fault would, for tests of what happens then.
//
//go:wasmexport fault
func fault() { panic("a fault was asked for") }

// locate goes to a song frame, or to the nearest place of a grid in ticks.
//
//go:wasmexport locate
func locate(frame float64, grid int32) {
	at := int64(frame)
	if grid > 0 {
		clock := eng.Document().Clock()
		at = clock.Frame(clock.Snapped(at, int64(grid)))
	}
	eng.GoTo(at)
	overdue()
}

//go:wasmexport loop
func loop(from, to float64) { eng.Loop(int64(from), int64(to)) }

//go:wasmexport measureAgain
func measureAgain() { eng.MeasureAgain() }

// render makes the next block as interleaved float32 at outAt and returns its
// frames; 0 when pages are missing.
//
//go:wasmexport render
func render() int32 {
	n := eng.Render(engine.Block)
	for i := range n {
		out[2*i], out[2*i+1] = float32(eng.L[i]), float32(eng.R[i])
	}
	return int32(n)
}

// hear sets what this listener hears of the mix: the scratch buffer holds it as JSON.
//
//go:wasmexport hear
func hear(n int32) int32 {
	var h struct {
		Solo       []string
		Dry, Share string
		Mono       bool
	}
	if err := json.Unmarshal(scratch[:n], &h); err != nil {
		return fail(err)
	}
	solo := map[string]bool{}
	for _, id := range h.Solo {
		solo[id] = true
	}
	eng.Hear(engine.Hearing{Solo: solo, Dry: h.Dry, Share: h.Share, Mono: h.Mono})
	return 0
}

// rehearse runs a block that nobody hears, while nothing plays or rings and there are effects
// that have not been rehearsed; false when there is no more to do.
//
//go:wasmexport rehearse
func rehearse() bool {
	if !eng.AtRest() {
		rehearsal = nil
		return false
	}
	if rehearsal == nil {
		doc := onTrial()
		if !engine.Unrehearsed(doc, rehearsed) { // every edit asks
			return false
		}
		runtime.GC() // it needs about as much memory as the engine
		if undisturbed(func() (err error) {
			rehearsal, err = engine.NewRehearsal(doc, eng.Position())
			return err
		}) != nil {
			rehearsal = nil
			return false // what is wrong was said when the document came
		}
	}
	if !rehearsal.Run() {
		maps.Copy(rehearsed, rehearsal.Effects)
		rehearsal = nil
		runtime.GC() // now, rather than in the first second of the music
	}
	return true
}

// move sets a parameter at once; the scratch buffer holds owner and name,
// parted by a line break.
//
//go:wasmexport move
func move(n int32, value float64) int32 {
	for i, b := range scratch[:n] {
		if b == '\n' {
			if eng.Move(string(scratch[:i]), string(scratch[i+1:n]), value) {
				return 0
			}
			return fail(fmt.Errorf("there is no such parameter"))
		}
	}
	return fail(fmt.Errorf("owner and name are missing"))
}

// page takes a page of audio: in the scratch buffer 64 bytes of hash, then
// float32 samples, one channel after the other.
//
//go:wasmexport page
func page(index, frames, channels int32) {
	p := make(pages.Page, channels)
	src := unsafe.Slice((*float32)(unsafe.Pointer(&scratch[64])), frames*channels)
	for c := range p {
		p[c] = append([]float32(nil), src[int32(c)*frames:(int32(c)+1)*frames]...)
	}
	lib.Put(string(scratch[:64]), int(index), p)
	overdue() // it may have taken the place of another
}

// worked says which works can be fetched: the scratch buffer holds their keys, parted by line breaks.
//
//go:wasmexport worked
func worked(n int32) { eng.Worked(strings.Split(string(scratch[:n]), "\n")) }

// take lets a hand hold a parameter that has a line, or lets go of it; the scratch buffer holds
// owner and name, parted by a line break.
//
//go:wasmexport take
func take(n int32, on bool) {
	owner, name, _ := strings.Cut(string(scratch[:n]), "\n")
	eng.Take(owner, name, on)
}
