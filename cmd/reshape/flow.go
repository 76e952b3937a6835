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

// segment is what is read of one while its end has not come.
type segment struct {
	*segments
	k     int
	base  int // labels around it
	code  []byte
	depth int
	held  []instr // may be the beginning of a jump
	dead  bool
	after bool // the last thing was a call that can be resumed after
}

// read reads the segment k to its end.
func (s *segments) read(k int) bool {
	s.begins[k] = len(s.g.blocks)
	x := &segment{segments: s, k: k, base: s.unwind + 1 + s.count - 1 - k}
	for {
		i := next(s.r)
		switch {
		case i.op == opEnd && x.depth == 0:
			x.close()
			return true
		case x.dead:
			x.deeper(i.op)
		default:
			x.after = false
			if !x.take(i) {
				return false
			}
		}
	}
}

// add ends a block with what was read.
func (x *segment) add(b block) {
	b.code = x.code
	x.g.blocks = append(x.g.blocks, b)
	x.code = nil
}

func (x *segment) keep(i instr) { x.code = append(x.code, x.r.b[i.from:i.to]...) }

// flush keeps what was held: it was no jump.
func (x *segment) flush() {
	for _, h := range x.held {
		x.keep(h)
	}
	x.held = x.held[:0]
}

// deeper follows what opens and closes within the segment.
func (x *segment) deeper(op byte) {
	switch op {
	case opBlock, opLoop, opIf:
		x.depth++
	case opEnd:
		x.depth--
	}
}

// close ends the segment: what follows it goes on with the next.
func (x *segment) close() {
	if x.dead {
		return
	}
	x.flush()
	if x.after && !x.stops() {
		x.g.resumable = true
	}
	if x.k == x.count-1 { // the end of the loop: nothing comes here
		x.code = append(x.code, opUnreachable)
		x.add(block{end: leaves})
	} else {
		x.add(block{end: goesTo, next: toSegment(x.k + 1)})
	}
}

// take reads an instruction that can be reached. It says no to what is unexpected.
func (x *segment) take(i instr) bool {
	last := func() byte { // of what is held
		if len(x.held) == 0 {
			return 0
		}
		return x.held[len(x.held)-1].op
	}
	switch {
	case i.op == opIf && x.depth == 0:
		x.flush()
		x.held = append(x.held, i)
		x.depth++
	case i.op == opI32Const && (len(x.held) == 0 && x.depth == 0 || len(x.held) == 1 && last() == opIf):
		x.held = append(x.held, i)
	case i.op == opI32Const && last() == opI32Const && x.depth == 0:
		x.flush()
		x.held = append(x.held, i)
	case i.op == opLocalSet && i.n == pcB && last() == opI32Const:
		x.held = append(x.held, i)
	case i.op == opBr || i.op == opBrIf:
		return x.jump(i)
	case i.op == opBrTable:
		return false
	default:
		x.flush()
		x.keep(i)
		x.deeper(i.op)
		if (i.op == opReturn || i.op == opUnreachable) && x.depth == 0 {
			x.add(block{end: leaves})
			x.dead = true
		}
	}
	return true
}

// jump reads a branch: within what is kept as it is, out to unwind, or to another segment.
func (x *segment) jump(i instr) bool {
	label := x.base + x.depth - 1 - int(i.n)
	switch {
	case int(i.n) < x.depth:
		x.flush()
		x.keep(i)
		return true
	case x.unwind == 1 && label == 0 && i.op == opBrIf:
		x.flush()
		x.code = append(x.code, opIf, voidType, opI32Const, 1, opReturn, opEnd)
		x.after = x.depth == 0
		return true
	case label == x.unwind && i.op == opBr && len(x.held) >= 2 && x.held[len(x.held)-1].op == opLocalSet:
		return x.jumpTo(x.held[len(x.held)-2].n)
	}
	return false
}

// jumpTo ends a block with a jump to where a PC_B goes on, which an if may stand before.
func (x *segment) jumpTo(pc int64) bool {
	to, ok := x.target(pc)
	if !ok {
		return false
	}
	chosen := x.held[0].op == opIf
	if chosen && next(x.r).op != opEnd {
		return false
	}
	x.held = x.held[:0]
	if !chosen {
		x.add(block{end: goesTo, next: to})
		x.dead = true
		return true
	}
	x.depth--
	x.add(block{end: chooses, other: to, next: len(x.g.blocks) + 1})
	return true
}

// stops reports whether the next segment cannot be passed: it follows a call that
// never returns.
func (s *segments) stops() bool {
	look := *s.r
	return !look.done() && look.byte() == opUnreachable
}
