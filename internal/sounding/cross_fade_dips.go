package sounding

import (
	"fmt"

	"shoal/internal/project"
)

// crossFadeDips: two clips of different sounds cross with fades whose gains sum to 1. What is not alike adds up by power,
// so it is 3 dB softer in the middle.
func crossFadeDips(s *Survey, say func(Sounding)) {
	clock := s.Doc.Clock()
	for _, c := range s.Doc.Channels {
		laid := s.Doc.Laid(c, clock)
		for i, a := range laid {
			for _, b := range laid[i+1:] {
				over := a.To - b.From
				crossing := over > 0 && b.To > a.To && 2*a.Out.Frames >= over && 2*b.In.Frames >= over
				if crossing && over > int64(s.Doc.SampleRate)/50 && evenGain(a.Out) && evenGain(b.In) && a.Clip.Audio != b.Clip.Audio {
					say(dips(c, a.Clip, b.Clip, s.Doc.SampleRate, over))
				}
			}
		}
	}
}

// evenGain reports whether a fade and its counterpart sum to 1.
func evenGain(f project.Fade) bool { return f.Shape != project.ShapePower }

func dips(c *project.Channel, a, b *project.Clip, rate int, over int64) Sounding {
	return Sounding{
		Weight: Note, Channel: c.ID, At: b.ID,
		Says: fmt.Sprintf("%s goes over into %s in %.0f ms by fades whose gains add up to one:"+
			" two different sounds are 3 dB softer in the middle of it.",
			a.Name, b.Name, float64(over)/float64(rate)*1000),
		Fixes: []Fix{fix("Cross at even power",
			&project.SetClip{ID: a.ID, OutShape: ptr(project.ShapePower)}, &project.SetClip{ID: b.ID, InShape: ptr(project.ShapePower)})},
	}
}
