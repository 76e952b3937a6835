package project

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// voyage is a song of four sections of four bars each (six eighths, 90), with clips, a line, a passage and
// changes of tempo in them.
func voyage(t *testing.T, r *rand.Rand) *Project {
	p := sample(t)
	a, b := p.Channels[0], p.Channels[1]
	p.Audio[0].Frames = 48000 * 60
	const bar = 2880
	p.Sections = nil
	for i, n := range []string{"Ebb", "Slack", "Flood", "High"} {
		p.Sections = append(p.Sections, Section{fmt.Sprint("s", i), n, int64(i * 4 * bar)})
	}
	if r.IntN(2) == 0 {
		p.Tempo = append(p.Tempo, Tempo{Tick: 5 * bar, BPM: 120, Ramp: false}, Tempo{Tick: 9 * bar, BPM: 60, Ramp: false})
	}
	clip := func(id string, from, bars int64, follows bool) *Clip {
		clock := p.Clock()
		x := &Clip{
			ID:      id,
			Name:    id,
			Audio:   aSound,
			Follows: follows,
			Start:   from * bar,
			Offset:  7,
			Frames:  clock.Frame((from+bars)*bar) - clock.Frame(from*bar),
		}
		if !follows {
			x.Start = clock.Frame(from * bar)
		}
		return x
	}
	a.Clips = []*Clip{clip("one", 0, 4, true), clip("two", 4, 5, true), clip("long", 6, 9, false)}
	b.Clips = []*Clip{clip("end", 12, 4, true)}
	l := &Line{Owner: a.ID, Name: "fader"}
	for tick := int64(r.IntN(3000)); tick < 16*bar; tick += int64(300 + r.IntN(5000)) {
		l.Points = append(l.Points, Point{tick, -float64(r.IntN(30)), []string{Ramp, Hold, Smooth, Curve}[r.IntN(4)], 0.4})
	}
	p.Lines = []*Line{l}
	x := away(p)
	x.From, x.To = 7*bar, 8*bar+480
	p.Passages = []*Passage{x}
	x.fill()
	require.NoError(t, p.Validate(fakeEffects))
	return p
}

// Wherever a section comes to stand, its line has the values and its clips have the sound that they had.
func TestSectionsTakeEverythingAlong(t *testing.T) {
	const bar = 2880
	for seed := range uint64(120) {
		r := rand.New(rand.NewPCG(seed, 5))
		p := voyage(t, r)
		var c Change
		order := []int{0, 1, 2, 3} // which section stands where
		switch seed % 4 {
		case 0:
			c, order = &MoveSection{"s1", 1, true}, []int{0, 2, 1, 3}
		case 1:
			c, order = &MoveSection{"s3", -2, true}, []int{0, 3, 1, 2}
		case 2:
			c, order = &RepeatSection{"s1", true}, []int{0, 1, 1, 2, 3}
		case 3:
			c, order = &RemoveSection{"s1", true, true}, []int{0, 2, 3}
		}
		next := one(t, p, c)
		old, now := p.Clock(), next.Clock()
		l, n := p.Lines[0], next.Lines[0]
		d, _, err := p.Describe(l.Owner, l.Name, fakeEffects)
		require.NoError(t, err)
		// what sounds at a frame: audio frames, by clip name; rings beyond a piece are left out
		sound := func(q *Project, clock *Clock, f int64) map[string]int64 {
			m := map[string]int64{}
			for _, x := range append(append([]*Clip{}, q.Channels[0].Clips...), q.Channels[1].Clips...) {
				if s := x.BeginsAt(clock); f >= s+3 && f < s+x.Frames-3 && x.Name != "two" {
					m[x.Name] = x.Offset + f - s
				}
			}
			return m
		}
		for at, s := range order {
			for k := int64(11); k < 4*bar; k += 611 {
				from, to := int64(s*4*bar)+k, int64(at*4*bar)+k
				require.InDelta(
					t,
					d.Place(l.At(float64(from), d, 0)),
					d.Place(n.At(float64(to), d, 0)),
					0.012,
					"seed %d: tick %d of section %d",
					seed,
					k,
					s,
				)
				was, is := sound(p, old, old.Frame(from)), sound(next, now, now.Frame(to))
				for name, f := range was {
					require.Contains(t, is, name, "seed %d: tick %d of section %d", seed, k, s)
					require.InDelta(t, f, is[name], 3, "seed %d: %s at tick %d of section %d", seed, name, k, s)
				}
				require.Len(t, is, len(was), "seed %d: tick %d of section %d", seed, k, s)
				require.InDelta(t, old.Tempo(old.Frame(from)+2), now.Tempo(now.Frame(to)+2), 1e-6)
			}
		}
		passages := map[uint64]int{0: 1, 1: 1, 2: 2, 3: 0}[seed%4]
		require.Len(t, next.Passages, passages)
		if passages > 0 {
			x := next.Passages[0]
			require.Equal(t, int64(bar+480), x.To-x.From)
			require.Equal(t, "Slack", sectionAt(next, x.From))
		}
	}
}

func sectionAt(p *Project, tick int64) (name string) {
	for _, s := range p.Sections {
		if s.Tick <= tick {
			name = s.Name
		}
	}
	return name
}

func TestSectionsAreBegunNamedAndRefused(t *testing.T) {
	p := voyage(t, rand.New(rand.NewPCG(1, 1)))
	clock := p.Clock()
	next := one(t, p, &BeginSection{Name: "Flood", At: clock.Frame(2880*2 + 100)})
	assert.Equal(t, "Flood 2", next.Sections[1].Name)
	assert.Equal(t, int64(5760), next.Sections[1].Tick)
	refusedWith(t, p, "Slack begins at this bar already", &BeginSection{Name: "x", At: clock.Frame(4 * 2880)})
	refusedWith(t, p, "no section on that side", &MoveSection{"s0", -1, true})
	refusedWith(t, p, "no longer there", &MoveSection{"gone", 1, true})
	again := one(t, p, &RepeatSection{"s2", false})
	assert.Equal(t, []string{"Ebb", "Slack", "Flood", "Flood 2", "High"}, sectionNames(again))
	assert.Equal(t, p.Lines, again.Lines, "lines stay where they were")
	assert.Equal(t, []string{"Ebb", "Flood", "High"}, sectionNames(one(t, p, &RemoveSection{"s1", false, false})), "only its name goes")
	p.Sections = p.Sections[:1]
	refusedWith(t, p, "it is all there is", &RemoveSection{"s0", true, true})
}

func sectionNames(p *Project) (out []string) {
	for _, s := range p.Sections {
		out = append(out, s.Name)
	}
	return out
}

func TestClipsAreCutWhereSectionsBegin(t *testing.T) {
	p := voyage(t, rand.New(rand.NewPCG(2, 1)))
	a := p.Channels[0]
	next := one(t, p, &CutClips{a.ID})
	clips := next.Channels[0].Clips
	require.Len(t, clips, 6, "one, two in two parts, long in three")
	clock := next.Clock()
	for _, x := range clips {
		f := x.BeginsAt(clock)
		for _, s := range next.Sections {
			edge := clock.Frame(s.Tick)
			assert.False(t, f+1 < edge && edge < f+x.Frames-1, "%s lies across %s", x.Name, s.Name)
		}
	}
	assert.Equal(t, clips[1].Offset+clips[1].Frames, clips[2].Offset)
	refusedWith(t, next, "no clip of A lies across", &CutClips{a.ID})
}
