package audiofile

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"math"
	"os"
	"path/filepath"
	"syscall"

	"shoal/internal/disk"
	"shoal/internal/dsp"
)

// Folder keeps sounds by the SHA-256 of their file. Files are written under a
// temporary name, synced, and then renamed; nothing is ever overwritten.
type Folder struct{ dir string }

// Entry is a sound in the folder.
type Entry struct {
	Hash     string
	Frames   int64
	Channels int
	Rate     int
	Bits     int
}

// NewFolder opens or makes the folder and removes what an interrupted write left.
func NewFolder(dir string) (*Folder, error) {
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return nil, fmt.Errorf("make audio folder: %w", err)
	}
	left, _ := filepath.Glob(filepath.Join(dir, "*.partial"))
	for _, f := range left {
		_ = os.Remove(f)
	}
	return &Folder{dir}, nil
}

// Path is where a sound lies: in the folder, whatever the hash says; what was worked out under a key lies apart.
func (f *Folder) Path(hash string) string {
	name := filepath.Base(hash) + ".wav"
	if path := filepath.Join(f.dir, workedDir, name); exists(path) {
		return path
	}
	return filepath.Join(f.dir, name)
}

// Has reports whether a sound lies in the folder.
func (f *Folder) Has(hash string) bool {
	return exists(f.Path(hash))
}

// Draft is a sound that is being written. Either Keep or Drop ends it.
type Draft struct {
	folder *Folder
	file   *os.File
	w      *WAVWriter
	rate   int
	chans  int
	bits   int
	Frames int64
}

// Draft begins a sound. bits is 16, 24 or 32 for float.
func (f *Folder) Draft(rate, channels, bits int, note *Note) (*Draft, error) {
	file, err := os.CreateTemp(f.dir, "*.partial")
	if err != nil {
		return nil, fmt.Errorf("begin audio: %w", err)
	}
	w, err := NewWAV(file, rate, channels, bits, note, nil)
	if err != nil {
		_ = file.Close()
		_ = os.Remove(file.Name())
		return nil, err
	}
	return &Draft{folder: f, file: file, w: w, rate: rate, chans: channels, bits: bits}, nil
}

// Write appends frames.
func (d *Draft) Write(src [][]float64) error {
	d.Frames += int64(len(src[0]))
	return d.w.Write(src)
}

// Drop throws the sound away. After Keep it does nothing.
func (d *Draft) Drop() {
	if d.file != nil {
		_ = d.file.Close()
		_ = os.Remove(d.file.Name())
		d.file = nil
	}
}

// Keep finishes the sound and gives it its place.
func (d *Draft) Keep() (Entry, error) {
	defer d.Drop()
	if err := d.finish(); err != nil {
		return Entry{}, err
	}
	if _, err := d.file.Seek(0, io.SeekStart); err != nil {
		return Entry{}, err
	}
	h := sha256.New()
	if _, err := io.Copy(h, d.file); err != nil {
		return Entry{}, fmt.Errorf("hash audio: %w", err)
	}
	e := Entry{Hash: hex.EncodeToString(h.Sum(nil)), Frames: d.Frames, Channels: d.chans, Rate: d.rate, Bits: d.bits}
	return e, d.place(filepath.Join(d.folder.dir, e.Hash+".wav"))
}

// finish completes the file and lets it reach the disk.
func (d *Draft) finish() error {
	if err := d.w.Close(); err != nil {
		return fmt.Errorf("finish audio: %w", err)
	}
	if err := d.file.Sync(); err != nil {
		return fmt.Errorf("sync audio: %w", err)
	}
	return nil
}

// place gives the file its name, for good.
func (d *Draft) place(path string) error {
	if err := os.Rename(d.file.Name(), path); err != nil {
		return fmt.Errorf("place audio: %w", err)
	}
	_ = d.file.Close()
	d.file = nil
	if err := disk.SyncNames(filepath.Dir(path)); err != nil {
		return fmt.Errorf("place audio: %w", err)
	}
	return nil
}

// longestHours is how long a sound may be at most: a song is no longer.
const longestHours = 24

// RoomFor makes sure that the disk has room for so many bytes of sound, and some to spare for what else is written.
func (f *Folder) RoomFor(bytes int64) error {
	if free := disk.Free(f.dir); free >= 0 && free < bytes+leftFree {
		return fmt.Errorf("%d MB of sound: %w", bytes>>20, syscall.ENOSPC)
	}
	return nil
}

// roomEvery is after how many frames the disk is looked at again.
const roomEvery = 1 << 20

// leftFree is how many bytes of the disk sounds leave for the database.
const leftFree = 32 << 20

// Import decodes a file, brings it to a rate, and keeps it. It stops without a
// trace when the context ends, the file turns out to be damaged or longer than any song, or the disk has no room. Of the
// format that it gives, Promised is above Frames where the file is cut short.
func (f *Folder) Import(ctx context.Context, r io.ReadSeeker, rate int, progress func(float64)) (Entry, Format, error) {
	src, err := Open(r)
	if err != nil {
		return Entry{}, Format{}, err
	}
	form := src.Format()
	bits := 24 // no more than the source has; resampling earns bits
	switch {
	case form.Float || form.Bits > 24:
		bits = 32
	case form.Bits <= 16 && form.Rate == rate:
		bits = 16
	}
	d, err := f.Draft(rate, form.Channels, bits, nil)
	if err != nil {
		return Entry{}, form, err
	}
	defer d.Drop()
	if bits != 32 && form.Rate == rate {
		d.w.exact = true // samples pass as they are
	}
	var conv []*dsp.Resampler
	if form.Rate != rate {
		for range form.Channels {
			conv = append(conv, dsp.NewResampler(form.Rate, rate))
		}
	}
	block := make([][]float64, form.Channels)
	for c := range block {
		block[c] = make([]float64, 8192)
	}
	if err := f.RoomFor(form.Frames * int64(form.Channels*bits/8) * int64(rate) / int64(form.Rate)); err != nil {
		return Entry{}, form, err
	}
	done, longest := int64(0), longestHours*3600*int64(form.Rate)
	put := func(n int, last bool) error {
		out := make([][]float64, form.Channels)
		for c := range out {
			out[c] = block[c][:n]
			if conv != nil {
				out[c] = conv[c].Feed(nil, block[c][:n])
				if last {
					out[c] = conv[c].Finish(out[c], done)
				}
			}
		}
		if len(out[0]) == 0 {
			return nil
		}
		return d.Write(out)
	}
	for {
		if err := ctx.Err(); err != nil {
			return Entry{}, form, err
		}
		n, err := src.Read(block)
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return Entry{}, form, err
		}
		if done += int64(n); done > longest {
			return Entry{}, form, fmt.Errorf("it is longer than %d hours: no song is", longestHours)
		}
		if done%roomEvery < int64(n) { // a small file can hold very much
			if err := f.RoomFor(0); err != nil {
				return Entry{}, form, err
			}
		}
		if err := put(n, false); err != nil {
			return Entry{}, form, err
		}
		if progress != nil && form.Frames > 0 {
			progress(math.Min(1, float64(done)/float64(form.Frames)))
		}
	}
	if done == 0 {
		return Entry{}, form, fmt.Errorf("the file: %w", ErrEmpty)
	}
	if conv != nil {
		if err := put(0, true); err != nil {
			return Entry{}, form, err
		}
	}
	form.Frames = done
	e, err := d.Keep()
	return e, form, err
}

// open opens a sound; whoever asks closes the file.
func (f *Folder) open(hash string) (*os.File, *wavReader, error) {
	file, err := os.Open(f.Path(hash))
	if err != nil {
		return nil, nil, fmt.Errorf("audio %.12s is not there", hash)
	}
	w, err := openWAV(file)
	if err != nil {
		_ = file.Close()
		return nil, nil, fmt.Errorf("audio %.12s: %w", hash, err)
	}
	return file, w, nil
}

// Page reads frames [page·size, …) of a sound, one slice a channel.
func (f *Folder) Page(hash string, page, size int) ([][]float32, error) {
	file, w, err := f.open(hash)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	if page < 0 || int64(page) > (w.f.Frames-1)/int64(size) {
		return nil, fmt.Errorf("audio %.12s has no page %d", hash, page)
	}
	from := int64(page) * int64(size)
	if err := w.skip(from); err != nil {
		return nil, err
	}
	n := int(min(int64(size), w.f.Frames-from))
	block := make([][]float64, w.f.Channels)
	for c := range block {
		block[c] = make([]float64, n)
	}
	if _, err := w.Read(block); err != nil {
		return nil, fmt.Errorf("audio %.12s: %w", hash, err)
	}
	out := make([][]float32, len(block))
	for c := range block {
		out[c] = make([]float32, n)
		for i, v := range block[c] {
			out[c][i] = float32(v)
		}
	}
	return out, nil
}

// Adopt keeps a WAV file as it is under the hash it must have.
func (f *Folder) Adopt(r io.Reader, hash string) (Format, error) {
	if _, err := os.Stat(f.Path(hash)); err != nil {
		tmp, err := os.CreateTemp(f.dir, "*.partial")
		if err != nil {
			return Format{}, fmt.Errorf("begin audio: %w", err)
		}
		defer os.Remove(tmp.Name())
		defer tmp.Close()
		h := sha256.New()
		if _, err := io.Copy(io.MultiWriter(tmp, h), r); err != nil {
			return Format{}, fmt.Errorf("copy audio: %w", err)
		}
		if got := hex.EncodeToString(h.Sum(nil)); got != hash {
			return Format{}, fmt.Errorf("its content does not match its hash")
		}
		if _, err := openWAV(tmp); err != nil {
			return Format{}, err
		}
		if err := tmp.Sync(); err != nil {
			return Format{}, err
		}
		if err := os.Rename(tmp.Name(), f.Path(hash)); err != nil {
			return Format{}, fmt.Errorf("place audio: %w", err)
		}
		if err := disk.SyncNames(f.dir); err != nil {
			return Format{}, fmt.Errorf("place audio: %w", err)
		}
	}
	file, err := os.Open(f.Path(hash))
	if err != nil {
		return Format{}, err
	}
	defer file.Close()
	w, err := openWAV(file)
	if err != nil {
		return Format{}, err
	}
	return w.f, nil
}
