// Package keeping keeps data folders safe: copies of them, what is put back from one, and what is wrong with one.
package keeping

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"time"

	"shoal/internal/audiofile"
	"shoal/internal/disk"
	"shoal/internal/store"
)

// Copied is what a backup or a restore came to.
type Copied struct {
	Projects int
	Sounds   int // that are there now
	New      int // of them, that were not there before
	Bytes    int64
	Missing  []string // what could not be copied, in words
}

// audio is the folder of sounds of a data folder.
func audio(data string) string { return filepath.Join(data, "audio") }

// Backup copies a data folder, which a server may be using, into another one: the database as it is at one moment, then every
// sound that it leads to and that is not there yet. What it makes is a data folder like any other. An earlier backup in the same
// place stays whole until the new database takes its place.
func Backup(ctx context.Context, data, to string, progress func(part float64)) (Copied, error) {
	if same(data, to) {
		return Copied{}, fmt.Errorf("a backup of %s must go to another folder", data)
	}
	from, err := store.Look(ctx, data)
	if err != nil {
		return Copied{}, err
	}
	defer from.Close()
	if err := os.MkdirAll(to, 0o700); err != nil {
		return Copied{}, fmt.Errorf("make the folder of the backup: %w", err)
	}
	fresh := filepath.Join(to, "new.db")
	_ = os.Remove(fresh)
	if err := from.Copy(ctx, fresh); err != nil {
		return Copied{}, err
	}
	defer os.Remove(fresh)
	c, err := copySounds(ctx, from, audiofile.Existing(audio(data)), audio(to), progress)
	if err != nil {
		return c, err
	}
	return c, place(fresh, filepath.Join(to, store.Name))
}

// copySounds copies every sound that a database leads to.
func copySounds(ctx context.Context, st *store.Store, from *audiofile.Folder, to string, progress func(float64)) (c Copied, err error) {
	list, err := st.Projects(ctx)
	if err != nil {
		return c, fmt.Errorf("read the projects: %w", err)
	}
	c.Projects = len(list)
	used, err := st.Mentioned(ctx)
	if err != nil {
		return c, err
	}
	all, err := from.All()
	if err != nil {
		return c, err
	}
	unused, err := from.Unused(used)
	if err != nil {
		return c, err
	}
	wanted := slices.DeleteFunc(all, func(k audiofile.Kept) bool { return slices.Contains(unused, k) })
	folder, err := audiofile.NewFolder(to)
	if err != nil {
		return c, err
	}
	needed, err := st.Sounds(ctx)
	if err != nil {
		return c, fmt.Errorf("read what the projects have of sounds: %w", err)
	}
	for _, s := range needed {
		if !from.Has(s.Hash) {
			c.Missing = append(c.Missing, fmt.Sprintf("the sound %s (%.12s) of %s is not there", s.Name, s.Hash, s.Project))
		}
	}
	total, done := int64(1), int64(0)
	for _, k := range wanted {
		total += k.Bytes
	}
	for _, k := range wanted {
		if err := ctx.Err(); err != nil {
			return c, err
		}
		switch copied, err := from.CopyTo(folder, k.Hash); {
		case err != nil:
			c.Missing = append(c.Missing, err.Error())
		case copied:
			c.New, c.Bytes = c.New+1, c.Bytes+k.Bytes
			fallthrough
		default:
			c.Sounds++
		}
		done += k.Bytes
		if progress != nil {
			progress(float64(done) / float64(total))
		}
	}
	return c, nil
}

// place puts a database where one may be, with nothing of that one's journal beside it.
func place(fresh, path string) error {
	for _, beside := range []string{"-wal", "-shm"} {
		if err := os.Remove(path + beside); err != nil && !os.IsNotExist(err) {
			return err
		}
	}
	if err := os.Rename(fresh, path); err != nil {
		return err
	}
	return disk.SyncNames(filepath.Dir(path))
}

func same(a, b string) bool {
	x, err1 := os.Stat(a)
	y, err2 := os.Stat(b)
	return err1 == nil && err2 == nil && os.SameFile(x, y)
}

// Restore puts a backup into a data folder, which nobody may be using. What is there is not lost: its database is moved to the
// folder "before" beside it, and no sound is taken away.
func Restore(ctx context.Context, backup, data string, progress func(float64)) (c Copied, aside string, err error) {
	if same(backup, data) {
		return c, "", fmt.Errorf("%s is the backup itself: choose the folder that it is to be put into with --data", data)
	}
	from, err := store.Look(ctx, backup)
	if err != nil {
		return c, "", err
	}
	defer from.Close()
	if err := os.MkdirAll(data, 0o700); err != nil {
		return c, "", fmt.Errorf("make the data folder: %w", err)
	}
	fresh := filepath.Join(data, "restored.db")
	_ = os.Remove(fresh)
	if err := from.Copy(ctx, fresh); err != nil {
		return c, "", err
	}
	defer os.Remove(fresh)
	if c, err = copySounds(ctx, from, audiofile.Existing(audio(backup)), audio(data), progress); err != nil {
		return c, "", err
	}
	path := filepath.Join(data, store.Name)
	if _, err := os.Stat(path); err == nil {
		dir := filepath.Join(data, store.BeforeMigrations)
		if err := os.MkdirAll(dir, 0o700); err != nil {
			return c, "", err
		}
		aside = filepath.Join(dir, "shoal-replaced-"+time.Now().UTC().Format("20060102-150405.000")+".db")
		for _, part := range []string{"", "-wal"} { // together: what is in the journal is part of it
			if err := os.Rename(path+part, aside+part); err != nil && !os.IsNotExist(err) {
				return c, "", fmt.Errorf("put the database that is there aside: %w", err)
			}
		}
	}
	return c, aside, place(fresh, path)
}
