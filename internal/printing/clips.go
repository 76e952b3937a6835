package printing

import (
	"context"
	"fmt"
	"math"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/gentle"
	"shoal/internal/measure"
	"shoal/internal/project"
)

// ClipLevels are the levels of a clip by itself: with its treatment, its gain, its fades and its swell, before its
// row's chain.
type ClipLevels struct {
	ID         string  `json:"id" required:"true"`
	Name       string  `json:"name" required:"true"`
	Peak       float64 `json:"peak" required:"true"`       // dBFS
	TruePeak   float64 `json:"truePeak" required:"true"`   // dBTP
	RMS        float64 `json:"rms" required:"true"`        // dBFS
	Integrated float64 `json:"integrated" required:"true"` // LUFS
	Momentary  float64 `json:"momentary" required:"true"`  // the highest, LUFS
	Over       int64   `json:"over" required:"true"`       // samples beyond full scale
}

// Measures to which clips can be normalised, by their names.
var clipMeasures = map[string]func(ClipLevels) float64{
	"peak":       func(l ClipLevels) float64 { return l.Peak },
	"truePeak":   func(l ClipLevels) float64 { return l.TruePeak },
	"rms":        func(l ClipLevels) float64 { return l.RMS },
	"integrated": func(l ClipLevels) float64 { return l.Integrated },
	"momentary":  func(l ClipLevels) float64 { return l.Momentary },
}

// MeasureClips measures clips side by side.
func MeasureClips(ctx context.Context, doc *project.Project, folder *audiofile.Folder, ids []string) ([]ClipLevels, error) {
	return gentle.Do(func() ([]ClipLevels, error) {
		list := []ClipLevels{}
		for _, id := range ids {
			l, err := measureClip(ctx, doc, folder, id)
			if err != nil {
				return nil, err
			}
			list = append(list, l)
		}
		return list, nil
	})
}

func measureClip(ctx context.Context, doc *project.Project, folder *audiofile.Folder, id string) (ClipLevels, error) {
	x, ok := doc.ClipByID(id)
	if !ok {
		return ClipLevels{}, project.Gone("the clip")
	}
	if w, _ := engine.WorkOf(doc, x, doc.Clock()); w != nil && doc.WorkWhenAsked && !folder.HasWorked(w.Key) {
		return ClipLevels{}, fmt.Errorf("%s is not worked out yet: ask for that first", x.Name)
	}
	alone, row := alone(doc, x)
	meter, over := measure.NewMeter(doc.SampleRate, 2), int64(0)
	err := Render(ctx, alone, folder, Spec{Channel: row.ID, To: x.Frames}, func(src [][]float64) error {
		for i, l := range src[0] {
			if math.Abs(l) > 1 || math.Abs(src[1][i]) > 1 {
				over++
			}
		}
		return meter.Write(src)
	}, nil)
	if err != nil {
		return ClipLevels{}, fmt.Errorf("measure %s: %w", x.Name, err)
	}
	r := meter.Report()
	return ClipLevels{ID: id, Name: x.Name, Peak: r.Peak, TruePeak: r.TruePeak, RMS: r.RMS, Integrated: r.Integrated,
		Momentary: r.Momentary, Over: over}, nil
}

// alone is a project in which nothing but a clip sounds, from frame 0 on.
func alone(doc *project.Project, x *project.Clip) (*project.Project, *project.Channel) {
	p := project.New(doc.Name, doc.SampleRate, 120, 4, 4)
	row := project.NewChannel(project.Track, x.Name, p.MainChannel().ID)
	n := *x
	n.Start, n.Follows, n.Mute = 0, false, false
	row.Clips = []*project.Clip{&n}
	p.Channels = append([]*project.Channel{row}, p.Channels...)
	p.Audio, p.Treatments = doc.Audio, doc.Treatments
	if t, ok := doc.TreatmentByID(x.Treatment); ok {
		p.Lines = doc.LinesWithin(t)
	}
	p.Tempo[0].BPM = doc.Clock().Tempo(x.BeginsAt(doc.Clock()))
	return p, row
}

// NormaliseSpec says how clips are brought to a level.
type NormaliseSpec struct {
	Clips    []string `json:"clips" required:"true"`
	To       string   `json:"to" required:"true" enum:"peak,truePeak,rms,integrated,momentary"`
	Level    float64  `json:"level" required:"true"` // dB in the measure's unit, at most 0
	Together bool     `json:"together"`              // all by one amount, so that the loudest comes to the level
}

// silentClip is the level in dB below which there is nothing to normalise.
const silentClip = -100

// Normalise measures clips and returns what brings them to a level.
func Normalise(ctx context.Context, doc *project.Project, folder *audiofile.Folder, s NormaliseSpec) ([]project.Change, error) {
	of, ok := clipMeasures[s.To]
	if !ok {
		return nil, fmt.Errorf("%q is no measure: there are peak, truePeak, rms, integrated and momentary", s.To)
	}
	if !(s.Level <= 0 && s.Level >= -60) {
		return nil, fmt.Errorf("a level of %g dB: clips are brought to -60 to 0", s.Level)
	}
	levels, err := MeasureClips(ctx, doc, folder, s.Clips)
	if err != nil {
		return nil, err
	}
	loudest := math.Inf(-1)
	for _, l := range levels {
		loudest = max(loudest, of(l))
	}
	var list []project.Change
	for _, l := range levels {
		now := of(l)
		if s.Together {
			now = loudest
		}
		x, _ := doc.ClipByID(l.ID)
		if now < silentClip || math.IsInf(now, 0) {
			if s.Together || len(levels) == 1 {
				return nil, fmt.Errorf("%s is silent, or too short for this measure: there is nothing to bring to a level", l.Name)
			}
			continue
		}
		gain := x.Gain + s.Level - now
		if gain > 36 {
			return nil, fmt.Errorf("%s would need %.1f dB of gain; a clip has at most 36: ask for a lower level", l.Name, gain)
		}
		gain = max(-120, gain)
		list = append(list, &project.SetClip{ID: l.ID, Gain: &gain})
	}
	if len(list) == 0 {
		return nil, fmt.Errorf("all of these clips are silent, or too short for this measure")
	}
	return list, nil
}
