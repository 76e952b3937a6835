package project

import (
	"bytes"
	"encoding/json"
	"fmt"
	"slices"
)

// SetMover changes some of what a mover is, and leaves the rest to others: What holds those of its fields
// that change, Target the depth of one parameter that it moves.
type SetMover struct {
	ID     string          `json:"id"`
	What   json.RawMessage `json:"what,omitempty"`
	Target *MoverTarget    `json:"target,omitempty"`
}

func (c *SetMover) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Movers, func(m *Mover) bool { return m.ID == c.ID })
	if i < 0 {
		return nil, Gone("the mover")
	}
	old := p.Movers[i]
	m, err := merged(old, c.What)
	if err != nil {
		return nil, fmt.Errorf("change mover %s: %w", old.Name, err)
	}
	m.ID = old.ID
	m.begin()
	undo := &SetMover{ID: c.ID}
	if undo.What, err = differing(old, m); err != nil {
		return nil, err
	}
	if t := c.Target; t != nil {
		at := slices.IndexFunc(m.Targets, func(x MoverTarget) bool { return x.Owner == t.Owner && x.Name == t.Name })
		if at < 0 {
			return nil, Gone("what it moves")
		}
		was := m.Targets[at]
		undo.Target, m.Targets[at] = &was, *t
	}
	p.Movers[i] = m
	return []Change{undo}, nil
}

// SetHandle changes some of what a handle is, and leaves the rest to others: What holds those of its fields
// that change, Target the range of one parameter that hangs on it.
type SetHandle struct {
	ID     string          `json:"id"`
	What   json.RawMessage `json:"what,omitempty"`
	Target *HandleTarget   `json:"target,omitempty"`
}

func (c *SetHandle) apply(p *Project, _ Effects) ([]Change, error) {
	i := slices.IndexFunc(p.Handles, func(h *Handle) bool { return h.ID == c.ID })
	if i < 0 {
		return nil, Gone("the handle")
	}
	old := p.Handles[i]
	h, err := merged(old, c.What)
	if err != nil {
		return nil, fmt.Errorf("change handle %s: %w", old.Name, err)
	}
	h.ID = old.ID
	undo := &SetHandle{ID: c.ID}
	if undo.What, err = differing(old, h); err != nil {
		return nil, err
	}
	if t := c.Target; t != nil {
		at := slices.IndexFunc(h.Targets, func(x HandleTarget) bool { return x.Owner == t.Owner && x.Name == t.Name })
		if at < 0 {
			return nil, Gone("what hangs on it")
		}
		was := h.Targets[at]
		undo.Target, h.Targets[at] = &was, *t
	}
	p.Handles[i] = h
	return []Change{undo}, nil
}

// merged is a copy of something with the fields that what names in their place, as an RFC 7386 merge patch.
func merged[T any](old *T, what json.RawMessage) (*T, error) {
	if len(what) == 0 {
		return Clone(old), nil
	}
	was, err := json.Marshal(old)
	if err != nil {
		return nil, err
	}
	now, err := mergePatch(was, what)
	if err != nil {
		return nil, err
	}
	d, next := json.NewDecoder(bytes.NewReader(now)), new(T)
	d.DisallowUnknownFields()
	return next, d.Decode(next)
}

func mergePatch(was, what json.RawMessage) (json.RawMessage, error) {
	var parts, to map[string]json.RawMessage
	if err := json.Unmarshal(what, &parts); err != nil || parts == nil { // no object: it takes the place
		if !json.Valid(what) {
			return nil, fmt.Errorf("what is to change is no JSON: %w", err)
		}
		return what, nil
	}
	if json.Unmarshal(was, &to) != nil || to == nil {
		to = map[string]json.RawMessage{}
	}
	for k, v := range parts {
		if string(v) == "null" {
			delete(to, k)
			continue
		}
		x, err := mergePatch(to[k], v)
		if err != nil {
			return nil, err
		}
		to[k] = x
	}
	return json.Marshal(to)
}

// differing is what turns next back into old where they differ, as merged takes it.
func differing[T any](old, next *T) (json.RawMessage, error) {
	was, err := json.Marshal(old)
	if err != nil {
		return nil, err
	}
	now, err := json.Marshal(next)
	if err != nil {
		return nil, err
	}
	return backPatch(was, now)
}

func backPatch(was, now json.RawMessage) (json.RawMessage, error) {
	var a, b map[string]json.RawMessage
	if json.Unmarshal(was, &a) != nil || json.Unmarshal(now, &b) != nil || a == nil || b == nil {
		return was, nil
	}
	out := map[string]json.RawMessage{}
	for k, v := range a {
		if bytes.Equal(v, b[k]) {
			continue
		}
		x, err := backPatch(v, b[k])
		if err != nil {
			return nil, err
		}
		out[k] = x
	}
	for k := range b {
		if _, had := a[k]; !had {
			out[k] = json.RawMessage("null")
		}
	}
	return json.Marshal(out)
}
