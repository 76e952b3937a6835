package engine

import (
	"context"
	"math"
	"runtime"
	"sync"

	"shoal/internal/gentle"
)

// lap is how many frames lanes work on before they hand them on, and ahead how many laps may wait in a wire.
const (
	lap   = 2048
	ahead = 3
)

// crew renders a plan in its lanes, as many at a time as there are cores. All of them cut the song into the same blocks
// as one alone would, so that what comes out is the same, bit for bit.
type crew struct {
	p      *plan
	to     int64 // where clips no longer feed the tail
	frames int64 // that are run in all
	load   Loader

	library sync.Mutex // whoever looks into the library, or brings pages

	mutex   sync.Mutex // guards all that follows
	changed *sync.Cond
	err     error
	laps    [][]int // blocks of the laps that somebody still needs
	first   int     // the number of the first of them
	cut     int64   // frames that have been cut into laps
	at      plan    // where the next lap is cut
	done    map[*lane]int
	busy    map[*lane]bool
	last    int // how many laps there are; -1: that is not known yet
}

// pourApart is pour for a plan with lanes: took is told of every block in its order, once what is given stands in the
// plan's buffers.
func (p *plan) pourApart(ctx context.Context, to, frames int64, load Loader, progress func(float64), took func(n int) error) error {
	w := &crew{p: p, to: to, frames: frames, load: load, last: -1, done: map[*lane]int{}, busy: map[*lane]bool{}}
	w.changed = sync.NewCond(&w.mutex)
	w.at = plan{cursor: p.cursor}
	for _, x := range p.lined { // with places of their own: the lanes move theirs
		w.at.lined = append(w.at.lined, linedSlot{x.slot.reader(), x.lag})
	}
	stop := context.AfterFunc(ctx, func() { w.fail(ctx.Err()) })
	defer stop()
	var hands sync.WaitGroup
	for range min(runtime.GOMAXPROCS(0), len(p.lanes)) {
		hands.Go(func() {
			gentle.Thread()
			w.work(ctx)
		})
	}
	w.collect(progress, took)
	hands.Wait()
	w.mutex.Lock()
	defer w.mutex.Unlock()
	return w.err
}

// fail lets everybody stop; the first reason counts.
func (w *crew) fail(err error) {
	w.mutex.Lock()
	defer w.mutex.Unlock()
	if w.err == nil {
		w.err = err
	}
	w.changed.Broadcast()
}

// work runs laps of whichever lane can go on, until all are through.
func (w *crew) work(ctx context.Context) {
	for {
		l, k, blocks := w.next()
		if l == nil {
			return
		}
		if err := w.run(ctx, l, k, blocks); err != nil {
			w.fail(err)
			return
		}
		w.mutex.Lock()
		w.busy[l] = false
		w.done[l]++
		w.changed.Broadcast()
		w.mutex.Unlock()
	}
}

// next waits for a lane that can go on, the one that is the furthest behind; none, when there is nothing more to do.
func (w *crew) next() (l *lane, k int, blocks []int) {
	w.mutex.Lock()
	defer w.mutex.Unlock()
	for w.err == nil {
		through := true
		for _, x := range w.p.lanes {
			if w.last < 0 || w.done[x] < w.last {
				through = false
				if !w.busy[x] && w.can(x) && (l == nil || w.done[x] < w.done[l]) {
					l = x
				}
			}
		}
		if through {
			return nil, 0, nil
		}
		if l != nil {
			if blocks = w.lap(w.done[l]); blocks != nil {
				w.busy[l] = true
				return l, w.done[l], blocks
			}
			l = nil // it has been found that there are no more
			continue
		}
		w.changed.Wait()
	}
	return nil, 0, nil
}

// can reports whether a lane has all that its next lap needs, and room for what comes of it.
func (w *crew) can(l *lane) bool {
	k := w.done[l]
	for _, x := range l.ins {
		if w.done[x.source] <= k {
			return false
		}
	}
	for _, x := range l.outs {
		if w.done[x.target] <= k-ahead { // nil: whoever renders
			return false
		}
	}
	return true
}

// lap gives the blocks of a lap; nil: the song is over.
func (w *crew) lap(k int) []int {
	for k >= w.first+len(w.laps) {
		if w.cut >= w.frames {
			w.last = w.first + len(w.laps)
			w.changed.Broadcast()
			return nil
		}
		var blocks []int
		for sum := 0; sum+Block <= lap && w.cut < w.frames; {
			n := w.at.room(Block)
			if left := w.to - w.at.cursor.frame; left > 0 {
				n = int(min(int64(n), left))
			}
			w.at.cursor.advance(n)
			blocks = append(blocks, n)
			sum, w.cut = sum+n, w.cut+int64(n)
		}
		w.laps = append(w.laps, blocks)
	}
	return w.laps[k-w.first]
}

// forget drops the laps that everybody is through with.
func (w *crew) forget() {
	least := w.done[nil]
	for _, l := range w.p.lanes {
		least = min(least, w.done[l])
	}
	if least-w.first > 64 {
		w.laps = append([][]int{}, w.laps[least-w.first:]...)
		w.first = least
	}
}

// run does a lap of a lane.
func (w *crew) run(ctx context.Context, l *lane, k int, blocks []int) error {
	if k == 0 {
		l.cursor = w.p.cursor
	}
	at := 0
	for _, n := range blocks {
		if err := w.feed(ctx, l, n); err != nil {
			return err
		}
		for _, x := range l.ins {
			x.arrive(k, at, n)
		}
		for _, s := range l.steps {
			s.run(&l.cursor, n)
		}
		for _, x := range l.outs {
			x.leave(k, at, n)
		}
		l.cursor.advance(n)
		at += n
		l.blocks++
	}
	return nil
}

// feed makes what the clips of a lane need for a block present, and the strips of its pieces ready. One lane at a time
// does so: they all look into one library.
func (w *crew) feed(ctx context.Context, l *lane, n int) error {
	if len(l.players) == 0 {
		return nil
	}
	w.library.Lock()
	defer w.library.Unlock()
	past := l.cursor.frame >= w.to
	for _, pl := range l.players {
		if past {
			pl.past()
		}
		if past || l.blocks%64 == 0 {
			pl.prepare(l.cursor.frame, l.cursor.frame+Block)
		}
	}
	if past {
		return nil
	}
	return fetch(ctx, &plan{cursor: l.cursor, players: l.players}, n, w.load)
}

// collect gives what comes out to whoever renders, block by block.
func (w *crew) collect(progress func(float64), took func(n int) error) {
	done := int64(0)
	for k := 0; ; k++ {
		blocks := w.given(k)
		if blocks == nil {
			return
		}
		at := 0
		for _, n := range blocks {
			for _, x := range w.p.given {
				x.arrive(k, at, n)
			}
			if err := took(n); err != nil {
				w.fail(err)
				return
			}
			at += n
		}
		if done += int64(at); progress != nil {
			progress(math.Min(1, float64(done)/float64(w.frames)))
		}
		w.mutex.Lock()
		w.done[nil]++
		w.forget()
		w.changed.Broadcast()
		w.mutex.Unlock()
	}
}

// given waits until a lap has been rendered; nil: there are no more, or something went wrong.
func (w *crew) given(k int) []int {
	w.mutex.Lock()
	defer w.mutex.Unlock()
	for w.err == nil {
		there := true
		for _, x := range w.p.given {
			there = there && w.done[x.source] > k
		}
		if there {
			return w.lap(k)
		}
		if w.last >= 0 && k >= w.last {
			return nil
		}
		w.changed.Wait()
	}
	return nil
}

// leave keeps a block of lap k for whoever reads it.
func (x *wire) leave(k, at, n int) {
	to := x.laps[k%ahead]
	copy(to[at:at+n], x.from.l)
	copy(to[lap+at:lap+at+n], x.from.r)
}

// arrive puts a block of lap k where it is read.
func (x *wire) arrive(k, at, n int) {
	from := x.laps[k%ahead]
	copy(x.to.l[:n], from[at:])
	copy(x.to.r[:n], from[lap+at:])
}

// reader is a slot that can only be asked where its line jumps, with a place of its own in it.
func (s *slot) reader() *slot {
	out := &slot{}
	if s.line != nil {
		l := *s.line
		out.line = &l
	}
	for _, x := range s.spans {
		sp := *x
		out.spans = append(out.spans, &sp)
	}
	return out
}
