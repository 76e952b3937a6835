-- +goose Up
CREATE TABLE shelf (
  id      TEXT PRIMARY KEY,
  author  TEXT NOT NULL,
  name    TEXT NOT NULL,
  body    TEXT NOT NULL,
  created TEXT NOT NULL,
  binned  TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX shelf_by_name ON shelf (binned, name);

-- +goose Down
DROP TABLE shelf;
