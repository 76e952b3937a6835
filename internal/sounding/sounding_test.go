package sounding

import (
	"context"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

const rate = 48000

// session is a document with what is usual: two tracks, a hall, and a send.
type session struct {
	doc        *project.Project
	main       *project.Channel
	a, b, hall *project.Channel
	send       *project.Send
	reverb     *project.Stage
}

func stageOf(effect string, mix float64, law string, params map[string]float64) *project.Stage {
	s := project.NewStage(effect, 1, mix, law)
	if params != nil {
		s.Params = params
	}
	return s
}

func put(c *project.Channel, list ...*project.Stage) {
	for _, s := range list {
		c.Chain.Nodes = append(c.Chain.Nodes, &project.Node{Stage: s})
	}
}

// turn makes it another revision.
func (s *session) turn() {
	next := *s.doc
	s.doc = &next
}

func newSession() *session {
	s := &session{doc: project.New("Test", rate, 120, 4, 4)}
	s.main = s.doc.MainChannel()
	s.a, s.b = project.NewChannel(project.Track, "A", s.main.ID), project.NewChannel(project.Track, "B", s.main.ID)
	s.hall = project.NewChannel(project.Return, "Hall", s.main.ID)
	s.reverb = stageOf("reverb", 100, "blend", nil)
	put(s.hall, s.reverb)
	s.send = &project.Send{ID: project.NewID(), To: s.hall.ID, Level: -12}
	s.a.Sends = []*project.Send{s.send}
	s.doc.Channels = []*project.Channel{s.a, s.b, s.hall, s.main}
	return s
}

// figures are as they would be measured.
func figures(peaks map[string]float64) *engine.Survey {
	return &engine.Survey{Peaks: peaks, Ever: peaks, TruePeak: -6, Seconds: 60}
}

// does is a case in which only the session is changed; figured is one in which only the figures are.
func does(change func(s *session)) func(*session) *engine.Survey {
	return func(s *session) *engine.Survey {
		change(s)
		return nil
	}
}

func figured(change func(f *engine.Survey)) func(*session) *engine.Survey {
	return func(*session) *engine.Survey {
		f := figures(nil)
		change(f)
		return f
	}
}

func rulesOf(list []Sounding) (out []string) {
	for _, x := range list {
		out = append(out, x.Rule)
	}
	return out
}

func TestAnOrdinarySessionIsQuiet(t *testing.T) {
	s := newSession()
	require.NoError(t, s.doc.Validate(engine.EffectInfo))
	assert.Empty(t, Look(&Survey{Doc: s.doc, Figures: figures(nil)}))
}

// ruleCase is a case in which a rule speaks, and one next to it in which it is silent.
type ruleCase struct {
	rule, name string
	loud       func(s *session) *engine.Survey
	quiet      func(s *session) *engine.Survey // the same, and this
}

// Each rule speaks in one case and is silent in the one next to it; its first fix, where it
// has one, makes it silent.
func TestRules(t *testing.T) {
	for _, c := range append(forkCases, []ruleCase{
		{"nothing-returns", "muted", does(func(s *session) { s.hall.Mute = true }), does(func(s *session) { s.send.Mute = true })},
		{"nothing-returns", "down", does(func(s *session) { s.hall.Fader = -90 }), does(func(s *session) { s.a.Fader = -120 })},
		{
			"nothing-returns", "empty", does(func(s *session) { s.hall.Chain.Nodes = []*project.Node{} }),
			does(func(s *session) { s.send.Level = -120 }),
		},
		{
			"nothing-returns", "bypassed", does(func(s *session) { s.hall.Chain.Bypass = true }),
			does(func(s *session) { s.hall.Chain.Bypass = false }),
		},
		{"nothing-returns", "all bypassed", does(func(s *session) { s.reverb.Bypass = true }), func(s *session) *engine.Survey {
			put(s.hall, stageOf("equaliser", 100, "blend", nil))
			return nil
		}},
		{"nothing-returns", "no output", does(func(s *session) { s.hall.Output = "" }), func(s *session) *engine.Survey {
			far := project.NewChannel(project.Return, "Far", s.main.ID)
			put(far, stageOf("delay", 100, "blend", nil))
			s.doc.Channels = append(s.doc.Channels, far)
			s.hall.Sends = []*project.Send{{ID: project.NewID(), To: far.ID}}
			return nil
		}},
		{"feeds-nothing", "track", does(func(s *session) { s.b.Output = "" }), func(s *session) *engine.Survey {
			put(s.a, &project.Stage{
				ID: project.NewID(), Effect: "gate", Version: 1, Params: map[string]float64{}, Mix: 100, MixLaw: "blend", ActsOn: "both",
				Key: &project.Tap{Channel: s.b.ID, Point: "pre"},
			})
			return nil
		}},
		{"feeds-nothing", "group", func(s *session) *engine.Survey {
			s.doc.Channels = append(s.doc.Channels, project.NewChannel(project.Group, "Wood", s.main.ID))
			return nil
		}, does(func(s *session) { s.b.Output = s.doc.Channels[4].ID })},
		{"silent-key", "source muted", func(s *session) *engine.Survey {
			g := stageOf("gate", 100, "blend", nil)
			g.Key = &project.Tap{Channel: s.b.ID, Point: "post"}
			put(s.a, g)
			s.b.Mute = true
			return nil
		}, does(func(s *session) { s.b.Mute = false })},
		{"silent-key", "measured", func(s *session) *engine.Survey {
			g := stageOf("compressor", 100, "blend", nil)
			g.Key = &project.Tap{Channel: s.b.ID, Point: "input"}
			put(s.a, g)
			return figures(map[string]float64{"after " + g.ID: -12, "in " + s.b.ID: -120, "in " + s.a.ID: -12})
		}, func(s *session) *engine.Survey { return figures(map[string]float64{"in " + s.b.ID: -20}) }},
		{"not-fully-wet", "blend", does(func(s *session) { s.reverb.Mix = 50 }), func(s *session) *engine.Survey {
			s.reverb.Bypass = true
			put(s.hall, stageOf("width", 100, "blend", nil))
			return nil
		}},
		{"not-fully-wet", "add", does(func(s *session) { s.reverb.MixLaw = "add" }), func(s *session) *engine.Survey {
			s.hall.Chain.Nodes = append([]*project.Node{{Stage: stageOf("delay", 100, "blend", nil)}}, s.hall.Chain.Nodes...)
			return nil
		}},
		{
			"space-twice", "row and return", does(func(s *session) { put(s.a, stageOf("convolver", 30, "add", nil)) }),
			does(func(s *session) { s.send.Mute = true }),
		},
		{"ghost", "fader down", does(func(s *session) { s.send.Pre, s.a.Fader = true, -60 }), does(func(s *session) { s.a.Fader = -10 })},
		{"ghost", "muted", does(func(s *session) { s.send.After, s.a.Mute = "input", true }), does(func(s *session) { s.a.MutePre = true })},
		{
			"side-track-solo", "", does(func(s *session) { s.b.Input = &project.Tap{Channel: s.a.ID, Point: "pre"} }),
			does(func(s *session) { s.b.SoloSafe = true }),
		},
		{"cancels", "upside down", func(s *session) *engine.Survey {
			f := figures(nil)
			f.Sums = []engine.SumFigure{{Channel: s.main.ID, Loudest: s.a.ID, Second: s.b.ID, Part: 0, Sum: -9, Turned: true, Alike: 0.9}}
			return f
		}, func(s *session) *engine.Survey {
			f := figures(nil)
			f.Sums = []engine.SumFigure{{Channel: s.main.ID, Loudest: s.a.ID, Second: s.b.ID, Part: 0, Sum: -2, Turned: true, Alike: 0.9}}
			return f
		}},
		{"hot-or-cold", "over full scale", func(s *session) *engine.Survey {
			x := stageOf("saturation", 100, "blend", nil)
			put(s.a, x)
			return figures(map[string]float64{"in " + s.a.ID: -6, "after " + x.ID: 2})
		}, func(s *session) *engine.Survey {
			return figures(map[string]float64{"in " + s.a.ID: -6, "after " + s.a.Chain.Nodes[0].ID(): -1})
		}},
		{"hot-or-cold", "12 dB colder", func(s *session) *engine.Survey {
			x := stageOf("filter", 100, "blend", nil)
			put(s.a, x)
			return figures(map[string]float64{"in " + s.a.ID: -6, "after " + x.ID: -20})
		}, func(s *session) *engine.Survey {
			return figures(map[string]float64{"in " + s.a.ID: -9, "after " + s.a.Chain.Nodes[0].ID(): -20})
		}},
		{"over-the-top", "", figured(func(f *engine.Survey) { f.TruePeak = -0.4 }), figured(func(f *engine.Survey) { f.TruePeak = -1.1 })},
		{"print-changed", "in place", func(s *session) *engine.Survey {
			sound := project.Audio{Hash: strings.Repeat("1", 64), Name: "Print", Frames: 480, Channels: 1}
			s.doc.Audio = append(s.doc.Audio, sound)
			made := &project.Made{Clips: []project.Clip{{ID: "was", Name: "Word", Audio: sound.Hash, Frames: 480}}}
			now, _ := s.doc.Remade(s.b.ID, made)
			made.Key = now.Key(engine.EffectInfo)
			s.b.Clips = []*project.Clip{{ID: "c", Name: "Word", Audio: sound.Hash, Frames: 480, Enters: project.EntersBehind, Made: made}}
			put(s.b, stageOf("trim", 100, "blend", map[string]float64{"gain": 3}))
			return nil
		}, does(func(s *session) { s.b.Chain.Nodes = nil; s.turn() })},
		{"print-changed", "a row", func(s *session) *engine.Survey {
			made, _ := s.doc.MakingsOfRow(s.a.ID, 48000)
			s.b.PrintOf = &project.Origin{Print: "p", Channel: s.a.ID, Name: "A", To: 48000, Key: made.Key(engine.EffectInfo)}
			put(s.a, stageOf("trim", 100, "blend", map[string]float64{"gain": 3}))
			return nil
		}, does(func(s *session) { s.a.Chain.Nodes = nil; s.turn() })},
		{"print-changed", "a point", func(s *session) *engine.Survey {
			put(s.a, stageOf("trim", 100, "blend", map[string]float64{"gain": 0}), stageOf("trim", 100, "blend", map[string]float64{"gain": 0}))
			o := project.Origin{Print: "p", Channel: s.a.ID, Name: "A", To: 48000}
			o.Tap = &project.Tap{Channel: s.a.ID, Point: "after", Node: s.a.Chain.Nodes[0].ID()}
			made, _ := o.Makings(s.doc)
			o.Key, s.b.PrintOf = made.Key(engine.EffectInfo), &o
			s.a.Chain.Nodes[0].Stage.Params["gain"] = 3
			return nil
		}, func(s *session) *engine.Survey { // what stands behind the point is not in its print
			s.a.Chain.Nodes[0].Stage.Params["gain"], s.a.Chain.Nodes[1].Stage.Params["gain"] = 0, 3
			s.turn()
			return nil
		}},
		{"print-changed", "what comes back", func(s *session) *engine.Survey {
			hall := project.NewChannel(project.Return, "Hall", s.doc.MainChannel().ID)
			s.doc.Channels = slices.Insert(s.doc.Channels, len(s.doc.Channels)-1, hall)
			s.a.Sends = []*project.Send{{ID: "s", To: hall.ID, Level: -6}}
			o := project.Origin{Print: "p", Channel: s.a.ID, Name: "A", Share: true, To: 48000}
			made, _ := o.Makings(s.doc)
			o.Key, s.b.PrintOf = made.Key(engine.EffectInfo), &o
			put(hall, stageOf("trim", 100, "blend", map[string]float64{"gain": 3}))
			return nil
		}, func(s *session) *engine.Survey {
			s.doc.Channels[len(s.doc.Channels)-2].Chain.Nodes = nil
			s.turn()
			return nil
		}},
		{"near-the-limit", "", figured(func(f *engine.Survey) { f.Load = 0.93 }), figured(func(f *engine.Survey) { f.Load = 0.6 })},
		{"does-nothing", "neutral", func(s *session) *engine.Survey {
			put(s.b, stageOf("trim", 100, "blend", nil), stageOf("equaliser", 100, "blend", nil))
			return nil
		}, does(func(s *session) { s.b.Chain.Nodes[1].Stage.Params["gain4"] = 2 })},
		{"piece-and-row", "compressed twice", func(s *session) *engine.Survey {
			put(s.b, stageOf("compressor", 100, "blend", nil))
			treatment := &project.Treatment{ID: "t", Chain: project.Chain{Nodes: []*project.Node{{Stage: stageOf("compressor", 100, "blend", nil)}}}}
			s.doc.Treatments = []*project.Treatment{treatment}
			sound := project.Audio{Hash: strings.Repeat("0", 64), Name: "Word", Frames: 480, Channels: 1}
			s.doc.Audio = append(s.doc.Audio, sound)
			s.b.Clips = []*project.Clip{{ID: "c", Name: "Word", Treatment: "t", Audio: sound.Hash, Frames: 480}}
			return nil
		}, does(func(s *session) { s.doc.Treatments[0].Chain.Nodes[0].Stage.Bypass = true })},
		{"does-nothing", "bypassed", func(s *session) *engine.Survey {
			put(s.b, stageOf("compressor", 100, "blend", nil))
			s.b.Chain.Bypass = true
			return nil
		}, does(func(s *session) { s.b.Chain.Bypass = false })},
		{"order", "gate behind a delay", func(s *session) *engine.Survey {
			put(s.b, stageOf("delay", 25, "add", nil), stageOf("gate", 100, "blend", nil))
			return nil
		}, func(s *session) *engine.Survey {
			s.b.Chain.Nodes[0], s.b.Chain.Nodes[1] = s.b.Chain.Nodes[1], s.b.Chain.Nodes[0]
			return nil
		}},
		{"order", "compressor behind a reverb", func(s *session) *engine.Survey {
			put(s.b, stageOf("reverb", 25, "add", nil), stageOf("compressor", 100, "blend", nil))
			return nil
		}, func(s *session) *engine.Survey {
			s.b.Chain.Nodes[0].Stage.Mix, s.b.Chain.Nodes[0].Stage.MixLaw = 100, "blend"
			return nil
		}},
		{"low-end-in-space", "", does(func(s *session) { s.reverb.Params["lowcut"] = 20 }), func(s *session) *engine.Survey {
			eq := stageOf("equaliser", 100, "blend", map[string]float64{"on1": 1, "freq1": 150})
			s.hall.Chain.Nodes = append([]*project.Node{{Stage: eq}}, s.hall.Chain.Nodes...)
			return nil
		}},
	}...) {
		t.Run(c.rule+" "+c.name, func(t *testing.T) {
			s := newSession()
			f := c.loud(s)
			require.NoError(t, s.doc.Validate(engine.EffectInfo))
			list := Look(&Survey{Doc: s.doc, Figures: f})
			require.Equal(t, []string{c.rule}, rulesOf(list))
			x := list[0]
			assert.NotEmpty(t, x.Says)
			_, ok := s.doc.Channel(x.Channel)
			assert.True(t, ok, "it stands on a row")
			if len(x.Fixes) > 0 && f == nil {
				changes, err := project.Decode(x.Fixes[0].Changes)
				require.NoError(t, err)
				mended, undo, err := project.Apply(s.doc, changes, engine.EffectInfo)
				require.NoError(t, err, x.Fixes[0].Says)
				assert.NotContains(t, rulesOf(Look(&Survey{Doc: mended})), c.rule, x.Fixes[0].Says)
				back, _, err := project.Apply(mended, undo, engine.EffectInfo)
				require.NoError(t, err)
				assert.Equal(t, s.doc, back)
			}
			meant, _, err := project.Apply(
				s.doc,
				[]project.Change{&project.SetMeant{Rule: x.Rule, At: x.At, By: "Ada", Meant: true}},
				engine.EffectInfo,
			)
			require.NoError(t, err)
			assert.Equal(t, "Ada", Look(&Survey{Doc: meant, Figures: f})[0].Meant)
			f = c.quiet(s)
			require.NoError(t, s.doc.Validate(engine.EffectInfo))
			assert.NotContains(t, rulesOf(Look(&Survey{Doc: s.doc, Figures: f})), c.rule)
		})
	}
}

// The same sound twice, the second time late and upside down, as it is really measured.
func TestCancellationIsMeasured(t *testing.T) {
	s := newSession()
	s.a.Sends = []*project.Send{}
	lib := pages.New(0)
	n := 6 * rate
	page := make([]float32, n)
	x := 0.0
	for i := range page { // a dull noise, so that a few frames late still cancels
		x += 0.05 * (math.Sin(float64(i*i%7919)) - x)
		page[i] = float32(x)
	}
	s.doc.Audio = []project.Audio{{Hash: projecttest.Hash("n"), Name: "n", Frames: int64(n), Channels: 1}}
	lib.Sound(projecttest.Hash("n"), int64(n), 1)
	for i := 0; i*pages.Frames < n; i++ {
		lib.Put(projecttest.Hash("n"), i, pages.Page{page[i*pages.Frames : min(n, (i+1)*pages.Frames)]})
	}
	clip := func(start int64) []*project.Clip {
		return []*project.Clip{{ID: project.NewID(), Name: "n", Audio: projecttest.Hash("n"), Start: start, Frames: int64(n), Exact: true}}
	}
	s.a.Clips, s.b.Clips = clip(0), clip(5)
	put(s.b, stageOf("trim", 100, "blend", map[string]float64{"polarity": 3, "gain": -1}))
	measure := func(doc *project.Project) []Sounding {
		f, err := engine.Measure(context.Background(), doc, lib, int64(n), nil, nil)
		require.NoError(t, err)
		return Look(&Survey{Doc: doc, Figures: &f})
	}
	list := measure(s.doc)
	require.Equal(t, []string{"cancels"}, rulesOf(list))
	assert.Contains(t, list[0].Says, "upside down, and B arrives 0.10 ms later")
	changes, err := project.Decode(list[0].Fixes[0].Changes)
	require.NoError(t, err)
	mended, _, err := project.Apply(s.doc, changes, engine.EffectInfo)
	require.NoError(t, err)
	assert.Empty(t, rulesOf(measure(mended)))
}
