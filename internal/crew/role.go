package crew

import "fmt"

// Role is what somebody is in a project. Whoever is not in it has none.
type Role string

// The roles, each with all that the one before it may.
const (
	None     Role = ""
	Listener Role = "listener" // hears, looks, remarks, exports where that is allowed
	Engineer Role = "engineer" // changes the project
	Owner    Role = "owner"    // and says who is in it
)

var ranks = map[Role]int{None: 0, Listener: 1, Engineer: 2, Owner: 3}

// Check refuses a role that somebody cannot be given.
func (r Role) Check() error {
	if ranks[r] == 0 {
		return fmt.Errorf("a role is listener, engineer or owner, not %q", string(r))
	}
	return nil
}

// Covers reports whether a role may whatever another may.
func (r Role) Covers(other Role) bool { return ranks[r] >= ranks[other] }

// With is the role with its article, to be said in a sentence.
func (r Role) With() string {
	switch r {
	case Listener:
		return "a listener"
	case Engineer:
		return "an engineer"
	case Owner:
		return "an owner"
	}
	return "not in this project"
}
