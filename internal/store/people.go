package store

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"encoding/hex"
)

// Person is somebody who has given a name. The id is public: it stands in the logbook.
type Person struct {
	ID   string `json:"id" required:"true"`
	Name string `json:"name" required:"true"`
}

// NewSecret is what only a person's browser knows. The database holds no more than its hash.
func NewSecret() string {
	b := make([]byte, 32)
	_, _ = rand.Read(b) // never fails (crypto/rand)
	return base64.RawURLEncoding.EncodeToString(b)
}

// keyOf is what is kept of a secret: it has 256 bits of chance, so one turn of SHA-256 is enough.
func keyOf(secret string) string {
	sum := sha256.Sum256([]byte(secret))
	return hex.EncodeToString(sum[:])
}

// PutPerson adds or renames a person, who proves with a secret from now on who they are.
func (s *Store) PutPerson(ctx context.Context, p Person, secret string) error {
	_, err := s.DB.ExecContext(ctx, `INSERT INTO people (id, name, key, created) VALUES (?, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET name = excluded.name, key = excluded.key`, p.ID, p.Name, keyOf(secret), now())
	return err
}

// Person finds a person.
func (s *Store) Person(ctx context.Context, id string) (Person, error) {
	p := Person{ID: id}
	err := s.DB.QueryRowContext(ctx, `SELECT name FROM people WHERE id = ?`, id).Scan(&p.Name)
	return p, none(err)
}

// PersonBy finds the person whose secret it is.
func (s *Store) PersonBy(ctx context.Context, secret string) (Person, error) {
	var p Person
	err := s.DB.QueryRowContext(ctx, `SELECT id, name FROM people WHERE key = ?`, keyOf(secret)).Scan(&p.ID, &p.Name)
	return p, none(err)
}

// PersonWithoutKey finds a person who gave a name before there were secrets, and has not come back since.
func (s *Store) PersonWithoutKey(ctx context.Context, id string) (Person, error) {
	p := Person{ID: id}
	err := s.DB.QueryRowContext(ctx, `SELECT name FROM people WHERE id = ? AND key = ''`, id).Scan(&p.Name)
	return p, none(err)
}
