package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/store"
)

// mostBack bounds how many changes are taken back to see what a project was like.
const mostBack = 3000

// documentAt is a project as it was at a revision: all that came since is taken back, on a copy.
func (d *desk) documentAt(ctx context.Context, id string, revision int64) (*project.Project, error) {
	before, _, err := d.around(ctx, id, revision+1)
	if errors.Is(err, errNewest) {
		if doc, newest, err := d.Document(ctx, id); err != nil || newest == revision {
			return doc, err
		}
	}
	return before, err
}

// errNewest is for a revision behind the newest.
var errNewest = &refusal{404, errors.New("there is no such revision")}

// around is a project as it was before a change, and after it.
func (d *desk) around(ctx context.Context, id string, revision int64) (before, after *project.Project, err error) {
	doc, newest, err := d.Document(ctx, id)
	if err != nil {
		return nil, nil, err
	}
	if revision > newest {
		return nil, nil, errNewest
	}
	list, err := d.store.After(ctx, id, revision-1, mostBack+1)
	if err != nil {
		return nil, nil, err
	}
	if len(list) == 0 || len(list) > mostBack || list[len(list)-1].Revision != revision {
		return nil, nil, refuse(fmt.Errorf("this is too long ago: only the last %d changes can be looked behind", mostBack))
	}
	after = doc
	for _, e := range list {
		after = doc
		if doc, err = takenBack(doc, e); err != nil {
			return nil, nil, err
		}
	}
	return doc, after, nil
}

// takenBack is a document without a change.
func takenBack(doc *project.Project, e store.Entry) (*project.Project, error) {
	var wire []project.Wire
	if err := json.Unmarshal([]byte(e.Undo), &wire); err != nil {
		return nil, fmt.Errorf("read change %d: %w", e.Revision, err)
	}
	batch, err := project.Decode(wire)
	if err == nil {
		doc, _, err = project.Apply(doc, batch, engine.EffectInfo)
	}
	if err != nil { // an older program's
		return nil, refuse(fmt.Errorf("change %d can no longer be taken back: %w", e.Revision, err))
	}
	return doc, nil
}
