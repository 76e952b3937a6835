package project

import (
	"fmt"
	"slices"
)

var (
	overlapRules = []string{"", OverSum, OverCover, OverFade}
	fadeShapes   = []string{"", ShapeS, ShapePower, ShapeGain}
)

func (p *Project) checkClips(c *Channel) error {
	for _, x := range c.Clips {
		if err := p.checkClip(x); err != nil {
			return fmt.Errorf("clip %s: %w", x.Name, err)
		}
	}
	return nil
}

func (p *Project) checkClip(x *Clip) error {
	a, ok := p.AudioByHash(x.Audio)
	if !ok {
		return fmt.Errorf("its audio %.12s is not in the project", x.Audio)
	}
	if err := x.checkExtent(a, p.SampleRate); err != nil {
		return err
	}
	if x.Frames < 1 || x.Offset < 0 || x.Extent == nil && x.Offset > a.Frames-x.Frames || x.Start < 0 {
		return fmt.Errorf("%d frames from %d on do not lie within its audio of %d frames", x.Frames, x.Offset, a.Frames)
	}
	if x.Made != nil {
		if slices.Contains(x.Made.Lines, nil) || slices.Contains(x.Made.Treatments, nil) || wholeChain(&Chain{Nodes: x.Made.Nodes}) != nil {
			return fmt.Errorf("there is an empty treatment or line among what it was made from")
		}
		for i := range x.Made.Clips {
			if from := x.Made.Clips[i].Audio; !p.hasAudio(from) {
				return fmt.Errorf("the sound %.12s that it was made from is not in the project", from)
			}
		}
	}
	if x.FadeIn < 0 || x.FadeOut < 0 || x.FadeIn > x.Frames || x.FadeOut > x.Frames-x.FadeIn {
		return fmt.Errorf("fades of %d and %d frames do not fit into its %d", x.FadeIn, x.FadeOut, x.Frames)
	}
	if !(x.Gain >= -120 && x.Gain <= 36) {
		return fmt.Errorf("a gain of %g dB: it must be -120 to 36", x.Gain)
	}
	if !slices.Contains(fadeShapes, x.InShape) || !slices.Contains(fadeShapes, x.OutShape) {
		return fmt.Errorf("unknown shapes of fades %q and %q: there are s, power and gain", x.InShape, x.OutShape)
	}
	if !(x.InBend >= -1 && x.InBend <= 1 && x.OutBend >= -1 && x.OutBend <= 1) {
		return fmt.Errorf("fades bent by %g and %g: it must be -1 to 1", x.InBend, x.OutBend)
	}
	if x.Tint < 0 || x.Tint > 8 {
		return fmt.Errorf("tint %d: it must be 0 to 8", x.Tint)
	}
	if x.Enters != "" && x.Enters != EntersBehind && x.Enters != EntersWayIn {
		return fmt.Errorf("it enters its row %q: a clip enters at the top of the chain, behind the way in, or behind the chain", x.Enters)
	}
	if !slices.Contains(overlapRules, x.Over) {
		return fmt.Errorf("over %q: there are sum, cover and fade", x.Over)
	}
	return checkSwell(x.Swell)
}

func checkSwell(points []Swell) error {
	for i, s := range points {
		if !(s.Gain >= SwellOff && s.Gain <= maxSwell) {
			return fmt.Errorf("a swell of %g dB: it must be %g to %g", s.Gain, SwellOff, maxSwell)
		}
		if s.At < 0 || i > 0 && s.At < points[i-1].At {
			return fmt.Errorf("the points of its swell must follow one another")
		}
	}
	return nil
}

func (p *Project) hasAudio(hash string) bool {
	_, ok := p.AudioByHash(hash)
	return ok
}
