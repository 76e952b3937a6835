-- +goose Up
-- What a browser proves with that it is a person's: a hash of its secret. Whoever gave a name before this has none until they come back.
ALTER TABLE people ADD COLUMN key TEXT NOT NULL DEFAULT '';
CREATE UNIQUE INDEX people_by_key ON people (key) WHERE key <> '';

-- +goose Down
DROP INDEX people_by_key;
ALTER TABLE people DROP COLUMN key;
