package effect_test

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/effect"
	"shoal/internal/param"
)

// travel is what the front end's scales must agree with, who answer within a frame and so work it out themselves:
// each parameter that there is, with values at places of its travel, and what is read of what people write.
type travel struct {
	Param  param.Param        `json:"param"`
	Values map[string]float64 `json:"values"` // by place
	Places []float64          `json:"places"` // of those values again
	Reads  map[string]float64 `json:"reads"`
}

// The table is made here and read by the front end's tests: docs and both sides change together or not at all.
func TestTheTravelOfEveryParameterIsThatOfTheTable(t *testing.T) {
	var list []travel
	seen := map[string]bool{}
	add := func(p param.Param) {
		p.Says, p.When, p.Group, p.Sheet = "", nil, "", ""
		key, err := json.Marshal(struct {
			A, B float64
			T    param.Taper
			U    string
			C    []string
		}{p.Min, p.Max, p.Taper, p.Unit, p.Choices})
		require.NoError(t, err)
		if seen[string(key)] {
			return
		}
		seen[string(key)] = true
		x := travel{Param: p, Values: map[string]float64{}, Reads: map[string]float64{}}
		for _, place := range []string{"0", "0.05", "0.1", "0.11", "0.25", "0.5", "0.75", "0.9", "1"} {
			var at float64
			require.NoError(t, json.Unmarshal([]byte(place), &at))
			v := p.At(at)
			x.Values[place] = v
			x.Places = append(x.Places, p.Place(v))
		}
		for _, text := range append([]string{"2k", "-6 dB", "1.5 s", "250 ms", "0,5", "12", "off", "440 Hz", "50 %"}, p.Choices...) {
			if v, err := p.Read(text); err == nil {
				x.Reads[text] = v
			}
		}
		list = append(list, x)
	}
	for _, k := range effect.Kinds() {
		for _, p := range k.Params {
			add(p)
		}
	}
	for _, p := range []param.Param{
		param.Fader, param.Pan, param.Send, param.Mix, param.Path, param.Width, param.Handle, param.Crossover(1, false),
	} {
		add(p)
	}
	const name = "testdata/travel.json"
	got, err := json.MarshalIndent(list, "", " ")
	require.NoError(t, err)
	if *update {
		require.NoError(t, os.WriteFile(name, append(got, '\n'), 0o600))
	}
	want, err := os.ReadFile(name)
	require.NoError(t, err)
	require.Equal(t, string(want), string(got)+"\n")
}
