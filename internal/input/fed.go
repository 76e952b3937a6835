package input

import "slices"

// fedMost is how many frames wait to be heard at most: what is older is left out, so that nobody hears themselves late.
const fedMost = 1 << 12

// Fed is an input to which others give what arrives. What has not come yet is silence.
type Fed struct {
	waiting []float32 // pairs
	at      int64     // song frame of the block that was read last
	last    []float32 // and what it was: two plans that fade read the same
}

// Put takes in what has arrived, in pairs.
func (f *Fed) Put(frames []float32) {
	f.waiting = append(f.waiting, frames...)
	if over := len(f.waiting) - 2*fedMost; over > 0 {
		f.waiting = slices.Delete(f.waiting, 0, over)
	}
}

func (f *Fed) Read(l, r []float64, from int64) {
	if from != f.at || len(f.last) != 2*len(l) {
		n := min(2*len(l), len(f.waiting))
		f.last = append(f.last[:0], f.waiting[:n]...)
		f.last = append(f.last, make([]float32, 2*len(l)-n)...)
		f.waiting = f.waiting[:copy(f.waiting, f.waiting[n:])]
		f.at = from
	}
	for i := range l {
		l[i], r[i] = float64(f.last[2*i]), float64(f.last[2*i+1])
	}
}
