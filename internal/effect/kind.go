package effect

import (
	"shoal/internal/dsp"
	"shoal/internal/param"
)

// Grid is the number of frames after which coefficients are looked at again.
const Grid = 16

// MaxFrames is the longest span a processor is given.
const MaxFrames = 128

// Kind describes one effect, with everything that the engine and the interface
// need to use it without knowing it.
type Kind struct {
	Info
	// New makes a processor for a sampling rate, with empty state.
	New func(rate float64) Processor
	// Latency in whole frames for these parameter values; nil means none.
	Latency func(rate float64, v []float64) int
	// Tail bounds the seconds for which the effect sounds on after its input
	// ends; nil means it ends at once.
	Tail func(v []float64, tempo float64) float64
	// Rests is for how many seconds there has to be silence, below -180 dBFS at its output and
	// nothing at all at its input and its key, until it is as good as new, so that it need not be
	// run until something comes. So it is no less than what an echo takes to come back, or what it
	// remembers of a level takes to be forgotten. Nil: it never rests.
	Rests func(v []float64, tempo float64) float64
	// Linear says that it is linear and does not move by itself: one impulse tells all of it.
	Linear bool
	// Telling chooses what hangs under a stage with these values; nil: the first two of Plumbs that matter.
	Telling func(v []float64) []Plumb
	// Draw computes the effect's picture; nil means it has none.
	Draw func(rate, tempo float64, v []float64) Picture
}

// Info is what can be said of an effect in words and figures.
type Info struct {
	ID      string `json:"id" required:"true"`
	Version int    `json:"version" required:"true"`
	// Newest is the newest version of the effect; what has another is an older sound.
	Newest   int           `json:"newest" required:"true"`
	Name     string        `json:"name" required:"true"`
	Family   string        `json:"family" required:"true"`
	Says     string        `json:"says" required:"true"`
	Synonyms []string      `json:"synonyms" required:"true"`
	Params   []param.Param `json:"params" required:"true"`
	// Plumbs are what is most telling about it, first things first: the first two that matter hang under a stage.
	Plumbs []Plumb  `json:"plumbs" required:"true"`
	Mix    float64  `json:"mix" required:"true"` // percent it is inserted with
	MixLaw string   `json:"mixLaw" required:"true" enum:"blend,add"`
	Live   []string `json:"live"` // names of the figures its processor reports
	// Sound says what a sound of the project can serve as, such as an impulse response; Learns
	// says what it can work out from what it hears. Empty: neither.
	Sound  string `json:"sound,omitempty"`
	Learns string `json:"learns,omitempty"`
	// Whole says that it needs the whole sound before it can answer: it stands in treatments of pieces only.
	Whole bool `json:"whole,omitempty"`
	// Keyed says that another signal can drive it.
	Keyed bool `json:"keyed" required:"true"`
}

// faded is how long a release with a time constant in seconds takes to be over for good.
func faded(seconds float64) float64 { return 16 * seconds }

// Index returns the place of a parameter among Params, or -1.
func (k *Info) Index(name string) int {
	for i := range k.Params {
		if k.Params[i].Name == name {
			return i
		}
	}
	return -1
}

// Defaults returns the default of every parameter, in order.
func (k *Info) Defaults() []float64 {
	v := make([]float64, len(k.Params))
	for i, p := range k.Params {
		v[i] = p.Default
	}
	return v
}

// Processor makes the sound of one stage. Process must not allocate.
type Processor interface {
	// Process works on the span in place.
	Process(*Span)
	// Reset empties all state, as after a seek.
	Reset()
	// CopyFrom takes over the state of a processor of the same kind, which may
	// have been made with other structural parameters.
	CopyFrom(Processor)
}

// Preparer is a processor whose memory depends on its structural parameters.
// Prepare is called once, before the first Process and off the render path.
type Preparer interface {
	Prepare(v []float64)
}

// Borrower is a processor that needs much room only while it works. Processors of one
// effect that run one after another can work in the same room, which then stays in the
// processor's cache.
type Borrower interface {
	// Borrow takes the room of another processor of the same effect for its own.
	Borrow(Processor)
}

// Reporter is a processor with live figures, such as gain reduction, in the
// order of Info.Live.
type Reporter interface {
	Report(dst []float64)
}

// Value is one parameter over a span.
type Value struct {
	Now   float64   // at the first frame
	Track []float64 // at every frame, or nil when it does not move
	Step  bool      // jumps, on purpose, at the first frame
}

// At returns the value at frame i of the span.
func (v *Value) At(i int) float64 {
	if v.Track == nil {
		return v.Now
	}
	return v.Track[i]
}

// Gains fills dst with the factor that a level in dB is at every frame.
func (v *Value) Gains(dst []float64) {
	if v.Track != nil {
		dsp.Gains(dst, v.Track[:len(dst)])
		return
	}
	g := dsp.Gain(v.Now)
	for i := range dst {
		dst[i] = g
	}
}

// Span is a stretch of sound for a stage to work on, of at most MaxFrames.
type Span struct {
	L, R       []float64 // in and out, the same length
	KeyL, KeyR []float64 // what drives it, when that is not its own input
	Steered    bool      // the key alone drives it: what would listen to its own input as well does not
	Values     []Value   // in the order of Info.Params
	Still      bool      // no value has moved or jumped since the span before
	Time
}

// Time is a stage's own time: the song frame at its first sample, less the
// stage's lag.
type Time struct {
	Frame   int64
	Quarter float64 // the same in quarter notes
	Tempo   float64 // quarter notes a minute
	Rolling bool
	Jumped  bool // Frame does not follow from the span before
}

// piece returns where the part of a span ends that starts at from and does not
// cross the grid, and whether it starts on the grid.
func (s *Span) piece(from int) (to int, onGrid bool) {
	off := int((s.Frame + int64(from)) & (Grid - 1))
	return min(len(s.L), from+Grid-off), off == 0
}

// stepped reports whether any parameter jumps at the first frame.
func (s *Span) stepped() bool {
	for i := range s.Values {
		if s.Values[i].Step {
			return true
		}
	}
	return false
}
