// Package bundle writes and reads whole projects: a zip of project.json (its
// JSON Schema is docs/project.schema.json) and audio/HASH.wav for every sound.
package bundle

import (
	"archive/zip"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"io"
	"os"
	"path"
	"strings"

	"shoal/internal/audiofile"
	"shoal/internal/engine"
	"shoal/internal/printing"
	"shoal/internal/project"
)

const documentName = "project.json"

// maxDocument bounds project.json, and maxSound each sound, once unpacked.
const (
	maxDocument = 64 << 20
	maxSound    = 8 << 30
	maxLineage  = 64 << 20
)

// Check makes sure that every sound of a project is there, before anything of it is written.
func Check(doc *project.Project, folder *audiofile.Folder) error {
	for _, a := range doc.Audio {
		if _, err := os.Stat(folder.Path(a.Hash)); err != nil {
			return fmt.Errorf("the sound %s (%.12s) is missing from Shoal's folder, so the project cannot be bundled; "+
				"bring the file back, or remove its clips", a.Name, a.Hash)
		}
	}
	return nil
}

// Write puts a project and its sounds into a zip.
func Write(ctx context.Context, w io.Writer, doc *project.Project, folder *audiofile.Folder) error {
	z := zip.NewWriter(w)
	f, err := z.Create(documentName)
	if err != nil {
		return fmt.Errorf("write bundle: %w", err)
	}
	b, err := project.Named(doc, engine.EffectInfo)
	if err == nil {
		_, err = f.Write(b)
	}
	if err != nil {
		return fmt.Errorf("write %s: %w", documentName, err)
	}
	for _, a := range doc.Audio {
		if err := ctx.Err(); err != nil {
			return err
		}
		if err := addSound(z, a, folder); err != nil {
			return fmt.Errorf("write audio %s: %w", a.Name, err)
		}
		if err := addLineage(z, a, folder); err != nil {
			return fmt.Errorf("write where %s comes from: %w", a.Name, err)
		}
	}
	return z.Close()
}

// addLineage writes where a sound comes from, if that is known.
func addLineage(z *zip.Writer, a project.Audio, folder *audiofile.Folder) error {
	b, known := folder.Lineage(a.Hash)
	if !known {
		return nil
	}
	f, err := z.Create("lineage/" + a.Hash + ".json")
	if err == nil {
		_, err = f.Write(b)
	}
	return err
}

func addSound(z *zip.Writer, a project.Audio, folder *audiofile.Folder) error {
	src, err := os.Open(folder.Path(a.Hash))
	if err != nil {
		return err
	}
	defer src.Close()
	// sound hardly shrinks: stored, so that writing costs no time
	f, err := z.CreateHeader(&zip.FileHeader{Name: "audio/" + a.Hash + ".wav", Method: zip.Store})
	if err != nil {
		return err
	}
	_, err = io.Copy(f, src)
	return err
}

// Read checks a whole bundle, and only then keeps its sounds and returns the
// document.
func Read(ctx context.Context, r io.ReaderAt, size int64, folder *audiofile.Folder) (*project.Project, error) {
	z, err := zip.NewReader(r, size)
	if err != nil {
		return nil, fmt.Errorf("the bundle is not a readable zip file: %w", err)
	}
	var document *zip.File
	sounds, lineages := map[string]*zip.File{}, map[string]*zip.File{}
	for _, f := range z.File {
		name := f.Name
		if strings.HasPrefix(name, "/") || strings.Contains(name, "\\") || path.Clean("/"+name) != "/"+strings.TrimSuffix(name, "/") {
			return nil, fmt.Errorf("the bundle has an entry that climbs out of it: %q", name)
		}
		switch {
		case name == documentName:
			document = f
		case strings.HasPrefix(name, "audio/") && strings.HasSuffix(name, ".wav"):
			sounds[strings.TrimSuffix(strings.TrimPrefix(name, "audio/"), ".wav")] = f
		case strings.HasPrefix(name, "lineage/") && strings.HasSuffix(name, ".json"):
			lineages[strings.TrimSuffix(strings.TrimPrefix(name, "lineage/"), ".json")] = f
		}
	}
	if document == nil {
		return nil, fmt.Errorf("the bundle has no %s", documentName)
	}
	b, err := unpack(document, maxDocument)
	if err != nil {
		return nil, err
	}
	doc, err := project.Read(b, engine.EffectInfo)
	if err != nil {
		return nil, fmt.Errorf("%s: %w", documentName, err)
	}
	if err := folder.RoomFor(unpacked(doc, sounds)); err != nil {
		return nil, fmt.Errorf("unpack the bundle: %w", err)
	}
	for _, a := range doc.Audio {
		f, ok := sounds[a.Hash]
		if !ok {
			return nil, fmt.Errorf("the bundle lacks the audio %s (%.12s) that its project names", a.Name, a.Hash)
		}
		if err := checkSound(ctx, f, a); err != nil {
			return nil, fmt.Errorf("audio %s: %w", a.Name, err)
		}
	}
	for _, a := range doc.Audio {
		if err := keep(ctx, sounds[a.Hash], a, folder); err != nil {
			return nil, fmt.Errorf("keep audio %s: %w", a.Name, err)
		}
		if err := keepLineage(lineages[a.Hash], a, folder); err != nil {
			return nil, fmt.Errorf("keep where %s comes from: %w", a.Name, err)
		}
	}
	return doc, nil
}

// unpacked is how many bytes the sounds of a document say they take. Who says less than is there is found out: a zip's reader
// gives no more than that.
func unpacked(doc *project.Project, sounds map[string]*zip.File) (bytes int64) {
	for _, a := range doc.Audio {
		if f := sounds[a.Hash]; f != nil {
			bytes += int64(min(f.UncompressedSize64, maxSound))
		}
	}
	return bytes
}

func unpack(f *zip.File, limit int64) ([]byte, error) {
	r, err := f.Open()
	if err != nil {
		return nil, fmt.Errorf("unpack %s: %w", f.Name, err)
	}
	defer r.Close()
	b, err := io.ReadAll(io.LimitReader(r, limit+1))
	if err != nil {
		return nil, fmt.Errorf("unpack %s: %w", f.Name, err)
	}
	if int64(len(b)) > limit {
		return nil, fmt.Errorf("unpack %s: it is larger than %d bytes", f.Name, limit)
	}
	return b, nil
}

// keepLineage notes where a sound comes from, unless this folder knows it already.
func keepLineage(f *zip.File, a project.Audio, folder *audiofile.Folder) error {
	if _, known := folder.Lineage(a.Hash); f == nil || known {
		return nil
	}
	b, err := unpack(f, maxLineage)
	if err != nil {
		return err
	}
	if err := printing.CheckRecord(b); err != nil {
		return err
	}
	return folder.PutLineage(a.Hash, b)
}

// checkSound makes sure that a sound is what its hash says.
func checkSound(ctx context.Context, f *zip.File, a project.Audio) error {
	r, err := f.Open()
	if err != nil {
		return err
	}
	defer r.Close()
	h := sha256.New()
	n, err := io.Copy(h, io.LimitReader(&contextReader{ctx, r}, maxSound))
	if err != nil {
		return err
	}
	if got := hex.EncodeToString(h.Sum(nil)); got != a.Hash {
		return fmt.Errorf("its content does not match its hash (%d bytes)", n)
	}
	return nil
}

type contextReader struct {
	ctx context.Context
	r   io.Reader
}

func (c *contextReader) Read(p []byte) (int, error) {
	if err := c.ctx.Err(); err != nil {
		return 0, err
	}
	return c.r.Read(p)
}

// keep writes a checked sound into the folder as it is.
func keep(ctx context.Context, f *zip.File, a project.Audio, folder *audiofile.Folder) error {
	r, err := f.Open()
	if err != nil {
		return err
	}
	defer r.Close()
	form, err := folder.Adopt(&contextReader{ctx, r}, a.Hash)
	if err != nil {
		return err
	}
	if form.Frames != a.Frames || form.Channels != a.Channels {
		return fmt.Errorf(
			"it has %d frames on %d channels, and the project says %d on %d",
			form.Frames,
			form.Channels,
			a.Frames,
			a.Channels,
		)
	}
	return nil
}
