package sounding

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// forkOn puts a fork of a kind on a channel, with these paths in place of its own, if any.
func forkOn(c *project.Channel, kind string, paths ...*project.Path) *project.Fork {
	n := project.Forked(kind, "", paths...)
	c.Chain.Nodes = append(c.Chain.Nodes, n)
	return n.Fork
}

func pathWith(name string, list ...*project.Stage) *project.Path {
	p := project.NewPath(name)
	for _, s := range list {
		p.Chain.Nodes = append(p.Chain.Nodes, &project.Node{Stage: s})
	}
	return p
}

func squeeze() *project.Stage { return stageOf("compressor", 100, "blend", nil) }

// last is the fork that a case has put on a channel.
func last(c *project.Channel) *project.Fork { return c.Chain.Nodes[len(c.Chain.Nodes)-1].Fork }

var forkCases = []ruleCase{
	{"empty-fork", "copies", func(s *session) *engine.Survey {
		forkOn(s.a, project.Copies)
		return nil
	}, func(s *session) *engine.Survey {
		last(s.a).Paths[1].Chain.Nodes = []*project.Node{{Stage: squeeze()}}
		return nil
	}},
	{"empty-fork", "bands", func(s *session) *engine.Survey {
		forkOn(s.a, project.Bands)
		return nil
	}, func(s *session) *engine.Survey { last(s.a).Paths[1].Level = -3; return nil }},
	{"copies-louder", "two dry paths", func(s *session) *engine.Survey {
		forkOn(s.a, project.Copies, pathWith("one"), pathWith("two", stageOf("trim", 100, "blend", nil)), pathWith("three", squeeze()))
		return nil
	}, func(s *session) *engine.Survey { last(s.a).Paths[1].Level = -12; return nil }},
	{"copies-louder", "trimmed", func(s *session) *engine.Survey {
		forkOn(s.a, project.Copies, pathWith("one"), pathWith("two"), pathWith("three", squeeze()))
		return nil
	}, func(s *session) *engine.Survey { last(s.a).Trim = -6; return nil }},
	{"paths-alike", "", func(s *session) *engine.Survey {
		forkOn(s.a, project.Copies, pathWith("one", squeeze()), pathWith("two", squeeze()))
		return nil
	}, func(s *session) *engine.Survey {
		last(s.a).Paths[1].Chain.Nodes[0].Stage.Params = map[string]float64{"ratio": 8}
		return nil
	}},
	{"paths-alike", "panned apart", func(s *session) *engine.Survey {
		forkOn(s.a, project.Copies, pathWith("one", squeeze()), pathWith("two", squeeze()))
		return nil
	}, func(s *session) *engine.Survey {
		last(s.a).Paths[0].Pan, last(s.a).Paths[1].Pan = -0.5, 0.5
		return nil
	}},
	{"silent-path", "", func(s *session) *engine.Survey {
		f := forkOn(s.a, project.Copies, pathWith("one"), pathWith("two", stageOf("gate", 100, "blend", nil)))
		return figures(map[string]float64{"after " + f.ID: -12, "path " + f.Paths[0].ID: -12, "path " + f.Paths[1].ID: -120})
	}, func(s *session) *engine.Survey {
		f := last(s.a)
		return figures(map[string]float64{"after " + f.ID: -12, "path " + f.Paths[0].ID: -12, "path " + f.Paths[1].ID: -40})
	}},
	{"crossovers-close", "", func(s *session) *engine.Survey {
		f := forkOn(s.a, project.Bands, pathWith("low"), pathWith("mids", squeeze()), pathWith("high"))
		f.Crossovers = []float64{500, 640}
		return nil
	}, func(s *session) *engine.Survey { last(s.a).Crossovers[1] = 900; return nil }},
	{"dry-path-on-return", "", func(s *session) *engine.Survey {
		reverb := s.reverb
		s.hall.Chain.Nodes = nil
		forkOn(s.hall, project.Copies, pathWith("dry"), pathWith("wet", reverb))
		return nil
	}, func(s *session) *engine.Survey { last(s.hall).Paths[0].Mute = true; return nil }},
	{"dry-path-on-return", "wet before", func(s *session) *engine.Survey {
		s.hall.Chain.Nodes = nil
		forkOn(s.hall, project.Copies, pathWith("dry"), pathWith("bright", squeeze()))
		return nil
	}, func(s *session) *engine.Survey {
		s.hall.Chain.Nodes = append([]*project.Node{{Stage: s.reverb}}, s.hall.Chain.Nodes...)
		return nil
	}},
	{"phase-turned", "bands in a band", func(s *session) *engine.Survey {
		n := &project.Node{Fork: bandsIn(1000, 700, 24)}
		n.Fork.Paths[0].Chain.Nodes[0].Fork.Paths[0].Chain.Nodes = []*project.Node{{Stage: squeeze()}}
		s.a.Chain.Nodes = append(s.a.Chain.Nodes, n)
		return nil
	}, func(s *session) *engine.Survey { last(s.a).Paths[0].Chain.Nodes[0].Fork.Crossovers[0] = 90; return nil }},
	{"phase-turned", "bands beside dry", func(s *session) *engine.Survey {
		n := project.Forked(project.Bands, "", pathWith("low", squeeze()), pathWith("high"))
		p := pathWith("bands")
		p.Chain.Nodes = []*project.Node{n}
		forkOn(s.a, project.Copies, pathWith("dry"), p)
		return nil
	}, func(s *session) *engine.Survey { last(s.a).Paths[0].Mute = true; return nil }},
	{"cancels", "paths", func(s *session) *engine.Survey {
		f := forkOn(s.a, project.Copies, pathWith("one"), pathWith("two", squeeze()))
		x := figures(nil)
		x.Sums = []engine.SumFigure{
			{Channel: f.ID, Loudest: f.Paths[0].ID, Second: f.Paths[1].ID, Part: 0, Sum: -9, Turned: true, Alike: 0.9},
		}
		return x
	}, func(s *session) *engine.Survey {
		f := last(s.a)
		x := figures(nil)
		x.Sums = []engine.SumFigure{
			{Channel: f.ID, Loudest: f.Paths[0].ID, Second: f.Paths[1].ID, Part: 0, Sum: -1, Turned: true, Alike: 0.9},
		}
		return x
	}},
}

// Paths that cancel name themselves, and the fix turns one of them round.
func TestCancellingPathsAreNamed(t *testing.T) {
	s := newSession()
	x := forkCases[len(forkCases)-1].loud(s)
	list := Look(&Survey{Doc: s.doc, Figures: x})
	require.Len(t, list, 1)
	assert.Contains(
		t,
		list[0].Says,
		"joins, one and two cancel: together they are 9.0 dB below the louder of them; one is the other upside down",
	)
	changes, err := project.Decode(list[0].Fixes[0].Changes)
	require.NoError(t, err)
	next, _, err := project.Apply(s.doc, changes, engine.EffectInfo)
	require.NoError(t, err)
	assert.True(t, last(next.Channels[0]).Paths[1].Invert)
}
