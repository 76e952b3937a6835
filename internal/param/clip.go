package param

// What clips have: it is set in the document, not moved by lines.
var (
	ClipGain = Param{Name: "gain", Label: "Gain", Unit: "dB", Says: "How loud the clip is, before everything else on its row.",
		Min: -60, Max: 36, Taper: Linear, Step: 0.5, Digits: 1}
	// ClipFade is how long a fade lasts in ms. At its least the edge fades so that it does not click.
	ClipFade = Param{Name: "fade", Label: "Fade", Unit: "ms",
		Says: "How long it fades. At its least the edge fades just so that it does not click.",
		Min:  2, Max: 60000, Default: 2, Taper: Log, Step: 1, Digits: 0}
)
