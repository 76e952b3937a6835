package project

import (
	"fmt"
	"slices"
	"strings"

	"shoal/internal/param"
)

// maxDepth bounds forks inside forks.
const maxDepth = 16

// Validate checks every rule that holds at every revision. The error says
// what is wrong and where.
func (p *Project) Validate(effects Effects) error { return p.validate(effects, nil) }

// validate does so for a revision of which before was the last, and valid: rows and lines that were kept from it are not checked
// again where nothing can have become of them. There may be none before.
func (p *Project) validate(effects Effects, before *Project) error {
	if p.Version != Version {
		return fmt.Errorf("the project has format version %d; this program reads version %d", p.Version, Version)
	}
	if !slices.Contains([]int{44100, 48000, 88200, 96000}, p.SampleRate) {
		return fmt.Errorf("sample rate %d: it must be 44100, 48000, 88200 or 96000", p.SampleRate)
	}
	if err := p.checkTitles(); err != nil {
		return err
	}
	if err := p.checkTicks(); err != nil {
		return err
	}
	if err := p.checkTime(); err != nil {
		return err
	}
	if err := p.checkAudio(); err != nil {
		return err
	}
	for _, t := range p.Takes {
		if err := p.checkTake(t); err != nil {
			return err
		}
	}
	for id, n := range p.ids() {
		if n > 1 || id == "" {
			return fmt.Errorf("the id %q is used %d times; ids are unique in a project", id, n)
		}
	}
	if err := p.checkRows(effects, before); err != nil {
		return err
	}
	if err := p.checkMoves(effects); err != nil {
		return err
	}
	if err := p.checkTreatments(effects); err != nil {
		return err
	}
	if err := p.checkPassages(effects); err != nil {
		return err
	}
	if err := p.checkFrames(); err != nil {
		return err
	}
	if err := p.checkRemarks(); err != nil {
		return err
	}
	return p.checkLoops()
}

// checkRows checks the rows, and the lines, which refer to what is in them.
func (p *Project) checkRows(effects Effects, before *Project) error {
	stand := p.stands(before)
	mains := 0
	for i, c := range p.Channels {
		if c.Kind == Main {
			mains++
		}
		if stand && c == before.Channels[i] {
			continue
		}
		if err := p.checkChannel(c, effects); err != nil {
			return fmt.Errorf("channel %s: %w", c.Name, err)
		}
	}
	if mains != 1 {
		return fmt.Errorf("there are %d main outputs; a project has exactly one", mains)
	}
	for i, l := range p.Lines {
		if stand && i < len(before.Lines) && l == before.Lines[i] {
			continue
		}
		if err := p.checkLine(l, effects); err != nil {
			return fmt.Errorf("automation line %s: %w", l.Name, err)
		}
	}
	return nil
}

func (p *Project) checkTime() error {
	if len(p.Tempo) == 0 || p.Tempo[0].Tick != 0 {
		return fmt.Errorf("the tempo map must begin at tick 0")
	}
	for i, t := range p.Tempo {
		if !(t.BPM >= 10 && t.BPM <= 400) {
			return fmt.Errorf("tempo %g: it must be 10 to 400 quarter notes a minute", t.BPM)
		}
		if i > 0 && t.Tick <= p.Tempo[i-1].Tick {
			return fmt.Errorf("the tempo map must rise: tick %d comes after %d", t.Tick, p.Tempo[i-1].Tick)
		}
	}
	if len(p.Meter) == 0 || p.Meter[0].Tick != 0 {
		return fmt.Errorf("the meter map must begin at tick 0")
	}
	for i, m := range p.Meter {
		if m.Beats < 1 || m.Beats > 32 || !slices.Contains([]int{1, 2, 4, 8, 16, 32}, m.Unit) {
			return fmt.Errorf("meter %d/%d: beats must be 1 to 32 and the unit a power of two to 32", m.Beats, m.Unit)
		}
		if i > 0 && (m.Tick <= p.Meter[i-1].Tick || (m.Tick-p.Meter[i-1].Tick)%p.Meter[i-1].BarTicks() != 0) {
			return fmt.Errorf("a meter must begin with a bar: tick %d does not", m.Tick)
		}
	}
	for i, s := range p.Sections {
		if s.Tick < 0 || (i > 0 && s.Tick <= p.Sections[i-1].Tick) {
			return fmt.Errorf("section %s at tick %d: sections must follow one another", s.Name, s.Tick)
		}
		if strings.TrimSpace(s.Name) == "" {
			return fmt.Errorf("a section needs a name")
		}
	}
	return nil
}

func (p *Project) checkChannel(c *Channel, effects Effects) error {
	if !slices.Contains([]string{Track, Group, Return, Main}, c.Kind) {
		return fmt.Errorf("unknown kind %q", c.Kind)
	}
	if !ValidName(c.Name) {
		return fmt.Errorf("a channel needs a name of 1 to 80 letters")
	}
	if c.Tint < 0 || c.Tint > 8 {
		return fmt.Errorf("tint %d: it must be 0 to 8", c.Tint)
	}
	if err := param.Fader.Check(c.Fader); err != nil {
		return err
	}
	if err := param.Pan.Check(c.Pan); err != nil {
		return err
	}
	if c.Kind == Main && c.Output != "" {
		return fmt.Errorf("the main output goes nowhere else")
	}
	if c.Output != "" {
		to, ok := p.Channel(c.Output)
		if !ok {
			return fmt.Errorf("its output %q does not exist", c.Output)
		}
		if to.Kind != Main && to.Kind != Group {
			return fmt.Errorf("its output cannot be the %s %s", to.Kind, to.Name)
		}
	}
	if c.Kind != Track && len(c.Clips) > 0 {
		return fmt.Errorf("only a track can hold clips")
	}
	if err := p.checkSends(c); err != nil {
		return err
	}
	if c.Input != nil {
		if c.Kind != Track || c.Input.Channel == c.ID {
			return fmt.Errorf("only a track can take its input from a tap, and not from itself")
		}
		if err := p.checkTap(c.Input); err != nil {
			return fmt.Errorf("its input: %w", err)
		}
	}
	if !slices.Contains(overlapRules, c.Overlaps) {
		return fmt.Errorf("overlaps %q: clips that overlap sound both (sum), one covers the other (cover), or they cross-fade (fade)", c.Overlaps)
	}
	if err := p.checkClips(c); err != nil {
		return err
	}
	if c.Waterline != "" && !slices.ContainsFunc(c.Chain.Nodes, func(n *Node) bool { return n.ID() == c.Waterline }) {
		return fmt.Errorf("the waterline stands after %q, which is not in its chain", c.Waterline)
	}
	if c.WayIn != "" && !slices.ContainsFunc(c.Chain.Nodes, func(n *Node) bool { return n.ID() == c.WayIn }) {
		return fmt.Errorf("its way in stands after %q, which is not in its chain", c.WayIn)
	}
	if c.Records != "" && (c.Kind != Track || !ValidName(c.Records)) {
		return fmt.Errorf("it is recorded from %q: only a track is, from something that has a name", c.Records)
	}
	if err := p.checkTrials(c, effects); err != nil {
		return err
	}
	if err := wholesInPlace(&c.Chain, effects, false); err != nil {
		return err
	}
	return p.checkChain(&c.Chain, effects, 0)
}

func (p *Project) checkSends(c *Channel) error {
	for _, s := range c.Sends {
		to, ok := p.Channel(s.To)
		if !ok || to.Kind != Return {
			return fmt.Errorf("a send goes to %q, which is not a return", s.To)
		}
		if s.After != "" && s.After != "input" {
			if _, node := c.find(s.After); !node && !c.hasPath(s.After) {
				return fmt.Errorf("the send to %s is taken after %q, which is not in its chain", to.Name, s.After)
			}
		}
		if err := param.Send.Check(s.Level); err != nil {
			return fmt.Errorf("send to %s: %w", to.Name, err)
		}
		if err := param.Pan.Check(s.Pan); err != nil {
			return fmt.Errorf("send to %s: %w", to.Name, err)
		}
	}
	return nil
}

func (p *Project) checkTrials(c *Channel, effects Effects) error {
	if len(c.Trials) > MaxTrials {
		return fmt.Errorf("it has %d trials; at most %d are kept beside the chain", len(c.Trials), MaxTrials)
	}
	letters := map[string]bool{c.Letter: true}
	for _, t := range c.Trials {
		if len(t.Letter) != 1 || t.Letter < "A" || t.Letter > "D" || letters[t.Letter] {
			return fmt.Errorf("trial %q: trials have letters of their own, A to D", t.Letter)
		}
		letters[t.Letter] = true
		if err := wholesInPlace(&t.Chain, effects, false); err != nil {
			return fmt.Errorf("trial %s: %w", t.Letter, err)
		}
		if err := p.checkChain(&t.Chain, effects, 0); err != nil {
			return fmt.Errorf("trial %s: %w", t.Letter, err)
		}
	}
	return nil
}

func (p *Project) checkLine(l *Line, effects Effects) error {
	d, _, err := p.Describe(l.Owner, l.Name, effects)
	if err != nil {
		return err
	}
	if d.Structural {
		return fmt.Errorf("%s cannot be automated: it changes latency or memory", d.Label)
	}
	for i, pt := range l.Points {
		if err := d.Check(pt.Value); err != nil {
			return err
		}
		if pt.Tick < 0 || (i > 0 && pt.Tick < l.Points[i-1].Tick) {
			return fmt.Errorf("its points must follow one another")
		}
		if err := checkShape(pt); err != nil {
			return err
		}
	}
	return nil
}

// checkShape checks how a point goes on.
func checkShape(pt Point) error {
	switch pt.Shape {
	case Ramp, Hold, Curve, Smooth:
	default:
		return fmt.Errorf("unknown shape %q", pt.Shape)
	}
	if !(pt.Bend >= -1 && pt.Bend <= 1) {
		return fmt.Errorf("a bend of %g: it must be -1 to 1", pt.Bend)
	}
	return nil
}
