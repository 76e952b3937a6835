// Package demo makes the demo project: Slack Water, a piece for the opening of
// a tidal mill museum. Every sound is synthesised here from a fixed seed: modal
// bars and bells, an additive horn, a membrane, formant voices, filtered noise.
// Each instrument is one file; song.go is the score, document.go the project.
package demo
