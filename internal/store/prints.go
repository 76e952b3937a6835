package store

import (
	"context"
	"database/sql"
)

// Print is a print or an export, waiting, running or ended.
type Print struct {
	ID      string
	Project string
	Author  string
	Job     int64
	Spec    string
	State   string
	Error   string
	Result  string // audio hash, or the name of the exported file
	Lineage string
	Created string
}

const printColumns = `id, project, author, job, spec, state, error, result, lineage, created`

func scanPrint(row interface{ Scan(...any) error }) (Print, error) {
	var p Print
	err := row.Scan(&p.ID, &p.Project, &p.Author, &p.Job, &p.Spec, &p.State, &p.Error, &p.Result, &p.Lineage, &p.Created)
	return p, none(err)
}

// AddPrint stores a print that waits for its turn, together with its job, which queue makes in the same transaction.
func (s *Store) AddPrint(ctx context.Context, p Print, queue func(tx *sql.Tx) (job int64, err error)) (Print, error) {
	err := s.within(ctx, func(tx *sql.Tx) error {
		var err error
		if p.Job, err = queue(tx); err != nil {
			return err
		}
		p.State = "waiting"
		_, err = tx.ExecContext(
			ctx,
			`INSERT INTO prints (`+printColumns+`) VALUES (?, ?, ?, ?, ?, 'waiting', '', '', '', ?)`,
			p.ID,
			p.Project,
			p.Author,
			p.Job,
			p.Spec,
			now(),
		)
		return err
	})
	return p, err
}

// Unfinished lists the prints that wait or run, the oldest first: in the order in which they were asked for, whatever the clock said.
func (s *Store) Unfinished(ctx context.Context) ([]Print, error) {
	return s.prints(ctx, `SELECT `+printColumns+` FROM prints WHERE state IN ('waiting', 'running') ORDER BY rowid`)
}

// Requeue gives a print another job, which queue makes in the same transaction.
func (s *Store) Requeue(ctx context.Context, id string, queue func(tx *sql.Tx) (job int64, err error)) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		job, err := queue(tx)
		if err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `UPDATE prints SET job = ? WHERE id = ?`, job, id)
		return err
	})
}

// SetPrint stores how a print stands. A print that has ended stays as it ended.
func (s *Store) SetPrint(ctx context.Context, p Print) error {
	_, err := s.DB.ExecContext(
		ctx,
		`UPDATE prints SET job = ?, state = ?, error = ?, result = ?, lineage = ? WHERE id = ? AND state IN ('waiting', 'running')`,
		p.Job,
		p.State,
		p.Error,
		p.Result,
		p.Lineage,
		p.ID,
	)
	return err
}

// Print finds a print.
func (s *Store) Print(ctx context.Context, id string) (Print, error) {
	return scanPrint(s.DB.QueryRowContext(ctx, `SELECT `+printColumns+` FROM prints WHERE id = ?`, id))
}

// Prints lists a project's newest prints, the newest first.
func (s *Store) Prints(ctx context.Context, project string, limit int) ([]Print, error) {
	return s.prints(ctx, `SELECT `+printColumns+` FROM prints WHERE project = ? ORDER BY rowid DESC LIMIT ?`, project, limit)
}

func (s *Store) prints(ctx context.Context, query string, args ...any) ([]Print, error) {
	rows, err := s.DB.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	list := []Print{}
	for rows.Next() {
		p, err := scanPrint(rows)
		if err != nil {
			return nil, err
		}
		list = append(list, p)
	}
	return list, rows.Err()
}
