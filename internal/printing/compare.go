package printing

import (
	"context"
	"errors"
	"fmt"
	"time"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/gentle"
	"shoal/internal/measure"
	"shoal/internal/project"
)

// Alternative is one of a channel's chains in figures, measured behind the chain over a range.
type Alternative struct {
	Trial    string    `json:"trial" required:"true"` // id; empty: the chain itself
	Letter   string    `json:"letter" required:"true"`
	Loudness float64   `json:"loudness" required:"true"` // LUFS over the range
	Peak     float64   `json:"peak" required:"true"`     // dBTP
	Crest    float64   `json:"crest" required:"true"`    // dB
	Range    float64   `json:"range" required:"true"`    // LU
	Bands    []float64 `json:"bands" required:"true"`    // dB of each third of an octave
	Latency  int       `json:"latency" required:"true"`  // frames
	Nanos    float64   `json:"nanos" required:"true"`    // what a frame of the row costs, natively
	Match    float64   `json:"match" required:"true"`    // dB that bring it to the chain's loudness
}

// Comparison is a channel's chain beside its trials.
type Comparison struct {
	From         int64         `json:"from" required:"true"`
	To           int64         `json:"to" required:"true"`
	Hz           []float64     `json:"hz" required:"true"` // of the bands
	Alternatives []Alternative `json:"alternatives" required:"true"`
}

// Compare renders a channel with each of its trials over a range of song frames and measures them.
func Compare(
	ctx context.Context,
	doc *project.Project,
	folder *audiofile.Folder,
	channel string,
	from, to int64,
	progress func(float64),
) (*Comparison, error) {
	ch, ok := doc.Channel(channel)
	if !ok {
		return nil, fmt.Errorf("the row is no longer there")
	}
	if from < 0 || to <= from {
		return nil, fmt.Errorf("the range to compare over is empty: frames %d to %d", from, to)
	}
	return gentle.Do(func() (*Comparison, error) { return compare(ctx, doc, folder, ch, from, to, progress) })
}

func compare(
	ctx context.Context,
	doc *project.Project,
	folder *audiofile.Folder,
	ch *project.Channel,
	from, to int64,
	progress func(float64),
) (*Comparison, error) {
	c := &Comparison{From: from, To: to}
	for b := range measure.BandCount {
		c.Hz = append(c.Hz, measure.BandHz(b))
	}
	one := func(trial, letter string, chain project.Chain) error {
		d := project.Clone(doc)
		x, _ := d.Channel(ch.ID)
		x.Chain, x.Trials = chain, nil
		meter, bands := measure.NewMeter(d.SampleRate, 2), measure.NewBands(float64(d.SampleRate))
		begun := time.Now()
		err := Render(ctx, d, folder, Spec{Channel: ch.ID, From: from, To: to}, func(src [][]float64) error {
			return errors.Join(bands.Write(src), meter.Write(src))
		}, engine.PartOf(progress, len(c.Alternatives), 1+len(ch.Trials)))
		if err != nil {
			return fmt.Errorf("render trial %s: %w", letter, err)
		}
		r := meter.Report()
		loud := r.Integrated
		if loud <= -70 { // too short or too soft for loudness
			loud = r.RMS
		}
		latency, err := engine.ChannelLatency(d, ch.ID)
		if err != nil {
			return err
		}
		c.Alternatives = append(
			c.Alternatives,
			Alternative{Trial: trial, Letter: letter, Loudness: loud, Peak: r.TruePeak, Crest: r.Crest, Range: r.Range,
				Bands: bands.Levels(), Latency: latency, Nanos: float64(time.Since(begun).Nanoseconds()) / float64(to)},
		)
		return nil
	}
	if err := one("", ch.Letter, ch.Chain); err != nil {
		return nil, err
	}
	for _, t := range ch.Trials {
		if err := one(t.ID, t.Letter, t.Chain); err != nil {
			return nil, err
		}
	}
	for i := range c.Alternatives {
		if a := &c.Alternatives[i]; a.Loudness > -110 {
			a.Match = max(-24, min(24, c.Alternatives[0].Loudness-a.Loudness))
		}
	}
	return c, nil
}
