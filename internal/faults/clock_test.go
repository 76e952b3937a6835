package faults

import (
	"database/sql"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/printing"
)

// dated writes another year into every time that a database holds, as if the clock had stood there when all of it was done.
func dated(t *testing.T, data, year string) {
	t.Helper()
	db, err := sql.Open("sqlite", filepath.Join(data, "shoal.db"))
	require.NoError(t, err)
	defer db.Close()
	rows, err := db.Query(`SELECT m.name, c.name FROM sqlite_master m, pragma_table_info(m.name) c
		WHERE m.type = 'table' AND (c.name IN ('created', 'changed', 'time', 'binned', 'tstamp') OR c.name LIKE '%\_at' ESCAPE '\')`)
	require.NoError(t, err)
	var places [][2]string
	for rows.Next() {
		var p [2]string
		require.NoError(t, rows.Scan(&p[0], &p[1]))
		places = append(places, p)
	}
	require.NoError(t, rows.Err())
	require.Greater(t, len(places), 10)
	for _, p := range places {
		_, err := db.Exec(fmt.Sprintf(`UPDATE %s SET %s = '%s' || substr(%s, 5) WHERE %s LIKE '20__-%%'`, p[0], p[1], year, p[1], p[1]))
		require.NoError(t, err, "%v", p)
	}
	then, err := time.Parse("2006", year)
	require.NoError(t, err)
	require.NoError(t, filepath.WalkDir(data, func(path string, _ os.DirEntry, err error) error {
		if err != nil {
			return err
		}
		return os.Chtimes(path, then, then)
	}))
}

// A clock that was wrong for years and is set right: nothing is lost, what waits is done, and what comes last stands last, whichever
// year stands beside it.
func TestAClockThatJumpsLosesNothing(t *testing.T) {
	for _, year := range []string{"2071", "2001"} {
		t.Run("it stood in "+year, func(t *testing.T) {
			data := t.TempDir()
			s, err := serve(t, data)
			require.NoError(t, err)
			x := newSession(t, s)
			x.work(s, 20)
			for range 3 { // some of them still wait when it is killed
				_, err := x.ask(s)
				require.NoError(t, err)
			}
			s.kill()
			dated(t, data, year)
			s, err = serve(t, data)
			require.NoError(t, err)
			x.holds(s)
			_, err = x.edit(s, 7, 1)
			require.NoError(t, err)
			var last struct{ Label string }
			x.who.must(s, "POST", x.path("/undo"), map[string]any{}, &last)
			require.Equal(t, fmt.Sprintf("round %d hand 7 change 1", x.round), last.Label, "undo takes back what was done last")
			before := map[string]bool{}
			for id := range x.print {
				before[id] = true
			}
			code, err := x.ask(s)
			require.NoError(t, err)
			require.Equal(t, http.StatusOK, code)
			require.Eventually(t, func() bool { return x.printed(s) }, 2*time.Minute, 100*time.Millisecond, "every print comes to an end")
			var list []printing.Status
			x.who.must(s, "GET", x.path("/prints"), nil, &list)
			require.Equal(t, len(x.print), len(list))
			newest := slices.IndexFunc(list, func(p printing.Status) bool { return !before[p.ID] })
			require.Zero(t, newest, "the newest print stands first")
			x.holds(s)
			well(t, data)
		})
	}
}
