package param

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// Values are read as people write them.
func TestValuesAreReadAsPeopleWriteThem(t *testing.T) {
	hz := Param{Label: "Frequency", Unit: "Hz", Min: 20, Max: 20000, Taper: Log}
	ms := Param{Label: "Time", Unit: "ms", Min: 1, Max: 2000, Taper: Log}
	note := Param{Label: "Note", Max: 3, Taper: Choice, Choices: []string{"1/8", "1/8 dotted", "1/8 triplet", "bell"}}
	on := Param{Label: "On", Max: 1, Taper: Switch}
	for _, c := range []struct {
		p    Param
		text string
		want float64
	}{
		{hz, "2k", 2000}, {hz, "2,5 kHz", 2500}, {hz, "440", 440}, {hz, " 1e3 ", 1000}, {ms, "1.5 s", 1500}, {ms, "20 ms", 20},
		{Fader, "−6 dB", -6}, {Fader, "off", -120}, {Fader, "+3", 3},
		{note, "1/8d", 1}, {note, "1/8 t", 2}, {note, "1/8", 0}, {note, "Be", 3}, {on, "yes", 1}, {on, "off", 0}, {on, "1", 1},
	} {
		got, err := c.p.Read(c.text)
		require.NoError(t, err, c.text)
		require.InDelta(t, c.want, got, 1e-9, c.text)
	}
	_, err := hz.Read("loud")
	require.ErrorContains(t, err, `"loud" is no value`)
	_, err = note.Read("1/7")
	require.ErrorContains(t, err, "it is one of 1/8, 1/8 dotted")
}
