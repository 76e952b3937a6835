package audiofile

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
)

// Existing is a folder as it is, to be looked at or copied from while somebody else may be writing to it.
func Existing(dir string) *Folder { return &Folder{dir} }

// All lists the sounds of the folder.
func (f *Folder) All() ([]Kept, error) {
	files, err := os.ReadDir(f.dir)
	if errors.Is(err, os.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, fmt.Errorf("look through the audio folder: %w", err)
	}
	var out []Kept
	for _, e := range files {
		hash, wav := strings.CutSuffix(e.Name(), ".wav")
		if e.IsDir() || !wav || hashInText.FindString(hash) != hash {
			continue
		}
		info, err := e.Info()
		if errors.Is(err, os.ErrNotExist) { // it has gone meanwhile
			continue
		}
		if err != nil {
			return nil, fmt.Errorf("look at the sound %.12s: %w", hash, err)
		}
		out = append(out, Kept{hash, info.Size()})
	}
	return out, nil
}

// Verify reads a sound and says whether it still is what its name says.
func (f *Folder) Verify(ctx context.Context, hash string) error {
	file, err := os.Open(filepath.Join(f.dir, filepath.Base(hash)+".wav"))
	if err != nil {
		return fmt.Errorf("the sound %.12s is not there", hash)
	}
	defer file.Close()
	h := sha256.New()
	block := make([]byte, 1<<20)
	for {
		if err := ctx.Err(); err != nil {
			return err
		}
		n, err := file.Read(block)
		h.Write(block[:n])
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return fmt.Errorf("the sound %.12s cannot be read: %w", hash, err)
		}
	}
	if hex.EncodeToString(h.Sum(nil)) != hash {
		return fmt.Errorf("the sound %.12s is damaged: its content is no longer what its name says", hash)
	}
	return nil
}

// CopyTo puts a sound, with what is known of where it comes from, into another folder, unless it is there. What is copied is
// checked on the way.
func (f *Folder) CopyTo(to *Folder, hash string) (copied bool, err error) {
	if exists(filepath.Join(to.dir, hash+".wav")) {
		return false, nil
	}
	file, err := os.Open(filepath.Join(f.dir, filepath.Base(hash)+".wav"))
	if err != nil {
		return false, fmt.Errorf("the sound %.12s is not there", hash)
	}
	defer file.Close()
	if _, err := to.Adopt(file, hash); err != nil {
		return false, fmt.Errorf("the sound %.12s: %w", hash, err)
	}
	if b, known := f.Lineage(hash); known {
		return true, to.PutLineage(hash, b)
	}
	return true, nil
}
