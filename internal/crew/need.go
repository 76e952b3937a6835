package crew

import (
	"errors"
	"fmt"
	"strings"
)

// Need is what an operation needs of whoever asks for it.
type Need int

// The needs, from the least on. Those from Hear on are of a project.
const (
	Anyone   Need = iota // nothing at all: signing in is one
	SignedIn             // an account
	Keeper               // to be the one who keeps this Shoal: its accounts, and what was done
	Hear                 // to be in the project
	Export               // to take something of the project away: engineers, and listeners where an owner allows it
	Change               // to be an engineer
	Own                  // to be an owner
)

// OfProject reports whether a need is answered by a role in a project.
func (n Need) OfProject() bool { return n >= Hear }

// Standing is how somebody stands in a project: their role, and whether its listeners may export.
type Standing struct {
	Role    Role
	Exports bool
}

// ErrOutside is for whoever is not in a project: to them it is as if it were not there.
var ErrOutside = errors.New("there is no such project, or you are not in it: ask its owner for a link")

// Refused says what somebody may not, and who could do it or allow it.
type Refused struct {
	Role   Role
	Needs  Need
	Owners []string
}

func (r *Refused) Error() string {
	could := "an owner of it"
	if len(r.Owners) > 0 {
		could = strings.Join(r.Owners, " or ")
	}
	switch r.Needs {
	case Own:
		return fmt.Sprintf("you are %s here, and only an owner decides this: ask %s", r.Role.With(), could)
	case Export:
		return fmt.Sprintf("you are %s here, and listeners of this project do not export: %s can allow it", r.Role.With(), could)
	}
	return fmt.Sprintf("you are %s here: you hear and look, and engineers change; %s can make you one", r.Role.With(), could)
}

// Allows says why somebody may not do in a project what needs n; nil: they may. owners are asked for only where they are to be named.
func (s Standing) Allows(n Need, owners func() []string) error {
	needs := map[Need]Role{Hear: Listener, Export: Engineer, Change: Engineer, Own: Owner}[n]
	switch {
	case !n.OfProject():
		return fmt.Errorf("crew: %d is no need of a project", n)
	case s.Role == None:
		return ErrOutside
	case s.Role.Covers(needs), n == Export && s.Exports:
		return nil
	}
	return &Refused{Role: s.Role, Needs: n, Owners: owners()}
}
