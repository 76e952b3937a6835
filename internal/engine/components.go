package engine

import "slices"

// components gathers what belongs together: what is joined, and what leads in a circle.
type components struct {
	names  []string // in the order in which they came
	parent map[string]string
	edges  map[string]map[string]bool
}

func newComponents() *components {
	return &components{parent: map[string]string{}, edges: map[string]map[string]bool{}}
}

// place notes a name.
func (c *components) place(name string) {
	if _, ok := c.parent[name]; !ok {
		c.parent[name] = name
		c.names = append(c.names, name)
	}
}

// leads notes that something goes from one to the other.
func (c *components) leads(from, to string) {
	c.place(from)
	c.place(to)
	if c.edges[from] == nil {
		c.edges[from] = map[string]bool{}
	}
	c.edges[from][to] = true
}

// join puts two together.
func (c *components) join(a, b string) {
	c.place(a)
	c.place(b)
	c.parent[c.root(b)] = c.root(a)
}

func (c *components) root(name string) string {
	for c.parent[name] != name {
		name = c.parent[name]
	}
	return name
}

// numbers gives every name the number of its component; what leads in a circle is one.
func (c *components) numbers() map[string]int {
	for {
		reach := c.reach()
		a, b, ok := circle(reach)
		if !ok {
			break
		}
		c.join(a, b)
	}
	out, number := map[string]int{}, map[string]int{}
	for _, name := range c.names {
		root := c.root(name)
		if _, ok := number[root]; !ok {
			number[root] = len(number)
		}
		out[name] = number[root]
	}
	return out
}

// circle finds two that reach each other.
func circle(reach map[string]map[string]bool) (a, b string, found bool) {
	for a, to := range reach {
		for b := range to {
			if a != b && reach[b][a] {
				return a, b, true
			}
		}
	}
	return "", "", false
}

// reach is where each component leads, over any number of others.
func (c *components) reach() map[string]map[string]bool {
	next := map[string][]string{}
	for _, from := range c.names {
		for to := range c.edges[from] {
			if a, b := c.root(from), c.root(to); a != b && !slices.Contains(next[a], b) {
				next[a] = append(next[a], b)
			}
		}
	}
	out := map[string]map[string]bool{}
	for from := range next {
		seen := map[string]bool{}
		var visit func(at string)
		visit = func(at string) {
			for _, to := range next[at] {
				if !seen[to] {
					seen[to] = true
					visit(to)
				}
			}
		}
		visit(from)
		out[from] = seen
	}
	return out
}
