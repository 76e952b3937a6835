package faults

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// shoal is the program that is tried, built once.
var shoal string

func TestMain(m *testing.M) {
	dir, err := os.MkdirTemp("", "faults-")
	if err != nil {
		panic(err)
	}
	shoal = filepath.Join(dir, "shoal")
	if out, err := exec.Command("go", "build", "-o", shoal, "shoal/cmd/shoal").CombinedOutput(); err != nil {
		fmt.Fprintf(os.Stderr, "build shoal: %v\n%s", err, out)
		os.Exit(1)
	}
	code := m.Run()
	_ = os.RemoveAll(dir)
	os.Exit(code)
}

// server is a running one.
type server struct {
	t   *testing.T
	cmd *exec.Cmd
	url string
	log *bytes.Buffer
}

// serve starts one on a folder and waits until it is ready; it says why where it does not get there.
func serve(t *testing.T, data string) (*server, error) {
	t.Helper()
	s := &server{t: t, cmd: exec.Command(shoal, "serve", "--addr", "127.0.0.1:0", "--data", data), log: &bytes.Buffer{}}
	s.cmd.Stderr = s.log
	out, err := s.cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, s.cmd.Start())
	t.Cleanup(s.kill)
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		_ = s.cmd.Wait()
		return nil, fmt.Errorf("%s", s.log.String())
	}
	_, address, ok := strings.Cut(strings.TrimSpace(line), "Shoal is ready: ")
	require.True(t, ok, line)
	s.url = strings.TrimSuffix(address, "/")
	return s, nil
}

// kill ends it as a power cut would, but for what the system holds in memory.
func (s *server) kill() {
	if s.cmd.ProcessState == nil {
		_ = s.cmd.Process.Signal(syscall.SIGKILL)
		_ = s.cmd.Wait()
	}
}

// person asks a server in somebody's name.
type person struct {
	client *http.Client
}

func newPerson(t *testing.T) *person {
	t.Helper()
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	return &person{&http.Client{Jar: jar, Timeout: 30 * time.Second, Transport: &http.Transport{DisableKeepAlives: true}}}
}

// ask sends a request: bytes as they are, anything else as JSON; into takes the answer of one that was done.
func (p *person) ask(s *server, method, path string, body, into any) (int, error) {
	var r io.Reader
	kind := "application/octet-stream"
	switch b := body.(type) {
	case nil:
	case []byte:
		r = bytes.NewReader(b)
	default:
		j, err := json.Marshal(b)
		if err != nil {
			return 0, err
		}
		r, kind = bytes.NewReader(j), "application/json"
	}
	q, err := http.NewRequestWithContext(context.Background(), method, s.url+path, r)
	if err != nil {
		return 0, err
	}
	q.Header.Set("Content-Type", kind)
	a, err := p.client.Do(q)
	if err != nil {
		return 0, err
	}
	defer a.Body.Close()
	text, err := io.ReadAll(a.Body)
	if err != nil {
		return a.StatusCode, err
	}
	if a.StatusCode == http.StatusOK && into != nil {
		if raw, ok := into.(*[]byte); ok {
			*raw = text
			return a.StatusCode, nil
		}
		return a.StatusCode, json.Unmarshal(text, into)
	}
	return a.StatusCode, nil
}

// must is ask where nothing may go wrong.
func (p *person) must(s *server, method, path string, body, into any) {
	s.t.Helper()
	code, err := p.ask(s, method, path, body, into)
	require.NoError(s.t, err, "%s %s", method, path)
	require.Equal(s.t, http.StatusOK, code, "%s %s: %s", method, path, s.log.String())
}
