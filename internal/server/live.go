package server

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/coder/websocket"
	"github.com/coder/websocket/wsjson"
	"github.com/gin-gonic/gin"

	"shoal/internal/project"
)

// mostWindows is how many windows one person may have open at once.
const mostWindows = 40

// live keeps a WebSocket open: changes, presence and progress go out; where the window is comes in.
func (s *Server) live(c *gin.Context) {
	id := c.Param("id")
	if _, _, err := s.desk.Document(c.Request.Context(), id); err != nil {
		fail(c, err)
		return
	}
	person := s.person(c)
	if s.house != nil && s.hub.windowsOf(person.ID) >= mostWindows {
		fail(c, &refusal{http.StatusTooManyRequests, fmt.Errorf("you have %d windows open on projects: close some", mostWindows)})
		return
	}
	conn, err := websocket.Accept(c.Writer, c.Request, nil)
	if err != nil {
		return
	}
	defer conn.CloseNow()
	l := &listener{presence: Presence{Window: project.NewID(), Person: person}, out: make(chan []byte, 256)}
	s.hub.join(id, l)
	defer s.hub.leave(id, l)
	ctx, gone := context.WithCancel(c.Request.Context())
	go func() {
		defer gone()
		s.listen(ctx, conn, id, l)
	}()
	ping := time.NewTicker(20 * time.Second)
	defer ping.Stop()
	for {
		select {
		case b, ok := <-l.out:
			if !ok {
				_ = conn.Close(websocket.StatusPolicyViolation, "too slow: come back and ask for what was missed")
				return
			}
			if err := write(ctx, conn, b); err != nil {
				return
			}
		case <-ping.C:
			if err := conn.Ping(ctx); err != nil {
				return
			}
		case <-ctx.Done():
			return
		}
	}
}

// mostSaid is how much a window says of itself at once, in bytes: it is told to everybody in the project.
const mostSaid = 16 << 10

// listen takes in where a window is, until it goes.
func (s *Server) listen(ctx context.Context, conn *websocket.Conn, project string, l *listener) {
	conn.SetReadLimit(mostSaid)
	for {
		var w Whereabouts
		if err := wsjson.Read(ctx, conn, &w); err != nil {
			return // it has gone, or what it says cannot be read: it comes back
		}
		if len(w.At) <= 64 && len(w.Stage) <= 64 {
			s.hub.move(project, l, w)
		}
	}
}

func write(ctx context.Context, conn *websocket.Conn, b []byte) error {
	ctx, cancel := context.WithTimeout(ctx, 10*time.Second)
	defer cancel()
	return conn.Write(ctx, websocket.MessageText, b)
}
