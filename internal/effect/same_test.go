package effect_test

import (
	"crypto/sha256"
	"encoding/binary"
	"encoding/hex"
	"encoding/json"
	"flag"
	"fmt"
	"math"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

var update = flag.Bool("update", false, "write testdata/sound.json anew: only when a sound is meant to change")

// What an effect makes is the same on every machine, natively and in WebAssembly, and stays
// the same: old projects must sound as they did. `make test` runs this test in both.
func TestEveryEffectSoundsAsItAlwaysDid(t *testing.T) {
	got := map[string]string{}
	for _, k := range slices.Concat(effect.Kinds(), effect.Older()) {
		h := sha256.New()
		for _, r := range []float64{44100, 48000} {
			for round := range 2 {
				set := map[string]float64{}
				for i, p := range k.Params {
					if round == 1 && p.Stepped() && p.Max >= 1 { // the other choices
						set[p.Name] = float64((i + 1) % int(p.Max+1))
					}
				}
				rig := effecttest.Of(&k, r, set)
				x, y := effecttest.Noise(30000, 21, -9), effecttest.Noise(30000, 22, -9)
				for i := range x { // loud and soft, with a tone
					g := 0.5 + 0.5*math.Sin(float64(i)/1500)
					x[i] = g*x[i] + 0.2*math.Sin(float64(i)*0.05)
					y[i] *= g
				}
				rig.Run(x, y, 128)
				for i := range x {
					_ = binary.Write(h, binary.LittleEndian, [2]float64{x[i], y[i]})
				}
			}
		}
		got[fmt.Sprintf("%s %d", k.ID, k.Version)] = hex.EncodeToString(h.Sum(nil))[:24]
	}
	const name = "testdata/sound.json"
	if *update {
		b, err := json.MarshalIndent(got, "", "  ")
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(name, append(b, '\n'), 0o600))
	}
	b, err := os.ReadFile(name)
	require.NoError(t, err)
	var want map[string]string
	require.NoError(t, json.Unmarshal(b, &want))
	require.Equal(t, want, got)
}
