package effect

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/param"
)

// matters reports whether a parameter need be shown with these values.
func matters(k *Info, p *param.Param, v map[string]float64) bool {
	if p.When == nil {
		return true
	}
	for _, x := range p.When.Is {
		if x == v[p.When.Name] {
			return true
		}
	}
	return false
}

// each calls f with every setting of what decides which parameters matter.
func each(k *Info, f func(v map[string]float64)) {
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
	v := map[string]float64{}
	for _, p := range k.Params {
		v[p.Name] = p.Default
	}
	var turn func(i int)
	turn = func(i int) {
		if i == len(deciding) {
			f(v)
			return
		}
		for x := deciding[i].Min; x <= deciding[i].Max; x++ {
			v[deciding[i].Name] = x
			turn(i + 1)
		}
	}
	turn(0)
}

// Whatever is chosen, one or two plumbs hang under a stage: parameters that a hand can move, with names that fit.
func TestEveryEffectHasItsPlumbs(t *testing.T) {
	for _, k := range Kinds() {
		require.NotEmpty(t, k.Plumbs, k.ID)
		each(&k.Info, func(v map[string]float64) {
			hang := 0
			for _, x := range k.Plumbs {
				if x.Param == "mix" {
					hang++
					continue
				}
				i := k.Index(x.Param)
				require.GreaterOrEqualf(t, i, 0, "%s has no %s", k.ID, x.Param)
				p := &k.Params[i]
				assert.NotEqualf(t, param.Switch, p.Taper, "%s: %s is a switch", k.ID, p.Name)
				if p.Taper == param.Choice {
					require.Regexpf(t, `^\d+/\d+`, p.Choices[0], "%s: %s has no order", k.ID, p.Name)
				}
				assert.LessOrEqualf(t, len(p.Label), 12, "%s: %s is too long a name for a plumb", k.ID, p.Label)
				if x.Named != "" {
					require.GreaterOrEqualf(t, k.Index(x.Named), 0, "%s has no %s", k.ID, x.Named)
				}
				if matters(&k.Info, p, v) {
					hang++
				}
			}
			require.GreaterOrEqualf(t, hang, 1, "%s with %v", k.ID, v)
		})
	}
}

// A sheet of scales is as much as the bench can show at once: two columns of five, the mix among them on the first,
// and what drives it on the last.
func TestNoSheetIsLongerThanTheBench(t *testing.T) {
	for _, k := range Kinds() {
		each(&k.Info, func(v map[string]float64) {
			count := map[string]int{"": 1}
			for i := range k.Params {
				p := &k.Params[i]
				on := p.Sheet
				if p.Group != "" {
					on = p.Group
				}
				if matters(&k.Info, p, v) {
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
