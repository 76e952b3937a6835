package printing

import (
	"context"
	"fmt"
	"log/slog"
	"time"
)

// clockEvery is how often is looked whether the clock was set back.
const clockEvery = 10 * time.Second

// takeUp lets everything that waits, and what a killed process left running, be done now: the queue would wait for the time that
// stands beside a job, and for the lease of whoever led it, and a clock may have been set back since.
func (w *Works) takeUp(ctx context.Context) error {
	for _, query := range []string{
		`UPDATE river_job SET attempt = max(attempt - 1, 0) WHERE state = 'running'`,
		`UPDATE river_job SET state = 'available', scheduled_at = datetime('now', 'subsec')
			WHERE state IN ('available', 'running', 'scheduled', 'retryable')`,
		`DELETE FROM river_leader`, // nobody else works on this folder
	} {
		if _, err := w.store.DB.ExecContext(ctx, query); err != nil {
			return fmt.Errorf("take up interrupted jobs: %w", err)
		}
	}
	return nil
}

// watchClock lets what waits be done when the clock is set back while the works run: no job of theirs is meant for later.
func (w *Works) watchClock(ctx context.Context) {
	tick := time.NewTicker(clockEvery)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
		if err := w.dueNow(ctx); err != nil && ctx.Err() == nil {
			slog.Warn("jobs that a clock holds up stay where they are", "error", err)
		}
	}
}

// dueNow brings jobs that are to begin later to the front, in their order.
func (w *Works) dueNow(ctx context.Context) error {
	_, err := w.store.DB.ExecContext(ctx, `UPDATE river_job SET scheduled_at = datetime('now', 'subsec')
		WHERE state = 'available' AND scheduled_at > datetime('now', '+2 seconds')`)
	return err
}
