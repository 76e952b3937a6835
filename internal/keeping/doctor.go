package keeping

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"slices"

	"shoal/internal/audiofile"
	"shoal/internal/disk"
	"shoal/internal/store"
)

// Finding is something that is known about a data folder, and what can be done if it is wrong.
type Finding struct {
	Wrong bool
	Says  string
	Do    string
}

// Doctor looks through a data folder and changes nothing. A server may be using it: inUse says so. With all, every sound is read
// and compared with its hash.
func Doctor(ctx context.Context, data string, inUse, all bool) ([]Finding, error) {
	x := &doctor{ctx: ctx, data: data, inUse: inUse, folder: audiofile.Existing(audio(data))}
	st, err := store.Look(ctx, data)
	if err != nil {
		x.wrong("restore a backup: shoal restore BACKUP --data "+data, "%v", err)
		x.backups()
		return x.found, ctx.Err()
	}
	defer st.Close()
	x.st = st
	for _, look := range []func() error{x.projects, x.sounds, x.prints, x.left} {
		if err := look(); err != nil {
			return x.found, err
		}
	}
	if all {
		if err := x.verify(); err != nil {
			return x.found, err
		}
	}
	x.room()
	x.backups()
	return x.found, nil
}

type doctor struct {
	ctx    context.Context
	data   string
	inUse  bool
	st     *store.Store
	folder *audiofile.Folder
	found  []Finding
}

func (x *doctor) well(says string, args ...any) {
	x.found = append(x.found, Finding{Says: fmt.Sprintf(says, args...)})
}

func (x *doctor) wrong(do, says string, args ...any) {
	x.found = append(x.found, Finding{true, fmt.Sprintf(says, args...), do})
}

func (x *doctor) projects() error {
	list, err := x.st.Projects(x.ctx)
	if err != nil {
		return err
	}
	var changes int64
	for _, p := range list {
		changes += p.Revision
	}
	has, knows, err := x.st.Schema(x.ctx)
	if err != nil {
		return err
	}
	x.well("the database is whole: %d projects, %d revisions, schema %d", len(list), changes, has)
	if has > knows {
		x.wrong("start the newer program", "its schema is %d, and this program knows %d", has, knows)
	}
	return nil
}

// sounds looks for what the database leads to and is not there, and for what is there and nothing leads to.
func (x *doctor) sounds() error {
	needed, err := x.st.Sounds(x.ctx)
	if err != nil {
		return err
	}
	lost := slices.DeleteFunc(needed, func(s store.Sound) bool { return x.folder.Has(s.Hash) })
	for _, s := range lost {
		x.wrong("copy audio/"+s.Hash+".wav from a backup, or: shoal restore",
			"the sound %s (%.12s) of %s is not in the audio folder", s.Name, s.Hash, s.Project)
	}
	if len(lost) == 0 {
		x.well("every sound that a project has is there")
	}
	used, err := x.st.Mentioned(x.ctx)
	if err != nil {
		return err
	}
	unused, err := x.folder.Unused(used)
	if err != nil {
		return err
	}
	var bytes int64
	for _, k := range unused {
		bytes += k.Bytes
	}
	if len(unused) > 0 {
		x.well("%d sounds (%.1f MB) lead nowhere any more: shoal sweep --remove takes them away", len(unused), float64(bytes)/1e6)
	}
	return nil
}

func (x *doctor) verify() error {
	list, err := x.folder.All()
	if err != nil {
		return err
	}
	bad := 0
	for _, k := range list {
		if err := x.folder.Verify(x.ctx, k.Hash); err != nil {
			if x.ctx.Err() != nil {
				return x.ctx.Err()
			}
			bad++
			x.wrong("take audio/"+k.Hash+".wav from a backup", "%v", err)
		}
	}
	if bad == 0 {
		x.well("all %d sounds were read and are what their names say", len(list))
	}
	return nil
}

func (x *doctor) prints() error {
	hang, err := x.st.Unfinished(x.ctx)
	if err != nil {
		return err
	}
	switch {
	case len(hang) > 0 && x.inUse:
		x.well("%d prints are under way", len(hang))
	case len(hang) > 0:
		x.well("%d prints wait: they begin anew with the next start", len(hang))
	}
	return nil
}

// left looks for what a process that was killed has left.
func (x *doctor) left() error {
	parts, err := filepath.Glob(filepath.Join(x.data, "audio", "*.partial"))
	if err != nil {
		return err
	}
	if len(parts) > 0 && !x.inUse {
		x.well("%d files that were begun lie in the audio folder: the next start takes them away", len(parts))
	}
	takes, err := os.ReadDir(filepath.Join(x.data, "recordings"))
	if err == nil && len(takes) > 0 && !x.inUse {
		x.well("%d recordings were under way: the next start lands them", len(takes))
	}
	return nil
}

// leastRoom is how many bytes should be free.
const leastRoom = 512 << 20

func (x *doctor) room() {
	switch free := disk.Free(x.data); {
	case free < 0:
	case free < leastRoom:
		x.wrong("make room: recordings and prints need it", "only %d MB of the disk are free", free>>20)
	default:
		x.well("%.1f GB of the disk are free", float64(free)/1e9)
	}
}

func (x *doctor) backups() {
	kept, _ := filepath.Glob(filepath.Join(x.data, store.BeforeMigrations, "*.db"))
	if len(kept) > 0 {
		x.well("%d older databases are kept in %s", len(kept), filepath.Join(x.data, store.BeforeMigrations))
	}
}
