package store

import (
	"context"
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"time"

	"shoal/internal/disk"
)

// Copy writes a whole copy of the database, as it is at one moment, to a file that must not be there yet. Others may go on
// writing meanwhile.
func (s *Store) Copy(ctx context.Context, to string) error { return copyTo(ctx, s.DB, to) }

func copyTo(ctx context.Context, db *sql.DB, to string) error {
	part := to + ".partial"
	_ = os.Remove(part)
	if err := vacuumInto(ctx, db, part); err != nil {
		_ = os.Remove(part)
		return fmt.Errorf("copy the database to %s: %w", to, err)
	}
	if err := settle(part, to); err != nil {
		_ = os.Remove(part)
		return fmt.Errorf("copy the database to %s: %w", to, err)
	}
	return nil
}

// vacuumInto reads the database only, but SQLite wants leave to write for it, which who only looks has not.
func vacuumInto(ctx context.Context, db *sql.DB, part string) error {
	conn, err := db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	var only int
	if err := conn.QueryRowContext(ctx, `PRAGMA query_only`).Scan(&only); err != nil {
		return err
	}
	if only != 0 {
		if _, err := conn.ExecContext(ctx, `PRAGMA query_only = 0`); err != nil {
			return err
		}
		defer func() { _, _ = conn.ExecContext(context.WithoutCancel(ctx), `PRAGMA query_only = 1`) }()
	}
	_, err = conn.ExecContext(ctx, `VACUUM INTO ?`, part)
	return err
}

// settle gives a finished file its name, once it has reached the disk.
func settle(part, to string) error {
	f, err := os.OpenFile(part, os.O_RDWR, 0)
	if err != nil {
		return err
	}
	err = f.Sync()
	_ = f.Close()
	if err != nil {
		return err
	}
	if err := os.Rename(part, to); err != nil {
		return err
	}
	return disk.SyncNames(filepath.Dir(to))
}

// BeforeMigrations is the folder beside the database in which it is kept as it was before its schema was changed.
const BeforeMigrations = "before"

// keepBefore keeps a database as it is before its schema is changed.
func keepBefore(ctx context.Context, db *sql.DB, path string, has int64) error {
	dir := filepath.Join(filepath.Dir(path), BeforeMigrations)
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return fmt.Errorf("keep the database before it is changed: %w", err)
	}
	name := fmt.Sprintf("shoal-schema-%d-%s.db", has, time.Now().UTC().Format("20060102-150405.000"))
	return copyTo(ctx, db, filepath.Join(dir, name))
}
