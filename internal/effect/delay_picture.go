package effect

import (
	"fmt"
	"math"

	"shoal/internal/dsp"
)

func drawDelay(_, tempo float64, v []float64) Picture {
	t, fb := delaySeconds(v, tempo), v[3]/100
	quarter := 60 / tempo
	span := max(4*quarter, math.Ceil(t*4/quarter)*quarter)
	x := Axis{Label: "time", Unit: "s", Max: span}
	for q := 0.0; q < span-1e-9 && len(x.Ticks) < 33; q += quarter {
		x.Ticks = append(x.Ticks, math.Round(q*1000)/1000)
	}
	p := Picture{Says: fmt.Sprintf("Echoes every %.0f ms; the lines are quarter notes.", t*1000), X: x,
		Curves: []Curve{}, Y: Axis{Label: "level", Unit: "dB", Min: -48, Max: 6, Ticks: []float64{-36, -24, -12, 0}}}
	gain := 1.0
	for k := 1; float64(k)*t <= span && k <= 256; k++ {
		side := 0
		if v[4] == 2 {
			side = -1 + 2*((k+1)%2)
		}
		db := dsp.Decibels(gain)
		if db < -48 {
			break
		}
		p.Bars = append(p.Bars, Bar{X: float64(k) * t, Y: db, Side: side})
		if v[4] != 2 || k%2 == 0 {
			gain *= fb
		}
	}
	h := Handle{Label: "Feedback", X: 2 * t, Y: max(-46, dsp.Decibels(fb)), ParamY: "feedback"}
	if v[0] != 0 {
		h = Handle{Label: "Time", X: t, Y: 0, ParamX: "time", ParamY: "feedback", ScaleX: 0.001}
	}
	p.Handles = append(p.Handles, h)
	return p
}
