package store

import (
	"context"
	"database/sql"
	"fmt"
	"time"

	"shoal/internal/crew"
)

// Link is a link that is handed over. Its key is known only to whoever has it: the database holds its hash.
type Link struct {
	ID string
	crew.Link
	Project string // of crew.Join
	Person  string // whose password it resets
	By      Person // who gave it
	Created string
}

const linkColumns = `SELECT l.id, kind, project, role, person, by, coalesce(p.name, ''), uses, used, until, ended <> '', l.created
	FROM links l LEFT JOIN people p ON p.id = l.by `

func scanLink(row interface{ Scan(...any) error }) (Link, error) {
	var l Link
	var until string
	err := row.Scan(&l.ID, &l.Kind, &l.Project, &l.Role, &l.Person, &l.By.ID, &l.By.Name, &l.Uses, &l.Used, &until, &l.Ended, &l.Created)
	if err != nil {
		return l, none(err)
	}
	l.Until, err = time.Parse(time.RFC3339, until)
	return l, err
}

// AddLink keeps a link under its key.
func (s *Store) AddLink(ctx context.Context, key string, l Link) error {
	_, err := s.DB.ExecContext(ctx, `INSERT INTO links (id, key, kind, project, role, person, by, uses, until, created)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`, l.ID, keyOf(key), string(l.Kind), l.Project, string(l.Role), l.Person, l.By.ID, l.Uses,
		l.Until.UTC().Format(time.RFC3339), now())
	return err
}

// LinkBy finds a link by its key.
func (s *Store) LinkBy(ctx context.Context, key string) (Link, error) {
	return scanLink(s.DB.QueryRowContext(ctx, linkColumns+`WHERE l.key = ?`, keyOf(key)))
}

// LinksInto lists the links into a project that were not taken back, the newest first.
func (s *Store) LinksInto(ctx context.Context, project string) ([]Link, error) {
	return all(ctx, s.DB, scanLink, linkColumns+`WHERE l.project = ? AND kind = 'join' AND ended = '' ORDER BY l.created DESC`, project)
}

// EndLinks takes links back: one into a project by its id, or all of a kind for a person.
func (s *Store) EndLink(ctx context.Context, project, id string) error {
	r, err := s.DB.ExecContext(ctx, `UPDATE links SET ended = ? WHERE project = ? AND id = ? AND ended = ''`, now(), project, id)
	if err != nil {
		return err
	}
	if n, _ := r.RowsAffected(); n == 0 {
		return ErrNone
	}
	return nil
}

// EndLinksOf takes back all links of a kind that are for a person (empty: for nobody in particular).
func (s *Store) EndLinksOf(ctx context.Context, kind crew.Kind, person string) error {
	_, err := s.DB.ExecContext(ctx, `UPDATE links SET ended = ? WHERE kind = ? AND person = ? AND ended = ''`, now(), string(kind), person)
	return err
}

// Taking is what becomes of a link that somebody takes, all or nothing: an account is made, a password set, somebody brought
// into a project.
type Taking struct {
	Link    Link
	Account *Account // made
	Reset   string   // the new password's hash, of Link.Person
	Joins   string   // who comes into Link.Project
}

// TakeLink uses a link once. It is looked at again on the way: two who take the last use at once do not both have it.
func (s *Store) TakeLink(ctx context.Context, t Taking) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, `UPDATE links SET used = used + 1 WHERE id = ? AND ended = '' AND (uses = 0 OR used < uses)`, t.Link.ID)
		if err != nil {
			return err
		}
		if n, _ := r.RowsAffected(); n == 0 {
			return fmt.Errorf("take a link: %w", ErrNone)
		}
		if t.Account != nil {
			if err := addAccount(ctx, tx, *t.Account); err != nil {
				return err
			}
		}
		if t.Reset != "" {
			if _, err := tx.ExecContext(ctx, `UPDATE accounts SET password = ?, closed = '' WHERE person = ?`, t.Reset, t.Link.Person); err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `DELETE FROM sessions WHERE person = ?`, t.Link.Person); err != nil {
				return err
			}
		}
		if t.Joins == "" {
			return nil
		}
		return putMember(ctx, tx, t.Link.Project, t.Joins, string(t.Link.Role), t.Link.By.ID)
	})
}
