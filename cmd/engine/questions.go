//go:build js && wasm

package main

import (
	"encoding/json"
	"slices"
	"strings"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/routing"
	"shoal/internal/sounding"
)

// What is asked of the engine: answers lie in text as JSON, or in levels.

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

//go:wasmexport position
func position() float64 { return float64(eng.Position()) }

//go:wasmexport latency
func latency() float64 { return float64(eng.Latency()) }

//go:wasmexport state
func state() int32 { return int32(eng.State()) }

// spot writes where a song frame falls in bars and beats, and returns where that lies.
//
//go:wasmexport spot
func spot(frame float64) int32 {
	bar, beat, part := eng.Spot(int64(frame))
	where = [3]float64{float64(bar), float64(beat), float64(part)}
	return pointer(where[:])
}

// trip leaves why the output is muted for protection as JSON, and reports whether it is.
//
//go:wasmexport trip
func trip() bool {
	t, on := eng.Trip()
	if on {
		text, _ = json.Marshal(t)
	}
	return on
}

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

// thin leaves what thinning a stretch of a line would leave of it as JSON; the scratch buffer says which, and by how much.
//
//go:wasmexport thin
func thin(n int32) int32 {
	var q struct {
		project.Stretch
		By float64
	}
	if err := json.Unmarshal(scratch[:n], &q); err != nil {
		return fail(err)
	}
	return answer(base.Thinned(q.Stretch, q.By, engine.EffectInfo))
}

// movables leaves what lines can move on a row as JSON; its id is in the scratch buffer.
//
//go:wasmexport movables
func movables(n int32) int32 { return answer(base.Movables(string(scratch[:n]), engine.EffectInfo)) }

// passage leaves a passage as it is seen as JSON; its id is in the scratch buffer.
//
//go:wasmexport passage
func passage(n int32) int32 { return answer(base.PassageView(string(scratch[:n]), engine.EffectInfo)) }

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
