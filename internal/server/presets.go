package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"shoal/internal/crew"
	"shoal/internal/engine"
	"shoal/internal/preset"
	"shoal/internal/project"
	"shoal/internal/store"
)

// NewPreset asks to save what stands in a project as a preset.
type NewPreset struct {
	Project string   `json:"project" required:"true"`
	Kind    string   `json:"kind" required:"true" enum:"stage,chain,fork,channel"`
	Target  string   `json:"target" required:"true"` // a stage, or the owner of a chain
	Name    string   `json:"name" required:"true"`
	Says    string   `json:"says" required:"true"`
	Tags    []string `json:"tags" required:"true"`
}

// PresetWords renames a preset.
type PresetWords struct {
	Name string   `json:"name" required:"true"`
	Says string   `json:"says" required:"true"`
	Tags []string `json:"tags" required:"true"`
}

// PresetFile is a file of presets.
type PresetFile struct {
	Version int             `json:"version" required:"true"`
	Presets []preset.Preset `json:"presets" required:"true"`
}

// Taken holds the changes that put a preset somewhere.
type Taken struct {
	Label   string         `json:"label" required:"true"`
	Changes []project.Wire `json:"changes" required:"true"`
}

func (s *Server) presets(c *gin.Context) {
	list := append([]preset.Preset{}, preset.Shipped()...)
	bodies, err := s.store.Things(c.Request.Context(), store.Presets)
	if err != nil {
		fail(c, err)
		return
	}
	for _, b := range bodies {
		var p preset.Preset
		if err := json.Unmarshal(b, &p); err != nil || p.Check() != nil {
			continue // written by something else: it stays in the database
		}
		p.Shipped = false
		list = append(list, p)
	}
	c.JSON(http.StatusOK, list)
}

// findPreset finds a shipped preset or a saved one.
func (s *Server) findPreset(ctx context.Context, id string) (*preset.Preset, error) {
	if p, ok := preset.Find(id); ok {
		return p, nil
	}
	b, err := s.store.Thing(ctx, store.Presets, id)
	if err != nil {
		if errors.Is(err, store.ErrNone) {
			return nil, &refusal{http.StatusNotFound, fmt.Errorf("the preset is no longer there")}
		}
		return nil, err
	}
	var p preset.Preset
	if err := json.Unmarshal(b, &p); err != nil {
		return nil, fmt.Errorf("read preset %s: %w", id, err)
	}
	return &p, p.Check()
}

// own finds a preset that may be changed.
func (s *Server) own(c *gin.Context) (*preset.Preset, error) {
	p, err := s.findPreset(c.Request.Context(), c.Param("preset"))
	if err != nil {
		return nil, err
	}
	if p.Shipped {
		return nil, refuse(fmt.Errorf("%s comes with Shoal and stays as it is: save a copy under a name of your own", p.Name))
	}
	return p, nil
}

// put stores presets, all or none.
func (s *Server) put(c *gin.Context, author string, list ...*preset.Preset) error {
	stored := make([]store.Thing, 0, len(list))
	for _, p := range list {
		if err := p.Check(); err != nil {
			return refuse(err)
		}
		b, err := json.Marshal(p)
		if err != nil {
			return err
		}
		stored = append(stored, store.Thing{ID: p.ID, Name: p.Name, Body: b})
	}
	return s.store.PutThings(c.Request.Context(), store.Presets, author, stored...)
}

func (s *Server) savePreset(c *gin.Context) {
	author, err := s.author(c)
	if err != nil {
		fail(c, err)
		return
	}
	var n NewPreset
	if err := body(c, &n); err != nil {
		fail(c, err)
		return
	}
	if err := s.may(c, n.Project, crew.Export); err != nil {
		fail(c, err)
		return
	}
	doc, _, err := s.desk.Document(c.Request.Context(), n.Project)
	if err != nil {
		fail(c, err)
		return
	}
	p, err := preset.From(doc, n.Kind, n.Target)
	if err != nil {
		fail(c, refuse(err))
		return
	}
	p.Name, p.Says, p.Tags = n.Name, n.Says, n.Tags
	answer(c, p, s.put(c, author, p))
}

func (s *Server) setPreset(c *gin.Context) {
	author, err := s.author(c)
	if err != nil {
		fail(c, err)
		return
	}
	var w PresetWords
	if err := body(c, &w); err != nil {
		fail(c, err)
		return
	}
	p, err := s.own(c)
	if err == nil {
		p.Name, p.Says, p.Tags = w.Name, w.Says, w.Tags
		err = s.put(c, author, p)
	}
	answer(c, p, err)
}

func (s *Server) binPreset(c *gin.Context)     { s.setPresetBin(c, true) }
func (s *Server) restorePreset(c *gin.Context) { s.setPresetBin(c, false) }

func (s *Server) setPresetBin(c *gin.Context, in bool) {
	if _, err := s.author(c); err != nil {
		fail(c, err)
		return
	}
	p, err := s.own(c)
	if err == nil {
		err = s.store.BinThing(c.Request.Context(), store.Presets, p.ID, in)
	}
	answer(c, Health{true}, err)
}

// exportPresets writes presets as a file, with choices by their names.
func (s *Server) exportPresets(c *gin.Context) {
	f := PresetFile{Version: preset.Version, Presets: []preset.Preset{}}
	for _, id := range strings.Split(c.Query("ids"), ",") {
		p, err := s.findPreset(c.Request.Context(), id)
		if err != nil {
			fail(c, err)
			return
		}
		f.Presets = append(f.Presets, *p)
	}
	b, err := project.Named(f, engine.EffectInfo)
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Content-Disposition", disposition(c.Query("name")+".json"))
	c.Data(http.StatusOK, "application/json", b)
}

// importPresets takes a file of presets in, all or none. Every one gets an id of its own.
func (s *Server) importPresets(c *gin.Context) {
	author, err := s.author(c)
	if err != nil {
		fail(c, err)
		return
	}
	var f PresetFile
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, 16<<20)
	b, err := io.ReadAll(c.Request.Body)
	if err == nil {
		b, err = project.Numbered(b, engine.EffectInfo)
	}
	if err == nil {
		err = json.Unmarshal(b, &f)
	}
	if err != nil {
		fail(c, refuse(fmt.Errorf("this is not a file of presets: %w", project.Unread(err))))
		return
	}
	if len(f.Presets) == 0 {
		fail(c, refuse(fmt.Errorf("the file holds no presets")))
		return
	}
	list := make([]*preset.Preset, len(f.Presets))
	for i := range f.Presets {
		p := &f.Presets[i]
		list[i] = p
		p.ID, p.Shipped = project.NewID(), false
		if err := p.Check(); err != nil {
			fail(c, refuse(fmt.Errorf("preset %d of the file: %w; nothing was imported", i+1, err)))
			return
		}
	}
	if err := s.put(c, author, list...); err != nil {
		fail(c, err)
		return
	}
	c.JSON(http.StatusOK, f.Presets)
}

// takePreset answers with the changes that put a preset on a target: to try them, or to
// make them.
func (s *Server) takePreset(c *gin.Context) {
	doc, _, err := s.desk.Document(c.Request.Context(), c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	p, err := s.findPreset(c.Request.Context(), c.Query("preset"))
	if err != nil {
		fail(c, err)
		return
	}
	var batch []project.Change
	if rows, ok := c.GetQuery("rows"); ok {
		batch, err = p.AsReturn(doc, c.Query("target"), strings.FieldsFunc(rows, func(r rune) bool { return r == ',' }))
	} else if at, ok := c.GetQuery("index"); ok {
		index, wrong := strconv.Atoi(at)
		if wrong != nil {
			fail(c, refuse(fmt.Errorf("%q is no place in a chain: it must be a number from 0 on", at)))
			return
		}
		batch, err = p.Dropped(doc, c.Query("target"), index)
	} else {
		batch, err = p.Take(doc, c.Query("target"))
	}
	if err != nil {
		fail(c, refuse(err))
		return
	}
	c.JSON(http.StatusOK, Taken{"Preset " + p.Name, mustEncode(batch)})
}
