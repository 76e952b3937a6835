package printing

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/gentle"
	"shoal/internal/project"
)

// outlineVersion is raised when what outlines show changes.
const outlineVersion = 1

// Outline is what is needed to draw what a clip's treatment gives, from the clip's first frame on, before its gain, swell
// and fades: pairs as those of audiofile.Overview. It is kept, and nil where nothing runs live.
func Outline(ctx context.Context, doc *project.Project, folder *audiofile.Folder, id string) ([]byte, error) {
	x, ok := doc.ClipByID(id)
	if !ok {
		return nil, project.Gone("the clip")
	}
	w, live := engine.WorkOf(doc, x, doc.Clock())
	if live == nil || live.Bypass || len(live.Nodes) == 0 || w != nil && !folder.HasWorked(w.Key) {
		return nil, nil
	}
	p, row := alone(doc, x)
	n := row.Clips[0]
	n.Gain, n.Swell, n.FadeOut, n.Exact = 0, nil, 0, true
	if !n.Rings {
		n.FadeIn = 0
	}
	source := x.Audio
	if w != nil {
		source = w.Key
	}
	b, err := json.Marshal(struct {
		Version, Rate  int
		Source         string
		Offset, Frames int64
		FadeIn         int64
		Origin         *int64
		Tempo          float64
		Chain          *project.Chain
		Lines          []*project.Line
	}{outlineVersion, p.SampleRate, source, n.Offset, n.Frames, n.FadeIn, n.Origin, p.Tempo[0].BPM, live, p.Lines})
	if err != nil {
		return nil, fmt.Errorf("name the outline of %s: %w", x.Name, err)
	}
	sum := sha256.Sum256(b)
	key := hex.EncodeToString(sum[:])
	if b, ok := folder.WorkedOverview(key); ok {
		return b, nil
	}
	o, err := gentle.Do(func() (*audiofile.Overview, error) {
		o := &audiofile.Overview{}
		return o, Render(ctx, p, folder, Spec{Channel: row.ID, To: n.Frames}, o.Write, nil)
	})
	if err != nil {
		return nil, fmt.Errorf("draw %s: %w", x.Name, err)
	}
	return o.Bytes(), folder.KeepOverview(key, o.Bytes())
}
