package audiofile

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"shoal/internal/disk"
)

// lineageDir holds where sounds come from, by their hashes, as JSON.
const lineageDir = "lineage"

func (f *Folder) lineage(hash string) string {
	return filepath.Join(f.dir, lineageDir, filepath.Base(hash)+".json")
}

// PutLineage notes where a sound comes from; what was noted of the same sound before is replaced.
func (f *Folder) PutLineage(hash string, body []byte) error {
	if err := f.replace(f.lineage(hash), body); err != nil {
		return fmt.Errorf("note where a sound comes from: %w", err)
	}
	return nil
}

// replace puts a file there whole, in the place of one that may be there.
func (f *Folder) replace(path string, body []byte) error {
	if err := os.MkdirAll(filepath.Dir(path), 0o755); err != nil {
		return err
	}
	tmp, err := os.CreateTemp(f.dir, "*.partial")
	if err != nil {
		return err
	}
	defer os.Remove(tmp.Name())
	_, err = tmp.Write(body)
	if err = errors.Join(err, tmp.Sync(), tmp.Close()); err != nil {
		return err
	}
	if err := os.Rename(tmp.Name(), path); err != nil {
		return err
	}
	return disk.SyncNames(filepath.Dir(path))
}

// Lineage is what is known of where a sound comes from; false: nothing is.
func (f *Folder) Lineage(hash string) ([]byte, bool) {
	b, err := os.ReadFile(f.lineage(hash))
	return b, err == nil
}
