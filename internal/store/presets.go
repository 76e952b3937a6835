package store

import (
	"context"
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

// PutPreset adds a preset or replaces it.
func (s *Store) PutPreset(ctx context.Context, id, author, name string, body []byte) error {
	_, err := s.DB.ExecContext(ctx, `INSERT INTO presets (id, author, name, body, created) VALUES (?, ?, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET name = excluded.name, body = excluded.body`, id, author, name, string(body), now())
	if err != nil {
		return fmt.Errorf("store preset %s: %w", name, err)
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
