package demo

import (
	"context"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/measure"
	"shoal/internal/printing"
	"shoal/internal/project"
	"shoal/internal/sounding"
)

func TestTheDemoSoundsAsItShould(t *testing.T) {
	dir := t.TempDir()
	folder, err := audiofile.NewFolder(dir)
	require.NoError(t, err)
	p, err := Make(context.Background(), folder, func(float64) {})
	require.NoError(t, err)
	require.NoError(t, p.Validate(engine.EffectInfo))
	require.GreaterOrEqual(t, len(p.Channels), 10)
	require.Greater(t, p.End(), int64(120*rate))

	for _, a := range p.Audio {
		f, err := os.Open(folder.Path(a.Hash))
		require.NoError(t, err)
		src, err := audiofile.Open(f)
		require.NoError(t, err)
		r, err := measure.File(src)
		require.NoError(t, err)
		require.NoError(t, f.Close())
		require.Greater(t, r.Peak, -18.0, a.Name)
		require.Less(t, r.Peak, -6.0, a.Name)
		require.Less(t, r.DC, 0.002, a.Name)
	}

	m := measure.NewMeter(rate, 2)
	begun := time.Now()
	spec := printing.Spec{Channel: p.MainChannel().ID, To: p.End(), Tail: true}
	require.NoError(t, printing.Render(context.Background(), p, folder, spec, m.Write, nil))
	r := m.Report()
	t.Logf(
		"main: %.1f LUFS, range %.1f LU, peak %.2f dBFS, true peak %.2f dBTP, %.0f x realtime",
		r.Integrated,
		r.Range,
		r.Peak,
		r.TruePeak,
		r.Seconds/time.Since(begun).Seconds(),
	)
	require.Greater(t, r.Integrated, -20.0)
	require.Less(t, r.Integrated, -14.0)
	require.Less(t, r.TruePeak, 0.0)

	lib := pages.New(256).AllWorked()
	figures, err := engine.Measure(context.Background(), p, lib, p.End(), printing.Pages(folder, lib), nil)
	require.NoError(t, err)
	var noticed []string
	for _, x := range sounding.Look(&sounding.Survey{Doc: p, Figures: &figures}) {
		noticed = append(noticed, x.Rule)
	}
	require.Equal(t, []string{"not-fully-wet", "space-twice", "side-track-solo", "print-changed"}, noticed,
		"four things to learn from, and no more")

	for _, ch := range p.Channels { // every track is heard, and none is over
		if ch.Kind != project.Track {
			continue
		}
		peak := figures.Ever["post "+ch.ID]
		t.Logf("%s: peak %.1f dB", ch.Name, peak)
		require.Greater(t, peak, -40.0, ch.Name)
		require.Less(t, peak, 0.0, ch.Name)
	}
}
