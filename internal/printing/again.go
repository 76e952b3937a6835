package printing

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/engine/pages"
	"shoal/internal/gentle"
	"shoal/internal/measure"
	"shoal/internal/project"
)

// Again makes a print anew, from what its row gives now, and returns what lets its clips play that.
func Again(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, by Printer, hash string,
	keep func(audiofile.Entry, string) error, progress func(float64),
) ([]project.Change, error) {
	r, now, err := remade(doc, folder, hash)
	if err != nil {
		return nil, err
	}
	return gentle.Do(func() ([]project.Change, error) {
		d, spec, err := r.draft(ctx, doc, folder, progress)
		if err != nil {
			return nil, fmt.Errorf("print %s again: %w", r.Row, err)
		}
		defer d.Drop()
		e, err := d.Keep()
		if err != nil {
			return nil, err
		}
		fresh := by.of(r.Kind, doc, spec, now)
		fresh.Clips = r.Clips
		if err := fresh.keep(folder, e.Hash); err != nil {
			return nil, err
		}
		a := project.Audio{Hash: e.Hash, Name: soundName(doc, nil, hash), Frames: e.Frames, Channels: e.Channels}
		if err := keep(e, a.Name); err != nil {
			return nil, err
		}
		return []project.Change{&project.PrintAgain{Was: hash, Audio: a, Key: fresh.Key}}, nil
	})
}

// remade is where a print comes from, and what it would be made from now.
func remade(doc *project.Project, folder *audiofile.Folder, hash string) (Record, project.Makings, error) {
	r, known, err := RecordOf(folder, hash)
	switch {
	case err != nil:
		return r, project.Makings{}, err
	case !known:
		return r, project.Makings{}, fmt.Errorf("nothing is known of where this sound comes from: it was not printed here")
	case r.Kind == Outside:
		return r, project.Makings{}, fmt.Errorf("it was worked on outside: let it go out again, and bring it back")
	case r.Kind == OfTake || r.Kind == OfTreated:
		return r, project.Makings{}, fmt.Errorf(
			"it was recorded: what its way in would make of it now is heard with its untouched take, and the chain after it")
	case r.Kind == Permanent:
		return r, project.Makings{}, fmt.Errorf("it was made permanent: bring it back, change its treatment, and make that permanent")
	}
	now, ok := r.now(doc)
	if !ok {
		return r, now, fmt.Errorf("the row %s has left the song: the print stands alone", r.Row)
	}
	return r, now, nil
}

// draft renders what a print would be now.
func (r Record) draft(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, progress func(float64),
) (*audiofile.Draft, Spec, error) {
	spec := Spec{Channel: r.Channel, From: r.From, To: r.To, Tail: r.Tail, Point: r.Point}
	if r.Kind == InItsRow {
		doc, _ = doc.WithClipsOf(r.Channel, r.made())
	}
	d, err := folder.Draft(doc.SampleRate, 2, 32, &audiofile.Note{Description: r.Row, Originator: "Shoal", Reference: r.From})
	if err != nil {
		return nil, spec, err
	}
	if err = Render(ctx, doc, folder, spec, d.Write, progress); err == nil {
		err = ctx.Err()
	}
	if err != nil {
		d.Drop()
		return nil, spec, err
	}
	return d, spec, nil
}

// ThenAndNow is a print beside what it would be now: sounds to be heard one after the other, the second turned so that
// both are as loud.
type ThenAndNow struct {
	Then   string  `json:"then" required:"true"` // hash
	Now    string  `json:"now" required:"true"`  // of something worked out
	Frames int64   `json:"frames" required:"true"`
	Gain   float64 `json:"gain" required:"true"` // dB, of what it would be now
}

// BesideNow renders what a print would be now, beside it. It is kept as what can be thrown away.
func BesideNow(
	ctx context.Context, doc *project.Project, folder *audiofile.Folder, hash string, progress func(float64),
) (ThenAndNow, error) {
	r, now, err := remade(doc, folder, hash)
	if err != nil {
		return ThenAndNow{}, err
	}
	return gentle.Do(func() (ThenAndNow, error) {
		sum := sha256.Sum256([]byte("now " + hash + now.Key(engine.EffectInfo)))
		key := hex.EncodeToString(sum[:])
		out := ThenAndNow{Then: hash, Now: key}
		if !folder.HasWorked(key) {
			d, _, err := r.draft(ctx, doc, folder, progress)
			if err != nil {
				return out, fmt.Errorf("render what %s would be now: %w", r.Row, err)
			}
			if err := d.KeepWorked(key); err != nil {
				return out, err
			}
		}
		then, frames, err := loudnessOf(folder, doc.SampleRate, hash)
		if err != nil {
			return out, err
		}
		is, _, err := loudnessOf(folder, doc.SampleRate, key)
		if err != nil {
			return out, err
		}
		out.Frames = frames
		if min(then, is) > gateLevel {
			out.Gain = max(-24, min(24, then-is))
		}
		return out, nil
	})
}

// loudnessOf is how loud a sound is in LUFS, and how long.
func loudnessOf(folder *audiofile.Folder, rate int, hash string) (lufs float64, frames int64, err error) {
	var meter *measure.Meter
	for n := 0; ; n++ {
		page, err := folder.Page(hash, n, pages.Frames)
		if err != nil && n == 0 {
			return 0, 0, err
		}
		if err != nil {
			return meter.Report().Integrated, frames, nil
		}
		if meter == nil {
			meter = measure.NewMeter(rate, len(page))
		}
		block := make([][]float64, len(page))
		for c := range page {
			for _, v := range page[c] {
				block[c] = append(block[c], float64(v))
			}
		}
		if err := meter.Write(block); err != nil {
			return 0, 0, err
		}
		frames += int64(len(page[0]))
	}
}
