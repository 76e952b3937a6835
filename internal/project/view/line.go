package view

import (
	"fmt"

	"shoal/internal/param"
	"shoal/internal/project"
)

// LineView is a line as it is seen between two frames: whoever draws it works nothing out.
type LineView struct {
	Owner   string      `json:"owner" required:"true"`
	Name    string      `json:"name" required:"true"`
	Of      string      `json:"of" required:"true"` // what the parameter belongs to
	Channel string      `json:"channel" required:"true"`
	Param   param.Param `json:"param" required:"true"`
	Base    float64     `json:"base" required:"true"` // the value where the line has no points
	Count   int         `json:"count" required:"true"`
	// Clip is the piece in whose time the line is seen, and From and To where it lies in the song; empty: it is a row's.
	Clip   string      `json:"clip,omitempty"`
	From   int64       `json:"from,omitempty"`
	To     int64       `json:"to,omitempty"`
	Points []SeenPoint `json:"points" required:"true"` // none where there are too many to take hold of
	// Path holds places along the travel, evenly from the first frame to the last.
	Path []float64 `json:"path" required:"true"`
	// Low and High are the values between which gestures fill and draw: as far as the line reaches, or
	// where it is flat, a fifth of the travel to both sides.
	Low  float64 `json:"low" required:"true"`
	High float64 `json:"high" required:"true"`
}

// SeenPoint is a point with its frame and its place along the travel.
type SeenPoint struct {
	project.Point
	Frame int64   `json:"frame" required:"true"`
	Place float64 `json:"place" required:"true"`
}

// maxSeen is how many points can be told apart.
const maxSeen = 400

// Seen asks for a parameter's line between two song frames, in so many steps; of a piece's treatment as it is in a clip.
type Seen struct {
	Owner string `json:"owner" required:"true"`
	Name  string `json:"name" required:"true"`
	From  int64  `json:"from" required:"true"`
	To    int64  `json:"to" required:"true"`
	Steps int    `json:"steps" required:"true"`
	Clip  string `json:"clip,omitempty"`
}

// Line looks at a parameter's line.
func Line(p *project.Project, q Seen, effects project.Effects) (*LineView, error) {
	from, to := q.From, q.To
	f, base, err := p.Param(q.Owner, q.Name, effects)
	if err != nil {
		return nil, err
	}
	v := &LineView{Owner: q.Owner, Name: q.Name, Param: f, Base: base, Points: []SeenPoint{}, Path: []float64{}}
	v.Of, v.Channel = p.OwnerName(q.Owner, effects)
	l, _ := p.Line(q.Owner, q.Name)
	if l == nil {
		l = &project.Line{}
	}
	time, clip, err := p.TimeOf(q.Owner, q.Clip, from)
	if err != nil {
		return nil, err
	}
	if clip != nil {
		v.Clip, v.From = clip.ID, clip.BeginsAt(time.Clock)
		v.Of += " on " + clip.Name
		v.To = v.From + clip.Frames
	}
	v.Count = len(l.Points)
	i, j := l.Inside(int64(time.Tick(max(from, 0)))-1, int64(time.Tick(max(to, 0)))+1)
	if j-i <= maxSeen {
		for _, pt := range l.Points[i:j] {
			v.Points = append(v.Points, SeenPoint{pt, time.Frame(pt.Tick), f.Place(pt.Value)})
		}
	}
	steps := min(max(q.Steps, 2), 4000)
	for k := range steps {
		frame := from + (to-from)*int64(k)/int64(steps-1)
		v.Path = append(v.Path, f.Place(l.At(time.Tick(max(frame, 0)), f, v.Base)))
	}
	low, high := reach(l, f, v.Base)
	if low == high {
		low, high = max(0, low-0.2), min(1, high+0.2)
	}
	v.Low, v.High = f.At(low), f.At(high)
	return v, nil
}

// reach is the lowest and the highest place of a line's points; without points, that of a value.
func reach(l *project.Line, d param.Param, base float64) (low, high float64) {
	if len(l.Points) == 0 {
		return d.Place(base), d.Place(base)
	}
	low, high = 1, 0
	for _, pt := range l.Points {
		x := d.Place(pt.Value)
		low, high = min(low, x), max(high, x)
	}
	return low, high
}

// Movable is a parameter that a line can move.
type Movable struct {
	Owner string `json:"owner" required:"true"`
	Name  string `json:"name" required:"true"`
	Of    string `json:"of" required:"true"`
	Label string `json:"label" required:"true"`
	Line  bool   `json:"line" required:"true"` // it has one
}

// Movables lists every parameter of a channel, or of a piece's treatment, that a line can move: its own, its sends', and
// those of the chain and all in it.
func Movables(p *project.Project, channel string, effects project.Effects) ([]Movable, error) {
	out := []Movable{}
	add := func(owner, of string, list ...param.Param) {
		for _, d := range list {
			if d.Structural {
				continue
			}
			l, _ := p.Line(owner, d.Name)
			label := d.Label
			if d.Group != "" {
				label = fmt.Sprintf("%s, %s", d.Group, d.Label)
			}
			out = append(out, Movable{owner, d.Name, of, label, l != nil})
		}
	}
	if t, ok := p.TreatmentByID(channel); ok {
		t.Live(effects).Walk(movableNodes(p, effects, add))
		return out, nil
	}
	c, ok := p.Channel(channel)
	if !ok {
		return nil, project.Gone("the row")
	}
	add(c.ID, c.Name, param.Fader, param.Pan, param.Mute)
	for _, s := range c.Sends {
		to, _ := p.Channel(s.To)
		add(s.ID, "Send to "+to.Name, param.Send, param.Pan, param.Mute)
	}
	c.Walk(movableNodes(p, effects, add))
	return out, nil
}

// movableNodes adds what can be moved of each node of a chain.
func movableNodes(
	p *project.Project, effects project.Effects, add func(owner, of string, list ...param.Param),
) func(*project.Chain, int, *project.Node) bool {
	return func(_ *project.Chain, _ int, n *project.Node) bool {
		name, _ := p.OwnerName(n.ID(), effects)
		if f := n.Fork; f != nil {
			add(f.ID, name, param.Mix, param.Joined, param.Bypass)
			for i := range f.Crossovers {
				add(f.ID, name, param.Crossover(i+1, f.Linear))
			}
			for _, path := range f.Paths {
				add(path.ID, "Path "+path.Name, param.Path, param.Pan, param.Width, param.Mute)
			}
			return true
		}
		info, _ := effects(n.Stage.Effect, n.Stage.Version)
		add(n.Stage.ID, name, info.Params...)
		add(n.Stage.ID, name, param.Mix, param.Bypass)
		return true
	}
}
