-- +goose Up
-- What tells the document at a revision from any other: a window that has another takes the document anew.
ALTER TABLE changes ADD COLUMN hash TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE changes DROP COLUMN hash;
