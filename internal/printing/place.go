package printing

import (
	"shoal/internal/audiofile"
	"shoal/internal/project"
)

// Place is the change that puts a print on a new track beside its source. Where the source is muted, the mix stays as
// it is.
func Place(printID string, spec Spec, sound audiofile.Entry, key string) []project.Change {
	return []project.Change{
		&project.PlacePrint{Source: spec.Channel, Print: printID, ID: project.NewID(), Start: spec.From, Mute: spec.Mute,
			To: spec.To, Key: key,
			Audio: project.Audio{Hash: sound.Hash, Frames: sound.Frames, Channels: sound.Channels}},
	}
}
