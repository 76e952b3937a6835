-- +goose Up
CREATE TABLE presets (
  id      TEXT PRIMARY KEY,
  author  TEXT NOT NULL,
  name    TEXT NOT NULL,
  body    TEXT NOT NULL,
  created TEXT NOT NULL,
  binned  TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE INDEX presets_by_name ON presets (binned, name);

-- +goose Down
DROP TABLE presets;
