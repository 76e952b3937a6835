// Package gentle does long work so that everything else goes first: somebody is listening.
package gentle

// Do does work on a thread of its own that lets everything else go first.
func Do[T any](work func() (T, error)) (T, error) {
	type answer struct {
		v   T
		err error
	}
	done := make(chan answer, 1)
	go func() {
		Thread()
		v, err := work()
		done <- answer{v, err}
	}()
	a := <-done
	return a.v, a.err
}
