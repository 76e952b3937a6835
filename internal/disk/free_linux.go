// Package disk tells how much room there is where files are kept.
package disk

import "syscall"

// Free is how many bytes can still be written where a folder lies; -1: nobody knows.
func Free(dir string) int64 {
	var s syscall.Statfs_t
	if err := syscall.Statfs(dir, &s); err != nil {
		return -1
	}
	return int64(s.Bavail) * s.Bsize
}
