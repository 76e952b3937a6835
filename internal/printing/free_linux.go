package printing

import "syscall"

// freeBytes is how many bytes can still be written where a folder lies; -1: nobody knows.
func freeBytes(dir string) int64 {
	var s syscall.Statfs_t
	if err := syscall.Statfs(dir, &s); err != nil {
		return -1
	}
	return int64(s.Bavail) * s.Bsize
}
