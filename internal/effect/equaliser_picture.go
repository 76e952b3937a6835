package effect

import (
	"fmt"
	"math"

	"shoal/internal/dsp"
)

func drawEQ(rate float64, v []float64, fit eqFit) Picture {
	p := Picture{
		Says: "Gain over frequency; each numbered point is a band.", X: hertz, Spectrum: true,
		Y: Axis{Label: "gain", Unit: "dB", Min: -24, Max: 24, Ticks: []float64{-18, -12, -6, 0, 6, 12, 18}},
	}
	type drawn struct {
		sec [4]dsp.Section
		n   int
	}
	var active []drawn
	response := func(d *drawn, f float64) float64 {
		db := 0.0
		for i := 0; i < d.n; i++ {
			db += max(10*math.Log10(max(d.sec[i].Power(min(f, rate*0.499), rate), 1e-12)), -120)
		}
		return db
	}
	for b := range eqBands {
		set := readEQ(v, b)
		var d drawn
		d.n = set.sections(&d.sec, rate, fit)
		n := fmt.Sprint(b + 1)
		h := Handle{Label: n, X: set.freq, ParamX: "freq" + n, ParamZ: "q" + n, Quiet: !set.on}
		if set.shape <= eqHighShelf {
			h.Y, h.ParamY = set.gain, "gain"+n
		}
		p.Handles = append(p.Handles, h)
		if set.on {
			active = append(active, d)
			if set.shape > eqHighShelf || set.gain != 0 {
				p.Curves = append(p.Curves, hertz.curve("band "+n, "part", func(f float64) float64 { return response(&d, f) }))
			}
		}
	}
	main := hertz.curve("response", "main", func(f float64) float64 {
		db := 0.0
		for i := range active {
			db += response(&active[i], f)
		}
		return db
	})
	main.Fill = true
	p.Curves = append(p.Curves, main)
	return p
}
