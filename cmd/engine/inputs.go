//go:build js && wasm

package main

import (
	"encoding/json"
	"unsafe"

	"shoal/internal/engine"
	"shoal/internal/input"
)

var (
	recorded []float32    // what taken left
	far      input.Source // who plays at the other end of the long lead
	led      []float32    // what lead left
)

// ready makes rows ready to be recorded: the scratch buffer holds them as a JSON list. 0 is success.
//
//go:wasmexport ready
func ready(n int32) int32 {
	var rows []engine.Ready
	if err := json.Unmarshal(scratch[:n], &rows); err != nil {
		return fail(err)
	}
	if err := eng.Ready(rows); err != nil {
		return fail(err)
	}
	far = input.FarEnd(eng.Document())
	return 0
}

// lead leaves what is read at the far end of the long lead while the song's frames from one on are heard there, and
// returns where: in pairs.
//
//go:wasmexport lead
func lead(from float64, frames int32) int32 {
	l, r := make([]float64, frames), make([]float64, frames)
	far.Read(l, r, int64(from))
	led = led[:0]
	for i := range l {
		led = append(led, float32(l[i]), float32(r[i]))
	}
	return pointer(led)
}

// record begins to take down what arrives at those rows, or ends it.
//
//go:wasmexport record
func record(on bool) { eng.Record(on) }

// taken leaves what was recorded on the row named in the scratch buffer since it was asked for last: where it belongs as
// JSON, and its frames in pairs at takenAt. It returns how many frames there are; -1 when nothing is recorded there.
//
//go:wasmexport taken
func taken(n int32) int32 {
	t, data, ok := eng.Taken(string(scratch[:n]))
	if !ok {
		return -1
	}
	recorded = data
	text, _ = json.Marshal(t)
	return int32(len(data) / 2)
}

//go:wasmexport takenAt
func takenAt() int32 { return pointer(recorded) }

// arriving leaves how loud what arrives is, in dB by row, as JSON.
//
//go:wasmexport arriving
func arriving() { text, _ = json.Marshal(eng.Arriving()) }

// feed gives the engine what has arrived at the window's own input: pairs in the scratch buffer.
//
//go:wasmexport feed
func feed(frames int32) {
	eng.Feed(unsafe.Slice((*float32)(unsafe.Pointer(unsafe.SliceData(scratch))), 2*frames))
}

// click lets the beats be heard, at a level in dB.
//
//go:wasmexport click
func click(on bool, level float64) { eng.Click(on, level) }

// countIn lets the next Play begin after so many bars.
//
//go:wasmexport countIn
func countIn(bars int32) { eng.CountIn(int(bars)) }

// counting is how many beats are still counted.
//
//go:wasmexport counting
func counting() int32 { return int32(eng.Counting()) }
