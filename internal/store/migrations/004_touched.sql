-- +goose Up
-- What of the document a change touched: undo passes over a change of one's own that somebody else has built upon.
ALTER TABLE changes ADD COLUMN touched TEXT NOT NULL DEFAULT '[]';
-- Changes of one gesture are one entry of the logbook and one undo.
ALTER TABLE changes ADD COLUMN gesture TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE changes DROP COLUMN gesture;
ALTER TABLE changes DROP COLUMN touched;
