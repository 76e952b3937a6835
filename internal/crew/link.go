package crew

import (
	"fmt"
	"time"
)

// Kind is what a link that is handed over opens.
type Kind string

// The kinds of links.
const (
	First   Kind = "first"   // makes the first account, whose Shoal it is to keep
	Account Kind = "account" // makes an account
	Reset   Kind = "reset"   // gives somebody a new password
	Join    Kind = "join"    // brings somebody into a project, who makes an account on the way if they have none
)

// Link is what a link opens, how often and until when.
type Link struct {
	Kind  Kind
	Role  Role // of Join
	Uses  int  // how often it can be used; 0: as often as it is wanted
	Used  int
	Until time.Time
	Ended bool // taken back
}

// How long links hold, and how often one may be used.
const (
	FirstHolds   = time.Hour
	ResetHolds   = 24 * time.Hour
	AccountHolds = 7 * 24 * time.Hour
	LongestHolds = 90 * 24 * time.Hour
	MostUses     = 100
)

// Holds says why a link opens nothing; nil: it does.
func (l Link) Holds(now time.Time) error {
	switch {
	case l.Ended:
		return fmt.Errorf("this link was taken back: ask whoever gave it to you for another")
	case l.Uses > 0 && l.Used >= l.Uses:
		return fmt.Errorf("this link was used already, and it opens %s: ask whoever gave it to you for another", times(l.Uses))
	case !now.Before(l.Until):
		return fmt.Errorf("this link held until %s: ask whoever gave it to you for another", l.Until.UTC().Format("2 January 2006, 15:04 UTC"))
	}
	return nil
}

// Check refuses a link into a project that cannot be given.
func (l Link) Check(now time.Time) error {
	if err := l.Role.Check(); err != nil {
		return err
	}
	if l.Uses < 0 || l.Uses > MostUses {
		return fmt.Errorf("a link is used 1 to %d times, or as often as wanted (0), not %d times", MostUses, l.Uses)
	}
	if l.Uses == 0 && l.Role == Owner {
		return fmt.Errorf("a link that makes owners is used a certain number of times: say how often")
	}
	if !l.Until.After(now) || l.Until.Sub(now) > LongestHolds+time.Hour {
		return fmt.Errorf("a link holds for an hour to %d days", LongestHolds/(24*time.Hour))
	}
	return nil
}

func times(n int) string {
	if n == 1 {
		return "once"
	}
	return fmt.Sprintf("%d times", n)
}
