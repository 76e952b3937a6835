package faults

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"path/filepath"
	"strconv"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// session is a project that several hands work on, and what they were told is done.
type session struct {
	t     *testing.T
	who   *person
	id    string
	row   string
	mu    sync.Mutex
	edits map[string]bool // labels
	rows  map[string]bool // that were imported; true: their sound was fetched since
	print map[string]bool // ids
	round int
}

func newSession(t *testing.T, s *server) *session {
	t.Helper()
	x := &session{t: t, who: newPerson(t), edits: map[string]bool{}, rows: map[string]bool{}, print: map[string]bool{}}
	x.who.must(s, "PUT", "/api/me", map[string]string{"name": "Ada"}, nil)
	var made struct{ ID string }
	x.who.must(s, "POST", "/api/projects",
		map[string]any{"name": "Rope", "sampleRate": 48000, "tempo": 100, "beats": 4, "unit": 4, "template": ""}, &made)
	x.id = made.ID
	var in struct{ Row string }
	x.who.must(s, "POST", x.path("/audio?name=first.wav"), noise(t, 1), &in)
	x.row = in.Row
	return x
}

func (x *session) path(p string) string { return "/api/projects/" + x.id + p }

// noise is a WAV file of a fifth of a second that no other number gives.
func noise(t *testing.T, seed uint64) []byte {
	t.Helper()
	r := rand.New(rand.NewPCG(seed, 3))
	name := filepath.Join(t.TempDir(), "x.wav")
	f, err := os.Create(name)
	require.NoError(t, err)
	w, err := audiofile.NewWAV(f, 48000, 1, 24, nil, nil)
	require.NoError(t, err)
	v := make([]float64, 9600)
	for i := range v {
		v[i] = r.Float64() - 0.5
	}
	require.NoError(t, w.Write([][]float64{v}))
	require.NoError(t, w.Close())
	require.NoError(t, f.Close())
	b, err := os.ReadFile(name)
	require.NoError(t, err)
	return b
}

// edit makes one change, and notes it if it was acknowledged.
func (x *session) edit(s *server, hand, n int) (int, error) {
	label := fmt.Sprintf("round %d hand %d change %d", x.round, hand, n)
	wire, err := project.Encode([]project.Change{&project.SetChannel{ID: x.row, Name: &label}})
	if err != nil {
		return 0, err
	}
	code, err := x.who.ask(s, "POST", x.path("/changes"), map[string]any{"label": label, "changes": wire, "gesture": ""}, nil)
	if err == nil && code == http.StatusOK {
		x.mu.Lock()
		x.edits[label] = true
		x.mu.Unlock()
	}
	return code, err
}

func (x *session) bring(s *server, n int, file []byte) (int, error) {
	var in struct{ Row string }
	code, err := x.who.ask(s, "POST", x.path(fmt.Sprintf("/audio?name=n%d.wav", n)), file, &in)
	if err == nil && code == http.StatusOK {
		x.mu.Lock()
		x.rows[in.Row] = false
		x.mu.Unlock()
	}
	return code, err
}

func (x *session) ask(s *server) (int, error) {
	var p struct{ ID string }
	code, err := x.who.ask(s, "POST", x.path("/prints"), printing.Spec{Channel: x.row, To: 9600, Target: "file", Format: "wav24"}, &p)
	if err == nil && code == http.StatusOK {
		x.mu.Lock()
		x.print[p.ID] = true
		x.mu.Unlock()
	}
	return code, err
}

// work lets hands edit, import, print and export until the server has gone, or each has done most things.
func (x *session) work(s *server, most int) {
	x.round++
	files := make([][]byte, 4)
	for i := range files {
		files[i] = noise(x.t, uint64(x.round*100+i))
	}
	var hands sync.WaitGroup
	for hand := range 3 {
		hands.Go(func() {
			for n := range most {
				if _, err := x.edit(s, hand, n); err != nil {
					return
				}
			}
		})
	}
	hands.Go(func() {
		for i, f := range files {
			if _, err := x.bring(s, i, f); err != nil {
				return
			}
			if _, err := x.ask(s); err != nil {
				return
			}
		}
	})
	hands.Go(func() {
		for range 4 {
			if _, err := x.who.ask(s, "GET", x.path("/bundle"), nil, nil); err != nil {
				return
			}
		}
	})
	hands.Wait()
}

// holds looks that everything that was acknowledged is there, and gives how much that is.
func (x *session) holds(s *server) (edits, rows, prints int) {
	x.t.Helper()
	var text []byte
	x.who.must(s, "GET", x.path("/logbook.csv"), nil, &text)
	table, err := csv.NewReader(bytes.NewReader(text)).ReadAll()
	require.NoError(x.t, err)
	there := map[string]bool{}
	last := int64(1 << 62)
	for _, line := range table[1:] {
		there[line[4]] = true
		revision, err := strconv.ParseInt(line[0], 10, 64)
		require.NoError(x.t, err)
		require.Less(x.t, revision, last)
		last = revision
	}
	for label := range x.edits {
		require.True(x.t, there[label], "%s was acknowledged and is not there", label)
	}
	var opened struct{ Project project.Project }
	x.who.must(s, "GET", x.path(""), nil, &opened)
	for row, fetched := range x.rows {
		c, ok := opened.Project.Channel(row)
		require.True(x.t, ok, "the row %s was acknowledged and is not there", row)
		if fetched {
			continue
		}
		x.rows[row] = true
		x.who.must(s, "GET", x.path("/audio/"+c.Clips[0].Audio+"/pcm/0"), nil, nil)
	}
	var list []printing.Status
	x.who.must(s, "GET", x.path("/prints"), nil, &list)
	known := map[string]bool{}
	for _, p := range list {
		known[p.ID] = true
	}
	if len(x.print) < 40 { // the list has the newest
		for id := range x.print {
			require.True(x.t, known[id], "the print %s was acknowledged and is not there", id)
		}
	}
	return len(x.edits), len(x.rows), len(x.print)
}
