package printing

import (
	"context"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/gentle"
	"shoal/internal/measure"
	"shoal/internal/project"
)

// MatchOf is by how much one document's main output is to be turned up to be as loud as another's over a range of song frames, in
// dB from -24 to 24 (integrated loudness, or RMS where that is too short or too soft for it). Where either is silent it is 0.
func MatchOf(
	ctx context.Context, then, now *project.Project, folder *audiofile.Folder, from, to int64, progress func(float64),
) (float64, error) {
	if from < 0 || to <= from {
		return 0, fmt.Errorf("the range to match over is empty: frames %d to %d", from, to)
	}
	return gentle.Do(func() (float64, error) {
		a, err := mainLoudness(ctx, then, folder, from, to, engine.PartOf(progress, 0, 2))
		if err != nil {
			return 0, err
		}
		b, err := mainLoudness(ctx, now, folder, from, to, engine.PartOf(progress, 1, 2))
		if err != nil || min(a, b) <= gateLevel {
			return 0, err
		}
		return max(-24, min(24, b-a)), nil
	})
}

func mainLoudness(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, from, to int64, progress func(float64),
) (float64, error) {
	meter := measure.NewMeter(doc.SampleRate, 2)
	err := Render(ctx, doc, folder, Spec{Channel: doc.MainChannel().ID, From: from, To: to}, func(src [][]float64) error {
		return meter.Write(src)
	}, progress)
	if err != nil {
		return 0, err
	}
	r := meter.Report()
	if r.Integrated <= gateLevel {
		return r.RMS, nil
	}
	return r.Integrated, nil
}

// Louder is a document whose main output is turned up by so many dB, behind all that is in it, whatever moves its level.
func Louder(doc *project.Project, gain float64) *project.Project {
	doc = project.Clone(doc)
	trim := project.NewStage("trim", 1, 100, "blend")
	trim.Params["gain"] = gain
	main := doc.MainChannel()
	main.Chain.Nodes = append(main.Chain.Nodes, &project.Node{Stage: trim})
	return doc
}
