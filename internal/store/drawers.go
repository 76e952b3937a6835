package store

import (
	"context"
	"database/sql"
	"fmt"
)

// Drawer is where things are kept that belong to no project: their bodies, by id.
type Drawer string

// The drawers there are, by their tables.
const (
	Presets Drawer = "presets"
	Shelf   Drawer = "shelf"
)

// Thing is what is kept in a drawer.
type Thing struct {
	ID, Name string
	Body     []byte
}

// Things lists the bodies in a drawer, by name, without those in its bin.
func (s *Store) Things(ctx context.Context, in Drawer) ([][]byte, error) {
	rows, err := s.DB.QueryContext(ctx, `SELECT body FROM `+string(in)+` WHERE binned = '' ORDER BY name COLLATE NOCASE`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var list [][]byte
	for rows.Next() {
		var b []byte
		if err := rows.Scan(&b); err != nil {
			return nil, err
		}
		list = append(list, b)
	}
	return list, rows.Err()
}

// Thing reads one body, also from the bin.
func (s *Store) Thing(ctx context.Context, in Drawer, id string) (body []byte, err error) {
	err = s.DB.QueryRowContext(ctx, `SELECT body FROM `+string(in)+` WHERE id = ?`, id).Scan(&body)
	return body, none(err)
}

// PutThings adds things or replaces them, all or none.
func (s *Store) PutThings(ctx context.Context, in Drawer, author string, list ...Thing) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		for _, t := range list {
			_, err := tx.ExecContext(ctx, `INSERT INTO `+string(in)+` (id, author, name, body, created) VALUES (?, ?, ?, ?, ?)
				ON CONFLICT (id) DO UPDATE SET name = excluded.name, body = excluded.body`, t.ID, author, t.Name, string(t.Body), now())
			if err != nil {
				return fmt.Errorf("keep %s: %w", t.Name, err)
			}
		}
		return nil
	})
}

// BinThing puts a thing in the bin or takes it out.
func (s *Store) BinThing(ctx context.Context, in Drawer, id string, bin bool) error {
	t := ""
	if bin {
		t = now()
	}
	r, err := s.DB.ExecContext(ctx, `UPDATE `+string(in)+` SET binned = ? WHERE id = ?`, t, id)
	if err != nil {
		return err
	}
	if n, _ := r.RowsAffected(); n == 0 {
		return ErrNone
	}
	return nil
}

// OnShelf reports whether a sound stands on the shelf, which is everybody's.
func (s *Store) OnShelf(ctx context.Context, hash string) (stands bool, err error) {
	err = s.DB.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM shelf WHERE instr(body, ?) > 0)`, hash).Scan(&stands)
	return stands, err
}
