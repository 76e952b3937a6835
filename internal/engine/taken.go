package engine

import (
	"math"

	"shoal/internal/project"
)

// taken is what has been recorded of an input and not fetched yet.
type taken struct {
	Row  string        `json:"row"`
	Runs []project.Run `json:"runs"` // all there are so far
	// At is the frame of the input at which what has not been fetched begins, and Frames how many there are of it.
	At     int64 `json:"at"`
	Frames int64 `json:"frames"`
	// Gone says that the input was unplugged.
	Gone bool `json:"gone,omitempty"`

	ends int64 // song frame at which it is unplugged; 0: never
	next int64 // song frame that follows
	// joins: the plan has turned and has not come to that frame yet, or is beyond it.
	joins bool
	data  []float32
}

// recorder takes down what arrives while the song rolls.
type recorder struct {
	on   bool
	plan *plan // of which the last block was
	from int64 // song frame since which the song has rolled without a break
}

// keptSeconds is for how long before somebody says so what arrived is recorded too: the edges of a take can be drawn out there.
const keptSeconds = 10

// Record begins to take down what arrives at the rows that are ready, or ends it. Where the song rolls already, the last
// seconds are taken too.
func (e *Engine) Record(on bool) {
	e.recording.on, e.recording.plan = on, e.now
	c := &e.now.cursor
	for _, x := range e.inputs {
		if x.taken = nil; !on || x.kind == project.OwnInput { // that comes by a ring of its own
			continue
		}
		x.taken = &taken{Row: x.Row, next: math.MinInt64}
		if !c.rolling || e.seek != nil {
			continue
		}
		for at := max(e.recording.from, c.frame-keptSeconds*int64(e.rate)); at < c.frame && !x.taken.Gone; at += Block {
			x.take(at, int(min(Block, c.frame-at)))
		}
	}
}

// record takes down what arrives while the frames of a block are heard. A plan that takes the place of another may be
// earlier or later in the song: then what is missing is taken besides, and what is there already is not taken again.
func (e *Engine) record(c *cursor, n int) {
	if c.jumped || c.frame < e.recording.from {
		e.recording.from = c.frame
	}
	if !e.recording.on || !c.rolling {
		return
	}
	turned := e.recording.plan != nil && e.recording.plan != e.now
	e.recording.plan = e.now
	for _, x := range e.inputs {
		t := x.taken
		if t == nil || t.Gone {
			continue
		}
		from, to := c.frame, c.frame+int64(n)
		near := t.next > from-int64(e.rate) && t.next < from+int64(e.rate)
		if t.joins = (t.joins || turned) && near && !c.jumped; t.joins {
			from, t.joins = t.next, t.next >= to
		}
		for from < to && !t.Gone {
			k := min(to-from, Block)
			x.take(from, int(k))
			from += k
		}
	}
}

// take takes down some frames.
func (x *live) take(from int64, n int) {
	t := x.taken
	if len(t.Runs) == 0 || t.next != from {
		t.Runs = append(t.Runs, project.Run{Input: t.At + t.Frames, Song: from})
		if len(t.Runs) == 1 && x.gone > 0 {
			t.ends = from + int64(x.gone*x.rate)
		}
	}
	if t.ends > 0 && from+int64(n) >= t.ends {
		n, t.Gone = int(max(0, t.ends-from)), true
	}
	l, r := x.l[:n], x.r[:n]
	x.source.Read(l, r, from)
	for i := range l {
		t.data = append(t.data, float32(l[i]), float32(r[i]))
	}
	t.Frames += int64(n)
	t.Runs[len(t.Runs)-1].Frames += int64(n)
	t.next = from + int64(n)
}

// Taken is what has been recorded on a row since it was asked for last: its frames in pairs, and where they belong; false:
// nothing is being recorded there. What it gives is valid until the next block.
func (e *Engine) Taken(row string) (*taken, []float32, bool) {
	x := e.inputs[row]
	if x == nil || x.taken == nil {
		return nil, nil, false
	}
	t := *x.taken
	data := x.taken.data
	x.taken.At, x.taken.Frames, x.taken.data = t.At+t.Frames, 0, data[:0]
	return &t, data, true
}
