package server

import (
	"bufio"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"syscall"

	"github.com/gin-gonic/gin"

	"shoal/internal/input"
	"shoal/internal/project"
	"shoal/internal/recording"
)

// Recording names one that has begun.
type Recording struct {
	ID string `json:"id" required:"true"`
}

// Landed names the takes that a recording has become.
type Landed struct {
	Takes []string `json:"takes" required:"true"`
}

// Recorded says how much of a row is safe.
type Recorded struct {
	Frames int64 `json:"frames" required:"true"`
}

type inRecording struct {
	Recording string `path:"recording"`
}

// ofRecording are the operations of what is recorded.
func ofRecording() []route {
	return []route{
		{"GET", "/api/inputs", "The stand-ins from which can be recorded.", (*Server).inputs, nil, []input.Kind{}},
		{"POST", "/api/projects/:id/recordings", "Begin to record.", (*Server).beginRecording, struct {
			inProject
			recording.Plan
		}{}, Recording{}},
		{"PUT", "/api/recordings/:recording/rows/:row",
			"Send what has arrived on a row: where it belongs as a line of JSON, then pairs of 32 bit floats.",
			(*Server).putRecording, struct {
				inRecording
				Row string `path:"row"`
			}{}, Recorded{}},
		{"POST", "/api/recordings/:recording/end", "End a recording: what there is of it lands.", (*Server).endRecording, struct {
			inRecording
			recording.Ending
		}{}, Landed{}},
	}
}

// KeepFree lets recordings leave so many bytes of the disk free. It is set before the first request.
func (s *Server) KeepFree(bytes int64) { s.recordings.Keep = bytes }

func (s *Server) inputs(c *gin.Context) { c.JSON(http.StatusOK, input.Kinds) }

func (s *Server) beginRecording(c *gin.Context) {
	author, err := s.author(c)
	if err != nil {
		fail(c, err)
		return
	}
	var plan recording.Plan
	if err := body(c, &plan); err != nil {
		fail(c, err)
		return
	}
	who, err := s.store.Person(c.Request.Context(), author)
	if err != nil {
		fail(c, err)
		return
	}
	id, err := s.recordings.Begin(c.Request.Context(), c.Param("id"), author, who.Name, plan)
	if errors.Is(err, recording.ErrNoRoom) {
		fail(c, &refusal{http.StatusInsufficientStorage, fmt.Errorf("%w: make some where Shoal keeps its data, then record", err)})
		return
	}
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, Recording{id})
}

// maxPart is the most that is sent of a recording at once: some minutes.
const maxPart = 64 << 20

func (s *Server) putRecording(c *gin.Context) {
	in := bufio.NewReader(http.MaxBytesReader(c.Writer, c.Request.Body, maxPart))
	line, err := in.ReadBytes('\n')
	var part recording.Part
	if err == nil {
		err = json.Unmarshal(line, &part)
	}
	if err != nil {
		fail(c, refuse(fmt.Errorf("where this belongs cannot be read: %w", project.Unread(err))))
		return
	}
	data, err := io.ReadAll(in)
	if err != nil {
		fail(c, refuse(fmt.Errorf("what was recorded did not arrive whole: %w", err)))
		return
	}
	frames, err := s.recordings.Put(c.Param("recording"), c.Param("row"), part, data)
	if err != nil {
		fail(c, whyNotRecorded(err))
		return
	}
	c.JSON(http.StatusOK, Recorded{frames})
}

func (s *Server) endRecording(c *gin.Context) {
	var how recording.Ending
	if err := body(c, &how); err != nil {
		fail(c, err)
		return
	}
	takes, err := s.recordings.End(c.Request.Context(), c.Param("recording"), how)
	if err != nil {
		fail(c, whyNotRecorded(err))
		return
	}
	c.JSON(http.StatusOK, Landed{append([]string{}, takes...)})
}

// whyNotRecorded gives an error the status that it deserves.
func whyNotRecorded(err error) error {
	switch {
	case errors.Is(err, recording.ErrOver):
		return &refusal{http.StatusGone, err}
	case errors.Is(err, syscall.ENOSPC), errors.Is(err, recording.ErrNoRoom):
		full := fmt.Errorf("%w: make some where Shoal keeps its data; what was recorded waits in this window until then",
			recording.ErrNoRoom)
		return &refusal{http.StatusInsufficientStorage, full}
	}
	return refuse(err)
}
