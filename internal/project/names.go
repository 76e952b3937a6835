package project

import (
	"fmt"
	"slices"
	"strings"
)

// How long what people write may be, in letters as people count them (grapheme clusters, Unicode Standard Annex 29): a family
// of four is one.
const (
	maxName  = 80
	maxTitle = 120 // of a name that Shoal has made longer, as of a copy
	maxSays  = 300 // a sentence about something that is kept
	maxLabel = 300 // of a change in the logbook
	maxTags  = 12
	maxTag   = 40
	// most bytes of one letter: who piles up more marks than any script has is cut off.
	maxLetter = 64
)

// ValidName reports whether a name has 1 to 80 letters that are not all blank.
func ValidName(name string) bool {
	return strings.TrimSpace(name) != "" && withinLetters(name, maxName)
}

// CleanName is a name as it is kept, without blanks around it, or says why it does not do. of is what it names: "your name".
func CleanName(of, name string) (string, error) {
	name = strings.TrimSpace(name)
	if !ValidName(name) {
		return "", fmt.Errorf("%s needs 1 to %d letters", of, maxName)
	}
	return name, nil
}

// ShortName is as much of a name as one can have.
func ShortName(name string) string { return firstLetters(name, maxName) }

// ShortLabel is as much of what a change is called as the logbook has room for.
func ShortLabel(label string) string { return firstLetters(label, maxLabel) }

// CheckWords refuses a name, a sentence and tags that do not do for what is kept, and says why. of is what it is: "a preset".
func CheckWords(of, name, says string, tags []string) error {
	switch {
	case !ValidName(name):
		return fmt.Errorf("%s needs a name of 1 to %d letters", of, maxName)
	case !withinLetters(says, maxSays):
		return fmt.Errorf("%s: what it is for must be said in %d letters", name, maxSays)
	case len(tags) > maxTags:
		return fmt.Errorf("%s: at most %d tags", name, maxTags)
	case slices.ContainsFunc(tags, func(t string) bool { return !withinLetters(t, maxTag) }):
		return fmt.Errorf("%s: a tag has at most %d letters", name, maxTag)
	}
	return nil
}

// titles goes through every name of a document that people give, with what it names.
func (p *Project) titles(f func(of string, name *string)) {
	f("the project", &p.Name)
	for i := range p.Sections {
		f("a section", &p.Sections[i].Name)
	}
	for i := range p.Audio {
		f("a sound", &p.Audio[i].Name)
	}
	for _, t := range p.Treatments {
		f("a treatment", &t.Name)
		titlesOf(&t.Chain, f)
	}
	for _, h := range p.Handles {
		f("a handle", &h.Name)
	}
	for _, x := range p.Passages {
		f("a passage", &x.Name)
		for i := range x.Courses {
			f("a course", &x.Courses[i].Name)
		}
	}
	for _, c := range p.Channels {
		f("a row", &c.Name)
		for _, x := range c.Clips {
			f("a clip", &x.Name)
		}
		for _, o := range c.chains() {
			titlesOf(o.chain, f)
		}
	}
}

func titlesOf(c *Chain, f func(of string, name *string)) {
	for _, n := range c.Nodes {
		if n.Stage != nil {
			f("a stage", &n.Stage.Name)
			continue
		}
		f("a fork", &n.Fork.Name)
		for _, path := range n.Fork.Paths {
			f("a path", &path.Name)
			titlesOf(&path.Chain, f)
		}
	}
}

// checkTitles refuses names that are longer than anybody reads.
func (p *Project) checkTitles() (err error) {
	p.titles(func(of string, name *string) {
		if err == nil && !withinLetters(*name, maxTitle) {
			err = fmt.Errorf("the name of %s has at most %d letters: %s…", of, maxTitle, firstLetters(*name, 20))
		}
	})
	return err
}

// shortenTitles cuts names of documents from before there was a limit to all of them.
func (p *Project) shortenTitles() {
	p.titles(func(_ string, name *string) { *name = firstLetters(*name, maxTitle) })
}
