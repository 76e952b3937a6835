package printing

import (
	"runtime"
	"syscall"
)

// gentle lets the rest of the machine go first: a print must not disturb
// anybody's listening. The thread keeps its low priority, so it ends with the
// goroutine instead of going back to the pool.
func gentle() {
	runtime.LockOSThread()
	_ = syscall.Setpriority(syscall.PRIO_PROCESS, syscall.Gettid(), 15)
}
