package demo

import (
	"context"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// settled says what the tide table is recorded from, and prints what is decided: the first two stages of the tide table lie
// before its line, and the harbour of the High Water was printed where it stood. Since then its slow water was closed a little
// further: the print is brighter than what its row gives now, and a sounding says so.
func settled(ctx context.Context, p *project.Project, folder *audiofile.Folder) (*project.Project, error) {
	row, _, _ := clipIn(p, "Tide table", 0)
	harbour, last, _ := clipIn(p, "Harbour", 3)
	water := harbour.Chain.Nodes[1].Stage
	now, reader := water.Params["freq"], "reader"
	p, err := applied(p,
		&project.PutWaterline{Node: row.Chain.Nodes[1].ID()},
		&project.SetChannel{ID: row.ID, Records: &reader},
		&project.PutWayIn{Node: row.Chain.Nodes[2].ID()},
		&project.SetParam{Owner: water.ID, Name: "freq", Value: now * 1.5},
	)
	if err != nil {
		return nil, err
	}
	keep := func(audiofile.Entry, string) error { return nil } // all that the project uses is written down at the end
	list, err := printing.InPlace(ctx, p, folder, printing.Printer{Name: "Ines"}, printing.PlaceSpec{Clips: []string{last.ID}}, keep, nil)
	if err != nil {
		return nil, fmt.Errorf("print the harbour: %w", err)
	}
	return applied(p, append(list, &project.SetParam{Owner: water.ID, Name: "freq", Value: now})...)
}
