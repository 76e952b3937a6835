package store

import (
	"fmt"
	"io/fs"
	"testing"

	"github.com/pressly/goose/v3"
	"github.com/stretchr/testify/require"
)

func linesOf(t *testing.T, s *Store) string {
	t.Helper()
	b, _, err := s.Project(t.Context(), "p")
	require.NoError(t, err)
	return string(b)
}

// Lines are kept one by one, and come back in the document in their order, to the last digit.
func TestLinesAreKeptOneByOne(t *testing.T) {
	s, ctx := open(t), t.Context()
	require.NoError(t, s.AddProject(ctx, "p", "Rope", []byte(`{"a":1,"lines":[{"v":0.1000000000000000055},{"v":2}],"z":3}`)))
	require.JSONEq(t, `{"a":1,"lines":[{"v":0.1000000000000000055},{"v":2}],"z":3}`, linesOf(t, s))
	require.Contains(t, linesOf(t, s), "0.1000000000000000055")
	revision := int64(1)
	commit := func(rest string, lines Lines) {
		t.Helper()
		revision++
		require.NoError(t, s.Commit(ctx, "p", "Rope", []byte(rest), lines, Entry{Revision: revision, Kind: "do"}, nil))
	}
	commit(
		`{"a":2}`,
		Lines{Count: 12, Changed: map[int][]byte{
			1: []byte(`{"v":20}`),
			2: []byte(`{"v":3}`),
			3: []byte(`{}`),
			4: []byte(`{}`),
			5: []byte(
				`{}`,
			),
			6:  []byte(`{}`),
			7:  []byte(`{}`),
			8:  []byte(`{}`),
			9:  []byte(`{}`),
			10: []byte(`{"v":10}`),
			11: []byte(`{"v":11}`),
		}},
	)
	require.JSONEq(t, `{"a":2,"lines":[{"v":0.1},{"v":20},{"v":3},{},{},{},{},{},{},{},{"v":10},{"v":11}]}`, linesOf(t, s))
	commit(`{"a":3,"lines":null}`, Lines{Count: 1, Changed: map[int][]byte{0: []byte(`{"v":9}`)}})
	require.JSONEq(t, `{"a":3,"lines":[{"v":9}]}`, linesOf(t, s))
	commit(`{"a":4,"lines":[]}`, Lines{})
	require.JSONEq(t, `{"a":4,"lines":[]}`, linesOf(t, s))
	// what cannot be stored whole is not stored at all
	require.Error(
		t,
		s.Commit(
			ctx,
			"p",
			"Rope",
			[]byte(`{"a":5}`),
			Lines{Count: 1, Changed: map[int][]byte{0: []byte(`{}`)}},
			Entry{Revision: 6, Kind: "wrong"},
			nil,
		),
	)
	require.JSONEq(t, `{"a":4,"lines":[]}`, linesOf(t, s))
}

// A database of before, in which documents are whole, is taken over, and can be given back.
func TestWholeDocumentsAreTakenOver(t *testing.T) {
	s, ctx := open(t), t.Context()
	sub, err := fs.Sub(migrations, "migrations")
	require.NoError(t, err)
	g, err := goose.NewProvider(goose.DialectSQLite3, s.DB, sub)
	require.NoError(t, err)
	_, err = g.DownTo(ctx, 2)
	require.NoError(t, err)
	want := `{"name":"Rope","lines":[{"owner":"b","points":[]},{"owner":"a","points":[{"tick":1,"value":-0.25}]}]}`
	for id, document := range map[string]string{"p": want, "none": `{"name":"Bare","lines":null}`} {
		_, err = s.DB.ExecContext(
			ctx,
			`INSERT INTO projects (id, name, document, revision, created, changed) VALUES (?, 'Rope', ?, 7, '', '')`,
			id,
			document,
		)
		require.NoError(t, err)
	}
	_, err = g.Up(ctx)
	require.NoError(t, err)
	require.JSONEq(t, want, linesOf(t, s))
	b, revision, err := s.Project(ctx, "none")
	require.NoError(t, err)
	require.JSONEq(t, `{"name":"Bare","lines":[]}`, string(b))
	require.EqualValues(t, 7, revision)
	_, err = g.DownTo(ctx, 2)
	require.NoError(t, err)
	var document string
	require.NoError(t, s.DB.QueryRowContext(ctx, `SELECT document FROM projects WHERE id = 'p'`).Scan(&document))
	require.JSONEq(t, want, document)
}

func BenchmarkCommitAmong100000Points(b *testing.B) {
	s, err := Open(b.Context(), b.TempDir())
	require.NoError(b, err)
	defer s.Close()
	line := []byte(`{"points":[`)
	for i := range 500 {
		line = fmt.Appendf(line, `{"tick":%d,"value":%g,"shape":"ramp"},`, i*240, float64(i)/7)
	}
	line = append(line[:len(line)-1], `]}`...)
	all := Lines{Count: 200, Changed: map[int][]byte{}}
	for i := range 200 {
		all.Changed[i] = line
	}
	require.NoError(b, s.AddProject(b.Context(), "p", "Rope", []byte(`{}`)))
	require.NoError(b, s.Commit(b.Context(), "p", "Rope", []byte(`{}`), all, Entry{Revision: 2, Kind: "do"}, nil))
	for i := int64(3); b.Loop(); i++ {
		if err := s.Commit(
			b.Context(),
			"p",
			"Rope",
			[]byte(`{}`),
			Lines{200, map[int][]byte{3: line}},
			Entry{Revision: i, Kind: "do"},
			nil,
		); err != nil {
			b.Fatal(err)
		}
	}
}
