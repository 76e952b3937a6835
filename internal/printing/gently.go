package printing

// gently does work on a thread of its own that lets everything else go first: somebody is listening.
func gently[T any](work func() (T, error)) (T, error) {
	type answer struct {
		v   T
		err error
	}
	done := make(chan answer, 1)
	go func() {
		gentle()
		v, err := work()
		done <- answer{v, err}
	}()
	a := <-done
	return a.v, a.err
}
