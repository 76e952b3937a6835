package audiofile

import (
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"slices"
)

// hashInText is how a hash looks wherever it is written.
var hashInText = regexp.MustCompile(`[0-9a-f]{64}`)

// Kept is a sound in the folder, and how many bytes it takes.
type Kept struct {
	Hash  string
	Bytes int64
}

// Unused lists the sounds of the folder that are not in use. What a sound in use was made from is in use too: it can be
// printed again.
func (f *Folder) Unused(used map[string]bool) ([]Kept, error) {
	all := map[string]bool{}
	var reach func(hash string)
	reach = func(hash string) {
		if all[hash] {
			return
		}
		all[hash] = true
		if b, known := f.Lineage(hash); known {
			for _, from := range hashInText.FindAllString(string(b), -1) {
				reach(from)
			}
		}
	}
	for hash := range used {
		reach(hash)
	}
	list, err := f.All()
	return slices.DeleteFunc(list, func(k Kept) bool { return all[k.Hash] }), err
}

// Remove takes a sound away for good, and what is known of where it comes from.
func (f *Folder) Remove(hash string) error {
	if err := os.Remove(filepath.Join(f.dir, filepath.Base(hash)+".wav")); err != nil {
		return fmt.Errorf("remove the sound %.12s: %w", hash, err)
	}
	if err := os.Remove(f.lineage(hash)); err != nil && !os.IsNotExist(err) {
		return fmt.Errorf("remove where the sound %.12s comes from: %w", hash, err)
	}
	return nil
}
