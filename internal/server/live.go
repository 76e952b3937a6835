package server

import (
	"context"
	"time"

	"github.com/coder/websocket"
	"github.com/gin-gonic/gin"

	"shoal/internal/project"
)

// live keeps a WebSocket open: changes, presence and progress go out, nothing
// but a close comes in.
func (s *Server) live(c *gin.Context) {
	id := c.Param("id")
	if _, _, err := s.desk.Document(c.Request.Context(), id); err != nil {
		fail(c, err)
		return
	}
	person := s.person(c)
	conn, err := websocket.Accept(c.Writer, c.Request, nil)
	if err != nil {
		return
	}
	defer conn.CloseNow()
	l := &listener{presence: Presence{Window: project.NewID(), Person: person}, out: make(chan []byte, 256)}
	s.hub.join(id, l)
	defer s.hub.leave(id, l)
	ctx := conn.CloseRead(c.Request.Context())
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

func write(ctx context.Context, conn *websocket.Conn, b []byte) error {
	ctx, cancel := context.WithTimeout(ctx, 10*time.Second)
	defer cancel()
	return conn.Write(ctx, websocket.MessageText, b)
}
