package effect

import "shoal/internal/dsp"

// bent applies a curve without corners at the high rate: over half steps as it is made now, or as saturation 1 and amplifier 2 had
// it, whose aliases of high tones stood 10 to 20 dB higher.
type bent struct {
	plain bool
	whole dsp.Smoothed
	half  dsp.SmoothedFine
}

func (b *bent) process(c dsp.Soft, x []float64) {
	if b.plain {
		b.whole.Process(c, x)
		return
	}
	b.half.Process(c, x)
}

func (b *bent) clear() { b.whole, b.half = dsp.Smoothed{}, dsp.SmoothedFine{} }
