package server

import (
	"encoding/csv"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// The logbook comes in pages without a hole or a double, is searched by words, shows a gesture once, and goes out whole.
func TestTheLogbookIsPagedSearchedAndExported(t *testing.T) {
	d := newDesktop(t)
	id, track := d.begin()
	rename := func(label, gesture string) {
		name := label
		d.ask("POST", "/api/projects/"+id+"/changes", Batch{Label: label, Gesture: gesture,
			Changes: mustEncode([]project.Change{&project.SetChannel{ID: track.ID, Name: &name}})}, &Revised{})
	}
	for i := range 230 {
		rename(fmt.Sprintf("Name it %d", i), "")
	}
	for i := range 5 {
		rename(fmt.Sprintf("Under a hand %d", i), "g")
	}
	rename("=1+1", "")
	page := func(query string) (p LogPage) {
		d.ask("GET", "/api/projects/"+id+"/logbook"+query, nil, &p)
		return p
	}
	var all []Logged
	for p := page(""); ; p = page(fmt.Sprintf("?before=%d", all[len(all)-1].Revision)) {
		all = append(all, p.Entries...)
		if !p.More {
			break
		}
		require.Len(t, p.Entries, logPage)
	}
	require.Len(t, all, 230+1+1+1, "those, the gesture once, the last, and the import")
	for i := 1; i < len(all); i++ {
		require.Less(t, all[i].Revision, all[i-1].Revision)
	}
	require.Equal(t, "Under a hand 4", all[1].Label)

	require.Len(t, page("?words=hand").Entries, 1)
	require.Len(t, page("?words=ada+it+22").Entries, 12, "22, 122, and 220 to 229")
	require.Empty(t, page("?words=100%25").Entries, "a sign of the database's is a sign like any other")
	d.refused("revision number", "GET", "/api/projects/"+id+"/logbook?before=x", nil)

	code, text := d.ask("GET", "/api/projects/"+id+"/logbook.csv", nil, nil)
	require.Equal(t, http.StatusOK, code)
	rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, len(all)+1)
	require.Equal(t, "'=1+1", rows[1][4])
	require.Equal(t, "Ada", rows[2][2])
}
