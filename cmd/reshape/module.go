package main

import (
	"errors"
	"fmt"
)

// Section numbers of the binary format (WebAssembly core specification, 5.5).
const (
	customSection = 0
	importSection = 2
	codeSection   = 10
)

// reshape rewrites the functions whose names are wanted; the names are kept or dropped. It returns
// the new module and how many functions it could rewrite; the others stay as they are.
func reshape(module []byte, wanted func(name string) bool, keepNames bool) (out []byte, rewritten int, err error) {
	defer func() { // the reader panics with errTruncated where bytes are missing
		if r := recover(); r != nil {
			e, ok := r.(error)
			if !ok || !errors.Is(e, errTruncated) {
				panic(r)
			}
			err = e
		}
	}()
	if len(module) < 8 || string(module[:4]) != "\x00asm" {
		return nil, 0, errors.New("this is no WebAssembly module")
	}
	names, imported := map[int]string{}, 0
	for r := (&reader{b: module, at: 8}); !r.done(); {
		id, body := section(r)
		switch id {
		case importSection:
			imported = functionImports(body)
		case customSection:
			if s := (&reader{b: body}); s.text() == "name" {
				functionNames(s, names)
			}
		}
	}
	out = append(out, module[:8]...)
	for r := (&reader{b: module, at: 8}); !r.done(); {
		id, body := section(r)
		switch id {
		case codeSection:
			body, rewritten = rewriteCode(body, func(i int) bool { return wanted(names[imported+i]) })
		case customSection:
			if s := (&reader{b: body}); !keepNames && s.text() == "name" {
				continue
			}
		}
		out = append(out, id)
		out = appendU(out, uint64(len(body)))
		out = append(out, body...)
	}
	return out, rewritten, nil
}

func section(r *reader) (id byte, body []byte) {
	id = r.byte()
	return id, r.bytes(int(r.u()))
}

func functionImports(body []byte) int {
	r, n := &reader{b: body}, 0
	for range r.u() {
		r.text()
		r.text()
		switch r.byte() {
		case 0: // function
			r.u()
			n++
		case 1: // table
			r.byte()
			limits(r)
		case 2: // memory
			limits(r)
		case 3: // global
			r.bytes(2)
		}
	}
	return n
}

func limits(r *reader) {
	if r.byte()&1 == 1 {
		r.u()
	}
	r.u()
}

// functionNames reads the part of the name section that names functions.
func functionNames(r *reader, names map[int]string) {
	for !r.done() {
		id := r.byte()
		sub := &reader{b: r.bytes(int(r.u()))}
		if id != 1 {
			continue
		}
		for range sub.u() {
			i := int(sub.u())
			names[i] = sub.text()
		}
	}
}

func rewriteCode(body []byte, wanted func(i int) bool) (out []byte, rewritten int) {
	r := &reader{b: body}
	count := int(r.u())
	out = appendU(nil, uint64(count))
	for i := range count {
		f := r.bytes(int(r.u()))
		if wanted(i) {
			if g, ok := rewriteFunction(f); ok {
				f = g
				rewritten++
			}
		}
		out = appendU(out, uint64(len(f)))
		out = append(out, f...)
	}
	return out, rewritten
}

// rewriteFunction puts the structured form of a function before the original one.
func rewriteFunction(f []byte) ([]byte, bool) {
	r := &reader{b: f}
	for range r.u() { // groups of locals
		r.u()
		r.byte()
	}
	start := r.at
	g, ok := readFlow(r)
	if !ok {
		return nil, false
	}
	code, ok := structure(g)
	if !ok {
		return nil, false
	}
	out := append([]byte{}, f[:start]...)
	if !g.resumable {
		out = append(out, g.prologue...)
		out = append(out, code...)
		return append(out, opUnreachable, opEnd), true
	}
	// PC_B below g.first: the function is entered at its beginning
	out = append(out, opLocalGet, pcB, opI32Const)
	out = appendS(out, int64(g.first))
	out = append(out, opI32LtU, opIf, voidType)
	out = append(out, g.prologue...)
	out = append(out, code...)
	out = append(out, opUnreachable, opEnd)
	return append(out, f[start:]...), true
}

var errTruncated = errors.New("the module ends too early")

// reader reads the binary format; it panics with errTruncated at the end.
type reader struct {
	b  []byte
	at int
}

func (r *reader) done() bool { return r.at >= len(r.b) }

func (r *reader) byte() byte {
	if r.at >= len(r.b) {
		panic(fmt.Errorf("at byte %d: %w", r.at, errTruncated))
	}
	r.at++
	return r.b[r.at-1]
}

func (r *reader) bytes(n int) []byte {
	if n < 0 || r.at+n > len(r.b) {
		panic(fmt.Errorf("at byte %d: %w", r.at, errTruncated))
	}
	r.at += n
	return r.b[r.at-n : r.at]
}

func (r *reader) text() string { return string(r.bytes(int(r.u()))) }

// u reads an unsigned LEB128 number.
func (r *reader) u() uint64 {
	v := uint64(0)
	for shift := 0; ; shift += 7 {
		b := r.byte()
		v |= uint64(b&0x7f) << shift
		if b&0x80 == 0 {
			return v
		}
	}
}

// s reads a signed LEB128 number.
func (r *reader) s() int64 {
	v := int64(0)
	for shift := 0; ; {
		b := r.byte()
		v |= int64(b&0x7f) << shift
		shift += 7
		if b&0x80 == 0 {
			if shift < 64 && b&0x40 != 0 {
				v |= -1 << shift
			}
			return v
		}
	}
}

func appendU(out []byte, v uint64) []byte {
	for v >= 0x80 {
		out = append(out, byte(v)|0x80)
		v >>= 7
	}
	return append(out, byte(v))
}

func appendS(out []byte, v int64) []byte {
	for {
		b := byte(v & 0x7f)
		v >>= 7
		if (v == 0 && b&0x40 == 0) || (v == -1 && b&0x40 != 0) {
			return append(out, b)
		}
		out = append(out, b|0x80)
	}
}
