package project

import (
	"fmt"
	"math"

	"shoal/internal/stretch"
)

// Ids of the whole-sound steps.
const (
	Backwards  = "backwards"
	PitchStep  = "pitch"
	LengthStep = "length"
)

// wholesInPlace refuses whole-sound steps where there is no whole sound: in the chain of a row, or in a path.
func wholesInPlace(c *Chain, effects Effects, treatment bool) (err error) {
	c.Walk(func(at *Chain, _ int, n *Node) bool {
		if n.Stage == nil {
			return true
		}
		info, ok := effects(n.Stage.Effect, n.Stage.Version)
		switch {
		case !ok || !info.Whole:
		case !treatment:
			err = fmt.Errorf("%s needs the whole sound: put it into a clip's treatment, or print the row first", info.Name)
		case at != c:
			err = fmt.Errorf("%s needs the whole sound, and a path has only its share: put it before or behind the fork", info.Name)
		case n.Stage.Mix != 100 || n.Stage.MixLaw != "blend" || n.Stage.ActsOn != "both":
			err = fmt.Errorf("%s takes the whole sound: it has no mix and acts on both sides", info.Name)
		}
		return err == nil
	})
	return err
}

// Wholes are the whole-sound steps of a chain, in their order; active leaves out those that are bypassed.
func (c *Chain) Wholes(effects Effects, active bool) (steps []*Stage) {
	for _, n := range c.Nodes {
		if n.Stage == nil || active && (n.Stage.Bypass || c.Bypass) {
			continue
		}
		if info, ok := effects(n.Stage.Effect, n.Stage.Version); ok && info.Whole {
			steps = append(steps, n.Stage)
		}
	}
	return steps
}

// setting is a parameter of a stage.
func setting(s *Stage, effects Effects, name string) float64 {
	if v, ok := s.Params[name]; ok {
		return v
	}
	info, _ := effects(s.Effect, s.Version)
	p, _ := info.Param(name)
	return p.Default
}

// follows reports whether a Length step goes by the tempo of the song.
func follows(s *Stage, effects Effects) bool { return setting(s, effects, "by") != 0 }

// LengthMap says when each of so many frames of a clip's extent comes behind a Length step. Each beat that follows the
// song's tempo comes where the song has it.
func (p *Project) LengthMap(s *Stage, x *Clip, frames int64, clock *Clock, effects Effects) stretch.Map {
	if !follows(s, effects) {
		return stretch.Even(frames, max(1, int64(math.Round(float64(frames)*setting(s, effects, "percent")/100))))
	}
	beat := float64(p.SampleRate) * 60 / setting(s, effects, "tempo")
	begin := clock.Tick(x.BeginsAt(clock)) // of the extent: the window begins a part of the source later
	if e := x.Extent; e != nil {
		begin -= float64(x.Offset-e.From) * float64(e.To-e.From) / float64(e.Frames) / beat * TicksPerQuarter
	}
	first := int64(math.Round(max(0, begin)))
	at := func(x float64) float64 {
		return float64(clock.Frame(first+int64(math.Round(x/beat*TicksPerQuarter))) - clock.Frame(first))
	}
	m := stretch.Map{{From: 0, To: 0}}
	for x := beat; x < float64(frames); x += beat {
		m = append(m, stretch.Point{From: x, To: at(x)})
	}
	m = append(m, stretch.Point{From: float64(frames), To: max(1, at(float64(frames)))})
	return m.Simple(1)
}

// lasts is how long a clip's extent is behind the whole-sound steps of a chain. What follows the song by a frame more or
// less is as long as it was: rounding must not move it with every change.
func (p *Project) lasts(c *Chain, x *Clip, clock *Clock, effects Effects) int64 {
	frames, near := x.Extent.To-x.Extent.From, int64(0)
	for _, s := range c.Wholes(effects, true) {
		if s.Effect != LengthStep {
			continue
		}
		frames = int64(math.Round(p.LengthMap(s, x, frames, clock, effects).Out()))
		if follows(s, effects) {
			near = 1
		}
	}
	if d := frames - x.Extent.Frames; d >= -near && d <= near {
		return x.Extent.Frames
	}
	return frames
}

// leavesBackwards reports whether a chain leaves a piece backwards.
func leavesBackwards(c *Chain, effects Effects) (back bool) {
	for _, s := range c.Wholes(effects, true) {
		back = back != (s.Effect == Backwards)
	}
	return back
}
