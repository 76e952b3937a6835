// Package recording takes in what windows record, and lands it as takes: nothing that has arrived is lost, whatever ends first.
package recording

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"time"

	"shoal/internal/project"
)

// Plan says what is to be recorded, and what becomes of it.
type Plan struct {
	Rows []Row `json:"rows" required:"true"`
	// Aside keeps what is recorded among the takes of its place, and lets the rows sound as they did.
	Aside bool `json:"aside,omitempty"`
	// Beside puts it on a new row below each, with the same chain and nothing else on it.
	Beside bool `json:"beside,omitempty"`
	// From and To are the stretch of the song that is put down of it; none: all.
	From int64 `json:"from,omitempty"`
	To   int64 `json:"to,omitempty"`
}

// Row is a row that is recorded on.
type Row struct {
	ID    string `json:"id" required:"true"`
	Delay int64  `json:"delay,omitempty"` // frames that are taken off what arrives there
}

// about is what is known of a recording from its beginning; it lies beside its tapes.
type about struct {
	Plan
	ID       string    `json:"id"`
	Project  string    `json:"project"`
	Person   string    `json:"person"` // id
	By       string    `json:"by"`     // name
	Rate     int       `json:"rate"`
	Begun    time.Time `json:"begun"`
	Revision int64     `json:"revision"`
	// Named and Inputs are what rows were called and recorded from, by id.
	Named  map[string]string `json:"named"`
	Inputs map[string]string `json:"inputs"`
}

// Part is what a window sends of a row: pairs of 32 bit samples follow it.
type Part struct {
	At   int64         `json:"at" required:"true"`   // frame of the input
	Runs []project.Run `json:"runs" required:"true"` // all there are so far
	Gone bool          `json:"gone,omitempty"`       // the input was unplugged
}

// frameBytes is how many bytes a frame takes on tape.
const frameBytes = 8

// tape is what has arrived of one row, on disk.
type tape struct {
	path   string
	file   *os.File
	frames int64
	part   Part
	// changed is the song frame near which the row's way in was touched meanwhile; nil: it was not.
	changed *int64
}

// openTape opens the tape of the row that stands at a place of a plan.
func openTape(dir string, at int) (*tape, error) {
	t := &tape{path: filepath.Join(dir, strconv.Itoa(at))}
	f, err := os.OpenFile(t.path+".f32", os.O_RDWR|os.O_CREATE, 0o600)
	if err != nil {
		return nil, fmt.Errorf("open a tape: %w", err)
	}
	t.file = f
	info, err := f.Stat()
	if err != nil {
		return nil, errors.Join(fmt.Errorf("open a tape: %w", err), f.Close())
	}
	t.frames = info.Size() / frameBytes // a frame that was cut off in the middle is written again
	b, err := os.ReadFile(t.path + ".json")
	if err == nil {
		err = json.Unmarshal(b, &t.part)
	}
	if err != nil && !errors.Is(err, os.ErrNotExist) {
		return nil, errors.Join(fmt.Errorf("read where a tape belongs: %w", err), f.Close())
	}
	return t, nil
}

// put appends what has arrived, or as much of it as is new. What it returns is on disk: so many frames of the input.
func (t *tape) put(p Part, data []byte) (int64, error) {
	if len(data)%frameBytes != 0 {
		return t.frames, fmt.Errorf("%d bytes are no whole number of frames", len(data))
	}
	if p.At > t.frames {
		return t.frames, nil // what lies between is sent again
	}
	if err := checkRuns(p.Runs, p.At+int64(len(data)/frameBytes)); err != nil {
		return t.frames, err
	}
	known := min((t.frames-p.At)*frameBytes, int64(len(data)))
	if _, err := t.file.WriteAt(data[known:], t.frames*frameBytes); err != nil {
		return t.frames, fmt.Errorf("write what was recorded: %w", err)
	}
	if err := t.file.Sync(); err != nil {
		return t.frames, fmt.Errorf("write what was recorded: %w", err)
	}
	t.frames += (int64(len(data)) - known) / frameBytes
	if p.At+int64(len(data)/frameBytes) >= t.frames {
		t.part = p
		if err := t.note(); err != nil {
			return t.frames, err
		}
	}
	return t.frames, nil
}

// checkRuns refuses runs that no input and no song can have.
func checkRuns(runs []project.Run, frames int64) error {
	at := int64(0)
	for _, r := range runs {
		if r.Input < at || r.Frames < 0 || r.Song < 0 || r.Input > frames-r.Frames || r.Song > 1<<40 {
			return fmt.Errorf("a run of %d frames from frame %d of the input on does not follow the %d before it", r.Frames, r.Input, at)
		}
		at = r.Input + r.Frames
	}
	return nil
}

// note writes where the tape belongs: in one stroke, so that it is never half.
func (t *tape) note() error {
	b, err := json.Marshal(t.part)
	if err != nil {
		return err
	}
	return replace(t.path+".json", b)
}

func replace(path string, b []byte) error {
	f, err := os.Create(path + ".new")
	if err != nil {
		return fmt.Errorf("note what is recorded: %w", err)
	}
	_, err = f.Write(b)
	if err = errors.Join(err, f.Sync(), f.Close()); err == nil {
		err = os.Rename(path+".new", path)
	}
	if err != nil {
		return fmt.Errorf("note what is recorded: %w", err)
	}
	return nil
}

// runs are those of which all frames have arrived: a last one may have got further than what was written.
func (t *tape) runs() (out []project.Run) {
	for _, r := range t.part.Runs {
		if r.Frames = min(r.Frames, t.frames-r.Input); r.Frames > 0 {
			out = append(out, r)
		}
	}
	return out
}

// least is the shortest run that becomes a take, in seconds: what is shorter is a slip of the hand.
const least = 0.1

// rounds puts runs together that follow one another in the song: where it goes back, as at the end of a loop, another take begins.
func rounds(runs []project.Run, delay int64, rate int) (out [][]project.Run) {
	end := int64(-1)
	for _, r := range runs {
		if r.Song -= delay; r.Song < 0 { // it was played before the song
			r.Input, r.Frames, r.Song = r.Input-r.Song, r.Frames+r.Song, 0
		}
		if r.Frames < 1 {
			continue
		}
		if end < 0 || r.Song < end {
			out = append(out, nil)
		}
		out[len(out)-1] = append(out[len(out)-1], r)
		end = r.Song + r.Frames
	}
	kept := out[:0]
	for _, list := range out {
		frames := int64(0)
		for _, r := range list {
			frames += r.Frames
		}
		if float64(frames) >= least*float64(rate) {
			kept = append(kept, list)
		}
	}
	return kept
}
