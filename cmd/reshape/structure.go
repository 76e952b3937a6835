package main

import "slices"

// structurer writes a flow as nested blocks and loops.
type structurer struct {
	g       *flow
	order   []int // reverse postorder of what can be reached
	number  []int // a block's place in order, -1 where it cannot be reached
	parent  []int // immediate dominator
	merges  []bool
	loops   []bool
	within  [][]int // blocks that merge, by the block that dominates them
	context []label
	out     []byte
}

// label is a block or loop that stands open around what is written.
type label struct {
	block int // a branch to it goes to this block; -1 for an if
}

// structure returns the code, or false where the flow cannot be written so.
func structure(g *flow) ([]byte, bool) {
	n := len(g.blocks)
	s := &structurer{
		g:      g,
		number: make([]int, n),
		parent: make([]int, n),
		merges: make([]bool, n),
		loops:  make([]bool, n),
		within: make([][]int, n),
	}
	s.sort()
	s.dominate()
	incoming := make([]int, n)
	for _, b := range s.order {
		for _, t := range s.g.edges(b) {
			if s.number[t] <= s.number[b] {
				if !s.dominates(t, b) {
					return nil, false // a loop with two entries
				}
				s.loops[t] = true
			} else {
				incoming[t]++
			}
		}
	}
	for _, b := range s.order {
		s.merges[b] = incoming[b] > 1
		if s.merges[b] && b != s.order[0] {
			s.within[s.parent[b]] = append(s.within[s.parent[b]], b)
		}
	}
	s.tree(s.order[0])
	return s.out, true
}

func (g *flow) edges(b int) []int {
	switch x := g.blocks[b]; x.end {
	case goesTo:
		return []int{x.next}
	case chooses:
		return []int{x.next, x.other}
	}
	return nil
}

// sort finds the reverse postorder from the beginning.
func (s *structurer) sort() {
	for i := range s.number {
		s.number[i] = -1
	}
	type visit struct{ block, edge int }
	seen := make([]bool, len(s.g.blocks))
	stack := []visit{{0, 0}}
	seen[0] = true
	for len(stack) > 0 {
		v := &stack[len(stack)-1]
		e := s.g.edges(v.block)
		if v.edge == len(e) {
			s.order = append(s.order, v.block)
			stack = stack[:len(stack)-1]
			continue
		}
		t := e[v.edge]
		v.edge++
		if !seen[t] {
			seen[t] = true
			stack = append(stack, visit{t, 0})
		}
	}
	slices.Reverse(s.order)
	for i, b := range s.order {
		s.number[b] = i
	}
}

// dominate finds immediate dominators (Cooper, Harvey, Kennedy, "A simple, fast
// dominance algorithm", 2001).
func (s *structurer) dominate() {
	from := make([][]int, len(s.g.blocks))
	for _, b := range s.order {
		for _, t := range s.g.edges(b) {
			from[t] = append(from[t], b)
		}
	}
	for i := range s.parent {
		s.parent[i] = -1
	}
	s.parent[0] = 0
	for changed := true; changed; {
		changed = false
		for _, b := range s.order[1:] {
			best := -1
			for _, p := range from[b] {
				if s.parent[p] < 0 {
					continue
				}
				if best < 0 {
					best = p
				} else {
					best = s.common(best, p)
				}
			}
			if s.parent[b] != best {
				s.parent[b], changed = best, true
			}
		}
	}
}

func (s *structurer) common(a, b int) int {
	for a != b {
		for s.number[a] > s.number[b] {
			a = s.parent[a]
		}
		for s.number[b] > s.number[a] {
			b = s.parent[b]
		}
	}
	return a
}

func (s *structurer) dominates(a, b int) bool {
	for s.number[b] > s.number[a] {
		b = s.parent[b]
	}
	return a == b
}

func (s *structurer) open(op byte, block int) {
	s.out = append(s.out, op, voidType)
	s.context = append(s.context, label{block})
}

func (s *structurer) close() {
	s.out = append(s.out, opEnd)
	s.context = s.context[:len(s.context)-1]
}

// tree writes a block with all that it dominates.
func (s *structurer) tree(b int) {
	if s.loops[b] {
		s.open(opLoop, b)
		s.node(b, s.within[b])
		s.close()
		return
	}
	s.node(b, s.within[b])
}

// node writes a block inside one wasm block for each place where its branches meet
// again, in such an order that each can jump forward to those after it.
func (s *structurer) node(b int, follow []int) {
	if len(follow) > 0 {
		last := follow[len(follow)-1] // in the order of sort: the outermost
		s.open(opBlock, last)
		s.node(b, follow[:len(follow)-1])
		s.close()
		s.tree(last)
		return
	}
	x := s.g.blocks[b]
	s.out = append(s.out, x.code...)
	switch x.end {
	case goesTo:
		s.branch(b, x.next)
	case chooses:
		s.open(opIf, -1)
		s.branch(b, x.other)
		s.out = append(s.out, opElse)
		s.branch(b, x.next)
		s.close()
		s.out = append(s.out, opUnreachable)
	}
}

func (s *structurer) branch(from, to int) {
	if s.number[to] > s.number[from] && !s.merges[to] {
		s.tree(to)
		return
	}
	for depth, i := 0, len(s.context)-1; i >= 0; depth, i = depth+1, i-1 {
		if s.context[i].block == to {
			s.out = append(s.out, opBr)
			s.out = appendU(s.out, uint64(depth))
			return
		}
	}
	panic("reshape: a branch to a block that is not open")
}
