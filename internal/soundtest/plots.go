package soundtest

import (
	"math"

	"shoal/internal/plot"
)

// Plots are all of them.
func Plots() []plot.Plot {
	return []plot.Plot{decaysPlot(), densityPlot(), spectrumPlot(), detunePlot(), transferPlot(), responsePlot()}
}

func newest(id string) Subject { s, _ := Of(id, 0); return s }

var hertz = plot.Axis{Label: "Hz", From: 20, To: 20000, Ticks: []float64{20, 50, 100, 200, 500, 1000, 2000, 5000, 10000, 20000}, Log: true}

// decaysPlot shows how what is left of each character falls.
func decaysPlot() plot.Plot {
	p := plot.Plot{Name: "reverb-decay", Says: "Reverb: what is left after an impulse, decay 1.8 s, each character",
		X: plot.Axis{Label: "s", To: 1.8, Ticks: []float64{0.3, 0.6, 0.9, 1.2, 1.5}},
		Y: plot.Axis{Label: "dB", From: -60, Ticks: []float64{-60, -40, -20, 0}}}
	for c, name := range characters {
		h := newest("reverb").answers(open(float64(c), 1.8, nil), 3)[0]
		left := make([]float64, len(h)+1)
		for i := len(h) - 1; i >= 0; i-- {
			left[i] = left[i+1] + h[i]*h[i]
		}
		l := plot.Line{Name: name}
		for t := 0.0; t < 1.8; t += 0.01 {
			l.X, l.Y = append(l.X, t), append(l.Y, 10*math.Log10(left[int(t*Rate)]/left[0]+1e-12))
		}
		p.Lines = append(p.Lines, l)
	}
	return p
}

var characters = []string{"hall", "room", "plate", "chamber"}

// densityPlot shows how soon echoes grow dense.
func densityPlot() plot.Plot {
	p := plot.Plot{Name: "reverb-density", Says: "Reverb: density of echoes after an impulse, without diffusion (Gaussian noise: 1)",
		X: plot.Axis{Label: "ms", To: 500, Ticks: []float64{100, 200, 300, 400}},
		Y: plot.Axis{Label: "density", To: 1.2, Ticks: []float64{0, 0.25, 0.5, 0.75, 1}}}
	for c, name := range characters {
		h := newest("reverb").answers(open(float64(c), 3, Set{"diffusion": 0}), 1)[0]
		l := plot.Line{Name: name}
		for ms := 10.0; ms < 490; ms += 5 {
			l.X, l.Y = append(l.X, ms), append(l.Y, density(h[int((ms-10)*48):int((ms+10)*48)]))
		}
		p.Lines = append(p.Lines, l)
	}
	return p
}

// spectrumPlot shows a stretch of a tail's spectrum against the version before.
func spectrumPlot() plot.Plot {
	p := plot.Plot{Name: "reverb-tail",
		Says: "Reverb, plate, decay 4 s: the tail's spectrum at -30 dB, all ways in and out, against its thirds of octaves",
		X:    plot.Axis{Label: "Hz", From: 1000, To: 1100, Ticks: []float64{1000, 1025, 1050, 1075}},
		Y:    plot.Axis{Label: "dB", From: -30, To: 20, Ticks: []float64{-20, -10, 0, 10}}}
	for v, name := range map[int]string{0: "now", 1: "before"} {
		s, _ := Of("reverb", v)
		var sum []float64
		for _, h := range s.answers(open(2, 4, nil), 4) {
			for i, x := range tail(h, 4) {
				if len(sum) <= i {
					sum = append(sum, 0)
				}
				sum[i] += x
			}
		}
		m := thirds(sum)
		l := plot.Line{Name: name, Dashed: v == 1}
		for i := range sum {
			if hz := float64(i) * Rate / 2 / float64(len(sum)-1); hz >= 1000 && hz <= 1100 {
				l.X, l.Y = append(l.X, hz), append(l.Y, 10*math.Log10(sum[i]/m[i]+1e-12))
			}
		}
		if v == 0 {
			p.Lines = append([]plot.Line{l}, p.Lines...)
		} else {
			p.Lines = append(p.Lines, l)
		}
	}
	return p
}

// detunePlot shows the level of a tone that is put out of tune.
func detunePlot() plot.Plot {
	p := plot.Plot{Name: "detune-level", Says: "Detune: the level of a tone of 220 Hz, 8 cents up",
		X: plot.Axis{Label: "s", To: 20, Ticks: []float64{5, 10, 15}},
		Y: plot.Axis{Label: "dB", From: -48, To: 6, Ticks: []float64{-36, -24, -12, 0}}}
	for _, v := range []int{0, 1} {
		s, _ := Of("detune", v)
		y := s.alone(Rate, Set{"left": 8, "right": 8}, sine(int(20*Rate), 220, 1, Rate))
		l := plot.Line{Name: []string{"now", "before"}[v], Dashed: v == 1}
		for at := 4800; at+2400 < len(y); at += 2400 {
			l.X, l.Y = append(l.X, float64(at)/Rate), append(l.Y, 3.01+power(y[at:at+2400]))
		}
		p.Lines = append(p.Lines, l)
	}
	return p
}

// transferPlot shows the level out over the level in of dynamics, by a tone of 100 Hz.
func transferPlot() plot.Plot {
	p := plot.Plot{Name: "transfer", Says: "Level out over level in, a tone of 100 Hz, as the effects begin",
		X: plot.Axis{Label: "dB in", From: -60, To: 0, Ticks: []float64{-50, -40, -30, -20, -10}},
		Y: plot.Axis{Label: "dB out", From: -60, To: 6, Ticks: []float64{-48, -36, -24, -12, 0}}}
	for _, id := range []string{"compressor", "limiter", "gate"} {
		l := plot.Line{Name: id}
		for in := -60.0; in <= 0; in += 2 {
			y := newest(id).alone(Rate, nil, sine(int(2*Rate), 100, math.Pow(10, in/20), Rate))
			l.X, l.Y = append(l.X, in), append(l.Y, 3.01+power(y[int(Rate):]))
		}
		p.Lines = append(p.Lines, l)
	}
	return p
}

// responsePlot shows some responses, from their impulse responses.
func responsePlot() plot.Plot {
	p := plot.Plot{Name: "responses", Says: "Responses, by a Fourier sum over the impulse response", X: hertz,
		Y: plot.Axis{Label: "dB", From: -24, To: 15, Ticks: []float64{-18, -12, -6, 0, 6, 12}}}
	for _, x := range []struct {
		name, id string
		set      Set
	}{
		{"bell +12", "equaliser", Set{"gain3": 12, "freq3": 100, "q3": 2}},
		{"high shelf −9", "equaliser", Set{"gain7": -9}},
		{"chorus, still", "chorus", Set{"depth": 0, "voices": 1, "spread": 0, "lowcut": 20, "highcut": 20000}},
		{"vibrato, still", "vibrato", Set{"depth": 0}},
	} {
		h := make([]float64, int(Rate/2))
		h[0] = 1
		h = newest(x.id).alone(Rate, x.set, h)
		l := plot.Line{Name: x.name}
		for hz := 20.0; hz <= 20000; hz *= 1.06 {
			var re, im float64
			for i, v := range h {
				if v != 0 {
					s, c := math.Sincos(2 * math.Pi * hz * float64(i) / Rate)
					re, im = re+v*c, im+v*s
				}
			}
			l.X, l.Y = append(l.X, hz), append(l.Y, 10*math.Log10(re*re+im*im+1e-12))
		}
		p.Lines = append(p.Lines, l)
	}
	return p
}
