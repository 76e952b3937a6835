package engine

import (
	"slices"

	"shoal/internal/dsp"
	"shoal/internal/param"
	"shoal/internal/project"
)

// branch is a path of a fork, compiled.
type branch struct {
	start, end *gnode
	buf        pair
	id         string
}

// fork builds a fork of a chain: the split, each path with what is on it, and the join.
func (c *compiler) fork(ch *project.Channel, f *project.Fork, bypassed bool, at *gnode, buf pair, wait []*gnode) *gnode {
	branches := make([]branch, len(f.Paths))
	for i := range branches {
		branches[i].buf = newPair()
	}
	from, wait := c.split(f, branches, at, buf, wait)
	for i, path := range f.Paths {
		c.path(ch, path, &branches[i])
	}
	join := c.g.add("join", f.ID, "the join of "+f.ID, from)
	for _, b := range branches {
		join.after = append(join.after, b.end)
	}
	join.order = append(wait, c.waitFor[f.ID]...)
	c.noteOut(f.ID, bypassed)
	join.emit = func(n *gnode) []step {
		s := &joinStep{
			id:   f.ID,
			buf:  buf,
			dry:  newShift2(n.lagIn - from.lag),
			lag:  n.lagIn,
			add:  f.MixLaw == "add",
			mix:  c.slot(f.ID, "mix", param.Mix, f.Mix, n.lagIn),
			trim: c.slot(f.ID, "trim", param.Joined, f.Trim, n.lagIn),
			wet:  newPair(),
			tmp:  c.tmp,
		}
		s.heard = c.bypass(f.ID, f.Bypass, bypassed, n.lagIn)
		var names []string
		for _, b := range branches {
			s.paths = append(s.paths, inflow{from: b.buf, shift: newShift2(n.lagIn - b.end.lag), name: b.id})
			names = append(names, b.id)
		}
		s.met = c.plan.meeting(f.ID, names, s.paths)
		c.plan.joins[f.ID] = s
		return []step{s, c.meter(Point{Kind: "after", Owner: f.ID}, buf, nil)}
	}
	return join
}

// split gives every path its part. It returns the node behind which the dry signal stands in
// the buffer, and what must have run before that is written again.
func (c *compiler) split(f *project.Fork, branches []branch, at *gnode, buf pair, wait []*gnode) (*gnode, []*gnode) {
	if f.Kind == project.Bands {
		n := c.bands(f, branches, at, buf)
		n.order = append(wait, c.waitFor[f.ID+crossovers]...) // the sum of the bands takes the signal's place
		for i := range branches {
			branches[i].start = n
		}
		return n, nil
	}
	for i := range branches {
		kind := f.Kind
		switch f.Kind {
		case project.LeftRight:
			kind = []string{"left", "right"}[i]
		case project.MidSide:
			kind = []string{"mid", "side"}[i]
		}
		to := branches[i].buf
		n := c.g.add("the "+kind+" into", f.Paths[i].ID, "the way into "+f.Paths[i].Name, at)
		n.emit = func(*gnode) []step { return []step{&splitStep{from: buf, to: to, kind: kind}} }
		branches[i].start = n
		wait = append(wait, n)
	}
	return at, wait
}

func (c *compiler) bands(f *project.Fork, branches []branch, at *gnode, buf pair) *gnode {
	rate := float64(c.doc.SampleRate)
	n := c.g.add("bands", f.ID, "the bands of "+f.ID, at)
	n.says("are", len(f.Paths), f.Slope, f.Linear)
	for _, path := range f.Paths {
		n.says("into", path.ID)
	}
	if f.Linear { // kernels are fixed: moved crossovers are another plan
		n.says("at", f.Crossovers)
		n.latency = dsp.LinearLatency(rate)
	}
	n.emit = func(n *gnode) []step {
		s := &bandStep{id: f.ID, buf: buf, lag: n.lagIn, rate: rate, hz: make([]float64, len(f.Crossovers))}
		for _, b := range branches {
			s.bands = append(s.bands, b.buf)
		}
		for side := range s.sides {
			s.sides[side] = make([][]float64, len(branches))
		}
		for i, hz := range f.Crossovers {
			e := c.slot(f.ID, param.CrossoverName(i+1), param.Crossover(i+1, f.Linear), hz, n.lagIn)
			e.rank = len(f.Crossovers)
			s.edges, s.tracks = append(s.edges, e), append(s.tracks, make([]float64, Block))
		}
		if f.Linear {
			hz := slices.Clone(f.Crossovers)
			dsp.KeepApart(hz, dsp.LowestLinear, dsp.HighestCrossover(rate))
			s.linear = dsp.NewLinearSplitter(rate, hz, f.Slope == 48, Block)
		} else {
			s.split = dsp.NewSplitter(rate, len(f.Crossovers), f.Slope == 48, Block)
		}
		return []step{s}
	}
	return n
}

// path builds what stands on a path, and its end.
func (c *compiler) path(ch *project.Channel, path *project.Path, b *branch) {
	b.id = path.ID
	last, wait := c.chain(ch, &path.Chain, path.Chain.Bypass, b.start, b.buf, nil)
	end := c.g.add("path", path.ID, "path "+path.Name, last)
	end.says("turned", path.Invert)
	end.order = append(wait, c.waitFor[path.ID]...)
	buf, ear := b.buf, pair{}
	if c.only == nil && slices.Contains(c.point.Paths, path.ID) {
		ear = newPair()
		c.heardPaths = append(c.heardPaths, heardPath{end, ear, ch})
	}
	end.emit = func(n *gnode) []step {
		s := &pathStep{id: path.ID, buf: buf, ear: ear, lag: n.lagIn, invert: path.Invert,
			level: c.slot(path.ID, "level", param.Path, path.Level, n.lagIn), pan: c.slot(path.ID, "pan", param.Pan, path.Pan, n.lagIn),
			width: c.slot(path.ID, "width", param.Width, path.Width, n.lagIn)}
		s.open = c.gate(path.ID, param.Mute, path.Mute, n.lagIn)
		c.plan.paths[path.ID] = s
		return []step{s, c.meter(Point{Kind: "path", Owner: path.ID}, buf, nil)}
	}
	b.end = end
	c.tapped("path "+path.ID, end, buf)
	c.sendsAfter(ch, path.ID, end, buf)
}
