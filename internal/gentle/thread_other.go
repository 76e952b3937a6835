//go:build !linux

package gentle

// Thread does nothing where threads have no priority of their own.
func Thread() {}
