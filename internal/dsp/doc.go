// Package dsp is the ground floor: filters, delay lines, detectors, meters and
// resampling on plain samples. It knows nothing of effects, projects or files.
//
// Samples are float64, full scale is ±1, frequencies are in hertz and times in
// frames unless a name says otherwise. Everything here must give the same bits
// natively (GOAMD64=v1) and compiled to WebAssembly, so transcendental
// functions that have assembly versions in the standard library come from
// math.go of this package instead.
package dsp
