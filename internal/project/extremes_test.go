package project

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// extreme draws a change's fields: ids of what there is, and numbers from the ends of what numbers can be.
type extreme struct {
	r   *rand.Rand
	ids []string
}

var farInts = []int64{math.MinInt64, math.MaxInt64, -1, 0, 1, 7, 960, 1 << 31, 1 << 32, 1 << 53, 1 << 62, -(1 << 62)}
var farFloats = []float64{-math.MaxFloat64, math.MaxFloat64, -1, 0, 1, 0.5, 1e-300, 1e18, -1e18, 100}

var farTexts = []string{
	"",
	"fader",
	"gain",
	"mix",
	"x1",
	"ramp",
	"step",
	"copies",
	"bands",
	"post",
	"after",
	"reverse",
	"thin",
	"scale",
	"shift",
	"value",
	"rise",
	"chance",
	"track",
	"level",
	strings.Repeat("ß", 300),
}

// usual are texts that a field often holds.
var usual = map[string][]string{
	"Kind":  {"track", "return", "copies", "bands"},
	"Shape": {"ramp", "step", "smooth"},
	"Name":  {"fader", "gain", "pan", "mix"},
	"Hash": {
		aSound,
		strings.Repeat("ab", 32),
	},
	"Audio":  {aSound},
	"Turn":   {"reverse", "thin", "scale", "shift"},
	"Tail":   {"ring", "cut", "fade", "hold"},
	"Effect": {"trim", "reverb"},
	"How": {
		"value",
		"rise",
		"chance",
	},
	"Point":  {"post", "pre", "after"},
	"MixLaw": {"blend", "add"},
	"ActsOn": {"both"},
	"Letter": {"A", "B"},
}

func (e *extreme) fill(v reflect.Value, name string, depth int) {
	switch v.Kind() {
	case reflect.Int, reflect.Int64:
		v.SetInt([]int64{0, 1, 7, 960, 9600, 24000}[e.r.IntN(6)])
		if list := usual[name]; list != nil && e.r.IntN(8) > 0 {
			v.SetString(list[e.r.IntN(len(list))])
		} else if e.r.IntN(3) == 0 {
			v.SetInt(farInts[e.r.IntN(len(farInts))])
		}
	case reflect.Float64:
		v.SetFloat([]float64{0, 0.5, 1, -3, 100, 60}[e.r.IntN(6)])
		if e.r.IntN(4) == 0 {
			v.SetFloat(farFloats[e.r.IntN(len(farFloats))])
		}
	case reflect.Bool:
		v.SetBool(e.r.IntN(2) == 0)
	case reflect.String:
		if list := usual[name]; list != nil && e.r.IntN(8) > 0 {
			v.SetString(list[e.r.IntN(len(list))])
		} else if e.r.IntN(3) == 0 {
			v.SetString(farTexts[e.r.IntN(len(farTexts))])
		} else {
			v.SetString(e.ids[e.r.IntN(len(e.ids))])
		}
	case reflect.Pointer:
		if depth < 6 && e.r.IntN(4) > 0 {
			v.Set(reflect.New(v.Type().Elem()))
			e.fill(v.Elem(), name, depth+1)
		}
	case reflect.Slice:
		if v.Type() == reflect.TypeFor[json.RawMessage]() {
			v.SetBytes(
				[]byte(
					fmt.Sprintf(
						`{%q:%d}`,
						[]string{"rate", "quarters", "phase", "seed", "home", "name"}[e.r.IntN(6)],
						farInts[e.r.IntN(len(farInts))],
					),
				),
			)
			return
		}
		if depth < 6 {
			v.Set(reflect.MakeSlice(v.Type(), e.r.IntN(3), 4))
			for i := range v.Len() {
				e.fill(v.Index(i), name, depth+1)
			}
		}
	case reflect.Map:
		v.Set(reflect.MakeMap(v.Type()))
	case reflect.Struct:
		for i := range v.NumField() {
			if f := v.Type().Field(i); f.IsExported() {
				e.fill(v.Field(i), f.Name, depth+1)
			}
		}
	}
}

// Every change that there is, with the most impossible numbers, texts and ids in it, is made or refused: it does not
// panic, nor take memory or time without bound, and what is made is a valid document that can be laid out.
func TestNoNumberIsTooFarForAnyChange(t *testing.T) {
	for seed := range uint64(2) {
		r := rand.New(rand.NewPCG(seed, 99))
		p := sample(t)
		p.Passages = append(p.Passages, away(p))
		var ids []string
		for id := range p.ids() {
			ids = append(ids, id)
		}
		slices.Sort(ids)
		ids = append(ids, aSound, "trim", "reverb")
		names := []string{}
		for name := range registry {
			names = append(names, name)
		}
		slices.Sort(names)
		for _, name := range names {
			for try := range 25 {
				c := registry[name]()
				(&extreme{r, ids}).fill(reflect.ValueOf(c).Elem(), "", 0)
				b, err := json.Marshal(c)
				require.NoError(t, err)
				require.NotPanics(t, func() {
					list, err := Decode([]Wire{{Type: name, Do: b}})
					if err != nil {
						return
					}
					next, _, err := Apply(p, list, fakeEffects)
					if err == nil {
						require.NoError(t, next.Validate(fakeEffects))
						require.LessOrEqual(t, next.End(), next.longest())
					}
				}, "%s, try %d of seed %d: %s", name, try, seed, b)
			}
		}
	}
}
