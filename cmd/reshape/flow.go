package main

// Instructions that matter here (WebAssembly core specification, 5.4).
const (
	opUnreachable = 0x00
	opBlock       = 0x02
	opLoop        = 0x03
	opIf          = 0x04
	opElse        = 0x05
	opEnd         = 0x0b
	opBr          = 0x0c
	opBrIf        = 0x0d
	opBrTable     = 0x0e
	opReturn      = 0x0f
	opCall        = 0x10
	opCallInd     = 0x11
	opLocalGet    = 0x20
	opLocalSet    = 0x21
	opGlobalGet   = 0x23
	opI32Const    = 0x41
	opI32LtU      = 0x49
	voidType      = 0x40
	pcB           = 0 // the local that holds where a Go function goes on
)

type ending int

const (
	leaves  ending = iota // returns, or cannot be passed
	goesTo                // to next
	chooses               // to other if the number on the stack is not 0, else to next
)

// block is straight code and what comes after it.
type block struct {
	code        []byte
	end         ending
	next, other int
}

// flow is a function as Go means it: blocks and edges between them.
type flow struct {
	prologue  []byte
	blocks    []block // the first is where it begins
	first     int     // PC_B below this means the beginning
	resumable bool    // somebody can come back into it
}

type instr struct {
	op       byte
	from, to int   // its bytes
	n        int64 // label, local or constant
	labels   []int // of br_table, the last is the default
}

// next decodes one instruction.
func next(r *reader) instr {
	i := instr{from: r.at}
	i.op = r.byte()
	switch op := i.op; {
	case op == opBlock || op == opLoop || op == opIf:
		i.n = r.s()
	case op == opBr || op == opBrIf || op == opCall || op >= opLocalGet && op <= 0x26:
		i.n = int64(r.u())
	case op == opBrTable:
		for range r.u() + 1 {
			i.labels = append(i.labels, int(r.u()))
		}
	case op == opCallInd:
		r.u()
		r.u()
	case op >= 0x28 && op <= 0x3e: // loads and stores
		r.u()
		r.u()
	case op == 0x3f || op == 0x40: // size and growth of memory
		r.byte()
	case op == opI32Const || op == 0x42:
		i.n = r.s()
	case op == 0x43:
		r.bytes(4)
	case op == 0x44:
		r.bytes(8)
	case op == 0xfc:
		switch r.u() {
		case 8:
			r.u()
			r.byte()
		case 9:
			r.u()
		case 10:
			r.bytes(2)
		case 11:
			r.byte()
		}
	}
	i.to = r.at
	return i
}

// readFlow reads a function of the form that Go writes:
//
//	[block] loop block... local.get PC_B br_table... end  code end code end ... end unreachable [end i32.const 1] end
//
// where the optional outer block is left to unwind, and a jump is "i32.const K,
// local.set PC_B, br loop". It says no where there is no loop or anything unexpected.
func readFlow(r *reader) (*flow, bool) {
	start := r.at
	i := next(r)
	for i.op == opGlobalGet || i.op == opLocalSet { // the stack pointer is kept in a local
		i = next(r)
	}
	g := &flow{prologue: r.b[start:i.from]}
	unwind := 0
	if i.op == opBlock {
		unwind = 1
		i = next(r)
	}
	if i.op != opLoop {
		return nil, false
	}
	n := -1
	for i = next(r); i.op == opBlock; i = next(r) {
		n++
	}
	table := next(r)
	if i.op != opLocalGet || i.n != pcB || table.op != opBrTable || next(r).op != opEnd {
		return nil, false
	}
	for g.first < len(table.labels) && table.labels[g.first] == 0 {
		g.first++
	}
	s := &segments{r: r, g: g, table: table.labels, unwind: unwind, count: n + 1, begins: make([]int, n+1)}
	for k := range n + 1 {
		if !s.read(k) {
			return nil, false
		}
	}
	for b := range g.blocks { // until now edges named segments
		g.blocks[b].next = s.begin(g.blocks[b].next)
		g.blocks[b].other = s.begin(g.blocks[b].other)
	}
	return g, true
}

// segments reads what stands between two of the places where Go can go on.
type segments struct {
	r      *reader
	g      *flow
	table  []int
	unwind int
	count  int
	begins []int // the block with which each segment begins
}

// Edges to segments are kept as negative numbers until all of their blocks are known.
func toSegment(k int) int { return -1 - k }

func (s *segments) begin(edge int) int {
	if edge < 0 {
		return s.begins[-1-edge]
	}
	return edge
}

// target tells which segment a PC_B stands for.
func (s *segments) target(pc int64) (int, bool) {
	if pc < 0 || pc >= int64(len(s.table)) || s.table[pc] >= s.count {
		return 0, false
	}
	return toSegment(s.table[pc]), true
}

func (s *segments) read(k int) bool {
	s.begins[k] = len(s.g.blocks)
	base := s.unwind + 1 + s.count - 1 - k // labels around it
	var (
		code  []byte
		depth int
		held  []instr // may be the beginning of a jump
		dead  bool
		after bool // the last thing was a call that can be resumed after
	)
	add := func(b block) {
		b.code = code
		s.g.blocks = append(s.g.blocks, b)
		code = nil
	}
	keep := func(i instr) { code = append(code, s.r.b[i.from:i.to]...) }
	flush := func() {
		for _, h := range held {
			keep(h)
		}
		held = held[:0]
	}
	for {
		i := next(s.r)
		if i.op == opEnd && depth == 0 {
			if dead {
				return true
			}
			flush()
			if after && !s.stops() {
				s.g.resumable = true
			}
			if k == s.count-1 { // the end of the loop: nothing comes here
				code = append(code, opUnreachable)
				add(block{end: leaves})
			} else {
				add(block{end: goesTo, next: toSegment(k + 1)})
			}
			return true
		}
		if dead {
			switch i.op {
			case opBlock, opLoop, opIf:
				depth++
			case opEnd:
				depth--
			}
			continue
		}
		after = false
		switch {
		case i.op == opIf && depth == 0:
			flush()
			held = append(held, i)
			depth++
		case i.op == opI32Const && (len(held) == 0 && depth == 0 || len(held) == 1 && held[0].op == opIf):
			held = append(held, i)
		case i.op == opI32Const && len(held) > 0 && held[len(held)-1].op == opI32Const && depth == 0:
			flush()
			held = append(held, i)
		case i.op == opLocalSet && i.n == pcB && len(held) > 0 && held[len(held)-1].op == opI32Const:
			held = append(held, i)
		case i.op == opBr || i.op == opBrIf:
			label := base + depth - 1 - int(i.n)
			switch {
			case int(i.n) < depth: // within what is kept as it is
				flush()
				keep(i)
			case s.unwind == 1 && label == 0 && i.op == opBrIf:
				flush()
				code = append(code, opIf, voidType, opI32Const, 1, opReturn, opEnd)
				after = depth == 0
			case label == s.unwind && i.op == opBr && len(held) >= 2 && held[len(held)-1].op == opLocalSet:
				to, ok := s.target(held[len(held)-2].n)
				if !ok {
					return false
				}
				if held[0].op != opIf {
					held = held[:0]
					add(block{end: goesTo, next: to})
					dead = true
					break
				}
				if next(s.r).op != opEnd {
					return false
				}
				held = held[:0]
				depth--
				add(block{end: chooses, other: to, next: len(s.g.blocks) + 1})
			default:
				return false
			}
		case i.op == opBrTable:
			return false
		default:
			flush()
			keep(i)
			switch i.op {
			case opBlock, opLoop, opIf:
				depth++
			case opEnd:
				depth--
			case opReturn, opUnreachable:
				if depth == 0 {
					add(block{end: leaves})
					dead = true
				}
			}
		}
	}
}

// stops reports whether the next segment cannot be passed: it follows a call that
// never returns.
func (s *segments) stops() bool {
	look := *s.r
	return !look.done() && look.byte() == opUnreachable
}
