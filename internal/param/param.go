// Package param describes parameters: name, unit, range and taper. It is all
// that effects and documents know of each other.
package param

import (
	"fmt"
	"math"

	"shoal/internal/dsp"
)

// Taper says how a parameter's travel is divided, and along what its ramps are straight.
type Taper string

// The tapers.
const (
	Linear Taper = "linear" // straight in its unit
	Log    Taper = "log"    // straight in the logarithm; Min must be above 0
	Level  Taper = "level"  // dB; the lowest tenth of the travel goes from -60 dB to off
	Choice Taper = "choice" // one of Choices, stored as its index
	Switch Taper = "switch" // 0 or 1
)

// Param describes one parameter.
type Param struct {
	Name       string   `json:"name" required:"true"`
	Label      string   `json:"label" required:"true"`
	Unit       string   `json:"unit" required:"true"`
	Says       string   `json:"says" required:"true"`
	Group      string   `json:"group,omitempty"`
	Sheet      string   `json:"sheet,omitempty"` // of a long effect, the sheet of scales that it stands on; empty: the first
	Min        float64  `json:"min" required:"true"`
	Max        float64  `json:"max" required:"true"`
	Default    float64  `json:"default" required:"true"`
	Taper      Taper    `json:"taper" required:"true" enum:"linear,log,level,choice,switch"`
	Choices    []string `json:"choices,omitempty"`
	Step       float64  `json:"step" required:"true"` // one press of an arrow key, in the unit (in percent for log)
	Digits     int      `json:"digits" required:"true"`
	Structural bool     `json:"structural,omitempty"` // changes latency or memory: heard through a cross-fade, not automatable
	// When names another parameter and its values for which this one matters; elsewhere it
	// need not be shown. Nil: always.
	When *When `json:"when,omitempty"`
}

// When is a condition on another parameter.
type When struct {
	Name string    `json:"name" required:"true"`
	Is   []float64 `json:"is" required:"true"`
}

// Only returns the parameter as one that matters while another has one of the values.
func (p Param) Only(name string, is ...float64) Param {
	p.When = &When{name, is}
	return p
}

// On returns the parameter as one that stands on a sheet of its effect's scales.
func (p Param) On(sheet string) Param {
	p.Sheet = sheet
	return p
}

// Check reports an error that names the parameter when v is not a value of it.
func (p *Param) Check(v float64) error {
	switch {
	case math.IsNaN(v) || math.IsInf(v, 0):
		return fmt.Errorf("%s is not a number", p.Label)
	case v < p.Min || v > p.Max:
		return fmt.Errorf("%s %g is outside %g to %g %s", p.Label, v, p.Min, p.Max, p.Unit)
	case (p.Taper == Choice || p.Taper == Switch) && v != math.Trunc(v):
		return fmt.Errorf("%s is a choice: %g must be a whole number", p.Label, v)
	}
	return nil
}

// Clamp brings v into the range.
func (p *Param) Clamp(v float64) float64 {
	switch { // min and max look after NaN and signed zeros, which is dear in WebAssembly
	case v < p.Min:
		return p.Min
	case v > p.Max:
		return p.Max
	}
	return v
}

// Stepped reports whether the parameter only has separate values.
func (p *Param) Stepped() bool { return p.Taper == Choice || p.Taper == Switch }

const levelKnee, levelPart = -60.0, 0.1

// Place turns a value into its place along the travel, 0 to 1.
func (p *Param) Place(v float64) float64 {
	switch p.Taper {
	case Log:
		return math.Log(v/p.Min) / math.Log(p.Max/p.Min)
	case Level:
		if v < levelKnee {
			return (v - p.Min) / (levelKnee - p.Min) * levelPart
		}
		return levelPart + (v-levelKnee)/(p.Max-levelKnee)*(1-levelPart)
	default:
		if p.Max == p.Min {
			return 0
		}
		return (v - p.Min) / (p.Max - p.Min)
	}
}

// At turns a place along the travel into the value there.
func (p *Param) At(place float64) float64 {
	switch p.Taper {
	case Log:
		return p.Min * dsp.Exp(place*math.Log(p.Max/p.Min))
	case Level:
		if place < levelPart {
			return p.Min + place/levelPart*(levelKnee-p.Min)
		}
		return levelKnee + (place-levelPart)/(1-levelPart)*(p.Max-levelKnee)
	default:
		return p.Min + place*(p.Max-p.Min)
	}
}

// Straight reports whether the travel between two values is straight: half way is the mean.
func (p *Param) Straight(a, b float64) bool {
	return p.Taper == Linear || p.Taper == Level && a >= levelKnee && b >= levelKnee
}

// The parameters that every channel, send and path has. Level in dB, pan from
// -1 (left) to 1 (right), mix in percent.
var (
	Fader = Param{Name: "fader", Label: "Level", Unit: "dB", Says: "How loud the channel is at its output.",
		Min: -120, Max: 12, Taper: Level, Step: 0.5, Digits: 1}
	Pan = Param{Name: "pan", Label: "Pan", Unit: "", Says: "Where the channel stands between left and right.",
		Min: -1, Max: 1, Taper: Linear, Step: 0.05, Digits: 2}
	Send = Param{Name: "level", Label: "Send level", Unit: "dB", Says: "How much is sent to the return.",
		Min: -120, Max: 12, Taper: Level, Step: 0.5, Digits: 1}
	Mix = Param{Name: "mix", Label: "Mix", Unit: "%", Says: "How much of the stage is heard.",
		Min: 0, Max: 100, Default: 100, Taper: Linear, Step: 1, Digits: 0}
	Path = Param{Name: "level", Label: "Path level", Unit: "dB", Says: "How loud the path is where the fork joins.",
		Min: -120, Max: 12, Taper: Level, Step: 0.5, Digits: 1}
	Width = Param{
		Name:    "width",
		Label:   "Path width",
		Unit:    "%",
		Says:    "How wide the path is: 0 is mono, 100 as it is, 200 twice the difference of the sides.",
		Min:     0,
		Max:     200,
		Default: 100,
		Taper:   Linear,
		Step:    5,
		Digits:  0,
	}
	// Mute and Bypass are switches that a line can turn.
	Mute   = Param{Name: "mute", Label: "Mute", Says: "Silences it.", Max: 1, Taper: Switch, Step: 1}
	Bypass = Param{Name: "bypass", Label: "Bypass", Says: "Lets the signal pass it untreated.", Max: 1, Taper: Switch, Step: 1}
	Handle = Param{Name: "value", Label: "Handle", Unit: "%", Says: "Moves all that hangs on it, each over its own range.",
		Min: 0, Max: 100, Taper: Linear, Step: 1, Digits: 0}
	// Joined is what a fork's paths are turned up or down by together, before they are mixed with the dry signal.
	Joined = Param{
		Name:   "trim",
		Label:  "Output",
		Unit:   "dB",
		Says:   "Turns what the paths make together up or down, so that the fork is as loud as what goes in.",
		Min:    -24,
		Max:    12,
		Taper:  Linear,
		Step:   0.5,
		Digits: 1,
	}
)

// Crossover describes a fork's crossover, from 1 on; in linear phase its kernels are fixed, so it
// cannot be automated, and it does not go below lowest.
func Crossover(number int, linear bool) Param {
	p := Param{
		Name:       CrossoverName(number),
		Label:      fmt.Sprintf("Crossover %d", number),
		Unit:       "Hz",
		Says:       "Where two bands meet: each is 6 dB down there.",
		Min:        30,
		Max:        18000,
		Default:    1000,
		Taper:      Log,
		Step:       3,
		Digits:     0,
		Structural: linear,
	}
	if linear {
		p.Min = dsp.LowestLinear
	}
	return p
}

// CrossoverName is a crossover's name as a parameter: x1 to x4.
func CrossoverName(number int) string { return "x" + string(rune('0'+number)) }
