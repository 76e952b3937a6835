-- +goose Up
-- The logbook shows a gesture once, and undo takes it back as a whole.
CREATE INDEX changes_by_gesture ON changes (project, author, gesture) WHERE gesture <> '';

-- +goose Down
DROP INDEX changes_by_gesture;
