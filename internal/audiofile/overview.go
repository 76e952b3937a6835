package audiofile

import (
	"errors"
	"fmt"
	"io"
	"math"
	"os"
	"path/filepath"
)

// OverviewFrames is how many frames one value pair of an overview stands for.
const OverviewFrames = 512

// Overview is what is needed to draw a sound that is written to it: for every 512 frames the peak and the RMS of the
// louder channel, each as 255·√value.
type Overview struct {
	out  []byte
	peak float64
	sums []float64 // of squares, one a channel
	n    int       // frames since the last pair
}

// Write adds frames, one slice a channel.
func (o *Overview) Write(src [][]float64) error {
	if o.sums == nil {
		o.sums = make([]float64, len(src))
	}
	for at := 0; at < len(src[0]); {
		k := min(OverviewFrames-o.n, len(src[0])-at)
		for c := range src {
			for _, v := range src[c][at : at+k] {
				o.peak = max(o.peak, math.Abs(v))
				o.sums[c] += v * v
			}
		}
		at, o.n = at+k, o.n+k
		if o.n == OverviewFrames {
			o.pair()
		}
	}
	return nil
}

func (o *Overview) pair() {
	rms := 0.0
	for c, sum := range o.sums {
		rms = max(rms, math.Sqrt(sum/float64(o.n)))
		o.sums[c] = 0
	}
	shade := func(v float64) byte { return byte(math.Round(255 * math.Sqrt(min(v, 1)))) }
	o.out = append(o.out, shade(o.peak), shade(rms))
	o.peak, o.n = 0, 0
}

// Bytes are the pairs of what has been written; the last may stand for fewer frames.
func (o *Overview) Bytes() []byte {
	if o.n > 0 {
		o.pair()
	}
	return o.out
}

// Overview gives what is needed to draw a sound of the folder.
func (f *Folder) Overview(hash string) ([]byte, error) {
	file, w, err := f.open(hash)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	block := make([][]float64, w.f.Channels)
	room := make([][]float64, w.f.Channels)
	for c := range block {
		block[c] = make([]float64, OverviewFrames)
	}
	o := &Overview{out: make([]byte, 0, 2*(w.f.Frames/OverviewFrames+1))}
	for {
		n, err := w.Read(block)
		if errors.Is(err, io.EOF) {
			return o.Bytes(), nil
		}
		if err != nil {
			return nil, fmt.Errorf("audio %.12s: %w", hash, err)
		}
		for c := range block {
			room[c] = block[c][:n]
		}
		if err := o.Write(room); err != nil {
			return nil, err
		}
	}
}

func (f *Folder) keptOverview(key string) string {
	return filepath.Join(f.dir, workedDir, filepath.Base(key)+".overview")
}

// WorkedOverview is the overview that was kept under a key, if it is there still.
func (f *Folder) WorkedOverview(key string) ([]byte, bool) {
	b, err := os.ReadFile(f.keptOverview(key))
	return b, err == nil
}

// KeepOverview keeps an overview under a key, among what was worked out.
func (f *Folder) KeepOverview(key string, b []byte) error {
	if err := f.replace(f.keptOverview(key), b); err != nil {
		return fmt.Errorf("keep an overview: %w", err)
	}
	return nil
}
