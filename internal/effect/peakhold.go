package effect

import "shoal/internal/dsp"

// peakHold replaces levels by the highest of the last while: as long as that is no shorter than half a period, a tone stands
// still in it. It keeps the highest of each part of the grid, so that it costs a comparison a frame.
type peakHold struct {
	parts [peakParts]float64 // the highest of the parts before, in a ring
	at    int
	top   float64 // of those that count
	now   float64 // of the part under way
}

// peakParts is how many parts of the grid are held at most: 10 ms at 96 kHz.
const peakParts = 60

// A peak counts for peakSeconds, half a period of 50 Hz; with a short release for peakPart of that.
const (
	peakSeconds = 0.01
	peakPart    = 0.25
)

// heldParts is for how many parts of the grid a peak counts, and what is left of a release in seconds behind that.
func heldParts(release, rate float64) (parts int, rest float64) {
	parts = min(peakParts, int(min(peakSeconds, peakPart*release)*rate/Grid))
	return parts, release - float64(parts*Grid)/rate
}

// run replaces levels from a place on the grid on, with so many parts of it held, and returns the highest.
func (p *peakHold) run(level []float64, place, parts int) float64 {
	most := 0.0
	for i, v := range level {
		if place == Grid {
			p.turn(parts)
			place = 0
		}
		place++
		p.now = larger(p.now, v)
		v = larger(p.now, p.top)
		level[i] = v
		most = larger(most, v)
	}
	if place == Grid {
		p.turn(parts)
	}
	return most
}

// turn begins another part.
func (p *peakHold) turn(parts int) {
	p.parts[p.at], p.now = dsp.Flush(p.now), 0
	p.top = 0
	for k := range parts {
		p.top = larger(p.top, p.parts[(p.at-k+peakParts)%peakParts])
	}
	if p.at++; p.at == peakParts {
		p.at = 0
	}
}
