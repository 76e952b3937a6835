package engine

import (
	"slices"

	"shoal/internal/dsp"
)

// lowestCrossover bounds crossovers at render, in Hz.
const lowestCrossover = 20

// bandStep divides a signal into the bands of a fork. What it leaves in the place of the
// signal is the unprocessed sum of the bands: that is the dry side of a fork of bands, for the
// signal itself would cancel with the bands around a crossover.
type bandStep struct {
	id     string
	buf    pair
	bands  []pair
	lag    int
	edges  []*slot
	rate   float64
	split  *dsp.Splitter
	linear *dsp.LinearSplitter // in place of split
	hz     []float64           // where the crossovers are, in order and apart
	tracks [][]float64         // the same, frame by frame, while one moves
	set    bool                // the splitter knows hz
	sides  [2][][]float64
}

func (s *bandStep) run(c *cursor, n int) {
	if s.split != nil {
		s.place(c, n)
	}
	last := s.bands[len(s.bands)-1]
	copy(last.l, s.buf.l[:n])
	copy(last.r, s.buf.r[:n])
	for k, b := range s.bands {
		s.sides[0][k], s.sides[1][k] = b.l[:n], b.r[:n]
	}
	if s.linear != nil {
		s.linear.Process(s.sides[0], s.sides[1])
	} else {
		s.split.Process(s.sides[0], s.sides[1])
	}
	for side, bands := range s.sides {
		sum := s.buf.l[:n]
		if side == 1 {
			sum = s.buf.r[:n]
		}
		copy(sum, bands[0])
		for _, b := range bands[1:] {
			dsp.AddScaled(sum, b, 1)
		}
	}
	if s.split != nil && (c.frame+int64(n))%Block == 0 {
		s.split.Flush()
	}
}

// place tells the splitter where the crossovers are: once while they rest, for every frame while
// one of them moves.
func (s *bandStep) place(c *cursor, n int) {
	moving := false
	var at [dsp.MaxCrossovers]float64
	now := at[:len(s.edges)]
	for k, e := range s.edges {
		v := e.fill(c, s.lag, n)
		at[k] = v.Now
		if v.Track == nil && !moving { // at rest nothing is needed frame by frame
			continue
		}
		if !moving { // the first that moves: those before it rest
			moving = true
			for j := range k {
				fillWith(s.tracks[j][:n], at[j])
			}
		}
		if v.Track == nil {
			fillWith(s.tracks[k][:n], v.Now)
		} else {
			copy(s.tracks[k], v.Track)
		}
	}
	highest := dsp.HighestCrossover(s.rate)
	if !moving {
		dsp.KeepApart(now, lowestCrossover, highest)
		if s.set && slices.Equal(now, s.hz) {
			return
		}
		for k, hz := range now {
			s.split.Set(k, hz)
		}
		copy(s.hz, now)
		s.set = true
		return
	}
	for i := range n {
		for k := range now {
			now[k] = s.tracks[k][i]
		}
		dsp.KeepApart(now, lowestCrossover, highest)
		for k, hz := range now {
			s.tracks[k][i] = hz
		}
	}
	for k := range now {
		s.split.Track(k, s.tracks[k][:n])
	}
	s.set = false
}

func fillWith(x []float64, v float64) {
	for i := range x {
		x[i] = v
	}
}

func (s *bandStep) key() string { return "bands " + s.id }

func (s *bandStep) reset() {
	if s.linear != nil {
		s.linear.Clear()
	} else {
		s.split.Clear()
	}
}

// copyFrom takes over the crossovers that were there before, by their place in Hz when bands
// have come or gone.
func (s *bandStep) copyFrom(o twin) {
	old := o.(*bandStep)
	switch {
	case s.linear != nil && old.linear != nil:
		s.linear.CopyFrom(old.linear)
	case s.split != nil && old.split != nil:
		from := make([]int, len(s.edges))
		for i, e := range s.edges {
			from[i] = i
			if len(s.edges) != len(old.edges) {
				from[i] = slices.IndexFunc(old.edges, func(x *slot) bool { return x.base() == e.base() })
			}
		}
		s.split.CopyFrom(old.split, from)
	}
}
