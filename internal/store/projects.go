package store

import (
	"context"
	"database/sql"
	"fmt"
)

// Summary is a project in a list.
type Summary struct {
	ID       string `json:"id" required:"true"`
	Name     string `json:"name" required:"true"`
	Revision int64  `json:"revision" required:"true"`
	Created  string `json:"created" required:"true"`
	Changed  string `json:"changed" required:"true"`
	Binned   string `json:"binned" required:"true"` // when it was put in the bin; empty: it was not
	By       string `json:"by" required:"true"`     // who changed it last; empty: nobody has
}

// Projects lists all projects, the last changed first.
func (s *Store) Projects(ctx context.Context) ([]Summary, error) {
	rows, err := s.DB.QueryContext(ctx, `SELECT id, name, revision, created, changed, binned,
		coalesce((SELECT people.name FROM changes JOIN people ON people.id = changes.author
			WHERE changes.project = projects.id ORDER BY changes.revision DESC LIMIT 1), '')
		FROM projects ORDER BY changed DESC`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	list := []Summary{}
	for rows.Next() {
		var p Summary
		if err := rows.Scan(&p.ID, &p.Name, &p.Revision, &p.Created, &p.Changed, &p.Binned, &p.By); err != nil {
			return nil, err
		}
		list = append(list, p)
	}
	return list, rows.Err()
}

// Bin puts a project in the bin or takes it out.
func (s *Store) Bin(ctx context.Context, id string, in bool) error {
	t := ""
	if in {
		t = now()
	}
	r, err := s.DB.ExecContext(ctx, `UPDATE projects SET binned = ? WHERE id = ?`, t, id)
	if err != nil {
		return err
	}
	if n, _ := r.RowsAffected(); n == 0 {
		return ErrNone
	}
	return nil
}

// Entry is one batch of changes in the logbook.
type Entry struct {
	Revision int64
	Author   string
	Name     string // of the author, where it is read
	Label    string
	Kind     string // do, undo, redo
	Batch    string
	Undo     string
	Patch    string
	Touched  string // what it touched of the document, as a JSON list
	Gesture  string // what tells changes of one gesture from others; empty: it is one by itself
	Spent    bool   // undone already (for do and redo), or redone (for undo)
	Time     string
	Hash     string // of the document at this revision
	// Sounds are the hashes of those that came with it, where it is stored.
	Sounds []string
}

// entriesOf selects the changes of a project together with the names of their authors; conditions and order follow.
const entriesOf = `SELECT revision, author, coalesce(people.name, ''), label, kind, batch, undo, patch, touched, gesture, spent = 1,
	time, hash
	FROM changes LEFT JOIN people ON people.id = changes.author WHERE project = ?`

func scanEntry(row interface{ Scan(...any) error }) (Entry, error) {
	var e Entry
	err := row.Scan(
		&e.Revision,
		&e.Author,
		&e.Name,
		&e.Label,
		&e.Kind,
		&e.Batch,
		&e.Undo,
		&e.Patch,
		&e.Touched,
		&e.Gesture,
		&e.Spent,
		&e.Time,
		&e.Hash,
	)
	return e, err
}

// Since lists the entries after a revision, the oldest first, at most limit.
func (s *Store) Since(ctx context.Context, id string, revision int64, limit int) ([]Entry, error) {
	return s.entries(ctx, entriesOf+` AND revision > ? ORDER BY revision LIMIT ?`, id, revision, limit)
}

// After lists the entries after a revision, the newest first, at most limit.
func (s *Store) After(ctx context.Context, id string, revision int64, limit int) ([]Entry, error) {
	return s.entries(ctx, entriesOf+` AND revision > ? ORDER BY revision DESC LIMIT ?`, id, revision, limit)
}

// Latest lists the newest entries, the newest first.
func (s *Store) Latest(ctx context.Context, id string, limit int) ([]Entry, error) {
	return s.entries(ctx, entriesOf+` ORDER BY revision DESC LIMIT ?`, id, limit)
}

func (s *Store) entries(ctx context.Context, query string, args ...any) ([]Entry, error) {
	rows, err := s.DB.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	list := []Entry{}
	for rows.Next() {
		e, err := scanEntry(rows)
		if err != nil {
			return nil, err
		}
		list = append(list, e)
	}
	return list, rows.Err()
}

// LastToUndo finds an author's newest change that is not undone yet.
func (s *Store) LastToUndo(ctx context.Context, id, author string) (Entry, error) {
	e, err := scanEntry(
		s.DB.QueryRowContext(
			ctx,
			entriesOf+` AND author = ? AND kind IN ('do', 'redo') AND spent = 0 ORDER BY revision DESC LIMIT 1`,
			id,
			author,
		),
	)
	return e, none(err)
}

// OfGesture lists an author's changes of one gesture that are not undone yet, the newest first.
func (s *Store) OfGesture(ctx context.Context, id, author, gesture string) ([]Entry, error) {
	return s.entries(
		ctx,
		entriesOf+` AND author = ? AND gesture = ? AND kind = 'do' AND spent = 0 ORDER BY revision DESC`,
		id,
		author,
		gesture,
	)
}

// OthersSince lists what others than the author have changed after a revision and not taken back.
func (s *Store) OthersSince(ctx context.Context, id, author string, revision int64) ([]Entry, error) {
	return s.entries(
		ctx,
		entriesOf+` AND author <> ? AND revision > ? AND kind IN ('do', 'redo') AND spent <> 1 ORDER BY revision DESC`,
		id,
		author,
		revision,
	)
}

// PassOver marks an entry as one that undo and redo do not come back to, though what it did stands.
func (s *Store) PassOver(ctx context.Context, id string, revisions []int64) error {
	return s.within(ctx, func(tx *sql.Tx) error { return spend(ctx, tx, id, revisions, 2) })
}

func spend(ctx context.Context, tx *sql.Tx, id string, revisions []int64, how int) error {
	for _, revision := range revisions {
		if _, err := tx.ExecContext(ctx, `UPDATE changes SET spent = ? WHERE project = ? AND revision = ?`, how, id, revision); err != nil {
			return fmt.Errorf("mark change %d: %w", revision, err)
		}
	}
	return nil
}

// LastToRedo finds an author's newest undo that is not redone, if the author has
// done nothing else since.
func (s *Store) LastToRedo(ctx context.Context, id, author string) (Entry, error) {
	var last sql.NullInt64
	if err := s.DB.QueryRowContext(ctx, `SELECT max(revision) FROM changes WHERE project = ? AND author = ? AND kind = 'do'`, id, author).
		Scan(&last); err != nil {
		return Entry{}, err
	}
	e, err := scanEntry(
		s.DB.QueryRowContext(
			ctx,
			entriesOf+` AND author = ? AND kind = 'undo' AND spent = 0 AND revision > ? ORDER BY revision DESC LIMIT 1`,
			id,
			author,
			last.Int64,
		),
	)
	return e, none(err)
}
