package printing

import (
	"context"
	"fmt"
	"math"

	"shoal/internal/audiofile"
	"shoal/internal/measure"
	"shoal/internal/project"
)

// To which level a print is brought where it stands.
const (
	SameLevel = "same" // as loud as its clips were before the chain
	PeakLevel = "peak" // its highest sample at a level
)

// Level says to which level prints are brought where they stand; empty: they stay as they come. It is the gain of the
// clips, so it can be turned afterwards.
type Level struct {
	To   string  `json:"to,omitempty" enum:"same,peak"`
	Peak float64 `json:"peak,omitempty"` // dBFS, -60 to 0
}

func (l Level) check() error {
	switch {
	case l.To != "" && l.To != SameLevel && l.To != PeakLevel:
		return fmt.Errorf("%q is no level for a print: there are same and peak", l.To)
	case !(l.Peak <= 0 && l.Peak >= -60):
		return fmt.Errorf("a peak of %g dB: prints are brought to -60 to 0", l.Peak)
	}
	return nil
}

// gain is what brings a print to the level, in dB. only is the row with nothing but the clips that were printed.
func (l Level) gain(ctx context.Context, only *project.Project, folder *audiofile.Folder, spec Spec, sides [][]float64) (float64, error) {
	rate := only.SampleRate
	switch l.To {
	case PeakLevel:
		peak := 0.0
		for _, ch := range sides {
			for _, v := range ch {
				peak = max(peak, math.Abs(v))
			}
		}
		return within(l.Peak-20*math.Log10(peak), peak > 0), nil
	case SameLevel:
		row, _ := only.Channel(spec.Channel)
		bare := *row
		bare.Chain = project.Chain{}
		spec.Tail = false
		before, err := rendered(ctx, replaced(only, row, &bare), folder, spec, nil)
		if err != nil {
			return 0, err
		}
		a, b := loudnessIn(before, rate), loudnessIn(sides, rate)
		return within(a-b, min(a, b) > silentClip), nil
	}
	return 0, nil
}

// within keeps a gain in what a clip can have; what is silent has none.
func within(gain float64, heard bool) float64 {
	if !heard || math.IsNaN(gain) {
		return 0
	}
	return max(-120, min(36, gain))
}

// loudnessIn is how loud a sound is: in LUFS, or, where it is too short for that, its mean level in dB.
func loudnessIn(sides [][]float64, rate int) float64 {
	m := measure.NewMeter(rate, len(sides))
	_ = m.Write(sides)
	if r := m.Report(); r.Integrated > gateLevel {
		return r.Integrated
	}
	return m.Report().RMS
}
