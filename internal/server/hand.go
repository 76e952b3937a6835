package server

import (
	"fmt"
	"net/http"
	"time"

	"shoal/internal/engine"
	"shoal/internal/project"
	"shoal/internal/store"
)

// inHand says of a change that it concerns a row which somebody else has in hand: they are to be asked first.
func inHand(o *opened, next *project.Project, now *project.Written, lines store.Lines, author string) error {
	touched := o.written.RowsChanged(now)
	for i := range lines.Changed {
		if at, ok := next.PlaceOf(next.Lines[i].Owner, "", engine.EffectInfo); ok {
			touched = append(touched, at.Row)
		}
	}
	for _, id := range touched {
		row, ok := o.doc.Channel(id)
		if !ok || row.Hand == nil || row.Hand.By.ID == author {
			continue
		}
		until, err := time.Parse(time.RFC3339, row.Hand.Until)
		if err != nil || time.Now().After(until) {
			continue
		}
		return &refusal{http.StatusConflict, fmt.Errorf("%s is in %s's hand for another %s: ask first", row.Name, row.Hand.By.Name, left(until))}
	}
	return nil
}

func left(until time.Time) string {
	minutes := int(time.Until(until).Minutes()) + 1
	if minutes == 1 {
		return "minute"
	}
	return fmt.Sprintf("%d minutes", minutes)
}
