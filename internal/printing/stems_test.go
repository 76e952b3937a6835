package printing

import (
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/audiofile"
	"shoal/internal/measure"
	"shoal/internal/project"
)

// pair is a song of two rows and a return, the second row from half a second on.
func pair(t *testing.T) (*project.Project, *audiofile.Folder) {
	p, horn, folder := song(t)
	bell := project.NewChannel(project.Track, "Bell/buoy", p.MainChannel().ID)
	again := *horn.Clips[0]
	again.ID, again.Start = project.NewID(), 24000
	bell.Clips, bell.Pan, bell.Fader = []*project.Clip{&again}, -0.6, -9
	hall := project.NewChannel(project.Return, "Hall", p.MainChannel().ID)
	hall.Chain.Nodes = []*project.Node{stage("delay", map[string]float64{"sync": 1, "time": 100, "feedback": 20})}
	horn.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -6}}
	p.Channels = append([]*project.Channel{horn, bell, hall}, p.MainChannel())
	return p, folder
}

func stemSpec(p *project.Project, kind string, s Stems) Spec {
	for _, ch := range p.Channels {
		if ch.Output == p.MainChannel().ID {
			s.Rows = append(s.Rows, Stem{ch.ID, kind})
		}
	}
	return Spec{Channel: p.MainChannel().ID, To: 96000, Target: "stems", Format: "wav32f", Stems: &s}
}

func read(t *testing.T, path string) (audiofile.Format, [][]float64) {
	t.Helper()
	f, err := os.Open(path)
	require.NoError(t, err)
	defer f.Close()
	src, err := audiofile.Open(f)
	require.NoError(t, err)
	out := [][]float64{nil, nil}
	block := [][]float64{make([]float64, 1000), make([]float64, 1000)}
	for {
		n, err := src.Read(block)
		if err != nil {
			return src.Format(), out
		}
		out[0], out[1] = append(out[0], block[0][:n]...), append(out[1], block[1][:n]...)
	}
}

func TestTheFilesOfStemsSumToTheMix(t *testing.T) {
	p, folder := pair(t)
	dir := t.TempDir()
	spec := stemSpec(p, StemHeard, Stems{})
	files, err := RenderStems(t.Context(), p, folder, spec, Printer{"Ines", 7}, dir, nil)
	require.NoError(t, err)
	require.Len(t, files, 3)
	require.Equal(t, "Rope 02 Bell-buoy.wav", files[1].Name)
	mix := render(t, p, folder, Spec{Channel: p.MainChannel().ID, To: 96000})
	for _, f := range files {
		require.Equal(t, int64(96000), f.Frames, "they line up")
		_, x := read(t, filepath.Join(dir, f.Name))
		for i, v := range x[0] {
			mix[i] -= v
		}
		require.Contains(t, f.Lineage.Words(), "revision 7")
	}
	require.Less(t, loudest(mix), 1e-6, "below -120 dBFS; main has no stages and its fader stands at 0")
}

func TestAStemIsCutAtItsFirstSound(t *testing.T) {
	p, folder := pair(t)
	dir := t.TempDir()
	spec := stemSpec(p, StemChain, Stems{Trim: true, Pattern: "{n} {row}, {kind}"})
	spec.From = 4800
	files, err := RenderStems(t.Context(), p, folder, spec, Printer{}, dir, nil)
	require.NoError(t, err)
	bell := files[1]
	require.Equal(t, "02 Bell-buoy, after its chain.wav", bell.Name)
	require.InDelta(t, 24000, bell.Reference, 3, "a sine's first sample is 0")
	require.Equal(t, int64(96000)-bell.Reference, bell.Frames)
	_, x := read(t, filepath.Join(dir, bell.Name))
	require.Len(t, x[0], int(bell.Frames))
	require.Greater(t, math.Abs(x[0][0]), 0.0)

	p.Channels[1].Clips = nil
	files, err = RenderStems(t.Context(), p, folder, spec, Printer{}, t.TempDir(), nil)
	require.NoError(t, err)
	require.Empty(t, files[1].Name)
	require.Contains(t, files[1].Says, "nothing sounds")
}

// A mix is brought to a loudness by one gain, as far as the ceiling lets it, and the sheet says what was done.
func TestAMixIsBroughtToALoudness(t *testing.T) {
	p, folder := pair(t)
	main := p.MainChannel().ID
	made := func(l MixLevel) (SheetFile, measure.Report) {
		dir := t.TempDir()
		spec := Spec{Channel: main, To: 96000, Target: "stems", Format: "wav24",
			Stems: &Stems{Rows: []Stem{{main, StemHeard}}, Level: &l}}
		files, err := RenderStems(t.Context(), p, folder, spec, Printer{}, dir, nil)
		require.NoError(t, err)
		f, err := os.Open(filepath.Join(dir, files[0].Name))
		require.NoError(t, err)
		defer f.Close()
		src, err := audiofile.Open(f)
		require.NoError(t, err)
		r, err := measure.File(src)
		require.NoError(t, err)
		left, err := os.ReadDir(dir)
		require.NoError(t, err)
		require.Len(t, left, 1, "what was kept meanwhile is gone")
		return files[0], r
	}
	f, r := made(MixLevel{-16, -1})
	require.InDelta(t, -16, r.Integrated, 0.05)
	require.InDelta(t, r.Integrated, f.Levels.Integrated, 0.05)
	require.Contains(t, f.Says, "brought to -16.0 LUFS")
	f, r = made(MixLevel{-2, -6})
	require.InDelta(t, -6, r.TruePeak, 0.05)
	require.Less(t, r.Integrated, -3.0)
	require.Contains(t, f.Says, "does not let it")
}

func TestStemsThatCannotBeMadeSayWhy(t *testing.T) {
	p, _ := pair(t)
	check := func(says string, change func(s *Spec)) {
		t.Helper()
		s := stemSpec(p, StemHeard, Stems{})
		change(&s)
		require.ErrorContains(t, s.Check(p), says)
	}
	check("would both be called", func(s *Spec) { s.Stems.Pattern = "{project}" })
	check("choose the rows", func(s *Spec) { s.Stems.Rows = nil })
	check("no longer there", func(s *Spec) { s.Stems.Rows[0].Channel = "gone" })
	check("no kind of stem", func(s *Spec) { s.Stems.Rows[0].Kind = "loud" })
	check("unknown format", func(s *Spec) { s.Format = "ogg" })
	check("range to print is empty", func(s *Spec) { s.To = 0 })
	check("a ceiling of", func(s *Spec) { s.Stems.Level = &MixLevel{-14, 3} })
	check("a loudness of", func(s *Spec) { s.Stems.Level = &MixLevel{-90, -1} })
	p.Channels[0].Name, p.Channels[1].Name = "Bell:1", "bell?1"
	check("would both be called", func(s *Spec) { s.Stems.Pattern = "{row}" })
}

func TestNamesThatFileSystemsRefuse(t *testing.T) {
	for name, want := range map[string]string{
		`a/b\c:d*e?f"g<h>i|j`: "a-b-c-d-e-f-g-h-i-j", "  .. ": "unnamed", "con": "con_", "COM1.x": "COM1.x_", "tide.": "tide",
		"line\nbreak\x00": "linebreak", "Ebbe und Flut äöü": "Ebbe und Flut äöü", ".hidden": "hidden",
		strings.Repeat("å", 300): strings.Repeat("å", longestName),
	} {
		require.Equal(t, want, FileName(name))
	}
}

// What is to be known is said before: whether the files sum to the mix, and what they lack.
func TestAPlanSaysWhatStemsComeTo(t *testing.T) {
	p, folder := pair(t)
	st, _, _, _ := desk(t)
	w := works(t, st, folder, &oneDesk{doc: p})
	spec := stemSpec(p, StemHeard, Stems{})
	plan := w.PlanStems(p, spec)
	require.Len(t, plan.Files, 3)
	require.Equal(t, int64(3*96000*8), plan.Bytes)
	require.Contains(t, plan.Says[0], "sum to what comes into")
	both := stemSpec(p, StemHeard, Stems{Pattern: "{row}", Rows: []Stem{{p.Channels[0].ID, StemChain}}})
	require.Equal(t, "Horn after its chain.wav", w.PlanStems(p, both).Files[0].Name)
	require.Equal(t, "Horn as heard.wav", w.PlanStems(p, both).Files[1].Name)
	spec.Stems.Rows = spec.Stems.Rows[:2]
	require.Contains(t, w.PlanStems(p, spec).Says[0], "Hall also feed")
	spec.Stems.Pattern = "x"
	require.Contains(t, w.PlanStems(p, spec).Wrong, "would both be called")
	spec.To = 48000 * 3600 * 4
	spec.Stems.Pattern = ""
	if plan := w.PlanStems(p, spec); plan.Free >= 0 && plan.Free < plan.Bytes {
		require.Contains(t, plan.Wrong, "the disk has room for")
	}
}

// Stems are made by the queue, and are there whole, with a sheet, or not at all.
func TestStemsAreThereWholeOrNotAtAll(t *testing.T) {
	p, folder := pair(t)
	st, _, _, _ := desk(t)
	d := &oneDesk{doc: p}
	w := works(t, st, folder, d)
	left := filepath.Join(w.exports, "killed.partial")
	require.NoError(t, os.MkdirAll(left, 0o755))
	require.NoError(t, clearPartial(w.exports))
	require.NoDirExists(t, left)

	long := stemSpec(p, StemHeard, Stems{})
	long.To = 48000 * 3000
	cancelled, err := w.Add(t.Context(), "p", "ada", long)
	require.NoError(t, err)
	require.NoError(t, w.Start(t.Context()))
	require.Eventually(t, func() bool { return stateOf(t, w, cancelled.ID).Progress > 0 }, 30*time.Second, 5*time.Millisecond)
	require.NoError(t, w.Cancel(t.Context(), cancelled.ID))

	s, err := w.Add(t.Context(), "p", "ada", stemSpec(p, StemHeard, Stems{}))
	require.NoError(t, err)
	got := ends(t, w, s.ID)
	require.Equal(t, "done", got.State, got.Error)
	require.Equal(t, "Rope - stems", got.Name)
	require.Equal(t, []string{"Rope 01 Horn.wav", "Rope 02 Bell-buoy.wav", "Rope 03 Hall.wav", "sheet.json", "sheet.md"}, got.Files)
	dir, name, err := w.File(t.Context(), s.ID)
	require.NoError(t, err)
	require.Equal(t, "Rope - stems.zip", name)
	b, err := os.ReadFile(filepath.Join(dir, "sheet.md"))
	require.NoError(t, err)
	require.Contains(t, string(b), "| Rope 02 Bell-buoy.wav | Bell/buoy, as heard | 0:00.000 | 0:02.000 |")
	require.NoError(t, w.Stop(t.Context()))
	list, err := os.ReadDir(w.exports)
	require.NoError(t, err)
	require.Len(t, list, 1, "of what was cancelled nothing is left")
}
