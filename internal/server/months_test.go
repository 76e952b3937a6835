package server

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
	"shoal/internal/store"
)

// A change of one row in a session of months, from what is asked to what is on disk and told: 200 rows with three stages, five
// sends and five clips each, and 100,000 points.
func BenchmarkChangeInASessionOfMonths(b *testing.B) {
	d := newDesktop(b)
	var ada store.Person
	d.ask("PUT", "/api/me", NewName{"Ada"}, &ada)
	p := months(b)
	bare, err := p.Bare()
	require.NoError(b, err)
	lines, err := changedLines(nil, p.Lines)
	require.NoError(b, err)
	require.NoError(b, d.srv.store.AddProject(b.Context(), p.ID, p.Name, bare))
	require.NoError(b, d.srv.store.Commit(b.Context(), p.ID, p.Name, bare, lines, store.Entry{Revision: 2, Kind: "do"}, nil))
	row := p.Channels[0].ID
	change := func(mute bool) {
		err := d.srv.desk.Change(context.Background(), p.ID, ada.ID, "Mute", func(*project.Project) []project.Change {
			return []project.Change{&project.SetChannel{ID: row, Mute: &mute}}
		})
		if err != nil {
			b.Fatal(err)
		}
	}
	change(false) // opens it
	for i := 0; b.Loop(); i++ {
		change(i%2 == 0)
	}
}

// months is a session that has been worked on for so long.
func months(tb testing.TB) *project.Project {
	p := song(tb, 200, 500)
	hall := project.NewChannel(project.Return, "Hall", p.MainChannel().ID)
	for range 100 {
		p.Channels = append([]*project.Channel{project.NewChannel(project.Track, "Row", p.MainChannel().ID)}, p.Channels...)
	}
	p.Channels = append([]*project.Channel{hall}, p.Channels...)
	p.Audio = append(p.Audio, project.Audio{Hash: strings.Repeat("a", 64), Name: "Tone", Frames: 400_000, Channels: 2})
	for _, c := range p.Channels {
		if c.Kind != project.Track {
			continue
		}
		for _, name := range []string{"equaliser", "compressor", "trim"} {
			c.Chain.Nodes = append(c.Chain.Nodes, &project.Node{Stage: project.NewStage(name, 1, 100, "blend")})
		}
		for range 5 {
			c.Sends = append(c.Sends, &project.Send{ID: project.NewID(), To: hall.ID, Level: -30})
			c.Clips = append(c.Clips, &project.Clip{ID: project.NewID(), Audio: p.Audio[0].Hash, Frames: 400_000})
		}
	}
	return p
}
