package engine

import (
	"context"
	"fmt"
	"math"

	"shoal/internal/effect"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Job says what to render offline.
type Job struct {
	Channel string // its signal after its chain and before its fader; empty: the main output
	From    int64  // song frames; the render begins at frame 0 and is cut here
	To      int64
	Tail    bool // go on until the sound has died away
}

// Loader fetches pages that a render needs into its library.
type Loader func(ctx context.Context, need []pages.Missing) error

// Offline renders a job. write is given blocks in order; progress, if not nil, the
// part done. Solo plays no role. The output is aligned: latency is taken off.
func Offline(
	ctx context.Context,
	doc *project.Project,
	lib *pages.Library,
	job Job,
	load Loader,
	write func(l, r []float64) error,
	progress func(float64),
) error {
	return offline(ctx, doc, lib, job, load, write, progress, false, nil)
}

// offline renders; all keeps also what leads nowhere, and with gives the plan to the caller.
func offline(
	ctx context.Context,
	doc *project.Project,
	lib *pages.Library,
	job Job,
	load Loader,
	write func(l, r []float64) error,
	progress func(float64),
	all bool,
	with func(*plan),
) error {
	only := &capture{channel: job.Channel, all: all, apart: !all && with == nil && apart()}
	if job.Channel != "" {
		ch, ok := doc.Channel(job.Channel)
		if !ok {
			return fmt.Errorf("there is no channel %q", job.Channel)
		}
		if ch.Kind == project.Main {
			only.channel = ""
		}
	}
	p, err := ready(ctx, doc, lib, only, load)
	if err != nil {
		return err
	}
	if with != nil {
		with(p)
	}
	out := newOutlet(p.out, p.latency, job.From, job.To, write)
	return p.pour(ctx, job.From, job.To, job.Tail, []*outlet{out}, load, progress)
}

// outlet is where a signal leaves a plan that is rendered.
type outlet struct {
	buf  pair
	at   int64 // song frame of what comes out next
	keep tailKeeper
}

func newOutlet(buf pair, lag int, from, to int64, write func(l, r []float64) error) *outlet {
	return &outlet{buf: buf, at: -int64(lag), keep: tailKeeper{from: from, to: to, write: write}}
}

// pour runs a plan from the song's begin on until all outlets have given their range and, if wanted, their tails.
func (p *plan) pour(
	ctx context.Context, from, to int64, tails bool, outs []*outlet, load Loader, progress func(float64),
) error {
	if to <= from {
		return fmt.Errorf("the range to render is empty: frames %d to %d", from, to)
	}
	for _, pl := range p.players {
		pl.roll.Set(1)
	}
	p.cursor.rolling, p.cursor.jumped = true, true
	end := to
	if tails {
		end += int64(math.Ceil(p.tailSeconds() * float64(p.doc.SampleRate)))
	}
	last := outs[0] // the latest of them
	for _, o := range outs {
		if o.at < last.at {
			last = o
		}
	}
	took := func(n int) error {
		for _, o := range outs {
			if keep := int(min(int64(n), end-o.at)); keep > 0 {
				if err := o.keep.take(o.at, o.buf.l[:keep], o.buf.r[:keep]); err != nil {
					return err
				}
			}
			o.at += int64(n)
		}
		return nil
	}
	fed := to
	if !tails { // what looks ahead knows what comes, up to the last frame
		fed -= last.at
	}
	if len(p.lanes) > 0 {
		if err := p.pourApart(ctx, fed, end-last.at, load, progress, took); err != nil {
			return err
		}
		return p.broken()
	}
	for count := 0; last.at < end; count++ {
		if count%64 == 0 {
			if err := ctx.Err(); err != nil {
				return err
			}
			for _, pl := range p.players {
				pl.prepare(p.cursor.frame, p.cursor.frame+Block)
			}
			if progress != nil {
				progress(float64(max(last.at, 0)) / float64(end))
			}
		}
		n := p.room(Block)
		if left := fed - p.cursor.frame; left > 0 {
			n = int(min(int64(n), left))
			if err := fetch(ctx, p, n, load); err != nil {
				return err
			}
		} else { // clips no longer feed the tail
			for _, pl := range p.players {
				pl.past()
			}
		}
		p.run(n)
		if err := took(n); err != nil {
			return err
		}
	}
	if err := p.broken(); err != nil {
		return err
	}
	if progress != nil {
		progress(1)
	}
	return nil
}

// PartOf tells the progress of one of several steps as that of all; nil stays nil.
func PartOf(progress func(float64), step, steps int) func(float64) {
	if progress == nil {
		return nil
	}
	return func(part float64) { progress((float64(step) + part) / float64(steps)) }
}

// ready compiles a plan for which everything that stages use, such as impulse responses, is there.
func ready(ctx context.Context, doc *project.Project, lib *pages.Library, only *capture, load Loader) (*plan, error) {
	p, err := compile(doc, lib, only, Listening{})
	if err != nil {
		return nil, err
	}
	need := p.wanting(nil)
	if len(need) == 0 {
		return p, nil
	}
	if load == nil {
		return nil, fmt.Errorf("audio %.12s is not there", need[0].Hash)
	}
	if err := load(ctx, need); err != nil {
		return nil, err
	}
	if p, err = compile(doc, lib, only, Listening{}); err != nil {
		return nil, err
	}
	if left := p.wanting(nil); len(left) > 0 {
		return nil, fmt.Errorf("audio %.12s could not be read", left[0].Hash)
	}
	return p, nil
}

// fetch makes the pages of the next n frames present.
func fetch(ctx context.Context, p *plan, n int, load Loader) error {
	need := p.check(n)
	if len(need) == 0 {
		return nil
	}
	if load == nil {
		return fmt.Errorf("audio %.12s is not there", need[0].Hash)
	}
	if err := load(ctx, need); err != nil {
		return err
	}
	if left := p.check(n); len(left) > 0 {
		return fmt.Errorf("audio %.12s could not be read", left[0].Hash)
	}
	return nil
}

// tailKeeper passes a range on and, behind it, as much of the tail as is above
// the floor: what is quiet is held back until something louder follows.
type tailKeeper struct {
	from, to int64
	write    func(l, r []float64) error
	l, r     []float64
}

const tailFloor = 1e-5 // -100 dBFS

func (t *tailKeeper) take(at int64, l, r []float64) error {
	if skip := min(max(t.from-at, 0), int64(len(l))); skip > 0 {
		l, r, at = l[skip:], r[skip:], at+skip
	}
	if inside := min(max(t.to-at, 0), int64(len(l))); inside > 0 {
		if err := t.write(l[:inside], r[:inside]); err != nil {
			return err
		}
		l, r = l[inside:], r[inside:]
	}
	t.l, t.r = append(t.l, l...), append(t.r, r...)
	for i := len(t.l) - 1; i >= len(t.l)-len(l); i-- {
		if math.Abs(t.l[i]) > tailFloor || math.Abs(t.r[i]) > tailFloor {
			if err := t.write(t.l[:i+1], t.r[:i+1]); err != nil {
				return err
			}
			t.l, t.r = append(t.l[:0], t.l[i+1:]...), append(t.r[:0], t.r[i+1:]...)
			break
		}
	}
	return nil
}

// tailSeconds bounds how long the plan sounds on: chains add up, sends lead on.
func (p *plan) tailSeconds() float64 {
	memo := map[string]float64{}
	var onward func(ch *project.Channel, depth int) float64
	onward = func(ch *project.Channel, depth int) float64 {
		if t, ok := memo[ch.ID]; ok || depth > 64 {
			return t
		}
		own := chainTail(&ch.Chain, p.clock.Tempo(0))
		most := 0.0
		for _, s := range ch.Sends {
			if to, ok := p.doc.Channel(s.To); ok {
				most = max(most, onward(to, depth+1))
			}
		}
		if to, ok := p.doc.Channel(ch.Output); ok {
			most = max(most, onward(to, depth+1))
		}
		memo[ch.ID] = own + most
		return own + most
	}
	longest := 0.0
	for _, ch := range p.doc.Channels {
		longest = max(longest, onward(ch, 0))
	}
	ring := int64(0) // of treated pieces
	for _, pl := range p.players {
		pl.strips(func(t *treated) { ring = max(ring, t.ring) })
	}
	return min(60, longest+0.1+float64(ring)/float64(p.doc.SampleRate))
}

// chainTail bounds for how many seconds a chain sounds on at a tempo.
func chainTail(c *project.Chain, tempo float64) float64 {
	t := 0.0
	for _, n := range c.Nodes {
		if n.Fork != nil {
			most := 0.0
			for _, path := range n.Fork.Paths {
				most = max(most, chainTail(&path.Chain, tempo))
			}
			t += most
			continue
		}
		k, ok := effect.Of(n.Stage.Effect, n.Stage.Version)
		if !ok || k.Tail == nil {
			continue
		}
		v := make([]float64, len(k.Params))
		for i := range v {
			v[i] = valueOf(n.Stage, &k.Params[i])
		}
		t += k.Tail(v, tempo)
	}
	return t
}

// ChannelLatency is how late a channel's signal is behind its chain, in frames.
func ChannelLatency(doc *project.Project, channel string) (int, error) {
	p, err := compile(doc, pages.New(0), &capture{channel: channel}, Listening{})
	if err != nil {
		return 0, err
	}
	return p.latency, nil
}
