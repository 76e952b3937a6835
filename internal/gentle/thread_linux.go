package gentle

import (
	"runtime"
	"syscall"
)

// Thread lets the rest of the machine go first: long work must not disturb
// anybody's listening. The thread keeps its low priority, so it ends with the
// goroutine instead of going back to the pool.
func Thread() {
	runtime.LockOSThread()
	_ = syscall.Setpriority(syscall.PRIO_PROCESS, syscall.Gettid(), 15)
}
