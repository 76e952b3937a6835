package effect

// drawBackwards is when each moment comes, beside when it came.
func drawBackwards(_, _ float64, _ []float64) Picture {
	x, y := shareAxis("was at"), shareAxis("comes at")
	return Picture{Says: "When each moment comes, against when it came: the last is first.", X: x, Y: y, Curves: []Curve{
		x.curve("unchanged", "ghost", func(at float64) float64 { return at }),
		x.curve("backwards", "main", func(at float64) float64 { return 100 - at }),
	}}
}

func shareAxis(label string) Axis {
	return Axis{Label: label, Unit: "%", Min: 0, Max: 100, Ticks: []float64{0, 25, 50, 75, 100}}
}

// drawPitch is where each frequency goes.
func drawPitch(_, _ float64, v []float64) Picture {
	tone := Axis{Unit: "Hz", Min: 40, Max: 16000, Log: true, Ticks: []float64{100, 1000, 10000}}
	x, y := tone, tone
	x.Label, y.Label = "in", "out"
	ratio := PitchRatio(v)
	return Picture{Says: "Where each frequency goes.", X: x, Y: y, Curves: []Curve{
		x.curve("unchanged", "ghost", func(hz float64) float64 { return hz }),
		x.curve("moved", "main", func(hz float64) float64 { return hz * ratio }),
	}}
}

// drawLength is when each moment comes; where it follows the song that depends on where the piece lies.
func drawLength(_, tempo float64, v []float64) Picture {
	percent := v[1]
	if v[0] != 0 {
		percent = 100 * v[2] / tempo
	}
	x, y := shareAxis("was at"), shareAxis("comes at")
	y.Max = max(100, percent)
	y.Ticks = []float64{0, y.Max / 2, y.Max}
	return Picture{Says: "When each moment comes, against when it came.", X: x, Y: y, Curves: []Curve{
		x.curve("unchanged", "ghost", func(at float64) float64 { return at }),
		x.curve("now", "main", func(at float64) float64 { return at * percent / 100 }),
	}}
}
