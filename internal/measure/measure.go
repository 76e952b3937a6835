// Package measure reads a sound once and says what an engineer wants to know of it.
package measure

import (
	"errors"
	"io"
	"math"

	"shoal/internal/audiofile"
	"shoal/internal/dsp"
)

// Report holds levels in dBFS, dBTP, LUFS and LU. What cannot be measured (a
// sound too short for a loudness) is at or below -120.
type Report struct {
	Format     audiofile.Format `json:"format"`
	Seconds    float64          `json:"seconds"`
	Peak       float64          `json:"peak"`
	TruePeak   float64          `json:"truePeak"`
	Momentary  float64          `json:"momentaryMax"`
	Short      float64          `json:"shortMax"`
	Integrated float64          `json:"integrated"`
	Range      float64          `json:"range"`
	RMS        float64          `json:"rms"`
	Crest      float64          `json:"crest"`
	DC         float64          `json:"dc"` // the larger offset, as a part of full scale
}

// Meter gathers a Report.
type Meter struct {
	loud   *dsp.Loudness
	tp     []*dsp.TruePeak
	peak   float64
	sum    []float64
	power  float64
	frames int64
	rate   int
}

// NewMeter measures sound of a rate and of one or two channels.
func NewMeter(rate, channels int) *Meter {
	m := &Meter{loud: dsp.NewLoudness(float64(rate), true), sum: make([]float64, channels), rate: rate}
	for range channels {
		m.tp = append(m.tp, dsp.NewTruePeak(4, 24))
	}
	return m
}

// Write takes a block in: one slice a channel.
func (m *Meter) Write(src [][]float64) error {
	right := src[0]
	if len(m.tp) > 1 {
		right = src[1]
	}
	if len(m.tp) == 1 { // one channel counts once
		right = make([]float64, len(src[0]))
	}
	m.loud.Feed(src[0], right)
	for c := range m.tp {
		m.tp[c].Feed(src[c])
		sum, power, peak := 0.0, 0.0, m.peak
		for _, v := range src[c] {
			if a := math.Abs(v); a > peak {
				peak = a
			}
			sum += v
			power += v * v
		}
		m.sum[c], m.power, m.peak = m.sum[c]+sum, m.power+power, peak
	}
	m.frames += int64(len(src[0]))
	return nil
}

// Report says what was measured.
func (m *Meter) Report() Report {
	n := float64(max(m.frames, 1))
	bound := func(v float64) float64 { return max(v, dsp.Off) }
	r := Report{
		Seconds:    n / float64(m.rate),
		Peak:       dsp.Decibels(m.peak),
		Momentary:  bound(m.loud.MaxMomentary()),
		Short:      bound(m.loud.MaxShort()),
		Integrated: bound(m.loud.Integrated()),
		Range:      m.loud.Range(),
	}
	tp := m.peak
	for c := range m.tp {
		tp = max(tp, m.tp[c].Take())
		r.DC = max(r.DC, math.Abs(m.sum[c]/n))
	}
	r.TruePeak = dsp.Decibels(tp)
	r.RMS = dsp.Decibels(math.Sqrt(m.power / n / float64(len(m.tp))))
	r.Crest = r.Peak - r.RMS
	return r
}

// File measures a whole file.
func File(src audiofile.Source) (Report, error) {
	f := src.Format()
	m := NewMeter(f.Rate, f.Channels)
	block := make([][]float64, f.Channels)
	for c := range block {
		block[c] = make([]float64, 4096)
	}
	part := make([][]float64, f.Channels)
	for {
		n, err := src.Read(block)
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return Report{}, err
		}
		for c := range block {
			part[c] = block[c][:n]
		}
		if err := m.Write(part); err != nil {
			return Report{}, err
		}
	}
	r := m.Report()
	f.Frames = m.frames
	r.Format = f
	return r, nil
}
