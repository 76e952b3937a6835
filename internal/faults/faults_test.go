package faults

import (
	"bufio"
	"fmt"
	"math/rand/v2"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"shoal/internal/printing"
)

// rounds is how many there are: FAULTS, or a few.
func rounds(t *testing.T, few int) int {
	t.Helper()
	text := os.Getenv("FAULTS")
	if text == "" {
		return few
	}
	n, err := strconv.Atoi(text)
	require.NoError(t, err, "FAULTS is a number of rounds")
	return n
}

// well lets the doctor look through a folder in use.
func well(t *testing.T, data string) {
	t.Helper()
	out, err := exec.Command(shoal, "doctor", "--data", data).CombinedOutput()
	require.NoError(t, err, "%s", out)
}

// Killed again and again in the middle of edits, imports, prints and exports: what was acknowledged is there after every start, and
// no print hangs in the end.
func TestWhatWasAcknowledgedOutlivesKills(t *testing.T) {
	data := t.TempDir()
	s, err := serve(t, data)
	require.NoError(t, err)
	x := newSession(t, s)
	all := []*session{x}
	r := rand.New(rand.NewPCG(uint64(time.Now().UnixNano()), 1))
	n := rounds(t, 6)
	for i := range n {
		if i%25 == 24 { // one of thousands of rows is not what is tried here
			x = newSession(t, s)
			all = append(all, x)
		}
		life := time.Duration(20+r.IntN(400)) * time.Millisecond
		ended := time.AfterFunc(life, func() { _ = s.cmd.Process.Signal(syscall.SIGKILL) })
		x.work(s, 400)
		ended.Stop()
		s.kill()
		if s, err = serve(t, data); err != nil {
			require.NoError(t, err, "after kill %d", i+1)
		}
		x.holds(s)
		if i%50 == 0 || i == n-1 {
			well(t, data)
		}
	}
	edits, rows, prints := 0, 0, 0
	for _, x := range all {
		require.Eventually(t, func() bool { return x.printed(s) }, 2*time.Minute, 200*time.Millisecond, "every print comes to an end")
		e, r, p := x.holds(s)
		edits, rows, prints = edits+e, rows+r, prints+p
	}
	t.Logf("%d kills: %d edits, %d imports, %d prints acknowledged, none lost", n, edits, rows, prints)
	require.Positive(t, edits)
}

// printed reports whether every print of a session has come to an end.
func (x *session) printed(s *server) bool {
	var list []printing.Status
	x.who.must(s, "GET", x.path("/prints"), nil, &list)
	return !slices.ContainsFunc(list, func(p printing.Status) bool { return p.State == "waiting" || p.State == "running" })
}

// A disk that fills up: what was acknowledged stays, what has no room is refused as such, the server starts on it, and with room
// everything goes on.
func TestAFullDiskLosesNothing(t *testing.T) {
	data := filepath.Join(t.TempDir(), "small")
	require.NoError(t, os.Mkdir(data, 0o700))
	if err := syscall.Mount("tmpfs", data, "tmpfs", 0, "size=48m"); err != nil {
		t.Skipf("a small disk cannot be made here: %v", err)
	}
	t.Cleanup(func() { _ = syscall.Unmount(data, syscall.MNT_DETACH) })
	s, err := serve(t, data)
	require.NoError(t, err)
	x := newSession(t, s)
	for round := range rounds(t, 2) {
		if round >= 50 {
			break // a disk is no fuller than full
		}
		x.work(s, 30)
		fill := filepath.Join(data, "fill")
		fillUp(t, fill)
		full := 0
		// the journal may have room that it has used before: some changes get through
		for n := 0; full < 20; n++ {
			require.Less(t, n, 2000, "it is full")
			code, err := x.edit(s, 9, round*10_000+n)
			require.NoError(t, err)
			require.Contains(t, []int{http.StatusOK, http.StatusInsufficientStorage}, code)
			if code == http.StatusInsufficientStorage {
				full++
			}
		}
		code, err := x.bring(s, round, noise(t, uint64(5000+round)))
		require.NoError(t, err)
		require.Equal(t, http.StatusInsufficientStorage, code)
		x.holds(s)
		s.kill()
		s, err = serve(t, data)
		require.NoError(t, err, "it starts on a full disk")
		x.holds(s)
		require.NoError(t, os.Remove(fill))
		require.Eventually(t, func() bool {
			code, err := x.edit(s, 8, round)
			return err == nil && code == http.StatusOK
		}, 20*time.Second, 100*time.Millisecond, "with room it goes on")
		x.holds(s)
	}
}

func fillUp(t *testing.T, name string) {
	t.Helper()
	f, err := os.Create(name)
	require.NoError(t, err)
	defer f.Close()
	for block := make([]byte, 1<<16); len(block) > 0; {
		if _, err := f.Write(block); err != nil {
			block = block[:len(block)/2]
		}
	}
}

// Requests that are cut in the middle leave nothing behind, and do not stand in anybody's way.
func TestCutConnectionsLeaveNothing(t *testing.T) {
	data := t.TempDir()
	s, err := serve(t, data)
	require.NoError(t, err)
	x := newSession(t, s)
	address := strings.TrimPrefix(s.url, "http://")
	file := noise(t, 77)
	cookie := ""
	for _, c := range x.who.client.Jar.Cookies(request(t, s.url).URL) {
		cookie += c.Name + "=" + c.Value + ";"
	}
	r := rand.New(rand.NewPCG(9, 9))
	for range 3 * rounds(t, 20) {
		conn, err := net.Dial("tcp", address)
		require.NoError(t, err)
		w := bufio.NewWriter(conn)
		fmt.Fprintf(w, "POST %s HTTP/1.1\r\nHost: %s\r\nCookie: %s\r\nContent-Length: %d\r\n\r\n",
			x.path("/audio?name=cut.wav"), address, cookie, len(file))
		_, _ = w.Write(file[:r.IntN(len(file))])
		_ = w.Flush()
		_ = conn.Close()
	}
	_, err = x.edit(s, 1, 1)
	require.NoError(t, err)
	x.holds(s)
	var opened struct {
		Project struct{ Channels []struct{ Name string } }
	}
	x.who.must(s, "GET", x.path(""), nil, &opened)
	for _, c := range opened.Project.Channels {
		require.NotEqual(t, "cut", c.Name)
	}
	require.Eventually(t, func() bool {
		left, err := filepath.Glob(filepath.Join(data, "audio", "*.partial"))
		tmp, err2 := os.ReadDir(filepath.Join(data, "tmp"))
		return err == nil && err2 == nil && len(left)+len(tmp) == 0
	}, 20*time.Second, 50*time.Millisecond, "what was begun is taken away")
	well(t, data)
}

func request(t *testing.T, url string) *http.Request {
	t.Helper()
	q, err := http.NewRequestWithContext(t.Context(), http.MethodGet, url, nil)
	require.NoError(t, err)
	return q
}

// Of two servers for one folder the second says who has it, and the first one does not notice.
func TestTwoProcessesDoNotShareAFolder(t *testing.T) {
	data := t.TempDir()
	s, err := serve(t, data)
	require.NoError(t, err)
	x := newSession(t, s)
	_, err = serve(t, data)
	require.ErrorContains(t, err, "in use by the Shoal at "+s.url)
	_, err = x.edit(s, 1, 1)
	require.NoError(t, err)
	x.holds(s)
}
