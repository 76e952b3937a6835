package project

import (
	"encoding/json"
	"errors"
	"fmt"
)

// Revision is what a document says otherwise than the one before: all but its rows and lines, of which there may be very many,
// and of those what is at another place, and what is new.
type Revision struct {
	Rest  json.RawMessage  `json:"rest"` // the document with empty lists of rows and lines
	Rows  Others[*Channel] `json:"rows"`
	Lines Others[*Line]    `json:"lines"`
}

// Others are those of a list that are not where they were, as they were; Count is how long it is now.
type Others[T any] struct {
	Count   int        `json:"count"`
	Changed []Other[T] `json:"changed"`
}

// Other is one of them, and its place: what Was at a place before, or what there now Is.
type Other[T any] struct {
	At  int  `json:"at"`
	Was *int `json:"was,omitempty"`
	Is  T    `json:"is,omitempty"`
}

// ReadRevision decodes a revision of a valid document and validates what it makes; what it does not name both share.
func ReadRevision(before *Project, b []byte, effects Effects) (*Project, error) {
	var r Revision
	if err := json.Unmarshal(b, &r); err != nil {
		return nil, fmt.Errorf("read revision: %w", err)
	}
	var p Project
	if err := strict(r.Rest, &p); err != nil {
		return nil, fmt.Errorf("read revision: %w", err)
	}
	var err error
	if p.Channels, err = among(before.Channels, r.Rows); err != nil {
		return nil, fmt.Errorf("read revision: rows: %w", err)
	}
	if p.Lines, err = among(before.Lines, r.Lines); err != nil {
		return nil, fmt.Errorf("read revision: lines: %w", err)
	}
	if err := p.complete(); err != nil {
		return nil, fmt.Errorf("read revision: %w", err)
	}
	if err := p.validate(effects, before); err != nil {
		return nil, err
	}
	return &p, nil
}

// among is a list as it was, but for what has changed.
func among[T any](was []*T, r Others[*T]) ([]*T, error) {
	if r.Count < 0 || r.Count > len(was)+len(r.Changed) {
		return nil, fmt.Errorf("there cannot be %d of them: there were %d, and %d are brought", r.Count, len(was), len(r.Changed))
	}
	list := make([]*T, r.Count)
	copy(list, was)
	for _, o := range r.Changed {
		if o.At < 0 || o.At >= r.Count {
			return nil, fmt.Errorf("there is no place %d among %d", o.At, r.Count)
		}
		switch {
		case o.Was == nil:
			list[o.At] = o.Is
		case *o.Was >= 0 && *o.Was < len(was):
			list[o.At] = was[*o.Was]
		default:
			return nil, fmt.Errorf("there was no place %d among %d", *o.Was, len(was))
		}
	}
	for _, x := range list {
		if x == nil {
			return nil, errors.New("one is missing")
		}
	}
	return list, nil
}
