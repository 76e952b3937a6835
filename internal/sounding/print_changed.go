package sounding

import (
	"fmt"
	"sync"

	"shoal/internal/engine"
	"shoal/internal/project"
)

// printChanged: a print is no longer what its row would give. To compare them takes a while: it is done once for each
// revision.
func printChanged(s *Survey, say func(Sounding)) {
	asked.Lock()
	defer asked.Unlock()
	if asked.doc != s.Doc {
		asked.doc, asked.list = s.Doc, changedPrints(s.Doc)
	}
	for _, x := range asked.list {
		say(x)
	}
}

// asked is what was found for the revision that was looked at last.
var asked struct {
	sync.Mutex
	doc  *project.Project
	list []Sounding
}

func changedPrints(p *project.Project) (list []Sounding) {
	for _, c := range p.Channels {
		if o := c.PrintOf; o != nil && o.Key != "" {
			if now, ok := o.Makings(p); ok && now.Key(engine.EffectInfo) != o.Key {
				list = append(list, Sounding{Weight: Note, Channel: c.ID, At: c.ID, Says: c.Name + rowHasChanged(rowName(p, o))})
			}
		}
		for _, x := range c.Clips {
			if x.Made == nil || x.Made.Key == "" {
				continue
			}
			if now, ok := p.Remade(c.ID, x.Made); ok && now.Key(engine.EffectInfo) != x.Made.Key {
				list = append(list, Sounding{Weight: Note, Channel: c.ID, At: x.ID, Says: x.Name + rowHasChanged(c.Name)})
			}
		}
	}
	return list
}

func rowHasChanged(row string) string {
	return fmt.Sprintf(" was printed through %s, which has changed since: it would sound otherwise now. "+
		"Where it comes from (T on its clip) says in what, lets you hear both, and prints it again.", row)
}

// rowName is what a printed row's source is called now, or was.
func rowName(p *project.Project, o *project.Origin) string {
	if c, ok := p.Channel(o.Channel); ok {
		return c.Name
	}
	return o.Name
}
