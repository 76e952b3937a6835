package effect_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/dsp"
	"shoal/internal/effect/effecttest"
)

// run passes copies of x through an effect on both sides and returns the left.
func run(id string, c set, x []float64) []float64 {
	l, r := append([]float64{}, x...), append([]float64{}, x...)
	effecttest.New(id, rate, c).Run(l, r, 128)
	return l
}

func steady(n int, db float64) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = dsp.Gain(db)
	}
	return x
}

func TestGateOpensWithinItsLookAhead(t *testing.T) {
	x := append(steady(24000, -70), steady(4800, -20)...)
	for choice, ms := range map[float64]int{1: 48, 2: 144, 3: 384} {
		y := run("gate", set{"threshold": -40, "ahead": choice, "attack": 100, "range": -60}, x)
		require.InDelta(t, -130, dsp.Decibels(y[23000]), 11) // closed
		for i := 24000 + ms; i < len(y); i++ {
			require.InDelta(t, -20, dsp.Decibels(y[i]), 0.2, "look-ahead %d frames, frame %d", ms, i-24000-ms)
		}
	}
}

func TestGateDoesNotChatterAtItsThreshold(t *testing.T) {
	x := tone(96000, 300, -40)
	for i := range x { // swings by ±1.5 dB around the threshold, seven times a second
		x[i] *= dsp.Gain(1.5 * math.Sin(2*math.Pi*7*float64(i)/rate))
	}
	y := run("gate", set{"threshold": -40, "hysteresis": 5, "hold": 0, "ahead": 0, "range": -60, "release": 20}, x)
	openings, open := 0, false
	for i := 480; i < len(y); i += 480 {
		now := level(y[i-480:i]) > -50
		if now && !open {
			openings++
		}
		open = now
	}
	require.Equal(t, 1, openings)
}

func TestGateHoldsAndReleasesAsItSays(t *testing.T) {
	x := append(steady(24000, -20), steady(96000, -60)...)
	y := run("gate", set{"threshold": -40, "hysteresis": 0, "hold": 200, "ahead": 0, "range": -60, "release": 100}, x)
	at := func(ms float64) float64 { return dsp.Decibels(y[24000+int(ms*48)]) + 60 }
	// the detector itself needs 8 ms · ln(10) to fall by 20 dB
	require.InDelta(t, 0, at(200), 0.1)
	require.InDelta(t, -60*(1-1/math.E), at(200+18.4+100), 2)
	require.InDelta(t, -60, at(1500), 0.5)
}

func TestDeesserActsOnItsBandOnly(t *testing.T) {
	loud := tone(48000, 6800, -12)
	for _, f := range []float64{200, 500, 1000, 2000} {
		x := tone(48000, f, -20)
		both := make([]float64, len(x))
		for i := range x {
			both[i] = x[i] + loud[i]
		}
		c := set{"threshold": -40, "range": -12}
		with := response(run("deesser", c, both)[24000:], f)
		require.InDelta(t, response(x[24000:], f), with, 0.3, "at %.0f Hz", f)
		down := response(run("deesser", c, both)[24000:], 6800) - response(loud[24000:], 6800)
		require.InDelta(t, -12, down, 0.5)
	}
	quiet := tone(48000, 6800, -50)
	require.InDelta(t, level(quiet[24000:]), level(run("deesser", nil, quiet)[24000:]), 0.01)
}

func TestTransientShaperLeavesSustainAlone(t *testing.T) {
	for _, f := range []float64{60, 300, 2000} {
		x := tone(96000, f, -12)
		y := run("transient", set{"attack": 18, "sustain": 0}, x)
		require.InDelta(t, level(x[48000:]), level(y[48000:]), 0.05, "at %.0f Hz", f)
		require.Greater(t, level(y[:1200])-level(x[:1200]), 4.0, "the beginning at %.0f Hz", f)
	}
	x := effecttest.Noise(48000, 3, -20)
	y := run("transient", set{"attack": 0, "sustain": 0}, x)
	require.Equal(t, x, y)
	for i := range x { // dies away
		x[i] *= math.Exp(-float64(i) / 3000)
	}
	more := run("transient", set{"attack": 0, "sustain": 12}, x)
	require.Greater(t, level(more[6000:12000])-level(x[6000:12000]), 5.0)
}

func TestCompressorListensThroughItsKeyCutsAndHolds(t *testing.T) {
	low := tone(48000, 60, -6)
	c := set{"threshold": -30, "ratio": 8, "makeup": 0}
	require.Less(t, level(run("compressor", c, low)[24000:]), level(low[24000:])-10)
	c["keylow"] = 2000
	require.InDelta(t, level(low[24000:]), level(run("compressor", c, low)[24000:]), 0.2)

	x := append(steady(24000, 0), steady(48000, -29.9)...)
	y := run("compressor", set{"threshold": -30, "ratio": 4, "knee": 0, "makeup": 0, "hold": 300, "release": 50}, x)
	require.InDelta(t, -22.5, dsp.Decibels(y[24000+14000])+29.9, 0.2) // still held
	require.InDelta(t, 0, dsp.Decibels(y[24000+14400+24000])+29.9, 0.2)
}

func TestCompressorLooksAhead(t *testing.T) {
	x := append(steady(4800, -60), steady(9600, 0)...)
	y := run("compressor", set{"threshold": -20, "ratio": 50, "knee": 0, "makeup": 0, "attack": 1, "ahead": 3}, x)
	lag := 384
	require.Less(t, dsp.Decibels(y[4800+lag]), -19.0) // down before the loud part arrives
	require.InDelta(t, -60, dsp.Decibels(y[4000+lag]), 0.1)
}

// truePeak is the highest value between samples, at 32 times the rate.
func truePeak(x []float64) float64 {
	m := dsp.NewTruePeak(32, 48)
	m.Feed(x)
	return dsp.Decibels(m.Take())
}

func TestTruePeakLimiterHoldsItsCeilingBetweenSamples(t *testing.T) {
	n := 48000
	tests := map[string][]float64{"noise": effecttest.Noise(n, 9, 6)}
	for _, f := range []float64{11025, 12000, 15999, 17999, 19000} { // tones whose peaks fall between samples
		x := make([]float64, n)
		for i := range x {
			x[i] = 1.9 * math.Sin(2*math.Pi*f*float64(i)/rate+math.Pi/4)
			if (i/3000)%2 == 1 {
				x[i] *= 0.05
			}
		}
		// a start without a fade would reach beyond any interpolator's band
		for i := range 200 {
			x[i] *= 0.5 - 0.5*math.Cos(math.Pi*float64(i)/200)
		}
		tests[string(rune('a'+int(f/1000)))] = x
	}
	for name, x := range tests {
		for _, ahead := range []float64{0, 1, 3} {
			y := run("limiter", set{"input": 6, "ceiling": -1, "peaks": 1, "ahead": ahead}, x)
			require.Less(t, truePeak(y), -0.9, "%s, look-ahead %g", name, ahead)
		}
	}
}
