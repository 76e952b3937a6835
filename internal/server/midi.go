package server

import (
	"fmt"
	"io"
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"shoal/internal/audiofile"
	"shoal/internal/project"
)

// maxMIDI bounds what is read of a MIDI file.
const maxMIDI = 16 << 20

// exportMIDI gives tempo, meter and sections as a standard MIDI file.
func (s *Server) exportMIDI(c *gin.Context) {
	p, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	var t audiofile.MIDITime
	for _, x := range p.Clock().PlainTempo() {
		t.Tempos = append(t.Tempos, audiofile.MIDITempo{Tick: x.Tick, BPM: x.BPM})
	}
	for _, x := range p.Meter {
		t.Meters = append(t.Meters, audiofile.MIDIMeter{Tick: x.Tick, Beats: x.Beats, Unit: x.Unit})
	}
	for _, x := range p.Sections {
		t.Markers = append(t.Markers, audiofile.MIDIMarker{Tick: x.Tick, Name: x.Name})
	}
	c.Header("Content-Disposition", disposition(p.Name+".mid"))
	c.Data(http.StatusOK, "audio/midi", audiofile.WriteMIDI(t))
}

// importMIDI takes tempo, meter and sections from a standard MIDI file, as one change.
func (s *Server) importMIDI(c *gin.Context) {
	author, err := s.author(c)
	if err != nil {
		fail(c, err)
		return
	}
	b, err := io.ReadAll(http.MaxBytesReader(c.Writer, c.Request.Body, maxMIDI))
	if err != nil {
		fail(c, refuse(fmt.Errorf("read the MIDI file: %w", err)))
		return
	}
	t, err := audiofile.ReadMIDI(b)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	id, label := c.Param("id"), "Take tempo and sections from a MIDI file"
	err = s.desk.Change(c.Request.Context(), id, author, label, func(p *project.Project) []project.Change { return timeChanges(p, t) })
	if err != nil {
		fail(c, refuse(err))
		return
	}
	s.revised(c, id, label)
}

// timeChanges are the changes that give a project a MIDI file's time. What the file does not say
// stays as it is at the beginning.
func timeChanges(p *project.Project, t audiofile.MIDITime) []project.Change {
	set := &project.SetTime{Tempo: slices.Clone(p.Tempo[:1]), Meter: slices.Clone(p.Meter[:1])}
	for _, x := range t.Tempos {
		next := project.Tempo{Tick: x.Tick, BPM: x.BPM}
		if last := &set.Tempo[len(set.Tempo)-1]; last.Tick == x.Tick {
			*last = next
		} else {
			set.Tempo = append(set.Tempo, next)
		}
	}
	for _, x := range t.Meters {
		next := project.Meter{Tick: x.Tick, Beats: x.Beats, Unit: x.Unit}
		if last := &set.Meter[len(set.Meter)-1]; last.Tick == x.Tick {
			*last = next
		} else {
			set.Meter = append(set.Meter, next)
		}
	}
	list := []project.Change{set}
	var sections []project.Section
	for _, m := range t.Markers {
		if n := len(sections); n > 0 && sections[n-1].Tick == m.Tick {
			continue
		}
		sections = append(sections, project.Section{ID: project.NewID(), Name: m.Name, Tick: m.Tick})
	}
	if len(sections) > 0 {
		list = append(list, &project.SetSections{Sections: sections})
	}
	return list
}
