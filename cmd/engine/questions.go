//go:build js && wasm

package main

import (
	"bytes"
	"encoding/json"
	"slices"

	"shoal/internal/engine"
	"shoal/internal/project/view"
	"shoal/internal/questions"
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

// timeline leaves the song laid out in frames as JSON.
//
//go:wasmexport timeline
func timeline() { text, _ = json.Marshal(view.TimelineOf(base, engine.EffectInfo)) }

// soundings leaves what was noticed as JSON; load is the part of real time that rendering takes.
//
//go:wasmexport soundings
func soundings(load float64) {
	figures := eng.Survey()
	figures.Load = load
	text, _ = json.Marshal(sounding.Look(&sounding.Survey{Doc: eng.Document(), Figures: &figures, Costs: lastCosts, Sample: lib.At}))
}

// ask answers a question of the table: the scratch buffer holds its name and, behind a line break, what is asked as JSON.
//
//go:wasmexport ask
func ask(n int32) int32 {
	name, q, _ := bytes.Cut(scratch[:n], []byte{'\n'})
	b, err := questions.Answer(questions.Asked{Engine: eng, Doc: base}, string(name), q)
	if err != nil {
		return fail(err)
	}
	text = b
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
