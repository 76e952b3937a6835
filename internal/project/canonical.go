package project

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"

	"github.com/go-json-experiment/json/jsontext"
)

// Canonical writes a document, or a part of one, in the one form that everybody gives it: RFC 8785, with the
// names of fields in order and numbers as ECMAScript writes them. Two documents are equal when their bytes are.
func Canonical(v any) ([]byte, error) {
	b, err := json.Marshal(v)
	if err != nil {
		return nil, fmt.Errorf("write the document: %w", err)
	}
	c := jsontext.Value(b)
	if err := c.Canonicalize(); err != nil {
		return nil, fmt.Errorf("write the document in its canonical form: %w", err)
	}
	return c, nil
}

// Bare is a document without its lines, in its canonical form: they may hold very many points, and are written
// one by one.
func (p *Project) Bare() ([]byte, error) {
	q := *p
	q.Lines = nil
	return Canonical(&q)
}

// Sum is the SHA-256 of the canonical form of a part of a document.
type Sum [sha256.Size]byte

// SumOf is that of a part, by its canonical form.
func SumOf(canonical []byte) Sum { return sha256.Sum256(canonical) }

// LineSums are the sums of a document's lines.
func (p *Project) LineSums() ([]Sum, error) {
	sums := make([]Sum, len(p.Lines))
	for i, l := range p.Lines {
		b, err := Canonical(l)
		if err != nil {
			return nil, err
		}
		sums[i] = SumOf(b)
	}
	return sums, nil
}
