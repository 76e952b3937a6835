package store

import "context"

// Sound is one that a project's newest revision has.
type Sound struct{ Project, Hash, Name string }

// Sounds lists what the newest revisions of all projects have of sounds.
func (s *Store) Sounds(ctx context.Context) ([]Sound, error) {
	rows, err := s.DB.QueryContext(ctx, `SELECT p.name, json_extract(a.value, '$.hash'), json_extract(a.value, '$.name')
		FROM projects p, json_each(p.document, '$.audio') a ORDER BY p.name`)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var list []Sound
	for rows.Next() {
		var x Sound
		if err := rows.Scan(&x.Project, &x.Hash, &x.Name); err != nil {
			return nil, err
		}
		list = append(list, x)
	}
	return list, rows.Err()
}

// Schema is the version that the database has, and the newest that this program knows.
func (s *Store) Schema(ctx context.Context) (has, knows int64, err error) {
	g, err := migrator(s.DB)
	if err != nil {
		return 0, 0, err
	}
	has, err = version(ctx, s.DB)
	return has, newest(g), err
}
