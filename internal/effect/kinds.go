package effect

import "sync"

// all lists every effect; the order is that of the list on screen.
var all = []Kind{
	trim,
	equaliser,
	filter,
	compressor,
	gate,
	limiter,
	deesser,
	transient,
	saturation,
	amplifier,
	crush,
	delay,
	taps,
	reverb,
	convolver,
	chorus,
	flanger,
	phaser,
	tremolo,
	vibrato,
	wah,
	doubler,
	detune,
	width,
	spinDown,
	repeat,
	reverse,
	denoise,
}

var byID = sync.OnceValue(func() map[string]*Kind {
	m := make(map[string]*Kind, len(all))
	for i := range all {
		m[all[i].ID] = &all[i]
	}
	return m
})

// Kinds returns every effect.
func Kinds() []Kind { return all }

// Find returns the effect with an id, and whether there is one.
func Find(id string) (*Kind, bool) {
	k, ok := byID()[id]
	return k, ok
}
