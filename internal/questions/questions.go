// Package questions is what a page asks of the engine that it hears: a table with one entry a question. Its names and
// types are those that the page is generated from; an answer changes nothing.
package questions

import (
	"bytes"
	"encoding/json"
	"fmt"

	"shoal/internal/effect"
	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/project/view"
	"shoal/internal/routing"
)

// Asked is what is asked about: the engine, and the newest revision without what is tried on it.
type Asked struct {
	Engine *engine.Engine
	Doc    *project.Project
}

// Question is one of the table.
type Question struct {
	Name    string
	In, Out any // as they travel
	answer  func(a Asked, q []byte) (any, error)
}

// The questions' own words.
type (
	// Of names a stage, fork, row, passage or person.
	Of struct {
		ID string `json:"id" required:"true"`
	}
	// Ways asks for the ways from one row to another.
	Ways struct {
		From string `json:"from" required:"true"`
		To   string `json:"to" required:"true"`
	}
	// Thin asks what thinning a stretch would leave, with all that is at most By away left out.
	Thin struct {
		project.Stretch
		By float64 `json:"by" required:"true"`
	}
	// Clips names clips.
	Clips struct {
		Clips []string `json:"clips" required:"true"`
	}
	// At asks about a song frame.
	At struct {
		Frame int64 `json:"frame" required:"true"`
	}
	// Nothing more is said.
	Nothing struct{}
)

var table = []Question{
	question("draw", effect.Picture{}, func(a Asked, q Of) (any, error) {
		b, err := a.Engine.Draw(q.ID)
		return json.RawMessage(b), err
	}),
	question("learn", map[string]float64{}, func(a Asked, q Of) (any, error) { return a.Engine.Learn(q.ID) }),
	question("reach", routing.Reach{}, func(a Asked, q Of) (any, error) { return routing.Of(a.Engine.Document(), q.ID) }),
	question("trace", routing.Trace{}, func(a Asked, q Ways) (any, error) { return routing.From(a.Engine.Document(), q.From, q.To) }),
	question("line", view.LineView{}, func(a Asked, q view.Seen) (any, error) {
		return view.Line(a.Doc, q, engine.EffectInfo)
	}),
	question("thin", project.ThinView{}, func(a Asked, q Thin) (any, error) { return a.Doc.Thinned(q.Stretch, q.By, engine.EffectInfo) }),
	question("movables", []view.Movable{}, func(a Asked, q Of) (any, error) { return view.Movables(a.Doc, q.ID, engine.EffectInfo) }),
	question("passage", view.PassageView{}, func(a Asked, q Of) (any, error) { return view.Passage(a.Doc, q.ID, engine.EffectInfo) }),
	question("lineValues", []engine.LineValue{}, func(a Asked, q At) (any, error) { return a.Engine.LineValues(q.Frame), nil }),
	question("copied", project.Copied{}, func(a Asked, q Clips) (any, error) { return a.Doc.CopyClips(q.Clips) }),
	question("remarks", []view.RemarkView{}, func(a Asked, q Of) (any, error) { return view.Remarks(a.Doc, q.ID, engine.EffectInfo), nil }),
	question("called", project.Spot{}, func(a Asked, q project.About) (any, error) { return a.Doc.Spot(q, engine.EffectInfo) }),
	question("waits", engine.Lateness{}, func(a Asked, _ Nothing) (any, error) { return a.Engine.Waits(), nil }),
}

func question[Q any](name string, out any, answer func(a Asked, q Q) (any, error)) Question {
	return Question{name, *new(Q), out, func(a Asked, b []byte) (any, error) {
		var q Q
		d := json.NewDecoder(bytes.NewReader(b))
		d.DisallowUnknownFields()
		if err := d.Decode(&q); err != nil {
			return nil, fmt.Errorf("the question cannot be read: %w", err)
		}
		return answer(a, q)
	}}
}

// All lists every question.
func All() []Question { return table }

// Answer answers a question, as JSON.
func Answer(a Asked, name string, q []byte) ([]byte, error) {
	for _, x := range table {
		if x.Name != name {
			continue
		}
		v, err := x.answer(a, q)
		if err != nil {
			return nil, err // in words that a person is shown
		}
		return json.Marshal(v)
	}
	return nil, fmt.Errorf("nobody can answer %q", name)
}
