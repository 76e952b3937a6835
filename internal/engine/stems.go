package engine

import (
	"context"
	"fmt"
	"strconv"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Pass says what is rendered in one pass.
type Pass struct {
	Points []project.Tap // whose signals are wanted
	From   int64         // song frames; the render begins at frame 0 and is cut here
	To     int64
	Tail   bool // go on until all has died away
}

// Stems renders the signals of several points in one pass: what many of them need is run once. write is given blocks of
// each point in order, aligned with those of the others: latency is taken off. progress, if not nil, is told the part done.
func Stems(
	ctx context.Context,
	doc *project.Project,
	lib *pages.Library,
	pass Pass,
	load Loader,
	write func(point int, l, r []float64) error,
	progress func(float64),
) error {
	if len(pass.Points) == 0 {
		return fmt.Errorf("there is nothing to render: choose a row")
	}
	p, err := ready(ctx, doc, lib, &capture{taps: pass.Points, apart: apart()}, load)
	if err != nil {
		return err
	}
	outs := make([]*outlet, len(p.ends))
	for i, e := range p.ends {
		outs[i] = newOutlet(e.buf, e.lag, pass.From, pass.To, func(l, r []float64) error { return write(i, l, r) })
	}
	return p.pour(ctx, pass.From, pass.To, pass.Tail, outs, load, progress)
}

// stems lets the points that are wanted be tapped.
func (c *compiler) stems() {
	if c.only == nil {
		return
	}
	for i := range c.only.taps {
		c.stemTaps = append(c.stemTaps, c.tap("stem", strconv.Itoa(i), &c.only.taps[i]))
	}
}
