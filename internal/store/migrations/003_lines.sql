-- +goose Up
-- Lines may hold very many points: each is kept by itself, so that an edit writes only those that it changes.
CREATE TABLE lines (
  project TEXT NOT NULL REFERENCES projects(id) ON DELETE CASCADE,
  place   INTEGER NOT NULL,
  line    TEXT NOT NULL,
  PRIMARY KEY (project, place)
) STRICT, WITHOUT ROWID;

INSERT INTO lines (project, place, line)
  SELECT p.id, l.key, l.value FROM projects p, json_each(p.document, '$.lines') l WHERE l.type = 'object';
UPDATE projects SET document = json_remove(document, '$.lines');

-- +goose Down
UPDATE projects SET document = json_set(document, '$.lines',
  json('[' || coalesce((SELECT group_concat(line, ',' ORDER BY place) FROM lines WHERE project = projects.id), '') || ']'));
DROP TABLE lines;
