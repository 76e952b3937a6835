// Package store keeps projects, their changes, people, audio entries and
// prints in SQLite. It holds no rules: what it is given it stores.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"path/filepath"
	"time"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the driver
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNone is returned when what was asked for does not exist.
var ErrNone = errors.New("it does not exist")

// Store is the database.
type Store struct{ DB *sql.DB }

// Open opens or makes the database in a folder and brings it up to date. One that is damaged, or was written by a newer
// program, is refused and left as it is; before its schema is changed it is kept beside (see BeforeMigrations).
func Open(ctx context.Context, dir string) (*Store, error) {
	path, there, err := find(dir)
	if err != nil {
		return nil, err
	}
	db, err := connect(path, "_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_pragma=foreign_keys(1)&_pragma=busy_timeout(5000)"+
		"&_txlock=immediate")
	if err != nil {
		return nil, err
	}
	if err := bring(ctx, db, path, there); err != nil {
		_ = db.Close()
		return nil, err
	}
	return &Store{db}, nil
}

// Look opens the database of a folder to read it only, whoever else has it open.
func Look(ctx context.Context, dir string) (*Store, error) {
	path, there, err := find(dir)
	if err != nil {
		return nil, err
	}
	if !there {
		return nil, fmt.Errorf("there is no database of Shoal's in %s", dir)
	}
	db, err := connect(path, "_pragma=query_only(1)&_pragma=busy_timeout(5000)")
	if err != nil {
		return nil, err
	}
	if err := checkPages(ctx, db, path); err != nil {
		_ = db.Close()
		return nil, err
	}
	return &Store{db}, nil
}

// find gives the path of a folder's database, and whether it is there.
func find(dir string) (path string, there bool, err error) {
	if path, err = filepath.Abs(filepath.Join(dir, Name)); err != nil {
		return "", false, fmt.Errorf("open database: %w", err)
	}
	there, err = checkFile(path)
	return path, there, err
}

// connect opens a database as a URI with its path escaped: a folder's name may hold what is special in one.
func connect(path, query string) (*sql.DB, error) {
	place := url.URL{Scheme: "file", Path: filepath.ToSlash(path), RawQuery: query}
	db, err := sql.Open("sqlite", place.String())
	if err != nil {
		return nil, fmt.Errorf("open database: %w", err)
	}
	db.SetMaxOpenConns(1) // one writer; River's SQLite driver wants it too
	return db, nil
}

func migrator(db *sql.DB) (*goose.Provider, error) {
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	g, err := goose.NewProvider(goose.DialectSQLite3, db, sub)
	if err != nil {
		return nil, fmt.Errorf("prepare migrations: %w", err)
	}
	return g, nil
}

// newest is the version that all migrations lead to.
func newest(g *goose.Provider) int64 {
	sources := g.ListSources()
	return sources[len(sources)-1].Version
}

// bring checks a database and brings its schema up to date.
func bring(ctx context.Context, db *sql.DB, path string, there bool) error {
	g, err := migrator(db)
	if err != nil {
		return err
	}
	knows := newest(g)
	if there {
		if err := checkPages(ctx, db, path); err != nil {
			return err
		}
		has, err := version(ctx, db)
		if err != nil {
			return &Damaged{path, "its schema cannot be read (" + err.Error() + ")"}
		}
		if has > knows {
			return &Newer{path, has, knows}
		}
		if has > 0 && has < knows {
			if err := keepBefore(ctx, db, path, has); err != nil {
				return err
			}
		}
	}
	if _, err := g.Up(ctx); err != nil {
		return fmt.Errorf("migrate database: %w", err)
	}
	return nil
}

// Close closes the database.
func (s *Store) Close() error { return s.DB.Close() }

// Now is the time as it is stored.
func Now() string { return now() }

func now() string { return time.Now().UTC().Format("2006-01-02T15:04:05.000Z") }

func none(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNone
	}
	return err
}

// PutAudio notes a sound that lies in the audio folder.
func (s *Store) PutAudio(ctx context.Context, hash, name string, frames int64, channels, rate, bits int, origin string) error {
	_, err := s.DB.ExecContext(
		ctx,
		`INSERT INTO audio (hash, name, frames, channels, rate, bits, origin, created) VALUES (?, ?, ?, ?, ?, ?, ?, ?)
			ON CONFLICT (hash) DO NOTHING`,
		hash,
		name,
		frames,
		channels,
		rate,
		bits,
		origin,
		now(),
	)
	return err
}
