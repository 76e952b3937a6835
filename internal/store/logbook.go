package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"strings"
)

// LogQuery asks for a page of the logbook, the newest first: what is older than a revision (0: from the newest on), and of it
// only what has every one of some words in its label or its author's name, what somebody made, what touched any of some things by
// their ids, and what is of a kind: its first change's name begins with one of these.
type LogQuery struct {
	Before int64
	Words  string
	Author string
	Things []string
	Kinds  []string
	Limit  int
}

// Log reads a page of the logbook. Of changes of one gesture there is one entry: what it came to. Entries are without what
// they did. The index is named, as without figures of the table SQLite would go through a project's changes once for each of them.
func (s *Store) Log(ctx context.Context, id string, q LogQuery) ([]Entry, error) {
	query := `SELECT revision, author, coalesce(people.name, ''), label, kind, spent = 1, time
		FROM changes c LEFT JOIN people ON people.id = c.author WHERE c.project = ?
		AND (gesture = '' OR kind <> 'do' OR NOT EXISTS (SELECT 1 FROM changes d INDEXED BY changes_by_gesture
			WHERE d.project = c.project AND d.author = c.author AND d.gesture = c.gesture AND d.gesture <> '' AND d.kind = 'do'
				AND d.revision > c.revision))`
	args := []any{id}
	if q.Before > 0 {
		query += ` AND revision < ?`
		args = append(args, q.Before)
	}
	for _, word := range strings.Fields(q.Words) {
		query += ` AND (label LIKE ? ESCAPE '\' OR people.name LIKE ? ESCAPE '\')`
		like := "%" + escaped.Replace(word) + "%"
		args = append(args, like, like)
	}
	if q.Author != "" {
		query += ` AND author = ?`
		args = append(args, q.Author)
	}
	if len(q.Things) > 0 {
		list, err := json.Marshal(q.Things)
		if err != nil {
			return nil, fmt.Errorf("read the logbook: %w", err)
		}
		query += ` AND EXISTS (SELECT 1 FROM json_each(c.touched) t, json_each(?) x WHERE instr(t.value, x.value) > 0)`
		args = append(args, string(list))
	}
	if len(q.Kinds) > 0 {
		query += ` AND (0`
		for _, kind := range q.Kinds {
			query += ` OR json_extract(batch, '$[0].type') LIKE ?`
			args = append(args, kind+".%")
		}
		query += `)`
	}
	rows, err := s.DB.QueryContext(ctx, query+` ORDER BY revision DESC LIMIT ?`, append(args, q.Limit)...)
	if err != nil {
		return nil, fmt.Errorf("read the logbook: %w", err)
	}
	defer rows.Close()
	list := []Entry{}
	for rows.Next() {
		var e Entry
		if err := rows.Scan(&e.Revision, &e.Author, &e.Name, &e.Label, &e.Kind, &e.Spent, &e.Time); err != nil {
			return nil, fmt.Errorf("read the logbook: %w", err)
		}
		list = append(list, e)
	}
	return list, rows.Err()
}

var escaped = strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`)

// Windows that have missed more than a few hundred revisions take the document anew: how older ones differ is let go of, in
// one go now and then, so that a long session does not grow by it. What was done, and how it is taken back, stays.
const (
	patchesKept = 1000
	letGoEvery  = 100
)

// letGo forgets how revisions long before one differ.
func letGo(ctx context.Context, tx *sql.Tx, id string, revision int64) error {
	last := revision - patchesKept
	if last <= 0 || revision%letGoEvery != 0 {
		return nil
	}
	_, err := tx.ExecContext(ctx, `UPDATE changes SET patch = '' WHERE project = ? AND revision > ? AND revision <= ?`,
		id, last-letGoEvery, last)
	if err != nil {
		return fmt.Errorf("let go of patches before %d: %w", last, err)
	}
	return nil
}
