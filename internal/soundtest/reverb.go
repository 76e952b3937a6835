package soundtest

import "math"

// open is a reverb of which nothing is heard but its tail.
func open(character, decay float64, more Set) Set {
	s := Set{"character": character, "decay": decay, "predelay": 0, "early": -120}
	for k, v := range more {
		s[k] = v
	}
	return s
}

// answers are the four ways from a side in to a side out, for one impulse each.
func (s Subject) answers(set Set, seconds float64) [][]float64 {
	var list [][]float64
	for side := range 2 {
		x := [2][]float64{make([]float64, int(seconds*Rate)), make([]float64, int(seconds*Rate))}
		x[side][0] = 1
		s.run(Rate, set, x[0], x[1])
		list = append(list, x[0], x[1])
	}
	return list
}

// tail is the spectrum of a response where it has fallen by 30 dB, its decay taken out.
func tail(h []float64, decay float64) []float64 {
	a, b := int(0.2*decay*Rate), int(0.8*decay*Rate)
	x := make([]float64, b-a)
	for i := range x {
		x[i] = h[a+i] * math.Pow(10, 3*float64(a+i)/Rate/decay)
	}
	return spectrum(x, hann)
}

// within goes through the bins between 200 Hz and 8 kHz.
func within(bins int, f func(i int)) {
	for i := range bins {
		if hz := float64(i) * Rate / 2 / float64(bins-1); hz > 200 && hz < 8000 {
			f(i)
		}
	}
}

// spread is the standard deviation of a tail's log spectrum about its thirds of octaves, in dB: 5.6 in noise.
func spread(p []float64) float64 {
	m := thirds(p)
	var sum, squares, n float64
	within(len(p), func(i int) {
		v := 10 * math.Log10(p[i]/m[i]+1e-12)
		sum, squares, n = sum+v, squares+v*v, n+1
	})
	return math.Sqrt(squares/n - sum*sum/n/n)
}

var decays = []float64{0.3, 1, 1.8, 4, 10}

func ofReverb() []Claim {
	var list []Claim
	claim := func(says, unit string, aim float64, f func(s Subject) float64) *Claim {
		list = append(list, Claim{Effect: "reverb", Says: says, Unit: unit, Aim: aim, Long: true, Measure: f})
		return &list[len(list)-1]
	}
	for c, name := range characters {
		of := float64(c)
		claim(
			name+": spread of the tail's log spectrum at -30 dB, decays from 0.3 to 10 s (noise: 5.6)", "dB", 6.5,
			func(s Subject) float64 {
				return worst(decays, func(t float64) float64 { return spread(tail(s.answers(open(of, t, nil), t)[0], t)) })
			})
		claim(name+": strongest mode of the tail above its third of an octave, over all ways in and out", "dB", 8, func(s Subject) float64 {
			return worst(decays, func(t float64) float64 {
				var p []float64
				for _, h := range s.answers(open(of, t, nil), t) {
					for i, v := range tail(h, t) {
						if len(p) <= i {
							p = append(p, 0)
						}
						p[i] += v
					}
				}
				m, most := thirds(p), 0.0
				within(len(p), func(i int) { most = math.Max(most, 10*math.Log10(p[i]/m[i])) })
				return most
			})
		})
		claim(name+": level at 100 % wet between decays of 1.8 and 10 s", "dB", 2, func(s Subject) float64 {
			level := func(t float64) float64 {
				x := noise(int(14*Rate), 5, 0.25)
				return power(s.alone(Rate, open(of, t, nil), x)[int(11*Rate):])
			}
			return math.Abs(level(10) - level(1.8))
		})
		claim(name+": density of echoes missing after 150 ms without diffusion (Abel and Huang 2006)", "", 0.1, func(s Subject) float64 {
			h := s.answers(open(of, 3, Set{"diffusion": 0}), 1)[0]
			return 1 - density(h[int(0.14*Rate):int(0.16*Rate)])
		}).Long = false
		claim(name+": held notes wander, movement 100 %, eight of them from 110 Hz to 2.5 kHz (root mean square)", "dB", 1.5,
			func(s Subject) float64 { return wanders(s, of) })
		claim(
			name+": T30 at 0.3 s off what is asked, octaves from 125 Hz to 8 kHz, over all ways in and out (ISO 3382)", "%", 10,
			func(s Subject) float64 {
				ways := s.answers(open(of, 0.3, Set{"lowcut": 20, "highcut": 20000}), 1)
				return worst([]float64{125, 250, 500, 1000, 2000, 4000, 8000}, func(hz float64) float64 {
					t := decayTime(ways, hz, -5, -35, Rate)
					return 100 * math.Abs(t/askedFor(0.3, hz)-1)
				})
			}).Long = false
	}
	return list
}

// density is the part of a stretch outside one standard deviation, over what it is in Gaussian noise.
func density(w []float64) float64 {
	sigma, out := math.Pow(10, power(w)/20), 0
	for _, v := range w {
		if math.Abs(v) > sigma {
			out++
		}
	}
	return float64(out) / float64(len(w)) / math.Erfc(1/math.Sqrt2)
}

// wanders is by how much notes that are held rise and fall, in windows of 400 ms. A single one says little: where it falls into a
// dip between modes the least movement is many dB.
func wanders(s Subject, character float64) float64 {
	notes := []float64{110, 165, 220, 440, 523, 880, 1320, 2500}
	sum := 0.0
	for _, hz := range notes {
		y := s.alone(Rate, open(character, 1.8, Set{"movement": 100}), sine(int(10*Rate), hz, 0.3, Rate))
		var low, high float64 = math.Inf(1), math.Inf(-1)
		for at := int(4 * Rate); at+int(0.4*Rate) < len(y); at += int(0.2 * Rate) {
			p := power(y[at : at+int(0.4*Rate)])
			low, high = math.Min(low, p), math.Max(high, p)
		}
		sum += (high - low) * (high - low) / 4
	}
	return math.Sqrt(sum / float64(len(notes)))
}

// askedFor is the T30 of an octave in which every frequency dies away as the defaults ask: low decay 1.1 below 220 Hz,
// high decay 0.45 above 4.5 kHz.
func askedFor(decay, hz float64) float64 {
	of := func(f float64) float64 {
		l, h := 1/(1+f*f/(220*220)), 1/(1+4500*4500/(f*f))
		return decay / (1 + (1/1.1-1)*l + (1/0.45-1)*h)
	}
	left := func(t float64) float64 {
		sum := 0.0
		for i := range 25 {
			d := of(hz * math.Exp2(float64(i)/24-0.5))
			sum += d * math.Pow(10, -6*t/d)
		}
		return 10 * math.Log10(sum)
	}
	at := func(level float64) float64 {
		low, high := 0.0, 100.0
		for range 60 {
			if m := (low + high) / 2; left(m)-left(0) > level {
				low = m
			} else {
				high = m
			}
		}
		return low
	}
	return (at(-35) - at(-5)) * 2
}
