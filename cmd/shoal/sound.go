package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"

	"github.com/spf13/cobra"

	"shoal/internal/audiofile"
	"shoal/internal/bundle"
	"shoal/internal/engine"
	"shoal/internal/measure"
	"shoal/internal/printing"
	"shoal/internal/project"
)

func measureCommand() *cobra.Command {
	var asJSON bool
	c := &cobra.Command{
		Use: "measure FILE", Short: "Measure peak, true peak, loudness, RMS, crest and offset of a file", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			f, err := os.Open(args[0])
			if err != nil {
				return err
			}
			defer f.Close()
			src, err := audiofile.Open(f)
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			r, err := measure.File(src)
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			out := c.OutOrStdout()
			if asJSON {
				e := json.NewEncoder(out)
				e.SetIndent("", "  ")
				return e.Encode(r)
			}
			fmt.Fprintf(
				out,
				"%s, %d Hz, %d channels, %d bits, %.3f s\n",
				r.Format.Kind,
				r.Format.Rate,
				r.Format.Channels,
				r.Format.Bits,
				r.Seconds,
			)
			for _, l := range []struct {
				name string
				v    float64
				unit string
			}{{"peak", r.Peak, "dBFS"}, {"true peak", r.TruePeak, "dBTP"},
				{"momentary max", r.Momentary, "LUFS"}, {"short-term max", r.Short, "LUFS"},
				{"integrated", r.Integrated, "LUFS"}, {"range", r.Range, "LU"}, {"RMS", r.RMS, "dBFS"}, {"crest", r.Crest, "dB"}} {
				fmt.Fprintf(out, "%-15s %8.2f %s\n", l.name, l.v, l.unit)
			}
			fmt.Fprintf(out, "%-15s %8.6f\n", "offset", r.DC)
			return nil
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "as JSON")
	return c
}

// scratch is an audio folder that is gone afterwards.
func scratch() (*audiofile.Folder, func(), error) {
	dir, err := os.MkdirTemp("", "shoal-*")
	if err != nil {
		return nil, nil, err
	}
	f, err := audiofile.NewFolder(dir)
	return f, func() { _ = os.RemoveAll(dir) }, err
}

func processCommand() *cobra.Command {
	var chainFile, format string
	var rate int
	var tail bool
	var tempo float64
	c := &cobra.Command{
		Use: "process --chain CHAIN.json IN OUT.wav", Args: cobra.ExactArgs(2),
		Short: "Run a chain over a file, latency compensated; whole-sound steps too",
		RunE: func(c *cobra.Command, args []string) error {
			b, err := os.ReadFile(chainFile)
			if err != nil {
				return err
			}
			chain, err := project.WrittenChain(b, engine.EffectInfo)
			if err != nil {
				return fmt.Errorf("%s: %w", chainFile, err)
			}
			folder, clean, err := scratch()
			if err != nil {
				return err
			}
			defer clean()
			in, err := os.Open(args[0])
			if err != nil {
				return err
			}
			defer in.Close()
			through, err := newStream(in)
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			if rate == 0 {
				rate = through.format.Rate
			}
			doc := project.New("process", rate, tempo, 4, 4)
			if err := doc.Validate(engine.EffectInfo); err != nil {
				return err
			}
			if through.passes(chain, rate) {
				return through.process(c.Context(), doc, chain, tail, format, args[1])
			}
			if _, err := in.Seek(0, io.SeekStart); err != nil {
				return err
			}
			sound, _, err := folder.Import(c.Context(), in, rate, nil)
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			doc, spec, err := processed(doc, sound, chain, tail)
			if err != nil {
				return err
			}
			spec.Format = format
			return renderTo(c.Context(), doc, folder, spec, args[1])
		},
	}
	c.Flags().StringVar(&chainFile, "chain", "", "the chain, as JSON like a chain in a project")
	c.Flags().IntVar(&rate, "rate", 0, "sample rate to work at (default: the file's)")
	c.Flags().BoolVar(&tail, "tail", false, "go on until the sound has died away")
	c.Flags().Float64Var(&tempo, "tempo", 120, "quarter notes a minute, for note lengths")
	c.Flags().StringVar(&format, "format", "wav32f", printing.FormatNames())
	_ = c.MarkFlagRequired("chain")
	return c
}

// processed is a document in which a sound passes a chain, and what of it is to be rendered. A chain with whole-sound
// steps is the treatment of a piece: it may make it longer, and tails may come before it.
func processed(doc *project.Project, sound audiofile.Entry, chain *project.Chain, tail bool) (*project.Project, printing.Spec, error) {
	track := project.NewChannel(project.Track, "in", doc.MainChannel().ID)
	clip := &project.Clip{ID: project.NewID(), Name: "in", Audio: sound.Hash, Frames: sound.Frames, Exact: true, Rings: tail}
	track.Clips = []*project.Clip{clip}
	doc.Audio = []project.Audio{{Hash: sound.Hash, Name: "in", Frames: sound.Frames, Channels: sound.Channels}}
	doc.Channels = append([]*project.Channel{track}, doc.Channels...)
	spec := printing.Spec{Channel: track.ID, To: sound.Frames, Tail: tail, Target: "file"}
	if len(chain.Wholes(engine.EffectInfo, false)) == 0 {
		track.Chain = *chain
		return doc, spec, nil
	}
	t := &project.Treatment{ID: project.NewID(), Chain: *chain}
	doc, _, err := project.Apply(doc, []project.Change{
		&project.PutTreatment{Treatment: t}, &project.SetClip{ID: clip.ID, Treatment: &t.ID},
	}, engine.EffectInfo)
	if err != nil {
		return nil, spec, err
	}
	clip, _ = doc.ClipByID(clip.ID)
	spec.To = clip.Frames
	if w, _ := engine.WorkOf(doc, clip, doc.Clock()); w != nil && tail {
		clip.Start = w.Lead
		spec.To += w.Lead + w.Trail
	}
	return doc, spec, nil
}

// renderTo renders what the folder holds into a file.
func renderTo(ctx context.Context, doc *project.Project, folder *audiofile.Folder, spec printing.Spec, name string) error {
	return writeTo(doc, spec, name, func(write func([][]float64) error) error {
		return printing.Render(ctx, doc, folder, spec, write, nil)
	})
}

// writeTo lets a file of a spec be written, which appears only when it is whole.
func writeTo(doc *project.Project, spec printing.Spec, name string, render func(write func([][]float64) error) error) (err error) {
	if err := spec.Check(doc); err != nil {
		return err
	}
	f, err := os.CreateTemp(filepath.Dir(name), ".shoal-*")
	if err != nil {
		return err
	}
	defer os.Remove(f.Name())
	defer f.Close()
	if err := f.Chmod(0o644); err != nil { // a file for others, unlike one for a while
		return err
	}
	note := printing.NewRecord(doc, printing.Printer{}, spec, printing.OfFile, false).Note()
	sink, err := printing.NewFile(f, spec.Format, doc.SampleRate, note, printing.Cues(doc, spec.From, spec.To))
	if err != nil {
		return err
	}
	if err := render(sink.Write); err != nil {
		return err
	}
	if err := sink.Close(); err != nil {
		return fmt.Errorf("finish %s: %w", name, err)
	}
	if err := f.Chmod(0o644); err != nil && !errors.Is(err, os.ErrClosed) {
		return err
	}
	return os.Rename(f.Name(), name)
}

func printCommand() *cobra.Command {
	var channel, out, format string
	var from, to float64
	var tail bool
	c := &cobra.Command{
		Use: "print BUNDLE.zip", Short: "Print channels of a bundle without a server", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			lean()
			if _, ok := printing.Extension(format); !ok {
				return fmt.Errorf("unknown format %q", format)
			}
			f, err := os.Open(args[0])
			if err != nil {
				return err
			}
			defer f.Close()
			info, err := f.Stat()
			if err != nil {
				return err
			}
			folder, clean, err := scratch()
			if err != nil {
				return err
			}
			defer clean()
			doc, err := bundle.Read(c.Context(), f, info.Size(), folder)
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			var list []*project.Channel
			for _, ch := range doc.Channels {
				if channel == "all" || strings.EqualFold(ch.Name, channel) || (channel == "main" && ch.Kind == project.Main) {
					list = append(list, ch)
				}
			}
			if len(list) == 0 {
				return fmt.Errorf("the project has no channel %q", channel)
			}
			spec := printing.Spec{
				From:   int64(from * float64(doc.SampleRate)),
				To:     int64(to * float64(doc.SampleRate)),
				Tail:   tail,
				Target: "file",
				Format: format,
			}
			if to == 0 {
				spec.To = doc.End()
			}
			if err := os.MkdirAll(out, 0o755); err != nil {
				return err
			}
			ext, _ := printing.Extension(format)
			for _, ch := range list {
				spec.Channel = ch.ID
				name := filepath.Join(out, strings.Map(fileLetter, ch.Name)+"."+ext)
				if err := renderTo(c.Context(), doc, folder, spec, name); err != nil {
					return fmt.Errorf("print %s: %w", ch.Name, err)
				}
				fmt.Fprintln(c.OutOrStdout(), name)
			}
			return nil
		},
	}
	c.Flags().StringVar(&channel, "channel", "main", "a channel's name, main, or all")
	c.Flags().StringVar(&out, "out", ".", "folder for the files")
	c.Flags().StringVar(&format, "format", "wav24", printing.FormatNames())
	c.Flags().Float64Var(&from, "from", 0, "first second")
	c.Flags().Float64Var(&to, "to", 0, "last second (default: the end of the song)")
	c.Flags().BoolVar(&tail, "tail", false, "go on until the sound has died away")
	return c
}

func fileLetter(r rune) rune {
	if strings.ContainsRune(`/\:*?"<>|`, r) || r < 32 {
		return '_'
	}
	return r
}
