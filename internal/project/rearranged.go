package project

import "slices"

// RowStep is a row that goes from a place, comes to one, or moves from one to another.
type RowStep struct {
	// At is the place; From where it was, for one that moves.
	At, From int
	// Row is one that comes, as it is written; nil otherwise.
	Row  []byte
	Goes bool
}

// Rearranged are the steps, one after the other, that bring the rows of a document to the places that those of another have, and
// the document as it is then: of the same rows at the same places, which may yet say something else.
func (w *Written) Rearranged(now *Written) ([]RowStep, *Written) {
	after := &Written{head: w.head, ids: slices.Clone(w.ids), rows: slices.Clone(w.rows)}
	var steps []RowStep
	stays := map[string]bool{}
	for _, id := range now.ids {
		stays[id] = true
	}
	for i := len(after.ids) - 1; i >= 0; i-- {
		if !stays[after.ids[i]] {
			steps = append(steps, RowStep{At: i, Goes: true})
			after.take(i)
		}
	}
	for i, id := range now.ids {
		if i < len(after.ids) && after.ids[i] == id {
			continue
		}
		if from := slices.Index(after.ids, id); from >= 0 {
			steps = append(steps, RowStep{At: i, From: from})
			after.put(i, id, after.take(from))
			continue
		}
		steps = append(steps, RowStep{At: i, Row: now.rows[i]})
		after.put(i, id, now.rows[i])
	}
	return steps, after
}

func (w *Written) take(at int) (row []byte) {
	row = w.rows[at]
	w.ids, w.rows = slices.Delete(w.ids, at, at+1), slices.Delete(w.rows, at, at+1)
	return row
}

func (w *Written) put(at int, id string, row []byte) {
	w.ids, w.rows = slices.Insert(w.ids, at, id), slices.Insert(w.rows, at, row)
}
