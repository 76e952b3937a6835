package effect

import "shoal/internal/dsp"

// Where cuts end: there they are out.
const (
	cutOutLow  = 20.0
	cutOutHigh = 20000.0
)

// lowCut and highCut are first-order cuts that let all through at the end of their range.
func lowCut(hz, rate float64) dsp.Section {
	if hz <= cutOutLow {
		return dsp.Through
	}
	return dsp.HighPass1(hz, rate)
}

func highCut(hz, rate float64) dsp.Section {
	if hz >= cutOutHigh {
		return dsp.Through
	}
	return dsp.LowPass1(min(hz, rate*0.45), rate)
}

// lowCutOf and highCutOf are lowCut and highCut, or first-order cuts that are never out.
func lowCutOf(out bool, hz, rate float64) dsp.Section {
	if out {
		return lowCut(hz, rate)
	}
	return dsp.HighPass1(hz, rate)
}

func highCutOf(out bool, hz, rate float64) dsp.Section {
	if out {
		return highCut(hz, rate)
	}
	return dsp.LowPass1(min(hz, rate*0.45), rate)
}
