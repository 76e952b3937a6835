package main

import (
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/bundle"
	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/sounding"
)

// packed writes a project as a bundle.
func packed(t *testing.T, p *project.Project) string {
	require.NoError(t, p.Validate(engine.EffectInfo))
	folder, err := audiofile.NewFolder(t.TempDir())
	require.NoError(t, err)
	name := filepath.Join(t.TempDir(), "p.zip")
	f, err := os.Create(name)
	require.NoError(t, err)
	require.NoError(t, bundle.Write(t.Context(), f, p, folder))
	require.NoError(t, f.Close())
	return name
}

func TestCheckAnswersWithItsExitCode(t *testing.T) {
	p := project.New("P", 48000, 120, 4, 4)
	hall := project.NewChannel(project.Return, "Hall", p.MainChannel().ID)
	a := project.NewChannel(project.Track, "A", p.MainChannel().ID)
	a.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID}}
	reverb := project.NewStage("reverb", 1, 100, "blend")
	hall.Chain.Nodes = []*project.Node{{Stage: reverb}}
	p.Channels = append([]*project.Channel{a, hall}, p.Channels...)
	run := func() (string, int) {
		said, err := shoal(t, "check", packed(t, p))
		code := exit(0)
		if err != nil {
			require.ErrorAs(t, err, &code)
		}
		return said, int(code)
	}
	said, code := run()
	assert.Equal(t, "Nothing was noticed.\n", said)
	assert.Zero(t, code)

	reverb.Mix = 40
	said, code = run()
	assert.Contains(t, said, "heard twice")
	assert.Contains(t, said, "fix: Set it to 100 % wet")
	assert.Equal(t, 1, code)

	hall.Mute = true
	_, code = run()
	assert.Equal(t, 2, code)
	out, err := shoal(t, "check", "--json", packed(t, p))
	require.Error(t, err)
	var list []sounding.Sounding
	require.NoError(t, json.Unmarshal([]byte(out), &list))
	assert.Equal(t, "nothing-returns", list[0].Rule)

	p.Meant = []project.Meant{{Rule: "nothing-returns", At: hall.ID, By: "Ada"}, {Rule: "not-fully-wet", At: reverb.ID, By: "Ada"}}
	said, code = run()
	assert.Contains(t, said, "Ada says that it is meant.")
	assert.Zero(t, code, "what is meant is no reason to fail")

	_, err = shoal(t, "check", filepath.Join(t.TempDir(), "none.zip"))
	code2 := exit(0)
	require.ErrorAs(t, err, &code2)
	assert.Equal(t, 3, int(code2), "a failure is no answer")
}
