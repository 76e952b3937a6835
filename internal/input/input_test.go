package input

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

func settingAt(rate int) Setting {
	p := project.New("Test", rate, 88, 6, 8)
	return SettingOf(p)
}

func read(s Source, from, frames int64) (l, r []float64) {
	l, r = make([]float64, frames), make([]float64, frames)
	s.Read(l, r, from)
	return l, r
}

// It does not matter where one begins to read, nor in which portions.
func TestWhatArrivesIsAFunctionOfTheSong(t *testing.T) {
	for _, k := range Kinds {
		whole, right := read(k.New(settingAt(48000)), 0, 400000)
		again := k.New(settingAt(48000))
		for _, x := range [][2]int64{{250000, 300}, {17, 1}, {143990, 20}, {0, 5000}, {399000, 1000}, {4090, 12}} {
			l, r := read(again, x[0], x[1])
			require.Equal(t, whole[x[0]:x[0]+x[1]], l, "%s from %d on", k.ID, x[0])
			require.Equal(t, right[x[0]:x[0]+x[1]], r, "%s from %d on", k.ID, x[0])
		}
		before, _ := read(again, -50, 60)
		require.Equal(t, make([]float64, 50), before[:50], "before the song nothing arrives")
		require.Equal(t, whole[:10], before[50:])
	}
}

// Each is heard, and none but the one that should is too hot, in a minute and at every rate.
func TestHowLoudTheyAre(t *testing.T) {
	for _, rate := range []int{44100, 48000, 96000} {
		for _, k := range Kinds {
			l, r := read(k.New(settingAt(rate)), 0, int64(rate)*20)
			peak := 0.0
			for i := range l {
				peak = max(peak, math.Abs(l[i]), math.Abs(r[i]))
			}
			level := 20 * math.Log10(peak)
			switch k.ID {
			case "hot":
				require.InDelta(t, 0, level, 0.001, "it clips")
			case "room":
				require.InDelta(t, -63, level, 3)
			default:
				require.Greater(t, level, -30.0, "%s at %d Hz", k.ID, rate)
				require.Less(t, level, -3.0, "%s at %d Hz", k.ID, rate)
			}
		}
	}
}

// power is the mean square of one frequency's part of a signal: one term of a Fourier sum.
func power(x []float64, hz, rate float64) float64 {
	re, im := 0.0, 0.0
	for i, v := range x {
		a := 2 * math.Pi * hz * float64(i) / rate
		re, im = re+v*math.Cos(a), im+v*math.Sin(a)
	}
	n := float64(len(x))
	return 2 * (re*re + im*im) / (n * n)
}

// The tone is 1 kHz at -18 dBFS and the hum 50 Hz, at the project's rate, as exactly after an hour.
func TestTheToneAndTheHumAreWhatTheySay(t *testing.T) {
	for _, rate := range []int{44100, 48000, 88200, 96000} {
		for _, from := range []int64{0, int64(rate) * 3600} {
			tone, _ := Find("tone")
			l, _ := read(tone.New(settingAt(rate)), from, int64(rate))
			require.InDelta(t, -18, 10*math.Log10(2*power(l, 1000, float64(rate))), 0.001, "a sine of that peak")
			hum, _ := Find("hum")
			l, _ = read(hum.New(settingAt(rate)), from, int64(rate))
			require.InDelta(t, 0.05, math.Sqrt(2*power(l, 50, float64(rate))), 1e-6)
			require.Less(t, power(l, 100, float64(rate)), 1e-12)
		}
	}
}

// Who plays keeps the song's time: what is struck begins on its eighths, and another section has another figure.
func TestThePlayersFollowTheSong(t *testing.T) {
	p := project.New("Test", 48000, 88, 6, 8)
	p.Sections = []project.Section{{ID: "a", Name: "A", Tick: 0}, {ID: "b", Name: "B", Tick: 480 * 12}}
	clock := p.Clock()
	for _, id := range []string{"marimba", "hand-drum"} {
		k, _ := Find(id)
		struck := 0
		for n := range int64(24) {
			at := clock.Frame(n * eighth)
			s := k.New(SettingOf(p))
			l, _ := read(s, max(0, at-1000), 3000)
			rise := energy(l[min(1000, at):min(1000, at)+1200]) / (energy(l[:min(1000, at)+1]) + 1e-9)
			if rise > 1.5 {
				struck++
			}
		}
		require.Greater(t, struck, 10, "%s strikes on most eighths", id)
	}
	k, _ := Find("marimba")
	bar := clock.Frame(6*eighth) - clock.Frame(0)
	first, _ := read(k.New(SettingOf(p)), clock.Frame(6*eighth), bar)
	other, _ := read(k.New(SettingOf(p)), clock.Frame(18*eighth), bar)
	apart := 0.0
	for i := range first {
		apart += (first[i] - other[i]) * (first[i] - other[i])
	}
	require.Greater(t, apart, 0.3*energy(first), "the second section has a figure of its own")
}

func energy(x []float64) (sum float64) {
	for _, v := range x {
		sum += v * v
	}
	return sum
}

// What is fed comes out in its order, once, also where two plans read the same block; what waits too long is left out.
func TestWhatIsFedIsHeardOnce(t *testing.T) {
	var f Fed
	l, _ := read(&f, 0, 4)
	require.Equal(t, []float64{0, 0, 0, 0}, l)
	f.Put([]float32{1, -1, 2, -2, 3, -3})
	l, r := read(&f, 4, 2)
	require.Equal(t, []float64{1, 2}, l)
	require.Equal(t, []float64{-1, -2}, r)
	l, _ = read(&f, 4, 2)
	require.Equal(t, []float64{1, 2}, l, "the same block again")
	l, _ = read(&f, 6, 2)
	require.Equal(t, []float64{3, 0}, l)
	f.Put(make([]float32, 2*fedMost))
	f.Put([]float32{7, 8})
	for at := int64(8); at < 8+fedMost-1; at++ {
		read(&f, at, 1)
	}
	l, _ = read(&f, 1<<30, 1)
	require.Equal(t, []float64{7}, l)
}
