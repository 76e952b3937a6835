package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
)

// Name is what the database is called in its folder.
const Name = "shoal.db"

// magic begins every SQLite database (The SQLite Database File Format, section 1.3).
const magic = "SQLite format 3\x00"

// Damaged is a database that cannot be trusted: nothing is written to it.
type Damaged struct {
	Path, Says string
}

func (d *Damaged) Error() string {
	return fmt.Sprintf(
		"the database %s cannot be used: %s. Nothing was changed. Put a backup in its place (shoal restore),"+
			" look at what is left of it (shoal doctor), or move it away to begin anew; the audio beside it is not touched",
		d.Path, d.Says,
	)
}

// checkFile looks at a database's file before anything opens it; false: there is none yet.
func checkFile(path string) (there bool, err error) {
	f, err := os.Open(path)
	if errors.Is(err, os.ErrNotExist) {
		return false, nil
	}
	if err != nil {
		return false, fmt.Errorf("open database: %w", err)
	}
	defer f.Close()
	head := make([]byte, len(magic))
	switch n, err := io.ReadFull(f, head); {
	case err != nil && !errors.Is(err, io.EOF) && !errors.Is(err, io.ErrUnexpectedEOF):
		return false, fmt.Errorf("read database: %w", err)
	case n == 0 && !hasSounds(filepath.Dir(path)):
		return false, nil // one that was never written: the first start was cut off
	case n == 0:
		return false, &Damaged{path, "it is empty, though there are sounds beside it"}
	case string(head[:n]) != magic:
		return false, &Damaged{path, "it is no SQLite database, or its beginning is overwritten"}
	}
	return true, nil
}

func hasSounds(dir string) bool {
	found, _ := filepath.Glob(filepath.Join(dir, "audio", "*.wav"))
	return len(found) > 0
}

// checkPages lets SQLite look through every page of a database. A large one takes a second for about half a gigabyte.
func checkPages(ctx context.Context, db *sql.DB, path string) error {
	var says string
	err := db.QueryRowContext(ctx, `PRAGMA quick_check(1)`).Scan(&says)
	if err == nil && says == "ok" {
		return nil
	}
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if err != nil {
		says = err.Error()
	}
	return &Damaged{path, "it is damaged (" + strings.TrimSpace(strings.ReplaceAll(says, "\n", " ")) + ")"}
}

// version is the schema that a database has; 0: none yet.
func version(ctx context.Context, db *sql.DB) (int64, error) {
	var tables int
	err := db.QueryRowContext(ctx, `SELECT count(*) FROM sqlite_master WHERE type = 'table' AND name = 'goose_db_version'`).Scan(&tables)
	if err != nil || tables == 0 {
		return 0, err
	}
	var v sql.NullInt64
	err = db.QueryRowContext(ctx, `SELECT max(version_id) FROM goose_db_version WHERE is_applied = 1`).Scan(&v)
	return v.Int64, err
}

// Newer is a database that a newer Shoal has made: an older one would lose what it does not know.
type Newer struct {
	Path       string
	Has, Knows int64
}

func (n *Newer) Error() string {
	return fmt.Sprintf(
		"the database %s was written by a newer Shoal (its schema is %d; this program knows %d). Nothing was changed."+
			" Start the newer program, or restore a backup from before it (shoal restore)",
		n.Path, n.Has, n.Knows,
	)
}
