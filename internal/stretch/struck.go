package stretch

import (
	"context"
	"math"
)

const (
	grainSeconds  = 0.030 // half of what is laid at once
	searchSeconds = 0.010 // how far it is looked for what matches
	attackSeconds = 0.025 // of a stroke that stays as it is
	seamSeconds   = 0.002 // before an onset in which one stroke gives way to the next
)

// struck lays a sound together from each onset anew.
func struck(
	ctx context.Context, sides [][]float64, rate float64, m Map, onsets []int64, progress func(float64),
) ([][]float64, error) {
	frames := int(math.Round(m.Out()))
	out := make([][]float64, len(sides))
	for c := range out {
		out[c] = make([]float64, frames)
	}
	s := &strokes{sides: sides, mid: middle(sides), out: out, m: m, grain: int(grainSeconds * rate),
		search: int(searchSeconds * rate), attack: int(attackSeconds * rate), seam: int(seamSeconds * rate)}
	begin, place := 0, 0
	for i := 0; i <= len(onsets); i++ {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		if progress != nil {
			progress(float64(place) / float64(max(1, frames)))
		}
		end, to := len(sides[0]), frames
		if i < len(onsets) {
			end = int(onsets[i])
			to = int(math.Round(m.at(float64(end))))
		}
		if end <= begin || to <= place {
			continue
		}
		s.stroke(begin, end, place, to)
		begin, place = end, to
	}
	return out, nil
}

type strokes struct {
	sides, out            [][]float64
	mid                   []float64
	m                     Map
	grain, search, attack int
	seam                  int
}

// put lays frames of the source from one on at a place, up to an end, over what is there; for so many frames it fades in.
func (s *strokes) put(from, place, end, fade int) {
	for c, x := range s.sides {
		y := s.out[c]
		for i := max(place, 0); i < min(end, len(y)); i++ {
			v, k := 0.0, from+i-place
			if k >= 0 && k < len(x) {
				v = x[k]
			}
			if n := i - place; n < fade {
				g := 0.5 - 0.5*math.Cos(math.Pi*(float64(n)+0.5)/float64(fade))
				v = y[i] + g*(v-y[i])
			}
			y[i] = v
		}
	}
}

// stroke fills a stretch of the result with the stroke that begins at a frame of the source.
func (s *strokes) stroke(begin, end, place, to int) {
	seam := min(s.seam, begin, place)
	first := min(to, place+s.attack)
	s.put(begin-seam, place-seam, first+s.grain, seam) // its attack, and what naturally follows: the next fades in over that
	from, at := begin+first-place, first               // which frame of the source stands where
	for at < to {
		want := int(math.Round(s.m.back(float64(at + s.grain/2))))
		next := s.match(want-s.grain/2, from, begin, end)
		s.put(next, at, min(at+2*s.grain, to+s.grain), s.grain)
		from, at = next+s.grain, at+s.grain
	}
}

// match is the frame near a wanted one from which on the sound is most like what would follow by itself.
func (s *strokes) match(want, from, begin, end int) int {
	low := begin + s.attack/2       // its attack sounds once
	high := max(low, end-2*s.grain) // and that of the next not yet
	want = min(max(want, low), high)
	best, most := want, math.Inf(-1)
	for d := -s.search; d <= s.search; d += 2 {
		k := want + d
		if k < low || k > high {
			continue
		}
		if r := s.like(k, from); r > most {
			best, most = k, r
		}
	}
	return best
}

// like is how much two stretches of the source are like each other.
func (s *strokes) like(a, b int) float64 {
	ab, aa, bb := 0.0, 1e-12, 1e-12
	for i := 0; i < s.grain; i += 3 {
		if a+i >= len(s.mid) || b+i >= len(s.mid) || a+i < 0 || b+i < 0 {
			break
		}
		x, y := s.mid[a+i], s.mid[b+i]
		ab, aa, bb = ab+x*y, aa+x*x, bb+y*y
	}
	return ab / math.Sqrt(aa*bb)
}
