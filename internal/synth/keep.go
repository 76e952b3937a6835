//go:build !js

package synth

import "shoal/internal/audiofile"

// Keep writes a take into the folder, at 24 bit.
func (t *Take) Keep(folder *audiofile.Folder) (audiofile.Entry, error) {
	chans := [][]float64{t.L}
	if t.R != nil {
		chans = append(chans, t.R)
	}
	d, err := folder.Draft(Rate, len(chans), 24, nil)
	if err != nil {
		return audiofile.Entry{}, err
	}
	defer d.Drop()
	if err := d.Write(chans); err != nil {
		return audiofile.Entry{}, err
	}
	return d.Keep()
}
