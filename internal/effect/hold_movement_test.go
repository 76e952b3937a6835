package effect_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/effect"
	"shoal/internal/effect/effecttest"
)

// moving are the effects whose sound is a function of song time.
var moving = []string{"chorus", "flanger", "phaser", "tremolo", "vibrato", "filter", "wah"}

func movingSet(id string) set {
	c := set{"sync": 1, "note": 8} // a quarter note: half a second at 120
	switch id {
	case "filter":
		c["depth"] = 2
	case "wah":
		c["mode"] = 1
	}
	return c
}

func TestMovementsFollowTheTempoExactly(t *testing.T) {
	const cycle = 24000
	for _, id := range moving {
		x := make([]float64, 6*cycle)
		for i := range x { // repeats with every cycle, so what comes out must too
			x[i] = 0.3 * math.Sin(2*math.Pi*440*float64(i)/rate)
		}
		y := run(id, movingSet(id), x)
		for i := 4 * cycle; i < 5*cycle; i += 37 {
			require.InDelta(t, y[i], y[i+cycle], 1e-6, "%s at frame %d", id, i)
		}
		moved := 0.0
		for i := 4 * cycle; i < 5*cycle; i++ {
			moved = math.Max(moved, math.Abs(y[i]-y[i+cycle/2]))
		}
		require.Greater(t, moved, 0.01, id)
	}
}

func TestMovementsDoNotVanishInMono(t *testing.T) {
	for _, id := range []string{"chorus", "flanger", "phaser", "doubler", "detune", "vibrato", "tremolo"} {
		k, _ := effect.Find(id)
		x := effecttest.Noise(96000, 5, -18)
		l, r := append([]float64{}, x...), append([]float64{}, x...)
		effecttest.New(id, rate, set{}).Run(l, r, 128)
		m := make([]float64, len(x))
		for i := range m {
			wet := (l[i] + r[i]) / 2
			if k.MixLaw == "add" {
				m[i] = x[i] + k.Mix/100*wet
			} else {
				m[i] = x[i] + k.Mix/100*(wet-x[i])
			}
		}
		require.Greater(t, level(m[48000:]), level(x[48000:])-6, id)
	}
}

func TestAutoPanIsATremoloWithItsSidesApart(t *testing.T) {
	l, r := tone(48000, 1000, -12), tone(48000, 1000, -12)
	effecttest.New("tremolo", rate, set{"depth": 100, "sides": 180, "rate": 2}).Run(l, r, 128)
	// a quarter into the cycle of half a second the left is full and the right silent
	require.InDelta(t, -15, level(l[5760:6240]), 0.2)
	require.Less(t, level(r[5760:6240]), -50.0)
	require.InDelta(t, -15, level(r[17760:18240]), 0.2)
}

// cents is the interval between f and the frequency that y has most of the time: two
// reads of one line take turns, and where they do the phase leans over.
func cents(y []float64, f float64) float64 {
	phase := func(at int) float64 {
		re, im := 0.0, 0.0
		for i := range 4800 {
			w := 0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/4800)
			s, c := math.Sincos(2 * math.Pi * f * float64(at+i) / rate)
			re += w * y[at+i] * c
			im -= w * y[at+i] * s
		}
		return math.Atan2(im, re)
	}
	const hop = 120
	var found []float64
	last := phase(9600)
	for at := 9600 + hop; at < len(y)-4800; at += hop {
		p := phase(at)
		d := p - last
		d -= 2 * math.Pi * math.Round(d/(2*math.Pi))
		found = append(found, 1200*math.Log2((f+d/(2*math.Pi)*rate/hop)/f))
		last = p
	}
	slices.Sort(found)
	return found[len(found)/2]
}

func TestDetuneIsWithinACent(t *testing.T) {
	for _, want := range []float64{-100, -37, -8, 5, 50, 100} {
		for _, f := range []float64{220, 1000, 3000} {
			y := run("detune", set{"left": want, "window": 1}, tone(240000, f, -12))
			require.InDelta(t, want, cents(y, f), 1, "%g cents at %g Hz", want, f)
		}
	}
}

func TestVibratoSwingsAsFarAsItSays(t *testing.T) {
	y := run("vibrato", set{"depth": 50, "rate": 1}, tone(192000, 2000, -12))
	most := 0.0
	for at := 48000; at < 140000; at += 600 { // frequency from the distance between upward zero crossings
		first, last, n := 0.0, 0.0, 0
		for i := at; i < at+1200; i++ {
			if y[i] <= 0 && y[i+1] > 0 {
				x := float64(i) + y[i]/(y[i]-y[i+1])
				if n == 0 {
					first = x
				}
				last = x
				n++
			}
		}
		f := float64(n-1) / (last - first) * rate
		most = math.Max(most, math.Abs(1200*math.Log2(f/2000)))
	}
	require.InDelta(t, 50, most, 2)
}

func TestPhaserAndFlangerCutWhereTheyDraw(t *testing.T) {
	k, _ := effect.Find("phaser")
	rig := effecttest.New("phaser", rate, set{"depth": 0, "feedback": 40, "stages": 3})
	h, r := impulse(32768)
	rig.Run(h, r, 128)
	p := k.Draw(rate, 120, rig.Values)
	main := p.Curves[len(p.Curves)-1]
	for i := 0; i < len(main.X); i += 3 {
		if main.Y[i] > -20 {
			require.InDelta(t, main.Y[i], response(h, main.X[i]), 0.3, "at %.0f Hz", main.X[i])
		}
	}
	h, r = impulse(32768)
	effecttest.New("flanger", rate, set{"delay": 1, "depth": 0, "feedback": 0, "highcut": 20000}).Run(h, r, 128)
	require.Less(t, response(h, 500), -25.0) // half a cycle late
	require.InDelta(t, 3.01, response(h, 1000), 0.3)
}
