package effect

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/param"
)

// each calls f with every setting of what decides which parameters matter.
func each(k *Kind, f func(v []float64)) {
	var deciding []*param.Param
	for i := range k.Params {
		p := &k.Params[i]
		for j := range k.Params {
			if w := k.Params[j].When; w != nil && w.Name == p.Name && p.Group == "" {
				deciding = append(deciding, p)
				break
			}
		}
	}
	v := k.Defaults()
	var turn func(i int)
	turn = func(i int) {
		if i == len(deciding) {
			f(v)
			return
		}
		for x := deciding[i].Min; x <= deciding[i].Max; x++ {
			v[k.Index(deciding[i].Name)] = x
			turn(i + 1)
		}
	}
	turn(0)
}

// Whatever is chosen, one or two plumbs hang under a stage: parameters that matter then, that a hand can move, with
// names that fit.
func TestEveryEffectHasItsPlumbs(t *testing.T) {
	for i := range Kinds() {
		k := &Kinds()[i]
		each(k, func(v []float64) {
			hang := k.Hanging(v)
			require.NotEmptyf(t, hang, "%s with %v", k.ID, v)
			require.LessOrEqual(t, len(hang), 2)
			for _, x := range hang {
				if x.Param == "mix" {
					continue
				}
				i := k.Index(x.Param)
				require.GreaterOrEqualf(t, i, 0, "%s has no %s", k.ID, x.Param)
				p := &k.Params[i]
				require.Truef(t, k.matters(i, v), "%s: %s does nothing with %v", k.ID, p.Name, v)
				assert.NotEqualf(t, param.Switch, p.Taper, "%s: %s is a switch", k.ID, p.Name)
				if p.Taper == param.Choice {
					require.Regexpf(t, `^\d+/\d+`, p.Choices[0], "%s: %s has no order", k.ID, p.Name)
				}
				assert.LessOrEqualf(t, len(p.Label), 12, "%s: %s is too long a name for a plumb", k.ID, p.Label)
				if x.Named != "" {
					require.GreaterOrEqualf(t, k.Index(x.Named), 0, "%s has no %s", k.ID, x.Named)
				}
			}
		})
	}
}

// Under an equaliser hang the bands that do most; a cut is named by what it is.
func TestTheBandsThatDoMostHangUnderAnEqualiser(t *testing.T) {
	k, _ := Find("equaliser")
	hang := func(set map[string]float64) (out []string) {
		v := k.Defaults()
		for name, x := range set {
			v[k.Index(name)] = x
		}
		for _, x := range k.Hanging(v) {
			out = append(out, x.Param+" "+x.Named)
		}
		return out
	}
	assert.Equal(t, []string{"gain3 freq3", "gain5 freq5"}, hang(nil))
	assert.Equal(t, []string{"gain4 freq4", "gain7 freq7"}, hang(map[string]float64{"gain3": 1, "gain4": -6, "gain7": 3}))
	assert.Equal(t, []string{"freq1 shape1", "gain4 freq4"}, hang(map[string]float64{"on1": 1, "gain4": -6}))
	assert.Equal(t, []string{"gain3 freq3", "gain5 freq5"}, hang(map[string]float64{"gain6": 9, "on6": 0}), "a band that is off does nothing")
}

// A sheet of scales is as much as the bench can show at once: two columns of five, the mix among them on the first,
// and what drives it on the last.
func TestNoSheetIsLongerThanTheBench(t *testing.T) {
	for i := range Kinds() {
		k := &Kinds()[i]
		each(k, func(v []float64) {
			count := map[string]int{"": 1}
			for i := range k.Params {
				p := &k.Params[i]
				on := p.Sheet
				if p.Group != "" {
					on = p.Group
				}
				if k.matters(i, v) {
					count[on]++
				}
			}
			last := "" // what drives it stands on the last sheet
			for _, p := range k.Params {
				if p.Sheet != "" {
					last = p.Sheet
				}
			}
			if k.Keyed {
				count[last]++
			}
			for sheet, n := range count {
				if sheet == "Profile" { // it is drawn, and shown as figures
					continue
				}
				if strings.HasPrefix(sheet, "Band") || strings.HasPrefix(sheet, "Echo") {
					n += count[""] // what is of all stands beside each
				}
				require.LessOrEqual(t, n, 10, fmt.Sprintf("%s, sheet %q with %v", k.ID, sheet, v))
			}
		})
	}
}
