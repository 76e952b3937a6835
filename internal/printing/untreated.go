package printing

import (
	"context"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/project"
)

// GainOfClip is a gain that a clip would have.
type GainOfClip struct {
	ID   string  `json:"id" required:"true"`
	Gain float64 `json:"gain" required:"true"` // dB
}

// AsLoudWithout finds the gains with which clips are as loud without their treatment as they are with it: by their
// loudness, or by their mean level where they are too short for one. What is silent either way keeps its gain.
func AsLoudWithout(ctx context.Context, doc *project.Project, folder *audiofile.Folder, ids []string) ([]GainOfClip, error) {
	bare, _, err := project.Apply(doc, []project.Change{&project.GiveTreatment{Clips: ids}}, engine.EffectInfo)
	if err != nil {
		return nil, err
	}
	with, err := MeasureClips(ctx, doc, folder, ids)
	if err != nil {
		return nil, err
	}
	without, err := MeasureClips(ctx, bare, folder, ids)
	if err != nil {
		return nil, err
	}
	list := []GainOfClip{}
	for i, a := range with {
		b := without[i]
		by := a.Integrated - b.Integrated
		if min(a.Integrated, b.Integrated) < gateLevel {
			by = a.RMS - b.RMS
		}
		if x, _ := doc.ClipByID(a.ID); min(a.RMS, b.RMS) > silentClip {
			list = append(list, GainOfClip{a.ID, max(-120, min(36, x.Gain+by))})
		}
	}
	return list, nil
}

// gateLevel is the loudness in LUFS below which there is none (ITU-R BS.1770-5).
const gateLevel = -70
