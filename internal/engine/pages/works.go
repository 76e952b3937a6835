package pages

// Played is the sound that a clip plays, and the frame of it with which the clip begins.
type Played struct {
	Sound *Sound
	First int64
}

// AllWorked says that everything that has to be worked out is there, as it is for whoever renders.
func (l *Library) AllWorked() *Library {
	l.all = true
	return l
}

// Announce says that a work is there to be fetched. It is played once it is taken.
func (l *Library) Announce(key string) {
	if l.announced == nil {
		l.announced, l.worked = map[string]bool{}, map[string]bool{}
	}
	l.announced[key] = true
}

// Announced reports whether a work can be fetched and is not yet played.
func (l *Library) Announced(key string) bool { return l.announced[key] && !l.worked[key] }

// Take lets a work be played from now on.
func (l *Library) Take(key string) { l.worked[key] = true }

// Worked reports whether a work is played.
func (l *Library) Worked(key string) bool { return l.all || l.worked[key] }

// Remember keeps what a clip plays, for the time in which something new is worked out for it.
func (l *Library) Remember(clip string, p Played) {
	if l.played == nil {
		l.played = map[string]Played{}
	}
	l.played[clip] = p
}

// Recall is what a clip played last, if it ever did.
func (l *Library) Recall(clip string) (Played, bool) {
	p, ok := l.played[clip]
	return p, ok
}

// Hold lets a work not be played until Release, as what it was made from is being changed.
func (l *Library) Hold(key string) {
	if l.held == nil {
		l.held = map[string]bool{}
	}
	l.held[key] = true
}

// Release lets all works be played again that are held. It reports whether any was.
func (l *Library) Release() bool {
	any := len(l.held) > 0
	l.held = nil
	return any
}

// Prints reports whether a print is played that stands in for what it was made from.
func (l *Library) Prints(key string) bool { return l.worked[key] && !l.held[key] }

// Awaits reports whether a print can be fetched and is not yet played.
func (l *Library) Awaits(key string) bool { return l.Announced(key) && !l.held[key] }
