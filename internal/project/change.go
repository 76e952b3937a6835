package project

import (
	"encoding/json"
	"fmt"
	"slices"
)

// Change is one named, validated operation on a document. apply works on a
// document that belongs to the caller alone and returns the changes that undo it,
// in the order in which they are to be made. An error leaves the document in
// an unusable state: Apply throws it away.
type Change interface {
	apply(p *Project, effects Effects) (undo []Change, err error)
}

// Apply makes a batch of changes, all or none. The document given must be valid; it is left as it is, and the new one, which has been
// validated, shares with it what is the same in both. undo brings the old one back.
func Apply(p *Project, batch []Change, effects Effects) (next *Project, undo []Change, err error) {
	if next, undo, err = unchecked(p, batch, effects); err != nil {
		return nil, nil, err
	}
	next.keep(p)
	if err := next.validate(effects, p); err != nil {
		return nil, nil, err
	}
	return next, undo, nil
}

// unchecked makes the changes, whatever becomes of the document.
func unchecked(p *Project, batch []Change, effects Effects) (next *Project, undo []Change, err error) {
	next = p.copy()
	for _, c := range batch {
		u, err := c.apply(next, effects)
		if err != nil {
			return nil, nil, err
		}
		undo = slices.Concat(u, undo)
	}
	undo = slices.Concat(next.settleExtents(effects), undo)
	undo = slices.Concat(undo, next.settleWaysIn(p))
	undo = slices.Concat(next.dropUnused(), undo)
	undo = slices.Concat(next.settleOrigins(), undo)
	return next, undo, nil
}

// Wire is a change as it travels and is stored: its name and its fields.
type Wire struct {
	Type string          `json:"type" required:"true"`
	Do   json.RawMessage `json:"do" required:"true"`
}

// Encode turns changes into their wire form.
func Encode(batch []Change) ([]Wire, error) {
	out := make([]Wire, 0, len(batch))
	for _, c := range batch {
		name, ok := nameOf(c)
		if !ok {
			return nil, fmt.Errorf("change %T has no name", c)
		}
		b, err := json.Marshal(c)
		if err != nil {
			return nil, fmt.Errorf("encode %s: %w", name, err)
		}
		out = append(out, Wire{name, b})
	}
	return out, nil
}

// Decode reads changes from their wire form; unknown names and fields are errors.
func Decode(wire []Wire) ([]Change, error) {
	out := make([]Change, 0, len(wire))
	for i, w := range wire {
		make, ok := registry[w.Type]
		if !ok {
			return nil, fmt.Errorf("change %d: there is no change called %q", i+1, w.Type)
		}
		c := make()
		if err := strict(w.Do, c); err != nil {
			return nil, fmt.Errorf("change %d (%s): %w", i+1, w.Type, err)
		}
		out = append(out, c)
	}
	return out, nil
}

// Gone is the error for something that somebody else removed meanwhile.
func Gone(what string) error {
	return fmt.Errorf("%s is no longer there: somebody has removed it", what)
}

func insert[T any](list []T, index int, v T) []T {
	return slices.Insert(list, min(max(index, 0), len(list)), v)
}

// dropped is a list without one of its elements; none at all, where that was the last, as it is read.
func dropped[T any](list []T, index int) []T {
	if list = slices.Delete(list, index, index+1); len(list) == 0 {
		return nil
	}
	return list
}

// swapList is swap for a list. What undoes it names an empty list too: none at all would leave everything as it is.
func swapList[T any](at *[]T, v *[]T) *[]T {
	old := swap(at, v)
	if old != nil && *old == nil {
		old = &[]T{}
	}
	if len(*at) == 0 {
		*at = nil
	}
	return old
}

// swap sets *at to *v when v is given, and returns the old value for the undo.
func swap[T any](at *T, v *T) *T {
	if v == nil {
		return nil
	}
	old := *at
	*at = *v
	return &old
}
