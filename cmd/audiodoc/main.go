// Command audiodoc writes docs/audio.md from the effects themselves: what each is,
// from the comment above its description, and its parameters.
package main

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"shoal/internal/effect"
	"shoal/internal/param"
)

const head = `# The sound

Made from the code by ` + "`make docs`" + `: each effect with its source, units and limits, and its parameters. Every
figure is held by a test in internal/effect/hold_*_test.go, internal/dsp or internal/engine. 48 kHz is the reference rate; 44.1, 88.2 and
96 kHz work too.

## What holds for every effect

- It works fully wet; mix (blend: a linear cross-fade; add: the dry signal stays), bypass, what it acts on and latency belong to the engine.
- Its output does not depend on the block size; a bypassed stage keeps its latency; a stage that makes something that is no number is silenced.
- Oscillations and chance are functions of song time, so that a print equals what was heard.
- A parameter marked *structural* changes latency or memory: it is heard through a cross-fade of 10 ms and cannot be automated.
- Frequencies are in hertz, levels in decibels, times as written. At the ends of their travel cuts at 20 Hz and 20 kHz are out.
- A sound that is mended gets a new version; a stage keeps the one that it was made with until somebody asks for the new one.
- A chain is written as in a project (docs/project.schema.json) and can be run over a file: ` + "`shoal process --chain chain.json in.wav out.wav`" + `.

## Trials, listening, tails

- Trials run beside the chain from the same input and are padded to the longest latency; a change from one to another is a cross-fade of 10 ms.
  The match brings each to the chain's integrated loudness (ITU-R BS.1770-5) over the loop or section, at most ±24 dB, and is never printed.
  A trial begins as a copy that moves as its chain does, by lines of its own and by the same movers, handles and passages; a new passage places what it needs on every trial of a row.
- *Only what it changes* is a stage's output less its input at the same time; it and *up to here* are heard at the level of the row's and the main fader.
- A bypassed stage that rings out gets no more input, and what it holds dies away; after its declared tail it rests.
- A stage costs nothing while there is nothing to hear of it: it rests when nothing at all has come in, at its input and its key, and less than -180 dBFS has gone out, for as long as its effect needs to be
  as good as new (an echo to come back, a level to be forgotten: sixteen times the release). The first sample that is not zero wakes it. Spin-down, repeat, reverse, detune, doubler, noise reducer
  and rate reduction never rest. A stage that rested sounds as one that did not, within -120 dB; the examination that every effect passes holds it to that.

## What moves a parameter

- One rule: its hand, its line, or the one handle that it hangs on gives the base (a handle suspends the line); movers add around it in parts of its travel, along its taper; then
  the range clamps. While a passage lasts it gives the base in their place, the later one where two meet. A hand moves in a raised cosine of 20 ms.
- Lines are exact to the sample: a step lands on its frame at any block size, and is heard where it is drawn whatever is late before the parameter. Between points the value goes straight
  along the taper (ramp), by 3t²-2t³ (smooth), by (e^(kt)-1)/(e^k-1) with k six times the bend (curve), or stays (step).
- Mutes and bypasses begin to fade at the frame of their line's step, over 240 frames.
- Taking down keeps the fewest points from which ramps stay within 0.1 dB, or 0.2 % of the travel, of all that the hand did.
- A mover is a pure function of the song's position, by frames or by ticks; it is worked out every 16 frames and goes straight between. A drawn one goes straight from each of its places to the next. Jumps in it take 1 % of its cycle. Chance falls by its throw.
- A mover that follows a level takes the higher of both sides' magnitudes, an attack and a release (63 % of the way in their time), in dB over its range, frame by frame, and hears it at its
  own time: where the parameter is later than the signal, exactly; where it is earlier, as late as the signal is.
- Points that are changed while they play are heard in the running plan: a parameter that they move at that moment gets there in 240 frames.

## Time

- Musical time counts 960 ticks a quarter note; a tick falls on the nearest frame, and that is the only rounding. While a tempo b goes up or down by s in each tick, n ticks last
  k ln(1 + s n / b) / s frames, with k = 60 rate / 960 (the integral of k/b); a standard MIDI file knows no ramps and gets steps of a sixteenth that last as long, to the frame.
- Everything in note lengths follows the tempo at its block. Clips that follow the bars begin where their bar is and are not stretched.

## Pieces

- Order of what a clip does: its source, its treatment, fades, swell and gain, then the top of its row's chain. Where a piece
  rings on its fades stand before the treatment, and what the treatment still holds at its end is heard, for 30 s at most.
- Fades last from 2 ms, as a raised cosine, unless a print is exact. Shapes: S (raised cosine) and even gain, whose gains sum
  to 1, and even power, whose squares do. Bent by b, x becomes x / (x + (1 - x) k) with k = (1 - 0.9 b) / (1 + 0.9 b): a fade
  and one bent the other way are still even.
- Where clips overlap both sound, the later one (by start, then by order) covers, or they cross-fade at even power over the
  overlap; where one lies within the other, over 10 ms at its ends.
- An edge where the same source goes on at the same gain, swell and treatment has no fade: a cut alone changes no sample.
- A swell goes straight in dB between its points, or steps on its frame; -60 dB and below is silence. Its points belong to
  frames of the source, so that it goes wherever the sound goes.
- A treatment runs in the time of the piece: frame 0 is its first, its tempo that of the song where the piece begins. It reads
  ahead by as much as it is late, so that a treated piece comes no later. Pieces in which one sound goes on share its state.
  After a seek into a piece it begins there, with nothing left of before. Movers, handles, passages and keys from
  elsewhere do not reach it.
- Lines of what runs live in a treatment are counted in the time of the piece: their tick 0 lies at a frame of its sound (the
  clip's origin: where it began when the first of them came), and from there they run with the tempo of the song. So cutting, trimming,
  sliding and moving a clip leave them where they are in the sound, within half a tick. A step lands on its frame.
- Onsets are peaks of the rise of the logarithmic spectrum in 48 bands against the neighbouring bands 15 ms before (Böck and
  Widmer, DAFx 2013), 30 ms apart at least, looked up in the energy to a millisecond. Against the strokes that the demo's drum
  and marimba were played with: precision and recall 0.98 and 0.95, within 10 ms.

- Whole-sound steps (backwards, pitch, length) need all of a piece before they answer: everything of a treatment up to the
  last of them that acts is *worked out* as audio, what stands behind runs live. A treatment works on an *extent* of the source, and a
  clip is a window into what comes of it: its frame offset - extent.from is the first that is heard. Parts of a cut piece look into the same;
  an edge that is dragged beyond enlarges the extent. What becomes longer takes its windows, its swell and what lay close behind it along.
- What is worked out is a cache, by a SHA-256 over the source, the extent, the steps with their versions and values, the rate and, where steps have note
  lengths, the tempo; 32 bit float. It begins half a second after the last change, or when asked; until its next two seconds are there what was
  heard before is heard, then there is a cross-fade of 10 ms. Renders wait for it. A piece is worked out up to 10 minutes long.
- Stages that stand before a whole-sound step run for their tail too, 30 s at most. Backwards turns tails to the left of the sound, which keeps its place.
  Tails beyond the extent are heard where the clip rings on.
- What stands before a row's line is printed over the stretches in which the row sounds: each of its clips from 0.1 s before
  (what looks ahead, filters of linear phase) to its tail until -150 dB and 0.5 s more, 60 s at most; a row that something else feeds,
  the whole song. 32 bit float, named by a SHA-256 over what it is made from: nodes before the line, clips, treatments, lines,
  movers, handles, spans of passages, the same of what its keys and taps come from, and the tempo where anything is counted in
  notes or ticks. It is played where it is there, with a cross-fade of 10 ms, and comes as early as the song: at the line below
  -140 dBFS of what runs; behind it that and the gain that follows, but for stages that decide by a threshold or a step. What
  rings when the song is stopped or the loop turns is cut with the print. A hand on what it is made from lets it run at once, from
  up to a second before. Renders never use it.
- What is worked on elsewhere goes out as 32 bit float WAV, as it comes into its row: treatments, fades, gain and swell included, the
  chain not (what enters behind the chain comes back behind it). It lands on the frame of its time reference, rate by rate, and
  covers what lies there, with cross-fades of 10 ms where it begins or ends within a clip.
- Files of whole numbers get triangular dither of a step (two even draws of SplitMix64), the same for the same sound and another on each side; what is nothing but silence
  stays silent. At 16 bit it can be shaped (five taps of Lipshitz, Vanderkooy and Wannamaker, JAES 1991): 10 dB less noise and more
  from 0.7 to 4 kHz, where a soft sound is heard best, for more above 13 kHz; the filter is that of 44.1 kHz at every rate.
- A WAV file says in its broadcast extension (EBU Tech 3285, version 2) when it was made, where in the song it begins, what it was made
  of, and how loud it is: integrated, range, true peak, loudest 400 ms, loudest 3 s.
- A row with its share of the returns is rendered from a document in which every return stands once more for each row, its stages keyed by
  what comes into the original; the shares and the rest sum to what comes into main, below -120 dBFS.
- Stand-ins give what arrives as a function of the song's frame (pages made from their number alone), at the project's rate; the reader's voice is made at 48 kHz. A recording of one
  is its source bit for bit, in 32 bit float, wherever plans turned meanwhile. The treated take is what a print of the row's chain, as far as the way in, makes of the untouched one over
  the same stretch of the song, below -140 dBFS: compressors keyed from other rows, lines, movers and passages included, from silence before the take on.
- A take that enters behind the way in misses what stands before the mark and passes the rest, below -140 dBFS; back on its untouched form with the chain after it, the row sounds the same once the
  edge's fade has left the chain's memory (below -110 dBFS after two seconds with a compressor; a hand that moved meanwhile, and keys from other rows, excepted).
- The browser's own input is placed by what was rendered for the ears when each 128 frames of it came, less a delay: what the browser says of its output and input, typed, or measured
  by a click that goes out and comes in (its first frame above eight times the rest). Where playback waits, the input goes on, and a run begins behind it. Effects hear it late by
  the ring (50, 100 or 200 ms) and the output; directly it goes through the browser's own graph.
- Said while the song rolls that it is recorded, what arrived during the last ten seconds is recorded too, from Play or the last jump on: the edge of the take can be drawn out there.
- The click is mixed into what a listener gets, behind all meters, and falls on the frame of its beat; a count-in lasts whole bars at the tempo where the song stands.
- Clips printed where they stand come in behind the chain; together with what stays on the row they are what was heard, below -140 dBFS, and a tail is kept until it is below -100.
- Backwards twice is the source, bit for bit; so are a pitch of 0 and a length of 100 %. A piece made permanent sounds as it did, below -140 dBFS.
- Held sounds are stretched by a phase vocoder (windows of 43 ms for one voice, 85 ms for several, eight over every frame) with phases locked to the peaks of the
  spectrum (Laroche and Dolson, IEEE TSAP 7/3, 1999), in the form that compares two windows of the source a hop apart (Puckette 1995); all sides are
  turned alike. Around onsets the time map runs at the source's own speed with its own phases (after Röbel, DAFx 2003). Struck sounds are laid
  together from stretches of 30 ms that match (Verhelst and Roelands, ICASSP 1993), from every onset anew, the first 25 ms as they are.
  A sine of 1 kHz moved by -12 to +12 semitones is right within a cent and all else lies 60 dB below; a click keeps 95 % of its energy
  within 5 ms; equal sides stay equal; the length is exact to the frame.
- Pitch is length and then speed: a windowed sinc of 64 crossings (Kaiser, 100 dB), cut where what is faster would fold back. Formants are kept by the true
  envelope (Röbel and Rodet, DAFx 2005) of each window, of an order that follows the pitch found in the piece.
- Which character a sound has is found out: struck where its energy lies behind onsets, one voice where it repeats itself from period to period, else several.
- A length that follows the song brings every beat of the source, at the tempo it was made at, to where the song has it, ramps included.

An example, as it stands in a document:

    "treatments": [{ "id": "t1", "name": "Loudhailer", "chain": { "bypass": false, "nodes": [{ "stage": { ... } }] } }]
    "clips": [{ "id": "c7", "audio": "...", "offset": 139200, "frames": 52841, "treatment": "t1", "rings": true,
                "extent": { "from": 139200, "to": 192041, "frames": 52841 },
                "swell": [{ "at": 139200, "gain": -12 }, { "at": 163200, "gain": 0, "step": true }], ... }]

## Passages

- A course is a curve from 0 to 1 over the length of its passage; each of its parameters goes along its taper from one value to another, or from where it stands. A switch is thrown on the frame at which
  its course has gone half way. Where a passage takes a parameter over, or gives it back, elsewhere than it stands, that takes 240 frames; what jumps inside a course jumps.
- Its tail rule lasts from its end until the next clip begins on the row, or on one that feeds it: *rings on* does nothing; *is cut* brings the rows' faders down in 5 ms, *fades* in its
  time, along the fader's taper; *is held* leaves all parameters where they ended.
- The contour is the mean level behind the faders, from two bars before to two bars after, rendered with the passage and without, from three seconds before it on. What is left is the peak from 5 ms after the
  end to the next sound, over four seconds at most.

## Forks

A fork divides a chain into paths and joins them again; paths hold chains, forks included. What runs beside something late waits for it.

- *Copies*: every path gets the whole signal. n empty paths at 0 dB add up to n times the signal, whatever is late on the others.
- *Left/right*: the sides, alone; they add up to exactly the signal. *Mid/side*: (L+R)/2 on both sides, and (L-R)/2 with its polarity turned on the right;
  they add up to the signal within -200 dBFS.
- *Bands*, two to five: Linkwitz-Riley crossovers (Linkwitz, JAES 1976; the sums after Lipshitz and Vanderkooy, JAES 1986) of 24 or 48 dB an octave, from
  state-variable filters by the trapezoidal rule (Zavalishin 2018, chapter 4). A band is 6 dB down at its crossovers. Every band receives the all-pass of each crossover that it did
  not pass, so that the bands add up to an all-pass: flat within 0.01 dB from 10 Hz to 0.49 of the rate, at every rate, also while a crossover moves.
- The dry and the bypassed signal of a fork of bands is that sum, unprocessed, and never the raw input: the bands are turned in phase as the all-pass is, and would cancel the
  raw input around the crossovers.
- Crossovers reach from 30 Hz to 18 kHz and keep a third of an octave apart; lines that bring them closer are held apart at render, the lower one first. They move smoothly, by
  hand in 20 ms, along a line exactly.
- *Linear phase* has the same magnitudes from kernels of 171 ms (8191 taps up to 48 kHz, 16383 above), the highest band being what the others leave of the delayed signal: the sum is the
  signal itself. It is late by 5119 frames at 44.1 and 48 kHz and 9215 above, which is made up for everywhere. The lowest crossover is 60 Hz; a moved one is another kernel, cross-faded, and
  cannot be automated.
- A path has a width (0 to 200 % of what differs between the sides), a level (-120, which is off, to +12 dB), a pan (a balance), polarity and mute, in that order. A tap, a send or a key from a path is taken behind all of
  them; who listens to it hears it before the mute.
- The paths' sum is turned by the fork's output (-24 to +12 dB), then mixed with the dry signal by the fork's mix and its law.
- *Make the paths equally loud* measures each path that is heard (BS.1770-5, over the loop or section) and gives all the same loudness, at which their powers add up as before. *Keep the
  level* turns the output until the fork is as loud as what goes in, within 0.05 LU.
- The picture sends an impulse into each side of a copy of the fork where all that stands on it is linear (trim, equaliser, width, taps, convolver), else half a second and more of
  pink noise at -18 dBFS. It warns where the sum lies more than 3 dB below the loudest path.

A forked chain, for ` + "`shoal process`" + `: lows as they are, mids driven, highs wider. Ids, versions (the newest), mixes and all that is
as usual may be left out, and values may be written as people do: ` + "`" + `"2k"` + "`" + `, ` + "`" + `"-6 dB"` + "`" + `, ` + "`" + `"1/8d"` + "`" + `, ` + "`" + `"bell"` + "`" + `; ` + "`" + `shoal effects` + "`" + ` lists choices by name.

` + "```json\n" + forkExample + "\n```" + `

`

// forkExample is a chain as shoal process takes it.
const forkExample = `{
  "bypass": false,
  "nodes": [{
    "fork": {
      "id": "hull", "name": "Clean lows", "kind": "bands", "bypass": false, "mix": 100, "mixLaw": "blend", "trim": 0,
      "crossovers": [180, 3500], "slope": 24, "linear": false,
      "paths": [
        {"id": "low", "name": "Lows", "level": 0, "pan": 0, "width": 100, "mute": false, "invert": false, "chain": {"bypass": false, "nodes": []}},
        {"id": "mid", "name": "Mids", "level": -1, "pan": 0, "width": 100, "mute": false, "invert": false, "chain": {"bypass": false, "nodes": [
          {"stage": {"id": "drive", "name": "", "effect": "saturation", "version": 1, "params": {"drive": 12}, "bypass": false, "mix": 70, "mixLaw": "blend", "actsOn": "both", "ringOut": false, "mixLock": false}}
        ]}},
        {"id": "high", "name": "Highs", "level": 0, "pan": 0, "width": 140, "mute": false, "invert": false, "chain": {"bypass": false, "nodes": []}}
      ]
    }
  }]
}`

func main() {
	text, err := document("internal/effect")
	if err == nil {
		err = os.WriteFile("docs/audio.md", []byte(text), 0o644)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "audiodoc:", err)
		os.Exit(1)
	}
}

// document is the whole text; dir holds the sources of package effect.
func document(dir string) (string, error) {
	comments, err := readComments(dir)
	if err != nil {
		return "", err
	}
	var b strings.Builder
	b.WriteString(head)
	family := ""
	for _, k := range slices.Concat(effect.Kinds(), effect.Whole()) {
		if k.Family != family {
			family = k.Family
			fmt.Fprintf(&b, "# %s\n\n", family)
		}
		fmt.Fprintf(&b, "## %s (`%s`)\n\n%s\n\n", k.Name, k.ID, k.Says)
		if c := comments[k.ID]; c != "" {
			fmt.Fprintf(&b, "%s\n\n", c)
		}
		if !k.Whole {
			fmt.Fprintf(&b, "Inserted with a mix of %g %%, %s.", k.Mix, k.MixLaw)
		}
		if k.Latency != nil {
			fmt.Fprintf(&b, " Latency with its defaults at 48 kHz: %d frames.", k.Latency(48000, k.Defaults()))
		}
		if len(k.Params) == 0 {
			b.WriteString("It has no parameters.\n\n")
			continue
		}
		b.WriteString("\n\n| parameter | range | default | |\n|---|---|---|---|\n")
		groups := map[string]bool{}
		first := ""
		for _, p := range k.Params {
			if p.Group != "" {
				groups[p.Group] = true
				if first == "" {
					first = p.Group
				}
				if p.Group != first {
					continue // all groups are alike
				}
			}
			structural := ""
			if p.Structural {
				structural = " *structural*"
			}
			fmt.Fprintf(&b, "| %s `%s` | %s | %s | %s%s |\n", p.Label, p.Name, span(p), value(p, p.Default), p.Says, structural)
		}
		if len(groups) > 1 {
			fmt.Fprintf(&b, "\nThere are %d groups of the parameters that end in a number, of which the first is shown.\n", len(groups))
		}
		for _, old := range effect.Older() {
			if old.ID == k.ID {
				fmt.Fprintf(
					&b,
					"\nThis is version %d; documents that have version %d keep it. %s\n",
					k.Version,
					old.Version,
					comments[fmt.Sprint(k.ID, old.Version)],
				)
			}
		}
		b.WriteString("\n")
	}
	return b.String(), nil
}

func span(p param.Param) string {
	switch p.Taper {
	case param.Choice:
		return strings.Join(p.Choices, ", ")
	case param.Switch:
		return "off, on"
	}
	return strings.TrimSpace(fmt.Sprintf("%s to %s %s", value(p, p.Min), value(p, p.Max), p.Unit))
}

func value(p param.Param, v float64) string {
	switch p.Taper {
	case param.Choice:
		return p.Choices[int(v)]
	case param.Switch:
		return []string{"off", "on"}[int(v)]
	case param.Level:
		if v <= -120 {
			return "off"
		}
	}
	if v >= 1000 {
		return fmt.Sprintf("%.0f", v)
	}
	return fmt.Sprintf("%.4g", v)
}

// readComments finds the comment above each variable of the package, by the variable's name and, where it is
// written out there, by the effect's id.
func readComments(dir string) (map[string]string, error) {
	names, err := filepath.Glob(filepath.Join(dir, "*.go"))
	if err != nil {
		return nil, err
	}
	out := map[string]string{}
	for _, name := range names {
		f, err := parser.ParseFile(token.NewFileSet(), name, nil, parser.ParseComments)
		if err != nil {
			return nil, err
		}
		for _, d := range f.Decls {
			if g, ok := d.(*ast.GenDecl); ok && g.Tok == token.VAR && g.Doc != nil {
				name, text := commentOf(g)
				out[name] = text
				if id := idIn(g); id != "" {
					out[id] = text
				}
			}
		}
	}
	return out, nil
}

// commentOf is the comment above a variable, as a sentence about it.
func commentOf(g *ast.GenDecl) (name, text string) {
	name = g.Specs[0].(*ast.ValueSpec).Names[0].Name
	text = strings.TrimPrefix(strings.Join(strings.Fields(g.Doc.Text()), " "), name)
	if strings.HasPrefix(text, " are") {
		return name, "They" + text
	}
	return name, "It" + text
}

// idIn is the effect's id, where the variable is written out.
func idIn(g *ast.GenDecl) (id string) {
	ast.Inspect(g, func(n ast.Node) bool {
		kv, ok := n.(*ast.KeyValueExpr)
		if !ok {
			return true
		}
		key, ok1 := kv.Key.(*ast.Ident)
		if lit, ok2 := kv.Value.(*ast.BasicLit); ok1 && ok2 && key.Name == "ID" && id == "" {
			id = strings.Trim(lit.Value, `"`)
		}
		return true
	})
	return id
}
