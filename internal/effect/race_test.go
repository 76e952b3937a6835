package effect_test

import (
	"sync"
	"testing"

	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

// Prints, questions and the song make processors at the same time: what effects share (tables, made impulse responses)
// must bear it. It says something under the race detector, which `make test` runs it with.
func TestEffectsAreMadeAndRunAtOnce(t *testing.T) {
	var wg sync.WaitGroup
	for seed := range uint64(4) {
		wg.Go(func() {
			for i := range effect.Kinds() {
				k := &effect.Kinds()[i]
				rig := effecttest.Of(k, 48000, nil)
				l, r := effecttest.Noise(512, seed, -12), effecttest.Noise(512, seed+9, -12)
				rig.Run(l, r, 128)
				if k.Draw != nil {
					k.Draw(48000, 120, rig.Values)
				}
			}
			effect.Infos()
		})
	}
	wg.Wait()
}
