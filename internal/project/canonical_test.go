package project

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"flag"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
)

var update = flag.Bool("update", false, "write testdata/canonical.json anew")

// strange is a document with what is hard to write in one way only.
func strange(t *testing.T) *Project {
	p := sample(t)
	p.ID, p.Name = "strange", "Ebb & <flow> \"\\ \u2028 🐚 é é"
	for i, c := range p.Channels {
		c.ID = []string{"a", "b", "hall", "main"}[i]
		c.Output = []string{"main", "main", "main", ""}[i]
	}
	p.Channels[1].Chain.Nodes[0].Stage.Key.Channel = "a"
	p.Channels[0].Fader, p.Channels[1].Fader = 1e-7, -0.1+0.3
	p.Lines = []*Line{
		{"a", "fader", []Point{{Tick: 1 << 40, Value: -1.0 / 3, Shape: Ramp}, {Tick: 1<<40 + 1, Value: 1e-9, Shape: "curve", Bend: 0.25}}},
		{"b", "pan", []Point{}},
	}
	return p
}

// fixed gives everything with a random id one that follows from its place.
func fixed(t *testing.T, p *Project) *Project {
	b, err := json.Marshal(p)
	require.NoError(t, err)
	for _, c := range p.Channels {
		ids := []string{}
		for _, s := range c.Sends {
			ids = append(ids, s.ID, s.To)
		}
		for _, x := range c.Clips {
			ids = append(ids, x.ID)
		}
		c.Walk(func(_ *Chain, _ int, n *Node) bool {
			ids = append(ids, n.ID())
			if n.Fork != nil {
				for _, path := range n.Fork.Paths {
					ids = append(ids, path.ID)
				}
			}
			return true
		})
		for i, id := range ids {
			if len(id) == 10 {
				b = bytes.ReplaceAll(b, []byte(id), []byte(c.ID+"-"+string(rune('a'+i))))
			}
		}
	}
	for i, s := range p.Sections {
		b = bytes.ReplaceAll(b, []byte(s.ID), []byte("section"+string(rune('a'+i))))
	}
	var out Project
	require.NoError(t, json.Unmarshal(b, &out))
	return &out
}

func wholeHash(t *testing.T, p *Project) string {
	written, err := p.Write(nil, nil)
	require.NoError(t, err)
	sums, err := p.LineSums()
	require.NoError(t, err)
	return written.Hash(sums)
}

// The file is read by the front end's tests too: both must come to the same hash.
func TestTheHashIsThatOfTheCanonicalForm(t *testing.T) {
	const name = "testdata/canonical.json"
	type held struct {
		Document json.RawMessage `json:"document"`
		Hash     string          `json:"hash"`
	}
	if *update {
		p := fixed(t, strange(t))
		hash := wholeHash(t, p)
		doc, err := json.Marshal(p)
		require.NoError(t, err)
		b, err := json.MarshalIndent(held{doc, hash}, "", " ")
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(name, append(b, '\n'), 0o600))
	}
	b, err := os.ReadFile(name)
	require.NoError(t, err)
	var want held
	require.NoError(t, json.Unmarshal(b, &want))
	var p Project
	require.NoError(t, json.Unmarshal(want.Document, &p))
	require.Equal(t, want.Hash, wholeHash(t, &p))
	// the same by hand: names in order, each part by itself
	h := sha256.New()
	bare := map[string]any{}
	require.NoError(t, json.Unmarshal(want.Document, &bare))
	rows, lines := bare["channels"].([]any), bare["lines"].([]any)
	bare["channels"], bare["lines"] = nil, nil
	for _, part := range slices.Concat([]any{bare}, rows, lines) {
		s := sha256.Sum256(inOrder(t, part))
		h.Write(s[:])
	}
	require.Equal(t, want.Hash, hex.EncodeToString(h.Sum(nil)))
}

// inOrder writes maps with their names in order, as the standard library does, without the escapes it adds.
func inOrder(t *testing.T, v any) []byte {
	var b bytes.Buffer
	e := json.NewEncoder(&b)
	e.SetEscapeHTML(false)
	require.NoError(t, e.Encode(v))
	return bytes.ReplaceAll(bytes.TrimSuffix(b.Bytes(), []byte("\n")), []byte(`\u2028`), []byte("\u2028"))
}

func TestTheHashChangesWithAnythingInTheDocument(t *testing.T) {
	seen := map[string]bool{}
	for _, change := range []func(p *Project){
		func(*Project) {}, func(p *Project) { p.Name += "." }, func(p *Project) { p.Lines[0].Points[0].Value += 1e-12 },
		func(p *Project) { p.Lines[0], p.Lines[1] = p.Lines[1], p.Lines[0] }, func(p *Project) { p.Lines = p.Lines[:1] },
		func(p *Project) { p.Channels[0], p.Channels[1] = p.Channels[1], p.Channels[0] },
		func(p *Project) { p.Channels[0].Chain.Nodes[0].Stage.Params["gain"] = -2 },
	} {
		p := fixed(t, strange(t))
		change(p)
		h := wholeHash(t, p)
		require.False(t, seen[h])
		seen[h] = true
	}
}
