package disk

import "os"

// SyncNames lets the names of files in a folder reach the disk: until then a file that was placed there may be lost with its name.
func SyncNames(dir string) error {
	d, err := os.Open(dir)
	if err != nil {
		return err
	}
	defer d.Close()
	return d.Sync()
}
