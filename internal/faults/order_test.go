package faults

import (
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// traced serves a folder under strace, which looks at its calls as its arguments say.
func traced(t *testing.T, data string, how ...string) (s *server, signal func(syscall.Signal)) {
	t.Helper()
	if _, err := exec.LookPath("strace"); err != nil {
		t.Skip("strace is not here: what is written cannot be seen or held up")
	}
	was := shoal
	script := filepath.Join(t.TempDir(), "traced")
	require.NoError(t, os.WriteFile(script, []byte("#!/bin/sh\nexec strace -f "+strings.Join(how, " ")+" "+was+" \"$@\"\n"), 0o700))
	shoal = script
	defer func() { shoal = was }()
	s, err := serve(t, data)
	require.NoError(t, err)
	b, err := os.ReadFile(filepath.Join(data, "shoal.lock"))
	require.NoError(t, err)
	id := regexp.MustCompile(`process (\d+)`).FindSubmatch(b)
	require.NotNil(t, id, "%s", b)
	pid, err := strconv.Atoi(string(id[1]))
	require.NoError(t, err)
	signal = func(what syscall.Signal) { // strace ends with what it looks at, not the other way round
		_ = syscall.Kill(pid, what)
		ended := make(chan error, 1)
		go func() { ended <- s.cmd.Wait() }()
		select {
		case <-ended:
		case <-time.After(time.Minute):
			require.Fail(t, "it does not end")
		}
	}
	t.Cleanup(func() { _ = syscall.Kill(pid, syscall.SIGKILL) })
	return s, signal
}

// Nothing is acknowledged before it has reached the disk: a sound's file, then its name, then the database.
func TestWhatIsAcknowledgedHasReachedTheDisk(t *testing.T) {
	data, log := t.TempDir(), filepath.Join(t.TempDir(), "trace")
	s, signal := traced(t, data, "-y", "-s 40", "-o "+log, "-e trace=fsync,fdatasync,rename,renameat,renameat2,write,writev")
	x := newSession(t, s)
	file := noise(t, 4711)
	code, err := x.bring(s, 1, file)
	require.NoError(t, err)
	require.Equal(t, 200, code)
	_, err = x.edit(s, 1, 1)
	require.NoError(t, err)
	signal(syscall.SIGTERM)
	b, err := os.ReadFile(log)
	require.NoError(t, err)
	lines := strings.Split(string(b), "\n")

	// the second import, from behind: its answer, and what came before that
	answers := matching(lines, len(lines), `write\(\d+<(socket|TCP)[^>]*>, "HTTP/1.1 200`)
	require.GreaterOrEqual(t, len(answers), 5, "the name, the project, two imports, an edit")
	edit, second, first := answers[len(answers)-1], answers[len(answers)-2], answers[len(answers)-3]
	last := func(before int, what string) int {
		at := matching(lines, before, what)
		require.NotEmpty(t, at, what)
		return at[len(at)-1]
	}
	named := last(second, `rename.*\.partial".*\.wav"`)
	require.Greater(t, named, first, "of this import")
	require.Greater(t, last(named, `fsync\(\d+<[^>]*\.partial>`), first, "the file is on the disk before it has its name")
	folder := last(second, `fsync\(\d+<[^>]*/audio>`)
	require.Greater(t, folder, named, "then the folder in which it has it")
	require.Greater(t, last(second, `sync\(\d+<[^>]*shoal\.db-wal>`), folder, "then the database that leads to it")
	require.Greater(t, last(edit, `sync\(\d+<[^>]*shoal\.db-wal>`), second, "an edit too is on the disk before its answer")
}

// matching are the lines before one that match.
func matching(lines []string, before int, what string) (at []int) {
	like := regexp.MustCompile(what)
	for i, l := range lines[:before] {
		if like.MatchString(l) {
			at = append(at, i)
		}
	}
	return at
}
