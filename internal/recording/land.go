package recording

import (
	"bufio"
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strings"
	"time"

	"shoal/internal/audiofile"
	"shoal/internal/gentle"
	"shoal/internal/measure"
	"shoal/internal/printing"
	"shoal/internal/project"
)

// landing is a row's part of a recording on its way into the project.
type landing struct {
	*session
	row   string
	doc   *project.Project
	sound audiofile.Entry // the untouched input
	name  string
	audio []project.Audio
	takes []project.Take
}

// land brings all rows of a recording into its project, in one change, and returns the ids of its takes.
func (d *Desk) land(ctx context.Context, s *session, ended string) (takes []string, err error) {
	doc, _, err := d.docs.Document(ctx, s.Project)
	if err != nil {
		return nil, err
	}
	list, err := gentle.Do(func() ([]*landing, error) { return d.landings(ctx, s, doc, ended) })
	if err != nil || len(list) == 0 {
		return nil, err
	}
	for _, l := range list {
		for i := range l.takes {
			takes = append(takes, l.takes[i].ID)
		}
	}
	return takes, d.docs.Change(ctx, s.Project, s.Person, label(list), func(now *project.Project) []project.Change {
		var batch []project.Change
		for _, l := range list {
			batch = append(batch, l.changes(now)...)
		}
		return batch
	})
}

func (d *Desk) landings(ctx context.Context, s *session, doc *project.Project, ended string) (list []*landing, err error) {
	for _, r := range s.Rows {
		t := s.tapes[r.ID]
		if t == nil {
			continue
		}
		parts := rounds(t.runs(), r.Delay, s.Rate)
		if len(parts) == 0 {
			continue
		}
		l := &landing{session: s, row: r.ID, doc: doc}
		if err := d.untouched(ctx, l, t); err != nil {
			return nil, err
		}
		why := ended
		if t.part.Gone {
			why = EndedInput
		}
		for i, runs := range parts {
			if err := d.take(ctx, l, t, runs, i, r.Delay, why); err != nil {
				return nil, err
			}
		}
		list = append(list, l)
	}
	return list, nil
}

// untouched keeps all that has arrived as a sound.
func (d *Desk) untouched(ctx context.Context, l *landing, t *tape) error {
	mono, err := t.mono()
	if err != nil {
		return err
	}
	channels := 2
	if mono {
		channels = 1
	}
	draft, err := d.folder.Draft(l.Rate, channels, 32, nil)
	if err != nil {
		return err
	}
	defer draft.Drop()
	if err := t.read(func(l, r []float64) error { return draft.Write([][]float64{l, r}[:channels]) }); err != nil {
		return err
	}
	if l.sound, err = draft.Keep(); err != nil {
		return err
	}
	l.name = l.fileName(l.first())
	l.audio = append(l.audio, project.Audio{Hash: l.sound.Hash, Name: l.name, Frames: l.sound.Frames, Channels: l.sound.Channels})
	if err := printing.KeepTake(d.folder, l.sound.Hash, printing.TakeRecord{
		Doc: l.doc, Row: l.row, Name: l.Named[l.row], By: l.By, Revision: l.Revision, Input: printing.InputName(l.Inputs[l.row]),
	}); err != nil {
		return err
	}
	return d.known(ctx, l.sound, l.name, "recording")
}

// first is the number of the first take.
func (l *landing) first() int { return l.doc.NextTake(l.row) }

// fileName is what a take is called: song, row, number and date.
func (l *landing) fileName(number int) string {
	return project.ShortName(fmt.Sprintf("%s, %s, take %d, %s", l.doc.Name, l.Named[l.row], number, l.Begun.Format("2006-01-02 15.04")))
}

// take makes one take of the runs of a round: with what the way in makes of it.
func (d *Desk) take(ctx context.Context, l *landing, of *tape, runs []project.Run, i int, delay int64, ended string) error {
	number := l.first() + i
	t := project.Take{ID: project.NewID(), Row: l.row, Number: number, Name: fmt.Sprintf("Take %d", number), Input: l.Inputs[l.row],
		Untouched: l.sound.Hash, Runs: runs, Delay: delay, By: l.By, At: l.Begun.Format(time.RFC3339), Ended: ended}
	last := runs[len(runs)-1]
	if at := of.changed; at != nil && *at >= t.From() && *at <= last.Song+last.Frames+delay {
		t.Changed = at
	}
	ch, ok := l.doc.Channel(l.row)
	if ok && ch.WayIn != "" {
		treated, err := printing.TreatTake(ctx, l.doc, d.folder, &t, project.Audio{
			Hash: l.sound.Hash, Name: l.name, Frames: l.sound.Frames, Channels: l.sound.Channels}, l.By, l.Revision)
		if err != nil {
			return fmt.Errorf("pass %s through the way in: %w", t.Name, err)
		}
		t.Treated, t.Through, t.LoudTreated = treated.Hash, printing.ThroughWords(ch), treated.Loud
		name := l.fileName(number) + ", treated"
		l.audio = append(l.audio, project.Audio{
			Hash: treated.Hash, Name: project.ShortName(name), Frames: treated.Frames, Channels: treated.Channels})
		if err := d.known(ctx, treated.Entry, name, "recording"); err != nil {
			return err
		}
	}
	if loud, err := d.loud(l.sound, runs, l.Rate); err == nil {
		t.Loud = loud
	}
	l.takes = append(l.takes, t)
	return nil
}

// loud is how loud a take is, in LUFS.
func (d *Desk) loud(e audiofile.Entry, runs []project.Run, rate int) (float64, error) {
	m := measure.NewMeter(rate, e.Channels)
	for _, r := range runs {
		for at := r.Input; at < r.Input+r.Frames; at += 1 << 16 {
			sides, err := d.folder.Sides(e.Hash, at, min(at+1<<16, r.Input+r.Frames))
			if err != nil {
				return 0, err
			}
			if err := m.Write(sides); err != nil {
				return 0, err
			}
		}
	}
	return m.Report().Integrated, nil
}

// changes put the takes on their row; where that has left, on a new one. The last round is what sounds.
func (l *landing) changes(now *project.Project) (list []project.Change) {
	row := l.row
	if _, ok := now.Channel(row); !ok {
		ch := project.NewChannel(project.Track, project.ShortName(l.Named[l.row]+", recorded"), now.MainChannel().ID)
		main := slices.IndexFunc(now.Channels, func(c *project.Channel) bool { return c.Kind == project.Main })
		row = ch.ID
		list = append(list, &project.AddChannel{Channel: ch, Index: main})
	} else if l.Beside {
		row = project.NewID()
		list = append(list, &project.DuplicateChannel{ID: l.row, As: row, Bare: true})
	}
	for i := range l.takes {
		t := l.takes[i]
		t.Row = row
		land := &project.LandTake{Take: t, Audio: l.audio, Aside: l.Aside || i < len(l.takes)-1, From: max(l.From, t.From()), To: t.To()}
		if l.To > 0 {
			land.To = min(l.To, t.To())
		}
		if land.To <= land.From { // it was ended before the range began, or before anything was heard: it is kept all the same
			land.Aside = true
		}
		list = append(list, land)
	}
	return list
}

func label(list []*landing) string {
	var names []string
	for _, l := range list {
		names = append(names, l.Named[l.row])
	}
	return "Record " + strings.Join(names, ", ")
}

// blockFrames is how many frames of a tape are read at once.
const blockFrames = 8192

// read gives all that is on a tape.
func (t *tape) read(write func(l, r []float64) error) error {
	if _, err := t.file.Seek(0, io.SeekStart); err != nil {
		return fmt.Errorf("read what was recorded: %w", err)
	}
	in := bufio.NewReaderSize(io.LimitReader(t.file, t.frames*frameBytes), 1<<16)
	raw := make([]byte, blockFrames*frameBytes)
	l, r := make([]float64, blockFrames), make([]float64, blockFrames)
	for {
		n, err := io.ReadFull(in, raw)
		n /= frameBytes
		for i := range n {
			l[i] = float64(math.Float32frombits(binary.LittleEndian.Uint32(raw[8*i:])))
			r[i] = float64(math.Float32frombits(binary.LittleEndian.Uint32(raw[8*i+4:])))
		}
		if n > 0 {
			if err := write(l[:n], r[:n]); err != nil {
				return err
			}
		}
		if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
			return nil
		}
		if err != nil {
			return fmt.Errorf("read what was recorded: %w", err)
		}
	}
}

// mono reports whether both sides are the same all the time.
func (t *tape) mono() (bool, error) {
	same := true
	err := t.read(func(l, r []float64) error {
		same = same && slices.Equal(l, r)
		return nil
	})
	return same, err
}
