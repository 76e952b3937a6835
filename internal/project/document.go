package project

import "shoal/internal/param"

// Version is the version of the document's format.
const Version = 1

// Project is the whole document.
type Project struct {
	Version    int        `json:"version" required:"true"`
	ID         string     `json:"id" required:"true"`
	Name       string     `json:"name" required:"true"`
	SampleRate int        `json:"sampleRate" required:"true"`
	Tempo      []Tempo    `json:"tempo" required:"true"`
	Meter      []Meter    `json:"meter" required:"true"`
	Sections   []Section  `json:"sections" required:"true"`
	Channels   []*Channel `json:"channels" required:"true"`
	Lines      []*Line    `json:"lines" required:"true"`
	Audio      []Audio    `json:"audio" required:"true"`
	Meant      []Meant    `json:"meant,omitempty"`
	Movers     []*Mover   `json:"movers,omitempty"`
	Handles    []*Handle  `json:"handles,omitempty"`
	Passages   []*Passage `json:"passages,omitempty"`
	// Treatments are chains that clips pass before their rows.
	Treatments []*Treatment `json:"treatments,omitempty"`
	// Takes are all that was recorded.
	Takes []*Take `json:"takes,omitempty"`
	// Remarks are what was said about places in it.
	Remarks []*Remark `json:"remarks,omitempty"`
	// WorkWhenAsked says that whole-sound steps are worked out only when somebody asks for it.
	WorkWhenAsked bool `json:"workWhenAsked,omitempty"`
}

// Meant says of a sounding that it is as it should be, and who said so.
type Meant struct {
	Rule string `json:"rule" required:"true"` // the sounding's name
	At   string `json:"at" required:"true"`   // the id it was about
	By   string `json:"by" required:"true"`
}

// Section is a named part of the song, from its tick to the next section's.
type Section struct {
	ID   string `json:"id" required:"true"`
	Name string `json:"name" required:"true"`
	Tick int64  `json:"tick" required:"true"`
}

// Audio is what the document must know of a sound it uses; the sound itself
// lies with its hash.
type Audio struct {
	Hash     string `json:"hash" required:"true"`
	Name     string `json:"name" required:"true"`
	Frames   int64  `json:"frames" required:"true"`
	Channels int    `json:"channels" required:"true"`
}

// Channel kinds.
const (
	Track  = "track"
	Group  = "group"
	Return = "return"
	Main   = "main"
)

// Channel is a row of the board.
type Channel struct {
	ID     string `json:"id" required:"true"`
	Kind   string `json:"kind" required:"true" enum:"track,group,return,main"`
	Name   string `json:"name" required:"true"`
	Tint   int    `json:"tint" required:"true"` // 0 none, 1 to 8
	Stereo bool   `json:"stereo" required:"true"`
	Hidden bool   `json:"hidden" required:"true"`
	Chain  Chain  `json:"chain" required:"true"`
	// Trials are alternatives of the chain, kept beside it to compare; Letter is the chain's own.
	Trials []*Trial `json:"trials" required:"true"`
	Letter string   `json:"letter" required:"true"`
	// Records is what the row is recorded from: OwnInput, or a stand-in's name; empty: nothing.
	Records string `json:"records,omitempty"`
	// WayIn is the id of the last node that a recording passes before it is kept; empty: the bare input is.
	WayIn     string `json:"wayIn,omitempty"`
	Waterline string `json:"waterline"` // the id of the last printed node; empty: nothing is printed
	// PrintWhenAsked says that what stands before the line is printed anew only when somebody asks for it.
	PrintWhenAsked bool    `json:"printWhenAsked,omitempty"`
	Fader          float64 `json:"fader" required:"true"`
	Pan            float64 `json:"pan" required:"true"`
	Mute           bool    `json:"mute" required:"true"`
	MutePre        bool    `json:"mutePre" required:"true"` // mute silences pre-fader sends too
	SoloSafe       bool    `json:"soloSafe" required:"true"`
	Output         string  `json:"output" required:"true"` // a channel's id, or empty for none
	// Input is a point of another channel whose signal comes in besides clips and sends.
	Input *Tap    `json:"input,omitempty"`
	Sends []*Send `json:"sends" required:"true"`
	Clips []*Clip `json:"clips" required:"true"`
	// Overlaps is what happens where clips of the row overlap; empty: both sound.
	Overlaps string  `json:"overlaps,omitempty" enum:"sum,cover,fade"`
	PrintOf  *Origin `json:"printOf,omitempty"`
	// Hand says who has the row in hand for a while: others are asked before they change it.
	Hand *Hand `json:"hand,omitempty"`
}

// Hand is who has a row in hand.
type Hand struct {
	By    Speaker `json:"by" required:"true"`
	Until string  `json:"until" required:"true"` // RFC 3339
}

// Chain is an ordered list of nodes.
type Chain struct {
	Bypass bool    `json:"bypass" required:"true"`
	Nodes  []*Node `json:"nodes" required:"true"`
}

// MaxTrials is how many alternatives of a chain are kept beside it.
const MaxTrials = 3

// Trial is an alternative of a channel's chain.
type Trial struct {
	ID     string `json:"id" required:"true"`
	Letter string `json:"letter" required:"true"` // A to D
	Chain  Chain  `json:"chain" required:"true"`
}

// Node is a stage or a fork: exactly one of the two is set.
type Node struct {
	Stage *Stage `json:"stage,omitempty"`
	Fork  *Fork  `json:"fork,omitempty"`
}

// Stage is one effect in a chain.
type Stage struct {
	ID      string             `json:"id" required:"true"`
	Name    string             `json:"name" required:"true"` // empty: the effect's own name
	Effect  string             `json:"effect" required:"true"`
	Version int                `json:"version" required:"true"`
	Params  map[string]float64 `json:"params" required:"true"` // those that differ from the default
	Bypass  bool               `json:"bypass" required:"true"`
	Mix     float64            `json:"mix" required:"true"`
	MixLaw  string             `json:"mixLaw" required:"true" enum:"blend,add"`
	ActsOn  string             `json:"actsOn" required:"true" enum:"both,left,right,mid,side"`
	Key     *Tap               `json:"key,omitempty"`
	// Steered: it listens to its key alone, even where it would listen to itself as well. Only documents for rendering
	// have it, see Shares.
	Steered bool `json:"-"`
	// Sound is the hash of the sound that the effect uses, such as an impulse response.
	Sound   string `json:"sound,omitempty"`
	RingOut bool   `json:"ringOut" required:"true"` // bypassed, it lets what is in it die away
	MixLock bool   `json:"mixLock" required:"true"` // presets and replacements leave mix and law alone
}

// Tap is a point in the signal. Node is empty for the channel's own points; for "path" it
// is the id of the path, whose signal is taken behind its level and its mute.
type Tap struct {
	Channel string `json:"channel" required:"true"`
	Point   string `json:"point" required:"true" enum:"input,before,after,path,pre,post"`
	Node    string `json:"node,omitempty"`
}

// Send copies a channel's signal to a return.
type Send struct {
	ID  string `json:"id" required:"true"`
	To  string `json:"to" required:"true"`
	Pre bool   `json:"pre" required:"true"` // before the fader
	// After is the node or path behind which it is taken, or "input" for what comes into
	// the channel; empty: Pre decides.
	After string  `json:"after,omitempty"`
	Level float64 `json:"level" required:"true"`
	Pan   float64 `json:"pan" required:"true"`
	Mute  bool    `json:"mute" required:"true"`
}

// Clip places a stretch of audio on a track. Start is in ticks when Follows is
// set, otherwise in frames.
type Clip struct {
	ID      string  `json:"id" required:"true"`
	Name    string  `json:"name" required:"true"`
	Audio   string  `json:"audio" required:"true"`
	Follows bool    `json:"follows" required:"true"`
	Start   int64   `json:"start" required:"true"`
	Offset  int64   `json:"offset" required:"true"` // frames into the audio
	Frames  int64   `json:"frames" required:"true"`
	Gain    float64 `json:"gain" required:"true"`
	FadeIn  int64   `json:"fadeIn" required:"true"` // frames
	FadeOut int64   `json:"fadeOut" required:"true"`
	Exact   bool    `json:"exact" required:"true"` // no edge fades: prints must null
	// InShape and OutShape are how its fades go, InBend and OutBend (-1 to 1) how they are bent; empty: S.
	InShape  string  `json:"inShape,omitempty" enum:"s,power,gain"`
	OutShape string  `json:"outShape,omitempty" enum:"s,power,gain"`
	InBend   float64 `json:"inBend,omitempty"`
	OutBend  float64 `json:"outBend,omitempty"`
	// Swell is a curve of gain that belongs to the sound: it goes wherever that goes.
	Swell []Swell `json:"swell,omitempty"`
	Mute  bool    `json:"mute,omitempty"`
	Tint  int     `json:"tint,omitempty"` // 0 the row's, 1 to 8
	// Treatment is the id of what it passes before its row. Rings says that it rings on beyond its end there.
	Treatment string `json:"treatment,omitempty"`
	Rings     bool   `json:"rings,omitempty"`
	// Enters is where it comes into its row; empty: at the top of the chain.
	Enters string `json:"enters,omitempty" enum:"behind,wayIn"`
	// Take is the id of the take that it plays.
	Take string `json:"take,omitempty"`
	// Extent is the stretch of the audio that its treatment's whole-sound steps work on; nil: there are none. Then Offset
	// counts frames of what is worked out, from where the extent begins.
	Extent *Extent `json:"extent,omitempty"`
	// Origin is the frame, counted as Offset is, at which the time of its treatment's lines begins; nil: there are none.
	Origin *int64 `json:"origin,omitempty"`
	// Made is what it was before its treatment was made permanent.
	Made *Made `json:"made,omitempty"`
	// Over is what happens where it begins over another; empty: as the row has it.
	Over string `json:"over,omitempty" enum:"sum,cover,fade"`
}

// Swell is a point of a clip's curve of gain. Between points the gain goes straight in dB, or, with Step, stays
// until the next. SwellOff and below is silence.
type Swell struct {
	At   int64   `json:"at" required:"true"`   // frame of the clip's audio
	Gain float64 `json:"gain" required:"true"` // dB, SwellOff to 24
	Step bool    `json:"step,omitempty"`
}

// EffectInfo is what the document must know of an effect.
type EffectInfo struct {
	Version int // that was asked for
	Newest  int
	Name    string
	Params  []param.Param
	Sound   string  // what a sound of the project can serve it as; empty: nothing
	Mix     float64 // with which it is inserted, and by which law
	MixLaw  string
	Whole   bool // it needs the whole sound: it stands in treatments only
	InNotes bool // some of its times can be note lengths
	Keyed   bool // another signal can drive it
}

// Effects finds what is known of an effect by its id.
type Effects func(id string, version int) (EffectInfo, bool)

// Param finds a parameter's description by name.
func (e EffectInfo) Param(name string) (param.Param, bool) {
	for _, p := range e.Params {
		if p.Name == name {
			return p, true
		}
	}
	return param.Param{}, false
}
