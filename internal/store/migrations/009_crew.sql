-- +goose Up
-- Several machines: who has an account, who is in which project, what links that are handed over open, and what was done.
CREATE TABLE accounts (
  person   TEXT PRIMARY KEY REFERENCES people(id),
  name     TEXT NOT NULL,
  login    TEXT NOT NULL UNIQUE,
  password TEXT NOT NULL,
  keeper   INTEGER NOT NULL DEFAULT 0,
  created  TEXT NOT NULL,
  closed   TEXT NOT NULL DEFAULT ''
) STRICT;

CREATE TABLE sessions (
  token  TEXT PRIMARY KEY,
  data   BLOB NOT NULL,
  expiry INTEGER NOT NULL,
  person TEXT NOT NULL DEFAULT '',
  agent  TEXT NOT NULL DEFAULT '',
  begun  TEXT NOT NULL,
  seen   TEXT NOT NULL
) STRICT;
CREATE INDEX sessions_by_person ON sessions (person);

CREATE TABLE members (
  project TEXT NOT NULL REFERENCES projects(id) ON DELETE CASCADE,
  person  TEXT NOT NULL REFERENCES people(id),
  role    TEXT NOT NULL CHECK (role IN ('listener', 'engineer', 'owner')),
  by      TEXT NOT NULL DEFAULT '',
  since   TEXT NOT NULL,
  PRIMARY KEY (project, person)
) STRICT;
CREATE INDEX members_by_person ON members (person);

ALTER TABLE projects ADD COLUMN listeners_export INTEGER NOT NULL DEFAULT 0;

CREATE TABLE links (
  id      TEXT PRIMARY KEY,
  key     TEXT NOT NULL UNIQUE,
  kind    TEXT NOT NULL CHECK (kind IN ('first', 'account', 'reset', 'join')),
  project TEXT NOT NULL DEFAULT '',
  role    TEXT NOT NULL DEFAULT '',
  person  TEXT NOT NULL DEFAULT '',
  by      TEXT NOT NULL DEFAULT '',
  uses    INTEGER NOT NULL,
  used    INTEGER NOT NULL DEFAULT 0,
  until   TEXT NOT NULL,
  ended   TEXT NOT NULL DEFAULT '',
  created TEXT NOT NULL
) STRICT;
CREATE INDEX links_by_project ON links (project);

CREATE TABLE audit (
  id      INTEGER PRIMARY KEY,
  time    TEXT NOT NULL,
  person  TEXT NOT NULL,
  address TEXT NOT NULL,
  project TEXT NOT NULL,
  what    TEXT NOT NULL,
  says    TEXT NOT NULL
) STRICT;

CREATE TABLE versions (
  id       TEXT PRIMARY KEY,
  project  TEXT NOT NULL REFERENCES projects(id) ON DELETE CASCADE,
  revision INTEGER NOT NULL,
  name     TEXT NOT NULL,
  author   TEXT NOT NULL,
  document TEXT NOT NULL,
  created  TEXT NOT NULL
) STRICT;
CREATE INDEX versions_by_project ON versions (project, revision);

-- A hash is no permission: which sounds a project has ever had.
CREATE TABLE project_sounds (
  project TEXT NOT NULL REFERENCES projects(id) ON DELETE CASCADE,
  hash    TEXT NOT NULL,
  PRIMARY KEY (project, hash)
) STRICT, WITHOUT ROWID;
INSERT OR IGNORE INTO project_sounds SELECT p.id, json_extract(a.value, '$.hash') FROM projects p, json_each(p.document, '$.audio') a;

-- +goose Down
DROP TABLE project_sounds;
DROP TABLE versions;
DROP TABLE audit;
DROP TABLE links;
ALTER TABLE projects DROP COLUMN listeners_export;
DROP TABLE members;
DROP TABLE sessions;
DROP TABLE accounts;
