-- +goose Up
CREATE TABLE people (
  id      TEXT PRIMARY KEY,
  name    TEXT NOT NULL,
  created TEXT NOT NULL
) STRICT;

CREATE TABLE projects (
  id       TEXT PRIMARY KEY,
  name     TEXT NOT NULL,
  document TEXT NOT NULL,
  revision INTEGER NOT NULL,
  created  TEXT NOT NULL,
  changed  TEXT NOT NULL,
  binned   TEXT NOT NULL DEFAULT ''
) STRICT;

CREATE TABLE changes (
  project  TEXT NOT NULL REFERENCES projects(id) ON DELETE CASCADE,
  revision INTEGER NOT NULL,
  author   TEXT NOT NULL,
  label    TEXT NOT NULL,
  kind     TEXT NOT NULL CHECK (kind IN ('do', 'undo', 'redo')),
  batch    TEXT NOT NULL,
  undo     TEXT NOT NULL,
  patch    TEXT NOT NULL,
  spent    INTEGER NOT NULL DEFAULT 0,
  time     TEXT NOT NULL,
  PRIMARY KEY (project, revision)
) STRICT;

CREATE TABLE audio (
  hash     TEXT PRIMARY KEY,
  name     TEXT NOT NULL,
  frames   INTEGER NOT NULL,
  channels INTEGER NOT NULL,
  rate     INTEGER NOT NULL,
  bits     INTEGER NOT NULL,
  origin   TEXT NOT NULL,
  created  TEXT NOT NULL
) STRICT;

CREATE TABLE prints (
  id       TEXT PRIMARY KEY,
  project  TEXT NOT NULL REFERENCES projects(id) ON DELETE CASCADE,
  author   TEXT NOT NULL,
  job      INTEGER NOT NULL,
  spec     TEXT NOT NULL,
  state    TEXT NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'failed', 'cancelled')),
  error    TEXT NOT NULL DEFAULT '',
  result   TEXT NOT NULL DEFAULT '',
  lineage  TEXT NOT NULL DEFAULT '',
  created  TEXT NOT NULL
) STRICT;
CREATE INDEX prints_by_project ON prints (project, created);

-- +goose Down
DROP TABLE prints;
DROP TABLE audio;
DROP TABLE changes;
DROP TABLE projects;
DROP TABLE people;
