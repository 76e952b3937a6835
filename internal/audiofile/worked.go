package audiofile

import (
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"time"
)

// workedDir holds what was worked out, by keys over what it was made from. It is a cache: all of it can be made again.
const workedDir = "worked"

func exists(path string) bool {
	_, err := os.Stat(path)
	return err == nil
}

func (f *Folder) worked(key string) string {
	return filepath.Join(f.dir, workedDir, filepath.Base(key)+".wav")
}

// HasWorked reports whether what a key names has been worked out, and keeps it from being thrown away soon.
func (f *Folder) HasWorked(key string) bool {
	now := time.Now()
	return os.Chtimes(f.worked(key), now, now) == nil
}

// KeepWorked finishes the sound as what a key names.
func (d *Draft) KeepWorked(key string) error {
	defer d.Drop()
	if err := d.finish(); err != nil {
		return err
	}
	if err := os.MkdirAll(filepath.Join(d.folder.dir, workedDir), 0o755); err != nil {
		return fmt.Errorf("make the folder for what is worked out: %w", err)
	}
	return d.place(d.folder.worked(key))
}

// TrimWorked throws away what was worked out and not asked for the longest, until so many bytes are left.
func (f *Folder) TrimWorked(most int64) error {
	list, err := os.ReadDir(filepath.Join(f.dir, workedDir))
	if os.IsNotExist(err) {
		return nil
	}
	if err != nil {
		return fmt.Errorf("look through what is worked out: %w", err)
	}
	var files []os.FileInfo
	sum := int64(0)
	for _, e := range list {
		if i, err := e.Info(); err == nil {
			files, sum = append(files, i), sum+i.Size()
		}
	}
	slices.SortFunc(files, func(a, b os.FileInfo) int { return a.ModTime().Compare(b.ModTime()) })
	for _, i := range files {
		if sum <= most {
			break
		}
		if err := os.Remove(filepath.Join(f.dir, workedDir, i.Name())); err != nil {
			return fmt.Errorf("throw away what was worked out: %w", err)
		}
		sum -= i.Size()
	}
	return nil
}

// sidesAtOnce is how many frames are read at once.
const sidesAtOnce = 1 << 16

// Sides reads frames [from, to) of a sound, one slice a channel.
func (f *Folder) Sides(hash string, from, to int64) ([][]float64, error) {
	file, w, err := f.open(hash)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	if from < 0 || to > w.f.Frames || to <= from {
		return nil, fmt.Errorf("audio %.12s has %d frames, and none from %d to %d", hash, w.f.Frames, from, to)
	}
	if err := w.skip(from); err != nil {
		return nil, err
	}
	out := make([][]float64, w.f.Channels)
	for c := range out {
		out[c] = make([]float64, to-from)
	}
	block := make([][]float64, len(out))
	for at := int64(0); at < to-from; {
		for c := range out {
			block[c] = out[c][at:min(at+sidesAtOnce, to-from)]
		}
		n, err := w.Read(block)
		if err != nil {
			return nil, fmt.Errorf("audio %.12s: %w", hash, err)
		}
		at += int64(n)
	}
	return out, nil
}
