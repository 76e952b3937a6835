package effect

import (
	"math"
	"slices"

	"shoal/internal/dsp"
)

const (
	reverbMost      = 32 // lines
	reverbPairs     = reverbMost / 2
	reverbDiffusers = 4
	reverbEarly     = 8
)

const (
	// reverbScale makes the matrix of 32 lines orthogonal, and reverbOut is what of each line is heard.
	reverbScale = 1 / (4 * math.Sqrt2)
	reverbOut   = 0.46
	// reverbInside is the gain of the all-passes in the lines, where there are any.
	reverbInside = 0.6
	// The energy of a tail grows with its decay: so much of that is taken back, in the exponent, around a decay in seconds.
	reverbLevelling = 0.45
	reverbLevelAt   = 1.8
)

// reverbPlan is what one version of the reverb is made with.
type reverbPlan struct {
	lines int
	// length is that of a line of a character in ms at size 100 %.
	length func(kind, line, lines int) float64
	// prime lengths share no factor at all; without it they only share no factor of two.
	prime bool
	// inner is the length of the all-pass in the shortest and the longest line in ms, nil: there are none.
	inner []float64
	// scattered is how long the longest of the short delays within the mixing is in each character in ms, nil: there are none.
	scattered []float64
	// seeds are of the chance that draws lines and short delays of each character.
	seeds [4]uint64
	// places are of the chance by which the ways between both steps of mixing change places; nil: they keep theirs.
	places *[4]uint64
	// diffusers is how long they are, times what the character says.
	diffusers float64
	// diffuse is the gain of the diffusers at 0 %: at 100 % it is 0.7.
	diffuse float64
	// ring is how long the diffusers ring at most, in seconds, for the shortest decay.
	ring func(shortest float64) float64
	// turns is how many pairs of lines drift, turnGrid after how many frames their angles are asked for anew, and depth how far
	// they turn in radians at a movement from 0 to 1 and a decay in seconds.
	turns, turnGrid int
	depth           func(movement, decay float64) float64
	// glides lets angles reach another depth within a step of their grid; without it they jump to it.
	glides bool
	// levelled lets the level of the tail hardly depend on the decay, and cuts at their ends be out.
	levelled bool
	// steepest is by how much the shelves of a line lose at most beyond its middle, in dB: a shelf of the first order that
	// shall lose much more falls too early, and takes from the middle.
	steepest float64
	// settles is by how much a tail would be too short, in seconds, until it has spread over all lines.
	settles float64
	// out is the level of the tail of each character.
	out []float64
}

// crossedLines is the reverb as it is made now. Mixing in two steps with a short delay on each way between them lets one echo
// become a thousand in one turn instead of 32 (Schlecht and Habets, Scattering in Feedback Delay Networks, IEEE/ACM TASLP 2020),
// so that the lines can be long enough for the density of modes that decays of some seconds need without a grain at the
// beginning. Two Hadamard matrices with delays between them are one matrix in which a line goes on into every other one as its
// neighbour goes on into that one's neighbour: at some frequencies all lines feed mostly themselves at once, and single modes
// stand out. Ways that change places in between make each its own. The diffusers are short and ring shortly: how long they do
// depends on the frequency, and is heard as colour where the decay is not much longer. With so many modes little movement is
// enough: held notes stand still at short decays, and long ones are moved more.
var crossedLines = &reverbPlan{
	lines: reverbMost, prime: true, scattered: []float64{24, 20, 20, 22}, seeds: crossedSeeds, places: &[4]uint64{8, 3, 15, 8},
	length:    waiting([4][3]float64{{14, 200, 720}, {5, 200, 720}, {4, 200, 720}, {9, 200, 720}}, crossedSeeds),
	diffusers: 0.6, diffuse: 0.45, ring: func(shortest float64) float64 { return max(min(0.035, shortest/4), shortest/12) },
	turns: reverbPairs, turnGrid: MaxFrames, glides: true, levelled: true, settles: 0.018, steepest: 36,
	depth: func(movement, decay float64) float64 { return min(math.Pi, movement*(0.1+5*max(0, decay-1.8))) },
	out:   []float64{2.04, 2.55, 3.69, 2.4},
}

// crossedSeeds are, with the places that belong to them, those of some two hundred that were tried of which no mode stands out
// and whose octaves die away as asked.
var crossedSeeds = [4]uint64{37, 3, 15, 8}

// scatteredLines were the same with ways that kept their places and longer diffusers: some modes stood out of their tails.
var scatteredLines = &reverbPlan{
	lines: reverbMost, prime: true, scattered: []float64{24, 20, 20, 22}, seeds: scatterSeeds,
	length:    waiting([4][3]float64{{14, 130, 450}, {5, 120, 400}, {4, 120, 400}, {9, 125, 420}}, scatterSeeds),
	diffusers: 1, diffuse: 0.45, ring: aThird,
	turns: reverbPairs, turnGrid: MaxFrames, glides: true, levelled: true, settles: 0.018, steepest: 36,
	depth: func(movement, decay float64) float64 { return min(math.Pi, movement*(0.1+max(0, decay-1.8))) },
	out:   []float64{1.7, 1.96, 2.82, 1.88},
}

// scatterSeeds are of the chance that draws lines and delays of each character apart: of some hundred that were tried, those whose octaves
// die away nearest to what is asked.
var scatterSeeds = [4]uint64{215, 6, 45, 8}

// allpassedLines had an all-pass in each of 32 shorter lines: half of them drifted, far enough that held notes wandered.
var allpassedLines = &reverbPlan{
	lines: reverbMost, prime: true, inner: []float64{4, 22}, turns: 8, turnGrid: Grid, levelled: true, settles: 0.015,
	steepest: 110, diffusers: 1, ring: aThird,
	length: func(kind, line, lines int) float64 {
		span := [][2]float64{{16, 90}, {8, 90}, {6, 92}, {11, 90}}[kind]
		at := (float64(line) + 0.5*dsp.White(91, int64(line))) / float64(lines-1)
		return span[0] * dsp.Exp(max(0, min(1, at))*dsp.QuickLog(span[1]/span[0]))
	},
	depth: func(movement, decay float64) float64 { return min(math.Pi, movement*0.9*max(1, 1.6*decay-2)) },
	out:   []float64{1.08, 1.19, 1.63, 1.15},
}

// sixteenLines were too short in plate and room for a long decay: single modes stood out of their tails.
var sixteenLines = &reverbPlan{
	lines: 16, turns: 8, turnGrid: Grid, steepest: 110, diffusers: 1, ring: aThird,
	length: func(kind, line, _ int) float64 {
		// spread evenly in the logarithm, then nudged apart so that no two stand in a simple ratio
		hall := [16]float64{
			21.13, 22.91, 25.37, 27.83, 29.71, 32.57, 35.09, 37.73, 40.51, 43.31, 46.99, 50.33, 54.41, 58.57, 63.29, 68.11,
		}
		return hall[line] * []float64{1, 0.52, 0.38, 0.74}[kind]
	},
	depth: func(movement, _ float64) float64 { return movement * 0.9 },
}

// aThird of the shortest decay was how long diffusers rang.
func aThird(shortest float64) float64 { return shortest / 3 }

// waiting spreads lines as waiting times without memory are spread (quantiles of the exponential distribution): then as many
// echoes come in any stretch from the first on, so that the tail neither swells nor sags before it has settled. Each character
// has a shortest, a mean beyond it and a longest in ms.
func waiting(spans [4][3]float64, seeds [4]uint64) func(kind, line, lines int) float64 {
	return func(kind, line, lines int) float64 {
		c := spans[kind]
		all := 1 - dsp.Exp(-(c[2]-c[0])/c[1])
		line ^= line >> 1 & 1 // the shorter of two is by turns one that the left hears and one that the right hears
		at := (float64(line) + 0.5 + 0.45*dsp.White(seeds[kind], int64(line))) / float64(lines)
		return c[0] - c[1]*dsp.QuickLog(1-at*all)
	}
}

// aRound is a way through all lines in an order by chance.
func aRound(seed uint64) (round [reverbMost]int) {
	for i := range round {
		j := int(dsp.Hash(seed^dsp.Hash(uint64(i))) % uint64(i+1))
		round[i], round[j] = round[j], i
	}
	return round
}

// frames are the lengths of all lines; unit is a millisecond at this size.
func (p *reverbPlan) frames(unit float64, kind int) []int {
	list := make([]int, p.lines)
	for i := range list {
		n := max(MaxFrames+1, int(math.Round(p.length(kind, i, p.lines)*unit)))
		if !p.prime {
			list[i] = n + 1 - n%2
			continue
		}
		for n = prime(n); slices.Contains(list[:i], n); n = prime(n + 1) {
		}
		list[i] = n
	}
	return list
}

// within is the length of what is in the way of a line besides it in frames: its all-pass or its short delay.
func (p *reverbPlan) within(unit float64, kind, line int) int {
	u := float64((line*7)%p.lines) / float64(p.lines-1) // in another order than the lines
	if p.inner != nil {
		return prime(int(p.inner[0] * dsp.Exp(u*dsp.QuickLog(p.inner[1]/p.inner[0])) * unit))
	}
	at := (u*float64(p.lines-1) + 0.5 + 0.45*dsp.White(p.seeds[kind]+1000, int64(line))) / float64(p.lines)
	return max(16, int(p.scattered[kind]*at*unit))
}

// prime is the least prime number that is no less: such lengths share no factor.
func prime(n int) int {
	for ; ; n++ {
		if isPrime(n) {
			return n
		}
	}
}

// isPrime is by trial: what is asked is small, and a library for large numbers seeds a generator each time, which a browser
// needs 60 ms for while a project opens.
func isPrime(n int) bool {
	for d := 2; d*d <= n; d++ {
		if n%d == 0 {
			return false
		}
	}
	return n > 1
}

// character is what makes one kind of space unlike another, beside its lines: how long its diffusers and its first reflections
// come are against those of the hall.
type character struct {
	name           string
	diffuse, early float64    // times the hall's lengths
	reflect        [2]float64 // level of the first reflections, and how much each is of the one before
	low, high      float64    // gains in dB of what goes in, for lows and highs
}

var characters = []character{
	{"hall", 1, 1, [2]float64{0.5, -0.87}, 0, 0},
	{"room", 0.7, 0.42, [2]float64{0.72, -0.78}, 0, -1.5},
	{"plate", 0.62, 0.12, [2]float64{0.1, -0.5}, -4, 2.5},
	{"chamber", 1.15, 0.66, [2]float64{0.42, 0.8}, 1.5, -3},
}

func characterNames() []string {
	var n []string
	for _, c := range characters {
		n = append(n, c.name)
	}
	return n
}

var diffuserMs = [2][reverbDiffusers]float64{{3.17, 5.09, 7.43, 10.67}, {3.41, 4.79, 7.91, 10.13}}

var earlyMs = [2][reverbEarly]float64{{6.1, 11.9, 17.3, 23.9, 31.1, 39.7, 47.3, 58.1}, {7.9, 10.3, 19.1, 25.7, 29.3, 41.9, 50.9, 55.3}}
