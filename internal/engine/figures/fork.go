package figures

import (
	"context"
	"math"

	"shoal/internal/dsp"
	"shoal/internal/effect"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/project"
)

// Fork is what a fork does as a whole, found by sending a test signal through a copy of
// it: an impulse into each side where all that stands on its paths is linear, else noise. Sides
// are taken as unrelated, and powers of both are added.
type Fork struct {
	Hz   []float64 `json:"hz" required:"true"`
	Sum  []float64 `json:"sum" required:"true"` // dB at each Hz, from the fork's input to its output
	Each []PathSum `json:"each" required:"true"`
	// Measured says that noise was used, at -18 dBFS, because something on a path is not linear.
	Measured bool `json:"measured" required:"true"`
	// Cancel is where the sum lies furthest below the loudest path: by so many dB, at Hz; 0 dB
	// where no path is louder than the sum by more than 3 dB.
	Cancel float64 `json:"cancel" required:"true"`
	At     float64 `json:"at" required:"true"`
	// Gain is the loudness of the output over that of the input, in dB, for noise like music's.
	Gain    float64 `json:"gain" required:"true"`
	Latency int     `json:"latency" required:"true"` // frames
}

// PathSum is one path's part of it.
type PathSum struct {
	Path  string    `json:"path" required:"true"`
	Level []float64 `json:"level" required:"true"` // dB at each Hz
	// Part is how much of the power of all paths is its, 0 to 1.
	Part float64 `json:"part" required:"true"`
}

const (
	figurePoints = 120
	figureFloor  = -96.0
)

// OfFork sends a test signal through a copy of a fork. It takes as long as a second of the fork's
// sound takes to make, and more.
func OfFork(ctx context.Context, doc *project.Project, lib *pages.Library, fork string, load engine.Loader) (*Fork, error) {
	f, _, ok := doc.ForkByID(fork)
	if !ok {
		return nil, errGone
	}
	t := newAssay(doc, f)
	out := &Fork{Measured: !linear(f)}
	rate := float64(doc.SampleRate)
	hz, edges := figureBands(rate)
	out.Hz = hz
	fft := dsp.NewFFT(assaySize)
	var in, sum []float64
	each := make([][]float64, len(f.Paths))
	signals := []func(side int, i int64) float64{impulse(0), impulse(1)}
	settle := int64(0)
	if out.Measured {
		signals, settle = signals[:0], int64(rate/2)
		signals = append(signals, pink())
	}
	for _, s := range signals {
		tape, err := t.play(ctx, lib, load, s, settle)
		if err != nil {
			return nil, err
		}
		out.Latency = tape.latency
		in = addPower(fft, in, tape.in.sides, edges)
		sum = addPower(fft, sum, tape.out.sides, edges)
		for k := range each {
			each[k] = addPower(fft, each[k], tape.paths[k].sides, edges)
		}
	}
	ratio := func(p []float64) []float64 {
		db := make([]float64, len(p))
		for i, v := range p {
			db[i] = max(figureFloor, 10*math.Log10(v/(in[i]+1e-30)+1e-12))
		}
		return db
	}
	out.Sum = ratio(sum)
	total, power := 0.0, make([]float64, len(each))
	for k, p := range each {
		for i, v := range p { // as music is: as much in each octave
			power[k] += v / (in[i] + 1e-30)
		}
		total += power[k]
		out.Each = append(out.Each, PathSum{f.Paths[k].ID, ratio(p), 0})
	}
	all := 0.0
	for i, v := range sum {
		all += v / (in[i] + 1e-30)
	}
	out.Gain = 10 * math.Log10(all/float64(len(sum))+1e-12)
	for k := range each {
		if total > 0 {
			out.Each[k].Part = power[k] / total
		}
	}
	out.cancelling(f)
	return out, nil
}

// cancelling looks for where paths take each other away.
func (o *Fork) cancelling(f *project.Fork) {
	wet := f.Mix / 100
	if f.Bypass || f.MixLaw != "blend" || wet < 1 { // the dry signal fills what is missing
		return
	}
	for i, s := range o.Sum {
		loudest := figureFloor
		for _, e := range o.Each {
			loudest = max(loudest, e.Level[i])
		}
		if gap := loudest + f.Trim - s; loudest > -30 && gap > 3 && gap > o.Cancel {
			o.Cancel, o.At = gap, o.Hz[i]
		}
	}
}

// linear reports whether all that works on a fork's paths is linear and does not move by itself.
func linear(f *project.Fork) bool {
	for _, p := range f.Paths {
		ok := p.Chain.Walk(func(_ *project.Chain, _ int, n *project.Node) bool {
			if n.Stage == nil || n.Stage.Bypass {
				return true
			}
			k, found := effect.Of(n.Stage.Effect, n.Stage.Version)
			return found && k.Linear
		})
		if !ok {
			return false
		}
	}
	return true
}

// impulse stands far enough from the beginning for what linear phase lets sound before it.
func impulse(side int) func(int, int64) float64 {
	return func(s int, i int64) float64 {
		if s == side && i == assaySize/4 {
			return 1
		}
		return 0
	}
}

// pink is noise with as much power in each octave, -18 dBFS (Kellet's filter).
func pink() func(int, int64) float64 {
	var b [2][7]float64
	return func(s int, i int64) float64 {
		w := dsp.White(uint64(71+s), i)
		p := &b[s]
		p[0] = 0.99886*p[0] + w*0.0555179
		p[1] = 0.99332*p[1] + w*0.0750759
		p[2] = 0.96900*p[2] + w*0.1538520
		p[3] = 0.86650*p[3] + w*0.3104856
		p[4] = 0.55000*p[4] + w*0.5329522
		p[5] = -0.7616*p[5] - w*0.0168980
		v := p[0] + p[1] + p[2] + p[3] + p[4] + p[5] + p[6] + w*0.5362
		p[6] = w * 0.115926
		return v * 0.126 / 1.75
	}
}

// figureBands are the middles of the bands in Hz, and their edges in bins.
func figureBands(rate float64) (hz, edges []float64) {
	for i := range figurePoints {
		hz = append(hz, 20*math.Pow(1000, float64(i)/(figurePoints-1)))
	}
	for i := range figurePoints + 1 {
		edges = append(edges, 20*math.Pow(1000, (float64(i)-0.5)/(figurePoints-1))/rate*assaySize)
	}
	return hz, edges
}

// addPower adds the power of both sides in each band to what is there.
func addPower(fft *dsp.FFT, to []float64, sides [2][]float64, edges []float64) []float64 {
	if to == nil {
		to = make([]float64, len(edges)-1)
	}
	bins := make([]complex128, assaySize/2+1)
	for _, x := range sides {
		fft.Coefficients(bins, x)
		for k := range to {
			a, b := int(edges[k]), int(math.Ceil(edges[k+1]))
			p := 0.0
			for i := a; i < max(a+1, b); i++ {
				p += real(bins[i])*real(bins[i]) + imag(bins[i])*imag(bins[i])
			}
			to[k] += p / float64(max(1, b-a))
		}
	}
	return to
}
