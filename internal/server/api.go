package server

import (
	"github.com/gin-gonic/gin"

	"shoal/internal/param"
	"shoal/internal/project"
	"shoal/internal/store"
)

// route is one operation of the API: what serves it, and the Go types that
// its description and the front end's types are generated from.
type route struct {
	method, path string
	says         string
	handle       func(*Server, *gin.Context)
	in           any // path and query parameters and the body, by tags
	out          any
}

// The pieces of a path.
type inProject struct {
	ID string `path:"id"`
}

type inFork struct {
	inProject
	Fork string `path:"fork"`
}

// Health answers whether the server works.
type Health struct {
	OK bool `json:"ok" required:"true"`
}

// Opened is a project with its revision.
type Opened struct {
	Revision int64           `json:"revision" required:"true"`
	Role     string          `json:"role" required:"true" enum:"listener,engineer,owner"` // of who asks
	Exports  bool            `json:"exports" required:"true"`                             // listeners may export
	Project  project.Project `json:"project" required:"true"`
}

// Listed is a project in the list of all: what it looks like, and who is there.
type Listed struct {
	store.Summary
	Here []store.Person `json:"here" required:"true"`
	Role string         `json:"role" required:"true" enum:"listener,engineer,owner"` // of who asks
	// Chart is missing where the project cannot be read.
	Chart *project.Chart `json:"chart,omitempty"`
}

// NewProject asks for a project: an empty one, or one that begins from a template.
type NewProject struct {
	Name       string  `json:"name" required:"true"`
	SampleRate int     `json:"sampleRate" required:"true"`
	Tempo      float64 `json:"tempo" required:"true"`
	Beats      int     `json:"beats" required:"true"`
	Unit       int     `json:"unit" required:"true"`
	Template   string  `json:"template,omitempty"` // a template's id; empty: the project is empty
}

// Batch asks for changes, all or none.
type Batch struct {
	Label   string         `json:"label" required:"true"`
	Changes []project.Wire `json:"changes" required:"true"`
	// Gesture tells changes that belong together from others: they are one entry of the logbook and one undo.
	Gesture string `json:"gesture,omitempty"`
	// Anyway changes rows too that somebody else has in hand; without it that is refused, so that they are asked first.
	Anyway bool `json:"anyway,omitempty"`
}

// Params describes the parameters that do not belong to an effect.
type Params struct {
	Fader  param.Param `json:"fader" required:"true"`
	Pan    param.Param `json:"pan" required:"true"`
	Send   param.Param `json:"send" required:"true"`
	Mix    param.Param `json:"mix" required:"true"`
	Path   param.Param `json:"path" required:"true"`
	Width  param.Param `json:"width" required:"true"`
	Trim   param.Param `json:"trim" required:"true"` // a fork's output
	Handle param.Param `json:"handle" required:"true"`
	// ClipGain and ClipFade are what clips have.
	ClipGain param.Param `json:"clipGain" required:"true"`
	ClipFade param.Param `json:"clipFade" required:"true"`
	// Moves are what is set of movers and of what hangs on handles.
	Moves param.MoveParams `json:"moves" required:"true"`
	// Shapes are those that movers have; Cycles the note lengths of one movement to and fro.
	Shapes []string `json:"shapes" required:"true"`
	Cycles []Cycle  `json:"cycles" required:"true"`
	// Crossovers are those of a fork of bands, from the lowest up; Linear the same in linear phase.
	Crossovers []param.Param `json:"crossovers" required:"true"`
	Linear     []param.Param `json:"linear" required:"true"`
}

// Cycle is a note length.
type Cycle struct {
	Name     string  `json:"name" required:"true"`
	Quarters float64 `json:"quarters" required:"true"`
}

// Revised answers with the new revision.
type Revised struct {
	Revision int64  `json:"revision" required:"true"`
	Label    string `json:"label" required:"true"`
	// Passed says which changes undo or redo has passed over, and why.
	Passed []string `json:"passed,omitempty"`
}

// Missed answers with the revisions after the one asked about, or says that
// there are too many.
type Missed struct {
	Gap     bool            `json:"gap" required:"true"`
	Changes []ChangeMessage `json:"changes" required:"true"`
}

// NewName renames something.
type NewName struct {
	Name string `json:"name" required:"true"`
}
