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

// Open opens or makes the database in a folder and brings it up to date.
func Open(ctx context.Context, dir string) (*Store, error) {
	path, err := filepath.Abs(filepath.Join(dir, "shoal.db"))
	if err != nil {
		return nil, fmt.Errorf("open database: %w", err)
	}
	// as a URI with its path escaped: a folder's name may hold what is special in one
	place := url.URL{
		Scheme:   "file",
		Path:     filepath.ToSlash(path),
		RawQuery: "_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)&_pragma=foreign_keys(1)&_pragma=busy_timeout(5000)&_txlock=immediate",
	}
	db, err := sql.Open("sqlite", place.String())
	if err != nil {
		return nil, fmt.Errorf("open database: %w", err)
	}
	db.SetMaxOpenConns(1) // one writer; River's SQLite driver wants it too
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	g, err := goose.NewProvider(goose.DialectSQLite3, db, sub)
	if err != nil {
		return nil, fmt.Errorf("prepare migrations: %w", err)
	}
	if _, err := g.Up(ctx); err != nil {
		_ = db.Close()
		return nil, fmt.Errorf("migrate database: %w", err)
	}
	return &Store{db}, nil
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

// Person is somebody who has given a name.
type Person struct {
	ID   string `json:"id" required:"true"`
	Name string `json:"name" required:"true"`
}

// PutPerson adds or renames a person.
func (s *Store) PutPerson(ctx context.Context, p Person) error {
	_, err := s.DB.ExecContext(
		ctx,
		`INSERT INTO people (id, name, created) VALUES (?, ?, ?) ON CONFLICT (id) DO UPDATE SET name = excluded.name`,
		p.ID,
		p.Name,
		now(),
	)
	return err
}

// Person finds a person.
func (s *Store) Person(ctx context.Context, id string) (Person, error) {
	p := Person{ID: id}
	err := s.DB.QueryRowContext(ctx, `SELECT name FROM people WHERE id = ?`, id).Scan(&p.Name)
	return p, none(err)
}

// PutAudio notes a sound that lies in the audio folder.
func (s *Store) PutAudio(ctx context.Context, hash, name string, frames int64, channels, rate, bits int, origin string) error {
	_, err := s.DB.ExecContext(
		ctx,
		`INSERT INTO audio (hash, name, frames, channels, rate, bits, origin, created) VALUES (?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (hash) DO NOTHING`,
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
