//go:build !linux

package printing

// gentle does nothing where threads have no priority of their own.
func gentle() {}
