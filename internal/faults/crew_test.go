package faults

import (
	"bufio"
	"context"
	"crypto/tls"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http"
	"net/http/cookiejar"
	"os/exec"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/coder/websocket"
	"github.com/coder/websocket/wsjson"
	jsonpatch "github.com/evanphx/json-patch/v5"
	"github.com/stretchr/testify/require"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/project/projecttest"
)

// house is a Shoal that is reached over the network, killed and started again at one address.
type house struct {
	t     *testing.T
	data  string
	addr  string
	url   string
	first string // the link that makes the first account
	mu    sync.Mutex
	cmd   *exec.Cmd
}

func (h *house) start() {
	h.mu.Lock()
	defer h.mu.Unlock()
	h.cmd = exec.Command(shoal, "serve", "--addr", h.addr, "--data", h.data)
	out, err := h.cmd.StdoutPipe()
	require.NoError(h.t, err)
	require.NoError(h.t, h.cmd.Start())
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		text := lines.Text()
		if _, link, ok := strings.Cut(text, "/welcome#"); ok {
			h.first = link
		}
		if _, at, ok := strings.Cut(text, "Shoal is ready: https://"); ok {
			port := at[strings.LastIndex(strings.TrimSuffix(at, "/"), ":"):]
			h.addr, h.url = "0.0.0.0"+strings.TrimSuffix(port, "/"), "https://127.0.0.1"+strings.TrimSuffix(port, "/")
			return
		}
	}
	require.Fail(h.t, "it did not start")
}

func (h *house) kill() {
	h.mu.Lock()
	defer h.mu.Unlock()
	_ = h.cmd.Process.Kill()
	_ = h.cmd.Wait()
}

// window is somebody's, with what it knows of the song.
type window struct {
	h        *house
	client   *http.Client
	id       string // of the project
	mu       sync.Mutex
	doc      []byte
	revision int64
	acked    []int64
}

// sent is when a change was sent, by its label: others note how long it took until they had it.
type sent struct {
	mu   sync.Mutex
	at   map[string]time.Time
	took []time.Duration
}

func (h *house) window(link, name string) *window {
	jar, err := cookiejar.New(nil)
	require.NoError(h.t, err)
	// whom this test speaks to it has started itself
	client := &http.Client{
		Jar: jar, Timeout: 20 * time.Second, Transport: &http.Transport{TLSClientConfig: &tls.Config{InsecureSkipVerify: true}},
	}
	w := &window{h: h, client: client}
	require.NoError(
		h.t, w.ask("POST", "/api/links/take", map[string]string{"key": link, "name": name, "password": "seven boats at noon"}, nil),
	)
	return w
}

func (w *window) ask(method, path string, body, into any) error {
	j, err := json.Marshal(body)
	if err != nil {
		return err
	}
	q, err := http.NewRequestWithContext(context.Background(), method, w.h.url+path, strings.NewReader(string(j)))
	if err != nil {
		return err
	}
	q.Header.Set("Content-Type", "application/json")
	a, err := w.client.Do(q)
	if err != nil {
		return err
	}
	defer a.Body.Close()
	if a.StatusCode != http.StatusOK {
		return fmt.Errorf("%d", a.StatusCode)
	}
	if into == nil {
		return nil
	}
	return json.NewDecoder(a.Body).Decode(into)
}

type revision struct {
	Revision int64           `json:"revision"`
	Label    string          `json:"label"`
	Patch    json.RawMessage `json:"patch"`
}

// take applies revisions in their order; the window is locked.
func (w *window) take(list []revision) error {
	for _, c := range list {
		if c.Revision != w.revision+1 {
			continue
		}
		p, err := jsonpatch.DecodePatch(c.Patch)
		if err != nil {
			return err
		}
		if w.doc, err = p.Apply(w.doc); err != nil {
			return err
		}
		w.revision = c.Revision
	}
	return nil
}

// catchUp asks for what was missed.
func (w *window) catchUp() error {
	w.mu.Lock()
	defer w.mu.Unlock()
	var m struct {
		Gap     bool       `json:"gap"`
		Changes []revision `json:"changes"`
	}
	if err := w.ask("GET", fmt.Sprintf("/api/projects/%s/changes?since=%d", w.id, w.revision), nil, &m); err != nil {
		return err
	}
	if !m.Gap {
		return w.take(m.Changes)
	}
	return w.open()
}

func (w *window) open() error {
	var o struct {
		Revision int64           `json:"revision"`
		Project  json.RawMessage `json:"project"`
	}
	err := w.ask("GET", "/api/projects/"+w.id, nil, &o)
	if err == nil {
		w.doc, w.revision = o.Project, o.Revision
	}
	return err
}

// listen takes in what others do, over a connection that is cut now and then, until the end.
func (w *window) listen(ctx context.Context, r *rand.Rand, s *sent) {
	for ctx.Err() == nil {
		w.connection(ctx, time.Duration(200+r.IntN(1500))*time.Millisecond, s)
	}
}

func (w *window) connection(ctx context.Context, life time.Duration, s *sent) {
	address := "wss" + strings.TrimPrefix(w.h.url, "https") + "/api/projects/" + w.id + "/live"
	client := &http.Client{Jar: w.client.Jar, Transport: w.client.Transport}
	c, _, err := websocket.Dial(ctx, address, &websocket.DialOptions{HTTPClient: client})
	if err != nil {
		time.Sleep(20 * time.Millisecond)
		return
	}
	defer c.CloseNow()
	c.SetReadLimit(64 << 20)
	short, end := context.WithTimeout(ctx, life)
	defer end()
	_ = w.catchUp()
	for {
		var m struct {
			Change *revision `json:"change"`
		}
		if wsjson.Read(short, c, &m) != nil {
			return
		}
		if m.Change == nil {
			continue
		}
		s.arrived(m.Change.Label)
		w.mu.Lock()
		behind := m.Change.Revision > w.revision+1
		err := w.take([]revision{*m.Change})
		w.mu.Unlock()
		if behind || err != nil {
			_ = w.catchUp()
		}
	}
}

func (s *sent) arrived(label string) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if at, ok := s.at[label]; ok {
		s.took = append(s.took, time.Since(at))
		delete(s.at, label) // the first of the others
	}
}

// work makes changes by chance of what the window shows, until there are enough in all.
func (w *window) work(r *rand.Rand, name string, enough *atomic.Int64, s *sent) {
	for i := 0; enough.Load() > 0; i++ {
		w.mu.Lock()
		doc, err := project.Read(w.doc, engine.EffectInfo)
		w.mu.Unlock()
		if err != nil {
			return // the end of the test says so
		}
		change := projecttest.RandomChange(r, doc)
		if len(doc.Channels) > 20 { // it is not to grow for as long as this goes on
			change = &project.RemoveChannel{ID: doc.Channels[r.IntN(len(doc.Channels))].ID}
		}
		wire, err := project.Encode([]project.Change{change})
		if err != nil {
			continue
		}
		label := fmt.Sprint(name, " ", i)
		s.mu.Lock()
		s.at[label] = time.Now()
		s.mu.Unlock()
		var done struct {
			Revision int64 `json:"revision"`
		}
		body := map[string]any{"label": label, "changes": wire}
		err = w.ask("POST", "/api/projects/"+w.id+"/changes", body, &done)
		if err != nil && err.Error() == "409" { // somebody has the row in hand, and has been asked
			body["anyway"] = true
			err = w.ask("POST", "/api/projects/"+w.id+"/changes", body, &done)
		}
		if err != nil {
			continue // refused, as many are; or nobody knows
		}
		enough.Add(-1)
		w.mu.Lock()
		w.acked = append(w.acked, done.Revision)
		w.mu.Unlock()
	}
}

// Four people change one song over the network at once, connections are cut, and the server is killed and started again: in the end
// all have the same as the server, and nothing that was acknowledged is lost. FAULTS=10000 makes as many changes.
func TestFourPeopleEndWithTheSameSong(t *testing.T) {
	h := &house{t: t, data: t.TempDir(), addr: "0.0.0.0:0"}
	h.start()
	t.Cleanup(h.kill)
	ada := h.window(h.first, "Ada")
	var made struct {
		ID string `json:"id"`
	}
	rope := map[string]any{"name": "Rope", "sampleRate": 48000, "tempo": 100, "beats": 4, "unit": 4, "template": "ensemble"}
	require.NoError(t, ada.ask("POST", "/api/projects", rope, &made))
	var link struct {
		Path string `json:"path"`
	}
	require.NoError(t, ada.ask("POST", "/api/projects/"+made.ID+"/links", map[string]any{"role": "engineer", "uses": 3, "hours": 1}, &link))
	key := strings.TrimPrefix(link.Path, "/welcome#")
	all := []*window{ada, h.window(key, "Bo"), h.window(key, "Cleo"), h.window(key, "Dov")}
	ctx, end := context.WithCancel(t.Context())
	var enough atomic.Int64
	enough.Store(int64(rounds(t, 300)))
	s := &sent{at: map[string]time.Time{}}
	var working, listening sync.WaitGroup
	for i, w := range all {
		w.id = made.ID
		require.NoError(t, w.open())
		listening.Go(func() { w.listen(ctx, rand.New(rand.NewPCG(uint64(i), 1)), s) })
		working.Go(func() { w.work(rand.New(rand.NewPCG(uint64(i), 2)), fmt.Sprint("hand ", i), &enough, s) })
	}
	kills := 0
	for stop := time.Now().Add(20 * time.Minute); enough.Load() > 0 && time.Now().Before(stop); kills++ {
		time.Sleep(2 * time.Second)
		h.kill()
		h.start()
	}
	working.Wait()
	end()
	listening.Wait()
	require.LessOrEqual(t, enough.Load(), int64(0))

	var o struct {
		Revision int64           `json:"revision"`
		Project  json.RawMessage `json:"project"`
	}
	require.NoError(t, ada.ask("GET", "/api/projects/"+made.ID, nil, &o))
	seen := map[int64]bool{}
	for i, w := range all {
		require.NoError(t, w.catchUp())
		require.Equal(t, o.Revision, w.revision)
		require.JSONEq(t, string(o.Project), string(w.doc), "window %d", i)
		for _, n := range w.acked {
			require.LessOrEqual(t, n, o.Revision, "it was acknowledged")
			require.False(t, seen[n], "two were told that revision %d is theirs", n)
			seen[n] = true
		}
	}
	slices.Sort(s.took)
	require.NotEmpty(t, s.took)
	t.Logf("%d revisions, %d killings; half of the changes were with others after %v", o.Revision, kills, s.took[len(s.took)/2])
	well(t, h.data)
}
