package main

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"syscall"
)

// lock is a data folder that this process has to itself.
type lock struct{ file *os.File }

const lockName = "shoal.lock"

// errHeld is that another process has a folder.
var errHeld = errors.New("it is in use")

// take makes the folder its own, or says who has it. The system lets go of it when the process ends, however it ends.
func take(dir string) (*lock, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("make data folder: %w", err)
	}
	_ = os.Chmod(dir, 0o700) // of one that was made before this mattered; where that cannot be, it stays
	f, err := os.OpenFile(filepath.Join(dir, lockName), os.O_RDWR|os.O_CREATE, 0o600)
	if err != nil {
		return nil, fmt.Errorf("lock data folder: %w", err)
	}
	l, err := hold(f)
	if err == nil {
		return l, l.says(fmt.Sprintf("a Shoal that is starting (process %d)", os.Getpid()))
	}
	if !errors.Is(err, errHeld) {
		return nil, fmt.Errorf("lock data folder %s: %w", dir, err)
	}
	holder := "another process"
	if b, err := os.ReadFile(filepath.Join(dir, lockName)); err == nil && len(b) > 0 {
		holder = strings.TrimSpace(string(b))
	}
	return nil, fmt.Errorf(
		"the folder %s is in use by %s; open that one in the browser, end it, or choose another folder with --data", dir, holder)
}

// tryLock holds a folder that is there, without a word of who does.
func tryLock(dir string) (*lock, error) {
	f, err := os.Open(filepath.Join(dir, lockName))
	if err != nil {
		return nil, err
	}
	return hold(f)
}

// hold locks a file, and closes it where it cannot.
func hold(f *os.File) (*lock, error) {
	err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB)
	if err == nil {
		return &lock{f}, nil
	}
	_ = f.Close()
	if errors.Is(err, syscall.EWOULDBLOCK) {
		return nil, errHeld
	}
	return nil, err
}

// says notes who holds it.
func (l *lock) says(who string) error {
	if err := l.file.Truncate(0); err != nil {
		return fmt.Errorf("lock data folder: %w", err)
	}
	if _, err := l.file.WriteAt([]byte(who+"\n"), 0); err != nil {
		return fmt.Errorf("lock data folder: %w", err)
	}
	return nil
}

// free lets others have the folder.
func (l *lock) free() { _ = l.file.Close() }
