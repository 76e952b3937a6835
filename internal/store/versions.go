package store

import "context"

// Version is a revision with a name.
type Version struct {
	ID       string `json:"id" required:"true"`
	Revision int64  `json:"revision" required:"true"`
	Name     string `json:"name" required:"true"`
	By       Person `json:"by" required:"true"`
	Created  string `json:"created" required:"true"`
}

// AddVersion keeps a revision under a name, with its whole document.
func (s *Store) AddVersion(ctx context.Context, project string, v Version, document []byte) error {
	_, err := s.DB.ExecContext(ctx, `INSERT INTO versions (id, project, revision, name, author, document, created)
		VALUES (?, ?, ?, ?, ?, ?, ?)`, v.ID, project, v.Revision, v.Name, v.By.ID, string(document), v.Created)
	return err
}

// Versions lists a project's versions, the newest revision first.
func (s *Store) Versions(ctx context.Context, project string) ([]Version, error) {
	return all(ctx, s.DB, scanVersion, `SELECT v.id, revision, v.name, author, coalesce(p.name, ''), v.created
		FROM versions v LEFT JOIN people p ON p.id = v.author WHERE project = ? ORDER BY revision DESC, v.created DESC`, project)
}

func scanVersion(row interface{ Scan(...any) error }) (v Version, err error) {
	err = row.Scan(&v.ID, &v.Revision, &v.Name, &v.By.ID, &v.By.Name, &v.Created)
	return v, none(err)
}

// Version finds a version of a project, and its document.
func (s *Store) Version(ctx context.Context, project, id string) (v Version, document []byte, err error) {
	row := s.DB.QueryRowContext(ctx, `SELECT v.id, revision, v.name, author, coalesce(p.name, ''), v.created, document
		FROM versions v LEFT JOIN people p ON p.id = v.author WHERE project = ? AND v.id = ?`, project, id)
	err = row.Scan(&v.ID, &v.Revision, &v.Name, &v.By.ID, &v.By.Name, &v.Created, &document)
	return v, document, none(err)
}

// RenameVersion gives a version another name; an empty one removes it.
func (s *Store) RenameVersion(ctx context.Context, project, id, name string) error {
	query, args := `UPDATE versions SET name = ? WHERE project = ? AND id = ?`, []any{name, project, id}
	if name == "" {
		query, args = `DELETE FROM versions WHERE project = ? AND id = ?`, args[1:]
	}
	r, err := s.DB.ExecContext(ctx, query, args...)
	if err != nil {
		return err
	}
	if n, _ := r.RowsAffected(); n == 0 {
		return ErrNone
	}
	return nil
}
