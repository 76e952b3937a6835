package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
)

// Member is somebody who is in a project.
type Member struct {
	Person Person `json:"person" required:"true"`
	Role   string `json:"role" required:"true" enum:"listener,engineer,owner"`
	By     string `json:"by" required:"true"` // who brought them in, by name; empty: they made it, or it was theirs from the start
	Since  string `json:"since" required:"true"`
}

// ErrLastOwner is returned where a project would be left without an owner.
var ErrLastOwner = errors.New("a project needs an owner: make somebody else one first")

// Standing is somebody's role in a project, empty if they have none, and whether its listeners may export.
func (s *Store) Standing(ctx context.Context, project, person string) (role string, exports bool, err error) {
	err = s.DB.QueryRowContext(ctx, `SELECT coalesce((SELECT role FROM members WHERE project = p.id AND person = ?), ''), listeners_export
		FROM projects p WHERE id = ?`, person, project).Scan(&role, &exports)
	return role, exports, none(err)
}

// Members lists who is in a project: owners first, then by name.
func (s *Store) Members(ctx context.Context, project string) ([]Member, error) {
	scan := func(row interface{ Scan(...any) error }) (m Member, err error) {
		err = row.Scan(&m.Person.ID, &m.Person.Name, &m.Role, &m.By, &m.Since)
		return m, err
	}
	return all(ctx, s.DB, scan, `SELECT m.person, p.name, m.role, coalesce(b.name, ''), m.since FROM members m
		JOIN people p ON p.id = m.person LEFT JOIN people b ON b.id = m.by WHERE m.project = ?
		ORDER BY CASE m.role WHEN 'owner' THEN 0 WHEN 'engineer' THEN 1 ELSE 2 END, p.name COLLATE NOCASE`, project)
}

// ProjectsOf lists the projects that somebody is in, by id, with their role.
func (s *Store) ProjectsOf(ctx context.Context, person string) (map[string]string, error) {
	rows, err := s.DB.QueryContext(ctx, `SELECT project, role FROM members WHERE person = ?`, person)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	roles := map[string]string{}
	for rows.Next() {
		var project, role string
		if err := rows.Scan(&project, &role); err != nil {
			return nil, err
		}
		roles[project] = role
	}
	return roles, rows.Err()
}

// PutMember brings somebody into a project, or gives them another role there.
func (s *Store) PutMember(ctx context.Context, project, person, role, by string) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		if err := putMember(ctx, tx, project, person, role, by); err != nil {
			return err
		}
		return ownedStill(ctx, tx, project)
	})
}

func putMember(ctx context.Context, tx *sql.Tx, project, person, role, by string) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO members (project, person, role, by, since) VALUES (?, ?, ?, ?, ?)
		ON CONFLICT (project, person) DO UPDATE SET role = excluded.role`, project, person, role, by, now())
	if err != nil {
		return fmt.Errorf("bring somebody into a project: %w", err)
	}
	return nil
}

// RemoveMember takes somebody out of a project.
func (s *Store) RemoveMember(ctx context.Context, project, person string) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, `DELETE FROM members WHERE project = ? AND person = ?`, project, person)
		if err != nil {
			return err
		}
		if n, _ := r.RowsAffected(); n == 0 {
			return ErrNone
		}
		return ownedStill(ctx, tx, project)
	})
}

func ownedStill(ctx context.Context, tx *sql.Tx, project string) error {
	var n int
	if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM members WHERE project = ? AND role = 'owner'`, project).Scan(&n); err != nil {
		return err
	}
	if n == 0 {
		return ErrLastOwner
	}
	return nil
}

// LetListenersExport says whether a project's listeners may export.
func (s *Store) LetListenersExport(ctx context.Context, project string, may bool) error {
	_, err := s.DB.ExecContext(ctx, `UPDATE projects SET listeners_export = ? WHERE id = ?`, may, project)
	return err
}

// HasSound reports whether a project has, or has had, a sound.
func (s *Store) HasSound(ctx context.Context, project, hash string) (has bool, err error) {
	err = s.DB.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM project_sounds WHERE project = ? AND hash = ?)`, project, hash).Scan(&has)
	return has, err
}

// MayHear reports whether a sound is in a project that somebody is in.
func (s *Store) MayHear(ctx context.Context, person, hash string) (may bool, err error) {
	err = s.DB.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM project_sounds s JOIN members m ON m.project = s.project
		WHERE m.person = ? AND s.hash = ?)`, person, hash).Scan(&may)
	return may, err
}

// NoteSounds writes down that a project has sounds.
func (s *Store) NoteSounds(ctx context.Context, project string, hashes ...string) error {
	return s.within(ctx, func(tx *sql.Tx) error { return noteSounds(ctx, tx, project, hashes) })
}

func noteSounds(ctx context.Context, tx *sql.Tx, project string, hashes []string) error {
	for _, hash := range hashes {
		if _, err := tx.ExecContext(ctx, `INSERT OR IGNORE INTO project_sounds (project, hash) VALUES (?, ?)`, project, hash); err != nil {
			return fmt.Errorf("note a sound of a project: %w", err)
		}
	}
	return nil
}
