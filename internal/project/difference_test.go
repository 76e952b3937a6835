package project_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

func TestDifferencesAreSaidInWords(t *testing.T) {
	gain, yes, start, name := -3.0, true, int64(96000), "Reading"
	for what, x := range map[string]struct {
		do   []project.Change
		says []string
	}{
		"a value": {[]project.Change{
			&project.SetParam{Owner: "second", Name: "threshold", Value: -30},
		}, []string{"Compressor: threshold −24.0 dB to −30.0 dB"}},
		"a choice": {[]project.Change{
			&project.SetParam{Owner: "first", Name: "shape1", Value: 2},
		}, []string{"Equaliser: shape low cut to high shelf"}},
		"bypass":            {[]project.Change{&project.SetNode{ID: "second", Bypass: &yes}}, []string{"Compressor is bypassed"}},
		"a stage gone":      {[]project.Change{&project.RemoveNode{ID: "first"}}, []string{"Equaliser has gone"}},
		"one behind it now": {[]project.Change{&project.MoveNode{ID: "second", Owner: "row", Index: 0}}, []string{"Equaliser has gone"}},
		"of a key": {[]project.Change{
			&project.SetParam{Owner: "gate", Name: "threshold", Value: -20},
		}, []string{"Gate: threshold −48.0 dB to −20.0 dB"}},
		"a clip's gain": {[]project.Change{&project.SetClip{ID: "of row", Gain: &gain}}, []string{"the clip Clip: gain +0.0 to -3.0 dB"}},
		"a clip moved":  {[]project.Change{&project.SetClip{ID: "of row", Start: &start}}, []string{"the clip Clip lies elsewhere"}},
		"a line": {[]project.Change{
			&project.SetLine{Owner: "first", Name: "gain3", Points: []project.Point{{Value: 1, Shape: project.Ramp}}},
		}, []string{"the line on Equaliser, gain is new"}},
		"a name":           {[]project.Change{&project.SetNode{ID: "first", Name: &name}}, nil},
		"what lies behind": {[]project.Change{&project.SetParam{Owner: "third", Name: "drive", Value: 3}}, nil},
		"a stage more":     {[]project.Change{&project.AddStage{ID: "more", Owner: "row", Index: 1, Effect: "trim"}}, []string{"Trim is new"}},
		"two of one effect": {[]project.Change{
			&project.SetParam{Owner: "first", Name: "gain3", Value: 2}, &project.SetParam{Owner: "first", Name: "gain4", Value: 2},
		}, nil},
	} {
		p := keyed(t)
		then, _ := p.MakingsOf(behindSecond)
		next, _, err := project.Apply(p, x.do, engine.EffectInfo)
		require.NoError(t, err, what)
		at := behindSecond
		now, ok := next.MakingsOf(at)
		require.True(t, ok, what)
		list, err := project.Differences(then, now, engine.EffectInfo)
		require.NoError(t, err)
		var says []string
		for _, d := range list {
			says = append(says, d.Says)
			assert.NotEmpty(t, d.Facet)
		}
		if what == "two of one effect" {
			assert.Len(t, says, 1, "the same words once: %v", says)
			continue
		}
		assert.Equal(t, x.says, says, what)
	}
}
