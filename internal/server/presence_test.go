package server

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/store"
)

// Many windows at once: each learns who is there, from the list that it got and from what differed since; what is sent grows with
// their number times who is new, not with its cube.
func TestManyWindowsLearnOfEachOtherByDifferences(t *testing.T) {
	h := newHub()
	const windows = 300
	var all []*listener
	for i := range windows {
		l := &listener{
			out: make(chan []byte, 256), presence: Presence{Window: fmt.Sprint(i), Person: store.Person{ID: fmt.Sprint(i), Name: "Ada"}},
		}
		all = append(all, l)
		h.join("p", l)
	}
	h.tell("p", h.rooms["p"])
	for _, l := range all[:100] {
		h.leave("p", l)
	}
	h.move("p", all[200], Whereabouts{At: "row"})
	h.move("p", all[200], Whereabouts{At: "another"})
	h.tell("p", h.rooms["p"])
	bytes := 0
	for _, l := range all[100:] {
		known := map[string]string{}
		for len(l.out) > 0 {
			b := <-l.out
			bytes += len(b)
			var m Message
			require.NoError(t, json.Unmarshal(b, &m))
			for _, p := range append(m.Presence, m.Came...) {
				known[p.Window] = p.At
			}
			for _, w := range m.Left {
				delete(known, w)
			}
		}
		require.Len(t, known, windows-100)
		require.Equal(t, "another", known["200"])
	}
	require.Less(t, bytes/(windows-100), 100*windows, "one list each, and what differed")
	for _, l := range all[100:] {
		h.leave("p", l)
	}
	require.Empty(t, h.rooms)
}
