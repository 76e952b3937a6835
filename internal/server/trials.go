package server

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"shoal/internal/printing"
)

// CompareSpec asks for a comparison of a channel's trials over a range of song frames.
type CompareSpec struct {
	Channel string `json:"channel" required:"true"`
	From    int64  `json:"from" required:"true"`
	To      int64  `json:"to" required:"true"`
}

// compare renders the trials of a row and measures them. It ends with the request.
func (s *Server) compare(c *gin.Context) {
	var spec CompareSpec
	doc, ok := s.asked(c, &spec)
	if !ok {
		return
	}
	r, err := printing.Compare(c.Request.Context(), doc, s.folder, spec.Channel, spec.From, spec.To, s.progress(c))
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, r)
}
