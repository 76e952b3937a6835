package engine

import (
	"reflect"

	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// treated is the strip of a treatment through which a piece runs: a plan of its own, in the time of the piece. It is
// made when the song comes near, and given back when it has passed. Pieces in which one sound goes on share a strip.
type treated struct {
	doc       *project.Project // only the piece, on a row with its treatment
	key       treatedKey
	start     int64 // song frame of the piece's frame 0
	to        int64 // how long the piece is
	ring      int64 // and for how long it sounds on
	time      pieceTime
	lib       *pages.Library
	plan      *plan
	at        int64 // frame of the piece that comes out next
	out       pair
	done, end int64 // the frames of the piece that stand in out
}

// pieceTime is the time of a piece's lines, in frames of the strip.
type pieceTime struct {
	project.LineTime
	start int64
}

// Frame is the frame of the strip at a line's tick.
func (t pieceTime) Frame(tick int64) int64 { return t.LineTime.Frame(tick) - t.start }

// treatedKey tells the strips of a row from each other.
type treatedKey struct{ clip, treatment string }

// maxRing is how long a piece rings on at most, in seconds.
const maxRing = 30

// pieceRow is the row of a treated piece in its own document.
const pieceRow = "piece"

// PieceDocument is a project in which nothing but one piece of a sound sounds, from frame 0 on, on a row with a chain:
// the time of the piece. The row is the first channel.
func PieceDocument(p *project.Project, tempo float64, chain project.Chain, clip *project.Clip) *project.Project {
	doc := project.New(p.Name, p.SampleRate, tempo, 4, 4)
	doc.Audio, doc.Meter = p.Audio, []project.Meter{{Beats: p.Meter[0].Beats, Unit: p.Meter[0].Unit}}
	main := doc.MainChannel()
	main.ID = "main"
	row := project.NewChannel(project.Track, "Piece", main.ID)
	row.ID, row.Chain, row.Clips = pieceRow, chain, []*project.Clip{clip}
	doc.Channels = []*project.Channel{row, main}
	return doc
}

// newTreated lays out a strip for what is laid of one clip, or of several in which one sound goes on.
func newTreated(
	p *project.Project, t *project.Treatment, live *project.Chain, sound *pages.Sound, x project.Laid, clock *project.Clock,
	lib *pages.Library,
) *treated {
	clip := &project.Clip{ID: pieceRow, Name: x.Clip.Name, Audio: sound.Hash, Offset: x.Offset, Frames: x.To - x.From, Exact: true}
	if x.Clip.Rings { // what fades is what goes in: it rings on behind it
		clip.FadeIn, clip.InShape, clip.InBend = x.In.Frames, x.In.Shape, x.In.Bend
		clip.FadeOut, clip.OutShape, clip.OutBend = x.Out.Frames, x.Out.Shape, x.Out.Bend
	}
	doc := PieceDocument(p, clock.Tempo(x.From), *live, clip)
	doc.Lines = p.LinesWithin(t)
	if sound.Hash != x.Clip.Audio {
		doc.Audio = append(doc.Audio[:len(doc.Audio):len(doc.Audio)],
			project.Audio{Hash: sound.Hash, Name: "worked out", Frames: sound.Frames, Channels: sound.Channels})
	}
	s := &treated{doc: doc, key: treatedKey{x.Clip.ID, t.ID}, start: x.From, to: x.To - x.From, lib: lib, out: newPair(),
		time: pieceTime{project.PieceTime(x.Clip, clock), x.From}}
	if x.Clip.Rings {
		tail := chainTail(live, doc.Tempo[0].BPM)
		s.ring = int64(min(maxRing, tail) * float64(p.SampleRate))
	}
	return s
}

// goOn lets the strip take in what goes on behind it.
func (t *treated) goOn(x project.Laid) {
	clip := t.doc.Channels[0].Clips[0]
	clip.Frames += x.To - x.From
	clip.FadeOut, clip.OutShape, clip.OutBend = 0, "", 0
	if x.Clip.Rings {
		clip.FadeOut, clip.OutShape, clip.OutBend = x.Out.Frames, x.Out.Shape, x.Out.Bend
	}
	t.to = clip.Frames
}

// follow lets a strip take over what another has become for the same clip, if it can go on where it is: then it is
// still the one. Otherwise the other begins with what is in both, or, where the piece lies elsewhere, anew.
func (t *treated) follow(next *treated) *treated {
	if t.start != next.start {
		return next
	}
	same := reflect.DeepEqual(t.doc.Channels[0], next.doc.Channels[0]) && t.doc.Tempo[0] == next.doc.Tempo[0] &&
		sameLines(t.doc.Lines, next.doc.Lines) && t.time.Frame(0) == next.time.Frame(0)
	if t.plan != nil && !same {
		c, err := next.draw()
		if err != nil {
			return next
		}
		if c.plan.shape != t.plan.shape {
			p, err := next.build(c)
			if err == nil && p.latency == t.plan.latency { // else it cannot go on where this one is
				p.cursor = t.plan.cursor
				p.adopt(t.plan)
				next.plan, next.at = p, t.at
			}
			return next
		}
		t.plan.update(next.doc, int(handSeconds*float64(t.doc.SampleRate)))
	}
	t.doc, t.to, t.ring, t.time = next.doc, next.to, next.ring, next.time
	return t
}

func (t *treated) draw() (*compiler, error) {
	return draw(t.doc, t.lib, &capture{channel: pieceRow, time: t.time}, Listening{})
}

func (t *treated) build(c *compiler) (*plan, error) {
	p, err := c.build()
	if err != nil {
		return nil, err
	}
	for _, pl := range p.players {
		pl.roll.Set(1)
	}
	p.cursor.rolling = true
	return p, nil
}

// ready makes the strip's plan, if need be. A treatment that cannot be made is as if there were none.
func (t *treated) ready() bool {
	if t.plan != nil && t.plan.stale() { // an impulse response has come
		t.plan = nil
	}
	if t.plan == nil {
		c, err := t.draw()
		if err != nil {
			return false
		}
		p, err := t.build(c)
		if err != nil {
			return false
		}
		t.plan, t.at, t.done, t.end = p, -1, 0, 0
	}
	return true
}

// forget lets the strip begin anew.
func (t *treated) forget() { t.at, t.done, t.end = -1, 0, 0 }

// release gives back what the strip needs while it runs.
func (t *treated) release() { t.plan = nil }

// missing appends the pages that are needed for frames [from, to) of the piece.
func (t *treated) missing(dst []pages.Missing, from, to int64) []pages.Missing {
	if !t.ready() {
		return dst
	}
	dst = t.plan.wanting(dst)
	for _, pl := range t.plan.players {
		dst = pl.missing(dst, from, to+int64(t.plan.latency))
	}
	return dst
}

// render lets frames [from, to) of the piece stand in out, at most a block.
func (t *treated) render(from, to int64) bool {
	if from >= t.done && to <= t.end && t.end > t.done {
		return true
	}
	if !t.ready() {
		return false
	}
	if t.at != from {
		t.jump(from)
	}
	n := int(to - from)
	for i := 0; i < n; {
		k := t.plan.room(min(Block, n-i))
		t.plan.run(k)
		copy(t.out.l[i:], t.plan.out.l[:k])
		copy(t.out.r[i:], t.plan.out.r[:k])
		i += k
	}
	t.at, t.done, t.end = to, from, to
	return true
}

// jump goes to a frame of the piece, with nothing left of what was. It runs ahead by as much as the treatment is late.
func (t *treated) jump(to int64) {
	t.plan.reset()
	t.plan.cursor.frame, t.plan.cursor.jumped = to, true
	for left := t.plan.latency; left > 0; {
		k := t.plan.room(min(Block, left))
		t.plan.run(k)
		left -= k
	}
}
