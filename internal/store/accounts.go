package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"strings"

	"golang.org/x/text/unicode/norm"
)

// Account is somebody who signs in. Its name is the person's, and nobody else has it.
type Account struct {
	Person
	Password string // as crew.HashPassword gives it
	Keeper   bool   // keeps this Shoal: its accounts, and the record of what was done
	Created  string
	Closed   string // since when it can no longer be signed in to; empty: it can
}

// ErrTaken is returned where somebody else has a name already.
var ErrTaken = errors.New("somebody has an account of this name already: take another")

// login is a name as it is told from others: however it is written.
func login(name string) string { return norm.NFC.String(strings.ToLower(strings.TrimSpace(name))) }

const accountColumns = `SELECT person, name, password, keeper, created, closed FROM accounts `

func scanAccount(row interface{ Scan(...any) error }) (Account, error) {
	var a Account
	err := row.Scan(&a.ID, &a.Name, &a.Password, &a.Keeper, &a.Created, &a.Closed)
	return a, none(err)
}

// AddAccount adds an account and its person. The first one is given all projects that nobody owns: what was here before it.
func (s *Store) AddAccount(ctx context.Context, a Account) error {
	return s.within(ctx, func(tx *sql.Tx) error { return addAccount(ctx, tx, a) })
}

func addAccount(ctx context.Context, tx *sql.Tx, a Account) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO people (id, name, key, created) VALUES (?, ?, ?, ?)`, a.ID, a.Name, keyOf(NewSecret()), now())
	if err == nil {
		_, err = tx.ExecContext(ctx, `INSERT INTO accounts (person, name, login, password, keeper, created) VALUES (?, ?, ?, ?, ?, ?)`,
			a.ID, a.Name, login(a.Name), a.Password, a.Keeper, now())
	}
	if err != nil {
		return fmt.Errorf("add an account: %w", taken(err))
	}
	return nil
}

func taken(err error) error {
	if strings.Contains(err.Error(), "UNIQUE constraint failed: accounts.login") {
		return ErrTaken
	}
	return err
}

// RenameAccount gives an account another name, and its person.
func (s *Store) RenameAccount(ctx context.Context, person, name string) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE accounts SET name = ?, login = ? WHERE person = ?`, name, login(name), person); err != nil {
			return taken(err)
		}
		_, err := tx.ExecContext(ctx, `UPDATE people SET name = ? WHERE id = ?`, name, person)
		return err
	})
}

// AdoptProjects makes the first keeper an owner of every project that has none.
func (s *Store) AdoptProjects(ctx context.Context) error {
	_, err := s.DB.ExecContext(ctx, `INSERT OR REPLACE INTO members (project, person, role, since)
		SELECT p.id, k.person, 'owner', ? FROM projects p, (SELECT person FROM accounts WHERE keeper = 1 ORDER BY created LIMIT 1) k
		WHERE NOT EXISTS (SELECT 1 FROM members m WHERE m.project = p.id AND m.role = 'owner')`, now())
	return err
}

// Account finds the account of a person.
func (s *Store) Account(ctx context.Context, person string) (Account, error) {
	return scanAccount(s.DB.QueryRowContext(ctx, accountColumns+`WHERE person = ?`, person))
}

// AccountCalled finds an account by its name, however that is written.
func (s *Store) AccountCalled(ctx context.Context, name string) (Account, error) {
	return scanAccount(s.DB.QueryRowContext(ctx, accountColumns+`WHERE login = ?`, login(name)))
}

// Accounts lists all accounts by name.
func (s *Store) Accounts(ctx context.Context) ([]Account, error) {
	return all(ctx, s.DB, scanAccount, accountColumns+`ORDER BY login`)
}

// SetPassword gives an account another password and ends its sessions, but for one (empty: all).
func (s *Store) SetPassword(ctx context.Context, person, password, but string) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `UPDATE accounts SET password = ? WHERE person = ?`, password, person); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM sessions WHERE person = ? AND token <> ?`, person, sessionKey(but))
		return err
	})
}

// CloseAccount closes an account and ends its sessions, or opens it again. What its person did stays theirs.
func (s *Store) CloseAccount(ctx context.Context, person string, closed bool) error {
	t := ""
	if closed {
		t = now()
	}
	return s.within(ctx, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, `UPDATE accounts SET closed = ? WHERE person = ?`, t, person)
		if err != nil {
			return err
		}
		if n, _ := r.RowsAffected(); n == 0 {
			return ErrNone
		}
		if closed {
			_, err = tx.ExecContext(ctx, `DELETE FROM sessions WHERE person = ?`, person)
		}
		return err
	})
}

// all reads every row of a query.
func all[T any](
	ctx context.Context, db *sql.DB, scan func(interface{ Scan(...any) error }) (T, error), query string, args ...any,
) ([]T, error) {
	rows, err := db.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	list := []T{}
	for rows.Next() {
		x, err := scan(rows)
		if err != nil {
			return nil, err
		}
		list = append(list, x)
	}
	return list, rows.Err()
}
