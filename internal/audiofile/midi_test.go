package audiofile

import (
	"testing"

	"github.com/stretchr/testify/require"
)

var someTime = MIDITime{
	Tempos:  []MIDITempo{{0, 88}, {9600, 92.5}, {19200, 60}},
	Meters:  []MIDIMeter{{0, 6, 8}, {9600, 4, 4}},
	Markers: []MIDIMarker{{0, "Ebb"}, {9600, "Slack"}, {960000, "Flood, später"}},
}

func TestMIDITimeComesBack(t *testing.T) {
	got, err := ReadMIDI(WriteMIDI(someTime))
	require.NoError(t, err)
	require.Equal(t, someTime.Meters, got.Meters)
	require.Equal(t, someTime.Markers, got.Markers)
	for i, x := range someTime.Tempos {
		require.Equal(t, x.Tick, got.Tempos[i].Tick)
		require.InDelta(t, x.BPM, got.Tempos[i].BPM, 0.001)
	}
}

// A file of two tracks in another resolution, with notes, running status and a program change.
func TestMIDIOfOthersIsRead(t *testing.T) {
	track := func(b ...byte) []byte {
		return append([]byte{'M', 'T', 'r', 'k', 0, 0, 0, byte(len(b))}, b...)
	}
	b := []byte("MThd\x00\x00\x00\x06\x00\x01\x00\x02\x01\xe0") // 480 a quarter note
	b = append(b, track(0, 0xff, 0x51, 3, 0x07, 0xa1, 0x20, 0x83, 0x60, 0xff, 0x58, 4, 3, 2, 24, 8, 0, 0xff, 0x2f, 0)...)
	b = append(
		b,
		track(0, 0xc0, 5, 0, 0x90, 60, 64, 0x83, 0x60, 60, 0, 0, 0xf0, 2, 1, 0xf7, 0, 0xff, 0x06, 3, 'A', 'b', 'c', 0, 0xff, 0x2f, 0)...)
	got, err := ReadMIDI(b)
	require.NoError(t, err)
	require.Equal(t, MIDITime{[]MIDITempo{{0, 120}}, []MIDIMeter{{960, 3, 4}}, []MIDIMarker{{960, "Abc"}}}, got)
}

func TestDamagedMIDIIsNamed(t *testing.T) {
	whole := WriteMIDI(someTime)
	for want, b := range map[string][]byte{
		"does not begin with MThd": []byte("RIFF............"),
		"frames of film":           append(append([]byte{}, whole[:12]...), append([]byte{0xe7, 0x28}, whole[14:]...)...),
		"is cut off":               whole[:len(whole)-9],
	} {
		_, err := ReadMIDI(b)
		require.ErrorContains(t, err, want)
	}
}

func FuzzReadMIDI(f *testing.F) {
	f.Add(WriteMIDI(someTime))
	f.Add([]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x03\xc0MTrk\xff\xff\xff\xff"))
	f.Fuzz(func(_ *testing.T, b []byte) { _, _ = ReadMIDI(b) })
}
