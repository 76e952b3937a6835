package server

import (
	"fmt"
	"math"
	"path/filepath"

	"github.com/gin-gonic/gin"

	"shoal/internal/audiofile"
	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// loadSound takes a file in for a stage that uses a sound, such as an impulse response.
func (s *Server) loadSound(c *gin.Context) {
	author, id, doc, ok := s.writer(c)
	if !ok {
		return
	}
	file := filepath.Base(c.Query("name"))
	stage, _, ok := doc.StageByID(c.Query("stage"))
	if !ok {
		fail(c, refuse(fmt.Errorf("the stage is no longer there")))
		return
	}
	if k, _ := effect.Of(stage.Effect, stage.Version); k == nil || k.Sound == "" {
		fail(c, refuse(fmt.Errorf("this effect uses no sound")))
		return
	}
	f, _, err := s.upload(c)
	if err != nil {
		fail(c, err)
		return
	}
	defer f.Close()
	sound, _, err := s.folder.Import(c.Request.Context(), f, doc.SampleRate, nil)
	if err == nil {
		err = s.checkImpulse(sound, doc.SampleRate)
	}
	if err != nil {
		fail(c, refuse(fmt.Errorf("%s: %w", file, err)))
		return
	}
	if err := s.keepSound(c.Request.Context(), sound, file, "impulse"); err != nil {
		fail(c, err)
		return
	}
	label := "Load " + file
	err = s.desk.Change(c.Request.Context(), id, author, label, func(*project.Project) []project.Change {
		out := []project.Change{
			&project.AddAudio{Audio: project.Audio{Hash: sound.Hash, Name: file, Frames: sound.Frames, Channels: sound.Channels}},
			&project.SetSound{ID: stage.ID, Sound: sound.Hash},
		}
		if k, _ := effect.Of(stage.Effect, stage.Version); k.Index("space") >= 0 { // its list of places ends with the file
			out = append(out, &project.SetParam{Owner: stage.ID, Name: "space", Value: k.Params[k.Index("space")].Max})
		}
		return out
	})
	if err != nil {
		fail(c, err)
		return
	}
	s.revised(c, id, label)
}

// checkImpulse refuses a sound that is of no use as an impulse response.
func (s *Server) checkImpulse(sound audiofile.Entry, rate int) error {
	if most := int64(effect.ImpulseSeconds * rate); sound.Frames > most {
		return fmt.Errorf(
			"an impulse response lasts at most %d s; this one lasts %.1f s: cut it first",
			effect.ImpulseSeconds,
			float64(sound.Frames)/float64(rate),
		)
	}
	peak := 0.0
	for i := 0; int64(i)*pages.Frames < sound.Frames; i++ {
		p, err := s.folder.Page(sound.Hash, i, pages.Frames)
		if err != nil {
			return err
		}
		for _, side := range p {
			for _, v := range side {
				peak = max(peak, math.Abs(float64(v)))
			}
		}
	}
	if dsp.Decibels(peak) < -100 {
		return fmt.Errorf("it is silent: there is nothing to convolve with")
	}
	return nil
}
