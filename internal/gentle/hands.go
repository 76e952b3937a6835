package gentle

import (
	"runtime"
	"sync"
)

// Hands do long work on as many threads as there are cores, so that many that wait for each other do not each need one.
type Hands struct {
	jobs chan func()
	done sync.WaitGroup
}

// NewHands makes hands for at most so many jobs that wait at the same time.
func NewHands(waiting int) *Hands {
	h := &Hands{jobs: make(chan func(), waiting)}
	for range runtime.GOMAXPROCS(0) {
		h.done.Go(func() {
			Thread()
			for job := range h.jobs {
				job()
			}
		})
	}
	return h
}

// Close waits until all is done that was begun.
func (h *Hands) Close() {
	close(h.jobs)
	h.done.Wait()
}

// Turn does what is put into it one after the other, in its order, by whichever hand is free.
type Turn struct {
	hands *Hands
	room  chan struct{}
	mutex sync.Mutex
	queue []func()
	busy  bool
}

// NewTurn is a turn in which at most so many may wait. There must not be more turns than jobs that the hands let wait.
func (h *Hands) NewTurn(waiting int) *Turn {
	return &Turn{hands: h, room: make(chan struct{}, waiting)}
}

// Put lets something be done; it waits while too much does.
func (t *Turn) Put(job func()) {
	t.room <- struct{}{}
	t.mutex.Lock()
	defer t.mutex.Unlock()
	t.queue = append(t.queue, job)
	if !t.busy {
		t.busy = true
		t.hands.jobs <- t.work
	}
}

// work does what waits.
func (t *Turn) work() {
	for {
		t.mutex.Lock()
		if len(t.queue) == 0 {
			t.busy = false
			t.mutex.Unlock()
			return
		}
		job := t.queue[0]
		t.queue = t.queue[1:]
		t.mutex.Unlock()
		job()
		<-t.room
	}
}
