package param

// MoveParams are what is set of movers and of what hangs on handles.
type MoveParams struct {
	Depth   Param `json:"depth" required:"true"`
	Phase   Param `json:"phase" required:"true"`
	Rate    Param `json:"rate" required:"true"`
	Attack  Param `json:"attack" required:"true"` // of one that follows a level
	Release Param `json:"release" required:"true"`
	Low     Param `json:"low" required:"true"`
	High    Param `json:"high" required:"true"`
	Bend    Param `json:"bend" required:"true"` // of what hangs on a handle
}

// Moves describes them. Depth and phase are kept in the document as parts, and set in percent.
var Moves = MoveParams{
	Depth: Param{
		Name:    "depth",
		Label:   "Depth",
		Unit:    "%",
		Says:    "How far it moves to each side, in parts of the travel; below 0 the other way round.",
		Min:     -100,
		Max:     100,
		Default: 10,
		Taper:   Linear,
		Step:    1,
		Digits:  0,
	},
	Phase: Param{Name: "phase", Label: "Phase", Unit: "%", Says: "Where in its movement the song begins.",
		Min: 0, Max: 100, Taper: Linear, Step: 1, Digits: 0},
	Rate: Param{Name: "rate", Label: "Speed", Unit: "Hz", Says: "How often it moves to and fro.",
		Min: 0.01, Max: 40, Default: 0.5, Taper: Log, Step: 3, Digits: 2},
	Attack: Param{
		Name:    "attack",
		Label:   "Attack",
		Unit:    "ms",
		Says:    "How fast it goes with a level that rises: 63 % of the way in this time.",
		Min:     0.1,
		Max:     2000,
		Default: 10,
		Taper:   Log,
		Step:    5,
		Digits:  1,
	},
	Release: Param{Name: "release", Label: "Release", Unit: "ms", Says: "How fast it goes with a level that falls.",
		Min: 1, Max: 5000, Default: 150, Taper: Log, Step: 5, Digits: 0},
	Low: Param{Name: "low", Label: "From a level of", Unit: "dB", Says: "Below this level it does not move at all.",
		Min: -90, Max: 11, Default: -40, Taper: Linear, Step: 1, Digits: 0},
	High: Param{Name: "high", Label: "To a level of", Unit: "dB", Says: "At this level it has moved all the way.",
		Min: -89, Max: 12, Default: -6, Taper: Linear, Step: 1, Digits: 0},
	Bend: Param{Name: "bend", Label: "Bend", Unit: "%", Says: "Above 0 it comes late in the travel of the handle, below 0 early.",
		Min: -100, Max: 100, Taper: Linear, Step: 5, Digits: 0},
}
