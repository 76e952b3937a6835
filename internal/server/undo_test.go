package server

import (
	"math/rand/v2"
	"net/http"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// Where somebody removed what an older change of mine was about, undo says so once, and goes on to the one before.
func TestUndoPassesOverWhatIsGone(t *testing.T) {
	ada := newDesktop(t)
	id, track := ada.begin()
	odile := newDesktopPerson(t, ada, "Odile")
	ada.change(id, &project.SetParam{Owner: track.ID, Name: "fader", Value: -7})
	stage := &project.Node{Stage: project.NewStage("trim", 1, 100, "blend")}
	odile.change(id, &project.AddNode{Owner: track.ID, Node: stage})
	ada.change(id, &project.SetParam{Owner: stage.ID(), Name: "gain", Value: -3})
	odile.change(id, &project.RemoveNode{ID: stage.ID()})

	var r Revised
	ada.ask("POST", "/api/projects/"+id+"/undo", nil, &r)
	require.Len(t, r.Passed, 1)
	require.Contains(t, r.Passed[0], "is passed over")
	require.Zero(t, ada.open(id).Channels[0].Fader, "the one before is undone")
	r = Revised{}
	ada.ask("POST", "/api/projects/"+id+"/undo", nil, &r)
	require.Empty(t, r.Passed, "it is said once")
	ada.refused("nothing of yours to undo", "POST", "/api/projects/"+id+"/undo", nil)
}

// What somebody else has set since is theirs: an older change of mine does not come back over it.
func TestUndoNeverTakesBackWhatAnotherHasSetSince(t *testing.T) {
	ada := newDesktop(t)
	id, track := ada.begin()
	odile := newDesktopPerson(t, ada, "Odile")
	ada.change(id, &project.SetParam{Owner: track.ID, Name: "pan", Value: 0.5})
	ada.change(id, &project.SetParam{Owner: track.ID, Name: "fader", Value: -3})
	odile.change(id, &project.SetParam{Owner: track.ID, Name: "fader", Value: -6})
	var r Revised
	ada.ask("POST", "/api/projects/"+id+"/undo", nil, &r)
	require.Regexp(t, "Odile has built on it since|has been changed again since", r.Passed[0])
	ch := ada.open(id).Channels[0]
	require.InDelta(t, -6, ch.Fader, 0)
	require.Zero(t, ch.Pan)
	// Odile's own goes back, to what she found
	odile.ask("POST", "/api/projects/"+id+"/undo", nil, &r)
	require.InDelta(t, -3, ada.open(id).Channels[0].Fader, 0)
	// a row that another has worked on stays
	row := project.NewChannel(project.Track, "Rope", ch.Output)
	ada.change(id, &project.AddChannel{Channel: row})
	odile.change(id, &project.AddNode{Owner: row.ID, Node: &project.Node{Stage: project.NewStage("trim", 1, 100, "blend")}})
	code, text := ada.ask("POST", "/api/projects/"+id+"/undo", nil, nil)
	require.Equal(t, http.StatusOK, code, "the import before it is undone: %s", text)
	_, there := ada.open(id).Channel(row.ID)
	require.True(t, there)
}

// However the changes of three people interleave, pressing undo often enough comes to an end, and no press changes what
// somebody else set last.
func TestUndoEndsAndLeavesOthersAlone(t *testing.T) {
	for seed := range uint64(4) {
		r := rand.New(rand.NewPCG(seed, 3))
		ada := newDesktop(t)
		id, _ := ada.begin()
		people := []*desktop{ada, newDesktopPerson(t, ada, "Odile"), newDesktopPerson(t, ada, "Ben")}
		main := ada.open(id).MainChannel().ID
		for _, name := range []string{"one", "two"} {
			ada.change(id, &project.AddChannel{Channel: project.NewChannel(project.Track, name, main)})
		}
		// who set each fader, the last one at the end; those who took theirs back are no longer among them
		setters := map[string][]int{}
		undo := func(who int) bool {
			before := faders(ada.open(id))
			code, _ := people[who].ask("POST", "/api/projects/"+id+"/undo", nil, nil)
			after := faders(ada.open(id))
			for row, v := range before {
				now, there := after[row]
				list := setters[row]
				if !there {
					require.Zero(t, others(list, who), "seed %d: a row went that others had set", seed)
					continue
				}
				if now == v {
					continue
				}
				require.NotEmpty(t, list, "seed %d", seed)
				require.Equal(t, who, list[len(list)-1], "seed %d: the fader of %s was another's", seed, row)
				setters[row] = list[:len(list)-1]
			}
			return code == http.StatusOK
		}
		for range 60 {
			who, p := r.IntN(3), ada.open(id)
			row := p.Channels[r.IntN(len(p.Channels))]
			switch r.IntN(6) {
			case 0:
				people[who].change(id, &project.AddChannel{Channel: project.NewChannel(project.Track, "more", main)})
			case 1:
				if row.Kind == project.Track && len(p.Channels) > 3 {
					people[who].change(id, &project.RemoveChannel{ID: row.ID})
				}
			case 2:
				undo(who)
			default:
				people[who].change(id, &project.SetParam{Owner: row.ID, Name: "fader", Value: -r.Float64() * 50})
				setters[row.ID] = append(setters[row.ID], who)
			}
		}
		for who := range people {
			presses := 0
			for undo(who) {
				presses++
				require.Less(t, presses, 100, "undo comes to an end")
			}
		}
	}
}

func others(list []int, who int) int {
	return len(slices.DeleteFunc(slices.Clone(list), func(x int) bool { return x == who }))
}

func faders(p *project.Project) map[string]float64 {
	m := map[string]float64{}
	for _, c := range p.Channels {
		m[c.ID] = c.Fader
	}
	return m
}
