package project

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
)

// Written is a document without its lines, in its canonical form, row by row: a change is mostly of one row of very many, and
// no more than that is written anew, or compared.
type Written struct {
	head  map[string]json.RawMessage // all but the rows, by the names of its fields
	ids   []string                   // of the rows
	rows  [][]byte
	sums  []Sum // of the rows
	rest  Sum   // of all but rows and lines
	whole []byte
}

// Bytes is the whole of it, the same as Bare gives.
func (w *Written) Bytes() []byte { return w.whole }

// Hash tells a document from any other: the SHA-256, in hexadecimal, of the sums of the document without its rows and lines, of
// each of its rows and of each of its lines, one after the other. So a change of one line or row, of which there may be many
// with very much in them, costs no more than that one.
func (w *Written) Hash(lines []Sum) string {
	h := sha256.New()
	h.Write(w.rest[:])
	for _, s := range slices.Concat(w.sums, lines) {
		h.Write(s[:])
	}
	return hex.EncodeToString(h.Sum(nil))
}

// Write writes a document. Rows that are as they were in the one before are taken over from it, as it was written; there may be none.
func (p *Project) Write(before *Project, was *Written) (*Written, error) {
	head := *p
	head.Lines, head.Channels = nil, nil
	b, err := Canonical(&head)
	if err != nil {
		return nil, err
	}
	w := &Written{rest: SumOf(b)}
	if err := json.Unmarshal(b, &w.head); err != nil {
		return nil, fmt.Errorf("take the document apart: %w", err)
	}
	places := map[*Channel]int{} // of rows that were kept: they are the same objects
	if before != nil {
		for i, c := range before.Channels {
			places[c] = i
		}
	}
	for _, c := range p.Channels {
		w.ids = append(w.ids, c.ID)
		if i, kept := places[c]; kept {
			w.rows, w.sums = append(w.rows, was.rows[i]), append(w.sums, was.sums[i])
			continue
		}
		row, err := Canonical(c)
		if err != nil {
			return nil, err
		}
		w.rows, w.sums = append(w.rows, row), append(w.sums, SumOf(row))
	}
	w.whole = w.with(w.rows, nil)
	return w, nil
}

// with is the document with some of its rows, and without those of its other fields that are left out.
func (w *Written) with(rows [][]byte, without map[string]bool) []byte {
	size := 4096
	for _, v := range w.head {
		size += len(v)
	}
	for _, r := range rows {
		size += len(r) + 1
	}
	out := bytes.NewBuffer(make([]byte, 0, size))
	first := true
	for _, name := range slices.Sorted(maps.Keys(w.head)) {
		if without[name] {
			continue
		}
		if first {
			out.WriteByte('{')
		} else {
			out.WriteByte(',')
		}
		first = false
		fmt.Fprintf(out, "%q:", name)
		if name == "channels" {
			writeList(out, rows)
		} else {
			out.Write(w.head[name])
		}
	}
	out.WriteByte('}')
	return out.Bytes()
}

func writeList(out *bytes.Buffer, rows [][]byte) {
	out.WriteByte('[')
	for i, r := range rows {
		if i > 0 {
			out.WriteByte(',')
		}
		out.Write(r)
	}
	out.WriteByte(']')
}

// Differing are two documents without what they agree in: the rows and the fields that are the same. at is where the rows stand that
// are left; where some came, went or moved, all of them are there, and at is nil.
func Differing(a, b *Written) (x, y []byte, at []int) {
	same := a.same(b)
	if !slices.Equal(a.ids, b.ids) {
		return a.with(a.rows, same), b.with(b.rows, same), nil
	}
	at = []int{}
	var left, right [][]byte
	for i := range a.rows {
		if !bytes.Equal(a.rows[i], b.rows[i]) {
			at, left, right = append(at, i), append(left, a.rows[i]), append(right, b.rows[i])
		}
	}
	return a.with(left, same), b.with(right, same), at
}

// same are the fields, besides the rows, in which two documents agree. What tells the document itself apart is never among them.
func (w *Written) same(other *Written) map[string]bool {
	same := map[string]bool{}
	for name, v := range w.head {
		o, there := other.head[name]
		same[name] = there && name != "id" && name != "channels" && bytes.Equal(v, o)
	}
	return same
}

// RowsChanged are the ids of rows that are in both and say something else, and of those that are gone.
func (w *Written) RowsChanged(now *Written) (ids []string) {
	for i, id := range w.ids {
		if j := slices.Index(now.ids, id); j < 0 || !bytes.Equal(w.rows[i], now.rows[j]) {
			ids = append(ids, id)
		}
	}
	return ids
}

// TouchedBetween is what Touched lists of two revisions, which may hold very many rows that are the same.
func TouchedBetween(old *Project, was *Written, next *Project, now *Written) ([]string, error) {
	x, y, _ := Differing(was, now)
	a, err := FacetsOf(x, old.Lines)
	if err != nil {
		return nil, err
	}
	b, err := FacetsOf(y, next.Lines)
	if err != nil {
		return nil, err
	}
	return Touched(a, b), nil
}
