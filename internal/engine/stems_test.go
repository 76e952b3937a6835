package engine

import (
	"context"
	"testing"

	"github.com/stretchr/testify/require"

	"shoal/internal/project"
)

// band is a song with a group, a return, a row that takes from another, and stages that are late.
func band(t *testing.T) (s *song, rows []*project.Channel) {
	t.Helper()
	s = newSong(t)
	a, b, c := s.track("a", noise(rate/2, 1)), s.track("b", noise(rate/2, 2)), s.track("c", noise(rate/2, 3))
	hall, shore := s.ret("Hall"), project.NewChannel(project.Group, "Shore", s.main().ID)
	s.doc.Channels = append(s.doc.Channels, shore)
	a.Chain.Nodes = []*project.Node{stage("limiter", map[string]float64{"ahead": 3})}
	shore.Chain.Nodes = []*project.Node{stage("compressor", nil), stage("saturation", nil)}
	hall.Chain.Nodes = []*project.Node{stage("reverb", nil)}
	b.Output, c.Output = shore.ID, shore.ID
	a.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -6}}
	b.Sends = []*project.Send{{ID: project.NewID(), To: hall.ID, Level: -9}}
	a.Fader, b.Fader, c.Pan = -3, -7, 0.4
	s.main().Chain.Nodes = []*project.Node{stage("limiter", nil)}
	s.main().Fader = -2
	return s, s.doc.Channels
}

func (s *song) stems(from, to int64, tail bool, points ...project.Tap) (l, r [][]float64) {
	s.t.Helper()
	l, r = make([][]float64, len(points)), make([][]float64, len(points))
	pass := Pass{Points: points, From: from, To: to, Tail: tail}
	require.NoError(s.t, Stems(context.Background(), s.doc, s.lib, pass, nil, func(i int, x, y []float64) error {
		l[i], r[i] = append(l[i], x...), append(r[i], y...)
		return nil
	}, nil))
	return l, r
}

// One pass gives of every row what a print of that row alone gives, and of main what its export gives, sample for sample.
func TestOnePassGivesWhatEachPrintGives(t *testing.T) {
	for _, tail := range []bool{false, true} {
		s, rows := band(t)
		points := []project.Tap{{Channel: s.main().ID, Point: "post"}}
		for _, ch := range rows {
			if ch.Kind != project.Main {
				points = append(points, project.Tap{Channel: ch.ID, Point: "pre"})
			}
		}
		l, r := s.stems(1000, 20000, tail, points...)
		for i, at := range points {
			job := Job{Channel: at.Channel, From: 1000, To: 20000, Tail: tail}
			wantL, wantR := s.print(job)
			n := min(len(wantL), len(l[i])) // their tails end where each has died away, as late as the whole plan says
			require.GreaterOrEqual(t, n, 19000)
			same(t, wantL[:n], l[i][:n], "left")
			same(t, wantR[:n], r[i][:n], "right")
		}
	}
}

// A print without its tail ends in the middle of the song: what looks ahead sees there what comes, as it does when it is heard.
func TestTheLastFramesOfAPrintKnowWhatComes(t *testing.T) {
	for _, cores := range []int{1, 2} {
		with(t, cores, func() {
			s, _ := band(t)
			job := Job{From: 1000, To: 20000}
			l, r := s.print(job)
			job.To = 22000
			wantL, wantR := s.print(job)
			same(t, wantL[:19000], l, "left")
			same(t, wantR[:19000], r, "right")
		})
	}
}

// What all rows give that feed main is what comes into main, below -120 dBFS, however late each of them is.
func TestStemsSumToWhatComesIntoMain(t *testing.T) {
	s, rows := band(t)
	main := s.main()
	points := []project.Tap{{Channel: main.ID, Point: "input"}}
	for _, ch := range rows {
		if ch.Output == main.ID {
			points = append(points, project.Tap{Channel: ch.ID, Point: "post"})
		}
	}
	require.Len(t, points, 4)
	l, r := s.stems(0, rate/2, false, points...)
	require.Greater(t, peakOf(l[0]), 0.1)
	for k := range l[0] {
		for i := 1; i < len(points); i++ {
			l[0][k] -= l[i][k]
			r[0][k] -= r[i][k]
		}
	}
	require.Less(t, max(peakOf(l[0]), peakOf(r[0])), 1e-6)
}

func TestAPassWithoutPointsIsRefused(t *testing.T) {
	s, _ := band(t)
	err := Stems(context.Background(), s.doc, s.lib, Pass{To: 100}, nil, nil, nil)
	require.ErrorContains(t, err, "choose a row")
	err = Stems(context.Background(), s.doc, s.lib, Pass{Points: []project.Tap{{Channel: s.main().ID, Point: "post"}}}, nil, nil, nil)
	require.ErrorContains(t, err, "range to render is empty")
}
