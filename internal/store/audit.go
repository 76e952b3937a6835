package store

import "context"

// Act is an entry of the record of what was done: sign-ins, refusals, roles, exports.
type Act struct {
	ID      int64  `json:"id" required:"true"`
	Time    string `json:"time" required:"true"`
	Person  Person `json:"person" required:"true"` // empty: nobody who is known
	Address string `json:"address" required:"true"`
	Project string `json:"project" required:"true"`
	What    string `json:"what" required:"true"`
	Says    string `json:"says" required:"true"`
}

// actsKept is how many entries of the record are kept: about a year of a busy studio.
const actsKept = 100_000

// Note adds to the record of what was done.
func (s *Store) Note(ctx context.Context, a Act) error {
	_, err := s.DB.ExecContext(ctx, `INSERT INTO audit (time, person, address, project, what, says) VALUES (?, ?, ?, ?, ?, ?)`,
		now(), a.Person.ID, a.Address, a.Project, a.What, a.Says)
	if err == nil {
		_, err = s.DB.ExecContext(ctx, `DELETE FROM audit WHERE id <= (SELECT max(id) FROM audit) - ?`, actsKept)
	}
	return err
}

// Acts lists what was done before an entry (0: up to now), the newest first.
func (s *Store) Acts(ctx context.Context, before int64, limit int) ([]Act, error) {
	scan := func(row interface{ Scan(...any) error }) (a Act, err error) {
		err = row.Scan(&a.ID, &a.Time, &a.Person.ID, &a.Person.Name, &a.Address, &a.Project, &a.What, &a.Says)
		return a, err
	}
	if before <= 0 {
		before = 1 << 62
	}
	return all(ctx, s.DB, scan, `SELECT a.id, a.time, a.person, coalesce(p.name, ''), a.address, coalesce(j.name, ''), a.what, a.says
		FROM audit a LEFT JOIN people p ON p.id = a.person LEFT JOIN projects j ON j.id = a.project
		WHERE a.id < ? ORDER BY a.id DESC LIMIT ?`, before, limit)
}
