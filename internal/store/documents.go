package store

import (
	"context"
	"database/sql"
	"fmt"
)

// A document is kept in parts: its lines, which may hold very many points, one by one, and the rest.

// Lines tells which lines of a document have changed, by their place in the list, and how many there are.
type Lines struct {
	Count   int
	Changed map[int][]byte
}

// Project reads a project's document and revision.
func (s *Store) Project(ctx context.Context, id string) (document []byte, revision int64, err error) {
	err = s.DB.QueryRowContext(ctx, `SELECT json_set(document, '$.lines',
	  json('[' || coalesce((SELECT group_concat(line, ',' ORDER BY place) FROM lines WHERE project = id), '') || ']')), revision
	  FROM projects WHERE id = ?`, id).Scan(&document, &revision)
	return document, revision, none(err)
}

// AddProject stores a new project at revision 1.
func (s *Store) AddProject(ctx context.Context, id, name string, document []byte) error {
	return s.AddOwned(ctx, id, name, document, "")
}

// AddOwned stores a new project, and who owns it (empty: nobody in particular).
func (s *Store) AddOwned(ctx context.Context, id, name string, document []byte, owner string) error {
	t := now()
	err := s.within(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(
			ctx,
			`INSERT INTO projects (id, name, document, revision, created, changed) VALUES (?, ?, json_remove(?, '$.lines'), 1, ?, ?)`,
			id,
			name,
			string(document),
			t,
			t,
		); err != nil {
			return err
		}
		if _, err := tx.ExecContext(
			ctx,
			`INSERT INTO lines (project, place, line) SELECT ?, key, value FROM json_each(?, '$.lines') WHERE type = 'object'`,
			id,
			string(document),
		); err != nil {
			return err
		}
		if owner != "" {
			if err := putMember(ctx, tx, id, owner, "owner", ""); err != nil {
				return err
			}
		}
		_, err := tx.ExecContext(
			ctx,
			`INSERT OR IGNORE INTO project_sounds (project, hash) SELECT ?, json_extract(value, '$.hash') FROM json_each(?, '$.audio')`,
			id,
			string(document),
		)
		return err
	})
	if err != nil {
		return fmt.Errorf("store project %s: %w", name, err)
	}
	return nil
}

// Commit stores a new revision of a project and the change that led to it, in
// one transaction: the document without its lines, and those of them that have
// changed. spends are the entries that this one takes back.
func (s *Store) Commit(ctx context.Context, id, name string, rest []byte, lines Lines, e Entry, spends []int64) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, `UPDATE projects SET document = ?, name = ?, revision = ?, changed = ? WHERE id = ? AND revision = ?`,
			string(rest), name, e.Revision, now(), id, e.Revision-1)
		if err != nil {
			return fmt.Errorf("store revision %d: %w", e.Revision, err)
		}
		if n, _ := r.RowsAffected(); n != 1 {
			return fmt.Errorf("store revision %d: the project has moved on", e.Revision)
		}
		for place, line := range lines.Changed {
			if _, err := tx.ExecContext(
				ctx,
				`INSERT INTO lines (project, place, line) VALUES (?, ?, ?) ON CONFLICT (project, place) DO UPDATE SET line = excluded.line`,
				id,
				place,
				string(line),
			); err != nil {
				return fmt.Errorf("store line %d: %w", place, err)
			}
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM lines WHERE project = ? AND place >= ?`, id, lines.Count); err != nil {
			return fmt.Errorf("store revision %d: %w", e.Revision, err)
		}
		if _, err := tx.ExecContext(
			ctx,
			`INSERT INTO changes (project, revision, author, label, kind, batch, undo, patch, touched, gesture, time, hash)
			VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
			id,
			e.Revision,
			e.Author,
			e.Label,
			e.Kind,
			e.Batch,
			e.Undo,
			e.Patch,
			e.Touched,
			e.Gesture,
			e.Time,
			e.Hash,
		); err != nil {
			return fmt.Errorf("store change %d: %w", e.Revision, err)
		}
		if err := noteSounds(ctx, tx, id, e.Sounds); err != nil {
			return err
		}
		if err := letGo(ctx, tx, id, e.Revision); err != nil {
			return err
		}
		return spend(ctx, tx, id, spends, 1)
	})
}

// within runs something in one transaction: all of it is stored, or nothing.
func (s *Store) within(ctx context.Context, run func(tx *sql.Tx) error) error {
	tx, err := s.DB.BeginTx(ctx, nil)
	if err != nil {
		return fmt.Errorf("begin: %w", err)
	}
	defer func() { _ = tx.Rollback() }()
	if err := run(tx); err != nil {
		return err
	}
	return tx.Commit()
}
