//go:build js && wasm

// Command engine is the engine for the browser: WebAssembly exports around
// internal/engine and nothing else. Text goes in through a scratch buffer that
// the caller fills, and comes out through the text that an export leaves.
// Exports never block; after a failure text says why.
package main

import (
	"encoding/json"
	"fmt"
	"runtime/debug"
	"slices"
	"strings"
	"time"
	"unsafe"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/routing"
	"shoal/internal/sounding"
)

// maxPages bounds the audio kept in memory: 640 mono pages are 80 MB.
const maxPages = 640

var (
	lib     = engine.NewLibrary(maxPages)
	eng     *engine.Engine
	scratch []byte
	text    []byte
	out     = make([]float32, 2*engine.Block)
	levels  = make([]float32, 32768)
	// base is the newest revision; while something is tried on it, the engine plays that
	// instead.
	base  *project.Project
	tried []project.Change
	// lastCosts are those that were last asked for.
	lastCosts []engine.Cost
	begun     = time.Now() // the monotonic clock is the fine one here; the time of day comes in milliseconds
)

func main() {
	debug.SetGCPercent(60)
	select {}
}

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
	base = p
	if eng != nil && !fresh {
		if err := eng.SetDocument(onTrial()); err != nil {
			return fail(err)
		}
		return 0
	}
	tried = nil
	lib = engine.NewLibrary(maxPages)
	e, err := engine.New(p, lib)
	if err != nil {
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

// try lets changes be heard without making them: the scratch buffer holds them as a
// JSON list. An empty list ends it.
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
	if _, _, err := project.Apply(base, batch, engine.EffectInfo); err != nil {
		return fail(err)
	}
	tried = batch
	if err := eng.SetDocument(onTrial()); err != nil {
		return fail(err)
	}
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

// spectrum writes the watched stage's spectrum, before and after, to levelsAt and returns
// how many figures it has; 0 when nothing is watched.
//
//go:wasmexport spectrum
func spectrum() int32 {
	if !eng.Spectrum(levels) {
		return 0
	}
	return 2 * engine.SpectrumPoints
}

// costs leaves what every stage costs as JSON.
//
//go:wasmexport costs
func costs() {
	now := eng.Costs()
	for i, c := range now { // single measurements are coarse: a while of them counts
		if k := slices.IndexFunc(lastCosts, func(x engine.Cost) bool { return x.Stage == c.Stage }); k >= 0 {
			now[i].Nanos = lastCosts[k].Nanos*0.7 + c.Nanos*0.3
		}
	}
	lastCosts = now
	text, _ = json.Marshal(now)
}

// learn leaves the parameter values that a stage has worked out as JSON.
//
//go:wasmexport learn
func learn(n int32) int32 {
	m, err := eng.Learn(string(scratch[:n]))
	if err != nil {
		return fail(err)
	}
	text, _ = json.Marshal(m)
	return 0
}

// timeline leaves the song laid out in frames as JSON.
//
//go:wasmexport timeline
func timeline() { text, _ = json.Marshal(eng.Document().Timeline()) }

//go:wasmexport play
func play() { eng.Play() }

//go:wasmexport stop
func stop() { eng.Stop() }

//go:wasmexport locate
func locate(frame float64) { eng.GoTo(int64(frame)) }

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

// soundings leaves what was noticed as JSON; load is the part of real time that rendering takes.
//
//go:wasmexport soundings
func soundings(load float64) {
	figures := eng.Survey()
	figures.Load = load
	text, _ = json.Marshal(sounding.Look(&sounding.Survey{Doc: eng.Document(), Figures: &figures, Costs: lastCosts}))
}

// waits leaves the stages that the whole mix waits for, and how long, as JSON.
//
//go:wasmexport waits
func waits() {
	text, _ = json.Marshal(eng.Waits())
}

// reach leaves what a row's signal meets as JSON; its id is in the scratch buffer.
//
//go:wasmexport reach
func reach(n int32) int32 { return answer(routing.Of(eng.Document(), string(scratch[:n]))) }

// trace leaves the ways from one row to another as JSON; both ids, on lines of their own, are
// in the scratch buffer.
//
//go:wasmexport trace
func trace(n int32) int32 {
	from, to, _ := strings.Cut(string(scratch[:n]), "\n")
	return answer(routing.From(eng.Document(), from, to))
}

func answer[T any](v T, err error) int32 {
	if err != nil {
		return fail(err)
	}
	text, _ = json.Marshal(v)
	return 0
}

// rehearse runs a block that nobody hears; false when something plays or rings.
//
//go:wasmexport rehearse
func rehearse() bool { return eng.Rehearse() }

//go:wasmexport position
func position() float64 { return float64(eng.Position()) }

//go:wasmexport latency
func latency() float64 { return float64(eng.Latency()) }

//go:wasmexport state
func state() int32 { return int32(eng.State()) }

//go:wasmexport quiet
func quiet() bool { return eng.Quiet() }

// readLevels writes the levels since the last call and returns how many.
//
//go:wasmexport readLevels
func readLevels() int32 { return int32(eng.Levels(levels)) }

// plan counts the plans: only when it has moved can the layout have.
//
//go:wasmexport plan
func plan() int32 { return int32(eng.Plan()) }

// layout leaves the meaning of the levels as JSON.
//
//go:wasmexport layout
func layout() { text, _ = json.Marshal(eng.Layout()) }

// broken leaves the ids of silenced stages as JSON.
//
//go:wasmexport broken
func broken() { text, _ = json.Marshal(eng.Broken()) }

// need leaves the pages needed within so many frames as JSON and returns how many.
//
//go:wasmexport need
func need(frames float64) int32 {
	m := eng.Ahead(int64(frames))
	text, _ = json.Marshal(m)
	return int32(len(m))
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
	p := make(engine.Page, channels)
	src := unsafe.Slice((*float32)(unsafe.Pointer(&scratch[64])), frames*channels)
	for c := range p {
		p[c] = append([]float32(nil), src[int32(c)*frames:(int32(c)+1)*frames]...)
	}
	lib.Put(string(scratch[:64]), int(index), p)
}

// take lets a hand hold a parameter that has a line, or lets go of it; the scratch buffer holds
// owner and name, parted by a line break.
//
//go:wasmexport take
func take(n int32, on bool) {
	owner, name, _ := strings.Cut(string(scratch[:n]), "\n")
	eng.Take(owner, name, on)
}

// lineValues leaves where every parameter with a line stands at a song frame as JSON.
//
//go:wasmexport lineValues
func lineValues(frame float64) { text, _ = json.Marshal(eng.LineValues(int64(frame))) }

// line leaves a parameter's line between two frames as JSON; the scratch buffer says which.
//
//go:wasmexport line
func line(n int32) int32 {
	var q struct {
		Owner, Name string
		From, To    float64
		Steps       int
	}
	if err := json.Unmarshal(scratch[:n], &q); err != nil {
		return fail(err)
	}
	return answer(base.LineView(q.Owner, q.Name, int64(q.From), int64(q.To), q.Steps, engine.EffectInfo))
}

// movables leaves what lines can move on a row as JSON; its id is in the scratch buffer.
//
//go:wasmexport movables
func movables(n int32) int32 { return answer(base.Movables(string(scratch[:n]), engine.EffectInfo)) }

// draw leaves the picture of the stage named in the scratch buffer as JSON.
//
//go:wasmexport draw
func draw(n int32) int32 {
	b, err := eng.Draw(string(scratch[:n]))
	if err != nil {
		return fail(err)
	}
	text = b
	return 0
}
