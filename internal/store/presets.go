package store

import (
	"context"
	"database/sql"
	"fmt"
)

// Presets lists the bodies of the presets that people have saved, by name.
func (s *Store) Presets(ctx context.Context) ([][]byte, error) {
	rows, err := s.DB.QueryContext(ctx, `SELECT body FROM presets WHERE binned = '' ORDER BY name COLLATE NOCASE`)
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

// Preset reads one preset's body, also from the bin.
func (s *Store) Preset(ctx context.Context, id string) (body []byte, err error) {
	err = s.DB.QueryRowContext(ctx, `SELECT body FROM presets WHERE id = ?`, id).Scan(&body)
	return body, none(err)
}

// Preset is a preset as it is stored.
type Preset struct {
	ID, Name string
	Body     []byte
}

// PutPresets adds presets or replaces them, all or none.
func (s *Store) PutPresets(ctx context.Context, author string, list ...Preset) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		for _, p := range list {
			if err := putPreset(ctx, tx, author, p); err != nil {
				return err
			}
		}
		return nil
	})
}

func putPreset(ctx context.Context, tx *sql.Tx, author string, p Preset) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO presets (id, author, name, body, created) VALUES (?, ?, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET name = excluded.name, body = excluded.body`, p.ID, author, p.Name, string(p.Body), now())
	if err != nil {
		return fmt.Errorf("store preset %s: %w", p.Name, err)
	}
	return nil
}

// BinPreset puts a preset in the bin or takes it out.
func (s *Store) BinPreset(ctx context.Context, id string, in bool) error {
	t := ""
	if in {
		t = now()
	}
	r, err := s.DB.ExecContext(ctx, `UPDATE presets SET binned = ? WHERE id = ?`, t, id)
	if err != nil {
		return err
	}
	if n, _ := r.RowsAffected(); n == 0 {
		return ErrNone
	}
	return nil
}
