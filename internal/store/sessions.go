package store

import (
	"context"
	"database/sql"
	"encoding/hex"
	"errors"
	"time"

	"crypto/sha256"
)

// Sessions keeps what scs holds of sign-ins (it is a store of scs.SessionManager's). Tokens are kept as their hashes only.
type Sessions struct{ S *Store }

func sessionKey(token string) string {
	sum := sha256.Sum256([]byte(token))
	return hex.EncodeToString(sum[:])
}

// Find gives what belongs to a token that still holds.
func (x Sessions) Find(token string) ([]byte, bool, error) {
	return x.FindCtx(context.Background(), token)
}

// FindCtx is Find.
func (x Sessions) FindCtx(ctx context.Context, token string) (b []byte, found bool, err error) {
	row := x.S.DB.QueryRowContext(ctx, `SELECT data FROM sessions WHERE token = ? AND expiry > ?`, sessionKey(token), time.Now().UnixMilli())
	err = row.Scan(&b)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, false, nil
	}
	return b, err == nil, err
}

// Commit keeps a session.
func (x Sessions) Commit(token string, b []byte, expiry time.Time) error {
	return x.CommitCtx(context.Background(), token, b, expiry)
}

// CommitCtx is Commit. Sessions that hold no longer go by the way.
func (x Sessions) CommitCtx(ctx context.Context, token string, b []byte, expiry time.Time) error {
	_, err := x.S.DB.ExecContext(ctx, `INSERT INTO sessions (token, data, expiry, begun, seen) VALUES (?, ?, ?, ?, ?)
		ON CONFLICT (token) DO UPDATE SET data = excluded.data, expiry = excluded.expiry, seen = excluded.seen`,
		sessionKey(token), b, expiry.UnixMilli(), now(), now())
	if err == nil {
		_, err = x.S.DB.ExecContext(ctx, `DELETE FROM sessions WHERE expiry <= ?`, time.Now().UnixMilli())
	}
	return err
}

// Delete ends a session.
func (x Sessions) Delete(token string) error { return x.DeleteCtx(context.Background(), token) }

// DeleteCtx is Delete.
func (x Sessions) DeleteCtx(ctx context.Context, token string) error {
	_, err := x.S.DB.ExecContext(ctx, `DELETE FROM sessions WHERE token = ?`, sessionKey(token))
	return err
}

// Session is a sign-in, as whoever it belongs to sees it.
type Session struct {
	ID    string `json:"id" required:"true"`
	Agent string `json:"agent" required:"true"` // what the browser calls itself
	Begun string `json:"begun" required:"true"`
	Seen  string `json:"seen" required:"true"`
	Here  bool   `json:"here" required:"true"` // it is the one that asks
}

// NoteSession writes down whose a session is, and of which browser.
func (s *Store) NoteSession(ctx context.Context, token, person, agent string) error {
	_, err := s.DB.ExecContext(ctx, `UPDATE sessions SET person = ?, agent = ? WHERE token = ?`, person, agent, sessionKey(token))
	return err
}

// SessionsOf lists a person's sessions that hold, the last seen first; token is the one that asks.
func (s *Store) SessionsOf(ctx context.Context, person, token string) ([]Session, error) {
	scan := func(row interface{ Scan(...any) error }) (x Session, err error) {
		err = row.Scan(&x.ID, &x.Agent, &x.Begun, &x.Seen, &x.Here)
		return x, err
	}
	return all(ctx, s.DB, scan, `SELECT substr(token, 1, 16), agent, begun, seen, token = ? FROM sessions
		WHERE person = ? AND expiry > ? ORDER BY seen DESC`, sessionKey(token), person, time.Now().UnixMilli())
}

// EndSession ends one of a person's sessions.
func (s *Store) EndSession(ctx context.Context, person, id string) error {
	r, err := s.DB.ExecContext(ctx, `DELETE FROM sessions WHERE person = ? AND substr(token, 1, 16) = ?`, person, id)
	if err != nil {
		return err
	}
	if n, _ := r.RowsAffected(); n == 0 {
		return ErrNone
	}
	return nil
}
