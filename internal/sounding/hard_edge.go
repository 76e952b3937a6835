package sounding

import (
	"fmt"
	"math"

	"shoal/internal/project"
)

// clickLevel is from which level on an edge without a fade is heard as a click.
const clickLevel = 0.01 // -40 dBFS

// hardEdge: a clip begins or ends without any fade where its sound is not near zero. It is measured, not guessed.
func hardEdge(s *Survey, say func(Sounding)) {
	if s.Sample == nil {
		return
	}
	clock := s.Doc.Clock()
	for _, c := range s.Doc.Channels {
		laid := s.Doc.Laid(c, clock)
		goesOn := map[int]bool{}
		for _, x := range laid {
			if x.Before >= 0 {
				goesOn[x.Before] = true
			}
		}
		for i, x := range laid {
			if x.Clip.Treatment != "" {
				continue // what comes out of it is not at hand
			}
			if x.In.Frames == 0 && x.Before < 0 {
				s.click(c, x.Clip, "begins", x.Offset, &project.SetClip{ID: x.Clip.ID, FadeIn: s.shortFade(x)}, say)
			}
			if x.Out.Frames == 0 && !goesOn[i] {
				s.click(c, x.Clip, "ends", x.Offset+x.To-x.From-1, &project.SetClip{ID: x.Clip.ID, FadeOut: s.shortFade(x)}, say)
			}
		}
	}
}

// shortFade is one of 5 ms, as far as it fits.
func (s *Survey) shortFade(x project.Laid) *int64 {
	return ptr(min(int64(s.Doc.SampleRate)/200, (x.To-x.From)/2))
}

func (s *Survey) click(c *project.Channel, x *project.Clip, edge string, frame int64, mend *project.SetClip, say func(Sounding)) {
	v, there := s.Sample(x.Audio, frame)
	if v *= math.Pow(10, x.Gain/20); !there || math.Abs(v) < clickLevel {
		return
	}
	say(Sounding{
		Weight: Caution, Channel: c.ID, At: x.ID,
		Says:  fmt.Sprintf("%s %s with a jump of %.0f dBFS and no fade: that is heard as a click.", x.Name, edge, 20*math.Log10(math.Abs(v))),
		Fixes: []Fix{fix("Fade it in 5 ms", mend)},
	})
}
