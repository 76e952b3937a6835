package main

import (
	"bytes"
	"encoding/json"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/dsp"
	"shoal/internal/measure"
)

// shoal runs the program as a script would and returns what it printed.
func shoal(t *testing.T, args ...string) (string, error) {
	t.Helper()
	var out bytes.Buffer
	c := root()
	c.SetArgs(args)
	c.SetOut(&out)
	err := c.ExecuteContext(t.Context())
	return out.String(), err
}

// tone writes a second of a 1 kHz sine at -12 dBFS.
func tone(t *testing.T, dir string) string {
	name := filepath.Join(dir, "tone.wav")
	f, err := os.Create(name)
	require.NoError(t, err)
	w, err := audiofile.NewWAV(f, 48000, 1, 24, nil, nil)
	require.NoError(t, err)
	x := make([]float64, 48000)
	for i := range x {
		x[i] = 0.25 * math.Sin(2*math.Pi*1000*float64(i)/48000)
	}
	require.NoError(t, w.Write([][]float64{x}))
	require.NoError(t, w.Close())
	require.NoError(t, f.Close())
	return name
}

func TestAChainRunsOverAFile(t *testing.T) {
	dir := t.TempDir()
	in, chain, out := tone(t, dir), filepath.Join(dir, "chain.json"), filepath.Join(dir, "out.wav")
	write := func(body string) { require.NoError(t, os.WriteFile(chain, []byte(body), 0o600)) }
	stage := func(effect, params string) string {
		return `{"bypass":false,"nodes":[{"stage":{"id":"a","name":"","effect":"` + effect + `","version":1,"params":{` + params + `},"bypass":false,"mix":100,"mixLaw":"blend","actsOn":"both"}}]}`
	}
	write(stage("trim", `"gain":-6`))
	_, err := shoal(t, "process", "--chain", chain, in, out)
	require.NoError(t, err)
	said, err := shoal(t, "measure", "--json", out)
	require.NoError(t, err)
	var r measure.Report
	require.NoError(t, json.Unmarshal([]byte(said), &r))
	require.InDelta(t, -18.04, r.Peak, 0.02)
	require.InDelta(t, 1, r.Seconds, 1e-9)

	// written by hand from the list: no ids, no versions, values as people write them
	write(
		`{"nodes":[{"stage":{"effect":"trim","params":{"gain":"-6 dB"}}},{"stage":{"effect":"equaliser","params":{"on3":"on","shape3":"bell","freq3":"2k","gain3":-3}}},
	  {"fork":{"kind":"bands","crossovers":[300],"paths":[{"name":"low"},{"name":"high","chain":{"nodes":[{"stage":{"effect":"reverb","mix":100}}]}}]}}]}`,
	)
	_, err = shoal(t, "process", "--chain", chain, in, out)
	require.NoError(t, err)
	list, err := shoal(t, "effects")
	require.NoError(t, err)
	require.Contains(t, list, "bell")
	// whole-sound steps: an octave down, and one and a half times as long
	write(`{"nodes":[{"stage":{"effect":"pitch","params":{"semitones":-12}}},{"stage":{"effect":"length","params":{"percent":150}}}]}`)
	_, err = shoal(t, "process", "--chain", chain, in, out)
	require.NoError(t, err)
	said, err = shoal(t, "measure", "--json", out)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal([]byte(said), &r))
	require.InDelta(t, 1.5, r.Seconds, 1e-9)
	require.InDelta(t, -12.04, r.Peak, 0.5)
	write(stage("trim", `"gain":"loud"`))
	_, err = shoal(t, "process", "--chain", chain, in, out)
	require.ErrorContains(t, err, `"loud" is no value`)

	require.NoError(t, os.Remove(out))
	for want, body := range map[string]string{
		`no effect "lantern"`:         stage("lantern", ""),
		"is outside":                  stage("trim", `"gain":400`),
		`has no parameter "sparkle"`:  stage("trim", `"sparkle":1`),
		"must be either a stage or a": `{"bypass":false,"nodes":[{}]}`,
		"read chain":                  `{"nodes":`,
	} {
		write(body)
		_, err := shoal(t, "process", "--chain", chain, in, out)
		require.ErrorContains(t, err, want)
		require.ErrorContains(t, err, "chain.json")
		require.NoFileExists(t, out)
	}
}

// The forked chain that docs/audio.md shows can be run as it stands there, and a fork that
// cannot be is refused with what is wrong with it.
func TestTheForkedChainOfTheDocumentRuns(t *testing.T) {
	doc, err := os.ReadFile("../../docs/audio.md")
	require.NoError(t, err)
	_, rest, ok := strings.Cut(string(doc), "```json\n")
	require.True(t, ok)
	body, _, _ := strings.Cut(rest, "```")
	dir := t.TempDir()
	in, chain, out := tone(t, dir), filepath.Join(dir, "chain.json"), filepath.Join(dir, "out.wav")
	require.NoError(t, os.WriteFile(chain, []byte(body), 0o600))
	_, err = shoal(t, "process", "--chain", chain, in, out)
	require.NoError(t, err)
	said, err := shoal(t, "measure", "--json", out)
	require.NoError(t, err)
	var r measure.Report
	require.NoError(t, json.Unmarshal([]byte(said), &r))
	require.InDelta(t, -12, r.Peak, 4, "the tone lies among the driven mids")

	for want, change := range map[string][2]string{
		"closer than a third of an octave":         {"[180, 3500]", "[180, 200]"},
		"parted by 2 crossovers":                   {"[180, 3500]", "[180]"},
		"a slope of 12 dB":                         {`"slope": 24`, `"slope": 12`},
		"unknown kind":                             {`"kind": "bands"`, `"kind": "braid"`},
		"Path width 400 is outside 0 to 200":       {`"width": 140`, `"width": 400`},
		"only a fork of bands has crossovers":      {`"kind": "bands"`, `"kind": "copies"`},
		"a fork of midside has at most 2 paths":    {`"kind": "bands"`, `"kind": "midside"`},
		`unknown field "strands"`:                  {`"paths"`, `"strands"`},
		"Crossover 1 10 is outside 30 to 18000 Hz": {"[180, 3500]", "[10, 3500]"},
	} {
		require.NoError(t, os.WriteFile(chain, []byte(strings.Replace(body, change[0], change[1], 1)), 0o600))
		_, err := shoal(t, "process", "--chain", chain, in, out)
		require.ErrorContains(t, err, want)
	}
}

func TestEveryEffectIsDescribedAsJSON(t *testing.T) {
	said, err := shoal(t, "effects", "--json")
	require.NoError(t, err)
	var list []struct {
		ID     string `json:"id"`
		Params []struct {
			Says     string  `json:"says"`
			Min, Max float64 `json:"-"`
		} `json:"params"`
	}
	require.NoError(t, json.Unmarshal([]byte(said), &list))
	require.GreaterOrEqual(t, len(list), 6)
	for _, e := range list {
		for _, p := range e.Params {
			require.NotEmpty(t, p.Says, e.ID)
		}
	}
}

func TestWhatCannotBeReadIsNamed(t *testing.T) {
	_, err := shoal(t, "measure", filepath.Join(t.TempDir(), "none.wav"))
	require.ErrorContains(t, err, "none.wav")
	_, err = shoal(t, "print", tone(t, t.TempDir()))
	require.ErrorContains(t, err, "not a readable zip")
}

// A file that a chain only passes is read once, in pages: long ones, and those that end in the middle of a page.
func TestAFilePassesAChainAsItIsRead(t *testing.T) {
	dir := t.TempDir()
	in, chain, out := filepath.Join(dir, "long.wav"), filepath.Join(dir, "chain.json"), filepath.Join(dir, "out.wav")
	require.NoError(t, os.WriteFile(chain, []byte(`{"nodes":[]}`), 0o600))
	f, err := os.Create(in)
	require.NoError(t, err)
	w, err := audiofile.NewWAV(f, 44100, 2, 32, nil, nil)
	require.NoError(t, err)
	sides := [][]float64{make([]float64, 100001), make([]float64, 100001)}
	for i := range sides[0] {
		sides[0][i], sides[1][i] = float64(float32(dsp.White(3, int64(i)))), float64(float32(dsp.White(4, int64(i))))
	}
	require.NoError(t, w.Write(sides))
	require.NoError(t, w.Close())
	require.NoError(t, f.Close())
	_, err = shoal(t, "process", "--chain", chain, in, out)
	require.NoError(t, err)
	f, err = os.Open(out)
	require.NoError(t, err)
	defer f.Close()
	src, err := audiofile.Open(f)
	require.NoError(t, err)
	require.Equal(t, int64(100001), src.Format().Frames)
	got := [][]float64{make([]float64, 100001), make([]float64, 100001)}
	n, err := src.Read(got)
	require.NoError(t, err)
	require.Equal(t, 100001, n)
	require.Equal(t, sides, got)
}
