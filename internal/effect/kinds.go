package effect

import (
	"slices"
	"sync"
)

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
	m := make(map[string]*Kind, len(all)+len(whole))
	for _, list := range [][]Kind{all, whole} {
		for i := range list {
			m[list[i].ID] = &list[i]
		}
	}
	return m
})

var byVersion = sync.OnceValue(func() map[string]map[int]*Kind {
	m := make(map[string]map[int]*Kind, len(all))
	for _, list := range [][]Kind{all, whole, older} {
		for i := range list {
			k := &list[i]
			if m[k.ID] == nil {
				m[k.ID] = map[int]*Kind{}
			}
			m[k.ID][k.Version] = k
		}
	}
	return m
})

// Kinds returns every effect that runs, as it is made now; whole-sound steps are apart.
func Kinds() []Kind { return all }

// Older returns the versions of effects that documents may still have.
func Older() []Kind { return older }

// Of returns the effect with an id as it sounded in a version, and whether there is one; 0 is the newest.
func Of(id string, version int) (*Kind, bool) {
	if version == 0 {
		return Find(id)
	}
	k, ok := byVersion()[id][version]
	return k, ok
}

// Infos returns what is said of every effect and whole-sound step, the newest first, older versions behind.
func Infos() []Info {
	list := make([]Info, 0, len(all)+len(whole)+len(older))
	for _, k := range slices.Concat(all, whole, older) {
		k.Newest = byID()[k.ID].Version
		list = append(list, k.Info)
	}
	return list
}

// Find returns the newest version of the effect with an id, and whether there is one.
func Find(id string) (*Kind, bool) {
	k, ok := byID()[id]
	return k, ok
}
