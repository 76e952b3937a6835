package store

import (
	"context"
	"fmt"
	"regexp"
)

// sumInText is how the hash of a sound looks wherever it is written.
var sumInText = regexp.MustCompile(`[0-9a-f]{64}`)

// mentioning are the texts in which sounds are named: documents, what leads to any of their revisions, prints, presets, the shelf.
var mentioning = []string{
	`SELECT document FROM projects`,
	`SELECT batch || ' ' || undo || ' ' || patch FROM changes`,
	`SELECT spec || ' ' || result || ' ' || lineage FROM prints`,
	`SELECT document FROM versions`,
	`SELECT body FROM presets`,
	`SELECT body FROM shelf`,
}

// Mentioned is what any revision of any project can reach of sounds, by their hashes: whatever looks like one anywhere.
func (s *Store) Mentioned(ctx context.Context) (map[string]bool, error) {
	used := map[string]bool{}
	for _, q := range mentioning {
		if err := s.mentionedIn(ctx, q, used); err != nil {
			return nil, fmt.Errorf("look for what is in use: %w", err)
		}
	}
	return used, nil
}

func (s *Store) mentionedIn(ctx context.Context, query string, used map[string]bool) error {
	rows, err := s.DB.QueryContext(ctx, query)
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		var text string
		if err := rows.Scan(&text); err != nil {
			return err
		}
		for _, hash := range sumInText.FindAllString(text, -1) {
			used[hash] = true
		}
	}
	return rows.Err()
}

// ForgetAudio takes the note of a sound away.
func (s *Store) ForgetAudio(ctx context.Context, hash string) error {
	_, err := s.DB.ExecContext(ctx, `DELETE FROM audio WHERE hash = ?`, hash)
	return err
}
