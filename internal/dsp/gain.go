package dsp

import "math"

// Off is the level in dB at and below which a gain counts as zero.
const Off = -120.0

const (
	// gainSteps of the table make a dB: what lies between is so little that a short series reaches it.
	gainSteps = 8
	gainTop   = 72
)

// gainTable holds the factors from Off to gainTop dB.
var gainTable = func() (g [(gainTop - Off) * gainSteps]float64) {
	for i := range g {
		g[i] = Exp((float64(i)/gainSteps + Off) * (ln10 / 20))
	}
	return g
}()

// Gain turns a level in dB into a factor; Off and below is 0.
func Gain(db float64) float64 {
	if db > Off && db < gainTop-1 {
		return tableGain(db)
	}
	if db <= Off {
		return 0
	}
	return Exp(db * (ln10 / 20))
}

// Gains fills dst with the Gain of each level.
func Gains(dst, db []float64) {
	dst = dst[:len(db)]
	for i, v := range db {
		if v > Off && v < gainTop-1 {
			dst[i] = tableGain(v)
			continue
		}
		dst[i] = Gain(v)
	}
}

// tableGain is Gain between Off and gainTop to 1e-15. It is small enough to be put where it is called.
func tableGain(db float64) float64 {
	t := db*gainSteps + whole
	d := (db - (t-whole)*(1./gainSteps)) * (ln10 / 20)
	return gainTable[int(int16(math.Float64bits(t)))-Off*gainSteps] * (1 + d*(1+d*(1./2+d*(1./6+d*(1./24+d*(1./120))))))
}
