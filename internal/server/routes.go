package server

import (
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"shoal/internal/effect"
	"shoal/internal/engine/figures"
	"shoal/internal/passage"
	"shoal/internal/preset"
	"shoal/internal/printing"
	"shoal/internal/shelf"
	"shoal/internal/store"
	"shoal/internal/template"
	"shoal/internal/working"
)

// table lists every operation.
func table() []route {
	return slices.Concat(
		about(), ofPeople(), ofCrew(), ofProjects(), ofChanges(), ofVersions(), ofSound(), ofRecording(), ofMeasures(), ofPresets(), ofShelf(),
	)
}

// about are the operations of Shoal itself and of people.
func about() []route {
	return []route{
		{"GET", "/api/health", "Whether the server works.", (*Server).health, nil, Health{}},
		{"GET", "/api/openapi.json", "This description.", (*Server).openapi, nil, nil},
		{
			"GET",
			"/api/effects",
			"Every effect with its parameters, and behind them the older sounds that stages may still have.",
			(*Server).effects,
			nil,
			[]effect.Info{},
		},
		{"GET", "/api/params",
			"The parameters that rows, sends, stages and paths have besides their effects'.", (*Server).params, nil, Params{}},
	}
}

// ofProjects are the operations of projects as wholes.
func ofProjects() []route {
	return []route{
		{"GET", "/api/projects", "All projects, also those in the bin.", (*Server).projects, nil, []Listed{}},
		{"POST", "/api/projects", "Make a project, empty or from a template.", (*Server).newProject, NewProject{}, store.Summary{}},
		{"GET", "/api/templates", "What a project can begin from.", (*Server).templates, nil, []*template.Template{}},
		{"POST", "/api/demo", "Make the demo, if it is not there; from the bin it is taken back.", (*Server).makeDemo, nil, store.Summary{}},
		{"GET", "/api/demo", "How far the making of the demo is.", (*Server).demoMade, nil, DemoMade{}},
		{"POST", "/api/bundles", "Import a bundle: the body is the zip file.", (*Server).importBundle, nil, store.Summary{}},
		{"GET", "/api/projects/:id", "A project's newest revision.", (*Server).project, struct {
			inProject
			// Differs says that a window's document was another at that revision: it is written to the log.
			Differs int64 `query:"differs"`
		}{}, Opened{}},
		{"POST", "/api/projects/:id/copies", "Duplicate a project.", (*Server).copyProject, inProject{}, store.Summary{}},
		{"DELETE", "/api/projects/:id", "Put a project in the bin.", (*Server).bin, inProject{}, nil},
		{"POST", "/api/projects/:id/restore", "Take a project out of the bin.", (*Server).restore, inProject{}, nil},
		{"GET", "/api/projects/:id/midi",
			"Export tempo, meter and sections as a standard MIDI file.", (*Server).exportMIDI, inProject{}, nil},
		{
			"POST",
			"/api/projects/:id/midi",
			"Take tempo, meter and sections from a standard MIDI file: the body is the file.",
			(*Server).importMIDI,
			inProject{},
			Revised{},
		},
		{"GET", "/api/projects/:id/bundle", "Export a project as a bundle.", (*Server).exportBundle, inProject{}, nil},
	}
}

// ofChanges are the operations of changes and the logbook.
func ofChanges() []route {
	return []route{
		{"POST", "/api/projects/:id/changes", "Change a project.", (*Server).change, struct {
			inProject
			Batch
		}{}, Revised{}},
		{"GET", "/api/projects/:id/changes", "Changes after a revision.", (*Server).missed, struct {
			inProject
			Since int64 `query:"since"`
		}{}, Missed{}},
		{"GET", "/api/projects/:id/logbook", "The newest changes, a page at a time, searched by words.", (*Server).logbook, struct {
			inProject
			Before int64  `query:"before"` // a revision: what is older
			Words  string `query:"words"`
			Person string `query:"person"` // id
			Row    string `query:"row"`    // id
			Kind   string `query:"kind"`   // rows, stages, forks, sends, clips, lines, song, prints, remarks
		}{}, LogPage{}},
		{"GET", "/api/projects/:id/logbook.csv", "The whole logbook as a table.", (*Server).exportLogbook, inProject{}, nil},
		{"GET", "/api/projects/:id/undo", "What undo would take back.", (*Server).undoing, struct {
			inProject
			Redo string `query:"redo"` // 1: what redo would make again
		}{}, Undoing{}},
		{"POST", "/api/projects/:id/undo", "Undo one's own last change.", (*Server).undo, inProject{}, Revised{}},
		{"POST", "/api/projects/:id/redo", "Redo one's own last undone change.", (*Server).redo, inProject{}, Revised{}},
		{"GET", "/api/projects/:id/live", "The live connection (WebSocket).", (*Server).live, inProject{}, Message{}},
	}
}

// ofSound are the operations of sound that comes in and goes out.
func ofSound() []route {
	return []route{
		{"POST", "/api/projects/:id/audio", "Import a sound file as a new track: the body is the file.", (*Server).importAudio, struct {
			inProject
			Name  string `query:"name"`
			Start int64  `query:"start"`
			Index int    `query:"index"`
		}{}, Imported{}},
		{"GET", "/api/projects/:id/prints", "The newest prints.", (*Server).listPrints, inProject{}, []printing.Status{}},
		{"POST", "/api/projects/:id/prints", "Print to a track or export to a file.", (*Server).addPrint, struct {
			inProject
			printing.Spec
		}{}, printing.Status{}},
		{"DELETE", "/api/prints/:print", "Cancel a print.", (*Server).cancelPrint, struct {
			Print string `path:"print"`
		}{}, nil},
		{"GET", "/api/prints/:print/file", "Fetch an exported file.", (*Server).printFile, struct {
			Print string `path:"print"`
		}{}, nil},
		{"GET", "/api/prints/:print/files/:name", "Fetch one of the files of stems.", (*Server).stemFile, struct {
			Print string `path:"print"`
			Name  string `path:"name"`
		}{}, nil},
		{"POST", "/api/projects/:id/stems", "What stems would come to: files, their names, how large, and what is to be known.",
			(*Server).planStems, struct {
				inProject
				printing.Spec
			}{}, printing.StemPlan{}},
		{"POST", "/api/projects/:id/sounds",
			"Load a sound file for a stage that uses one, such as an impulse response: the body is the file.", (*Server).loadSound, struct {
				inProject
				Name  string `query:"name"`
				Stage string `query:"stage"`
			}{}, Revised{}},
		{"GET", "/api/projects/:id/works", "What is worked out for clips, and how far it is.", (*Server).listWorks,
			inProject{}, []working.Status{}},
		{"POST", "/api/projects/:id/works/:key", "Work something out now.", (*Server).askWork, inWork{}, nil},
		{"DELETE", "/api/projects/:id/works/:key", "Call off what is being worked out.", (*Server).cancelWork, inWork{}, nil},
		{"GET", "/api/projects/:id/audio/:hash/pcm/:page", "A page of samples: float32, one channel after the other.", (*Server).page, struct {
			inProject
			Hash string `path:"hash"`
			Page int    `path:"page"`
		}{}, nil},
		{"GET", "/api/projects/:id/audio/:hash/overview", "Peak and RMS of every 512 frames, as 255·√value.", (*Server).overview, struct {
			inProject
			Hash string `path:"hash"`
		}{}, nil},
	}
}

// ofMeasures are the operations of what is measured and made by measuring.
func ofMeasures() []route {
	return []route{
		{"POST", "/api/projects/:id/trials", "Compare the trials of a row in figures.", (*Server).compare, struct {
			inProject
			CompareSpec
		}{}, printing.Comparison{}},
		{
			"GET",
			"/api/projects/:id/forks/:fork",
			"What a fork does as a whole: response, shares, and where paths cancel.",
			(*Server).forkFigures,
			inFork{},
			figures.Fork{},
		},
		{"POST", "/api/projects/:id/forks/:fork/level",
			"Level the paths of a fork, or its output, by what is heard in a range.", (*Server).levelFork, struct {
				inFork
				LevelSpec
			}{}, Revised{}},
		{"POST", "/api/projects/:id/clips/levels", "Measure clips by themselves, side by side.", (*Server).clipLevels, struct {
			inProject
			ClipList
		}{}, []printing.ClipLevels{}},
		{"POST", "/api/projects/:id/clips/untreated", "The gains with which clips are as loud without their treatment.",
			(*Server).untreated, struct {
				inProject
				ClipList
			}{}, []printing.GainOfClip{}},
		{"GET", "/api/projects/:id/clips/:clip/outline",
			"What a clip's treatment gives, to be drawn: peak and RMS of every 512 frames, as 255·√value.", (*Server).outline, struct {
				inProject
				Clip string `path:"clip"`
			}{}, nil},
		{"POST", "/api/projects/:id/clips/marks", "Places at which a clip could be cut: onsets, the grid, sections.",
			(*Server).clipMarks, struct {
				inProject
				printing.MarkSpec
			}{}, printing.Marks{}},
		{"POST", "/api/projects/:id/clips/normalise", "Set the gain of clips so that they come to a level.", (*Server).normalise, struct {
			inProject
			printing.NormaliseSpec
		}{}, Revised{}},
		{"POST", "/api/projects/:id/clips/print", "Print clips through their row's chain and put that in their place.",
			(*Server).printInPlace, struct {
				inProject
				printing.PlaceSpec
			}{}, Revised{}},
		{"POST", "/api/projects/:id/clips/permanent", "Print clips with their treatments and let them play that.",
			(*Server).makePermanent, struct {
				inProject
				ClipList
			}{}, Revised{}},
		{"GET", "/api/projects/:id/steps/:hash", "Where a sound comes from, and whether each step holds.", (*Server).steps,
			inSteps{}, printing.Step{}},
		{"POST", "/api/projects/:id/steps/:hash/now", "Render what a print would be now, to be heard beside it.", (*Server).compareSteps,
			inSteps{},
			printing.ThenAndNow{}},
		{"POST", "/api/projects/:id/steps/:hash/again", "Make a print anew from what its row gives now.", (*Server).printAgain,
			inSteps{}, Revised{}},
		{"POST", "/api/projects/:id/steps/:hash/chain", "Let the chain of a print's row be as it was then.", (*Server).putChainBack,
			inSteps{}, Revised{}},
		{"GET", "/api/passages", "The kinds of passages.", (*Server).passageKinds, nil, []passage.Kind{}},
		{"POST", "/api/projects/:id/passages", "Make a passage, with the stages that it needs.", (*Server).makePassage, struct {
			inProject
			passage.Spec
		}{}, Revised{}},
		{"GET", "/api/projects/:id/passages/:passage", "What a passage does to the level of its rows.", (*Server).passageContour, struct {
			inProject
			Passage string `path:"passage"`
		}{}, figures.Contour{}},
	}
}

// ofShelf are the operations of the shelf.
func ofShelf() []route {
	return []route{
		{"GET", "/api/shelf", "What stands on the shelf: first what people have put there, then what ships.", (*Server).shelf,
			nil, []shelf.Thing{}},
		{"POST", "/api/shelf", "Put clips on the shelf.", (*Server).putOnShelf, NewThing{}, shelf.Thing{}},
		{"PUT", "/api/shelf/:thing", "Name a thing anew.", (*Server).setThing, struct {
			inThing
			ThingWords
		}{}, shelf.Thing{}},
		{"DELETE", "/api/shelf/:thing", "Take a thing off the shelf. Projects keep what they have of it.", (*Server).binThing, inThing{}, nil},
		{"POST", "/api/shelf/:thing/restore", "Put a thing back.", (*Server).restoreThing, inThing{}, nil},
		{"GET", "/api/projects/:id/shelf/:thing", "The changes that put a thing down on a track.", (*Server).takeThing, struct {
			inProject
			inThing
			Row  string `query:"row"`
			At   int64  `query:"at"`   // song frame
			Grid int64  `query:"grid"` // as a snap has it
			Near int64  `query:"near"`
			Next int64  `query:"next"` // ticks of a grid: at its next place from there on
		}{}, Taken{}},
	}
}

// ofPresets are the operations of presets.
func ofPresets() []route {
	return []route{
		{"GET", "/api/projects/:id/presets", "The changes that put a preset on a stage, a chain or a row.", (*Server).takePreset, struct {
			inProject
			Preset string `query:"preset"`
			Target string `query:"target"`
			// Rows, with commas between, ask for a new return with the preset on it and sends from
			// them; Target is then the return's id.
			Rows string `query:"rows"`
			// Index asks for the preset to be added to Target, a clip or the owner of a chain, at a place.
			Index string `query:"index"`
		}{}, Taken{}},
		{"GET", "/api/presets", "All presets, those that come with Shoal first.", (*Server).presets, nil, []preset.Preset{}},
		{"POST", "/api/presets", "Save what stands in a project as a preset.", (*Server).savePreset, NewPreset{}, preset.Preset{}},
		{"PUT", "/api/presets/:preset", "Rename a preset.", (*Server).setPreset, struct {
			Preset string `path:"preset"`
			PresetWords
		}{}, preset.Preset{}},
		{"DELETE", "/api/presets/:preset", "Delete a preset; it can be taken back.", (*Server).binPreset, struct {
			Preset string `path:"preset"`
		}{}, nil},
		{"POST", "/api/presets/:preset/restore", "Take a deleted preset back.", (*Server).restorePreset, struct {
			Preset string `path:"preset"`
		}{}, nil},
		{"GET", "/api/preset-files", "Export presets as a file, choices by their names.", (*Server).exportPresets, struct {
			IDs  string `query:"ids"` // with commas between
			Name string `query:"name"`
		}{}, nil},
		{"POST", "/api/preset-files", "Import a file of presets.", (*Server).importPresets, PresetFile{}, []preset.Preset{}},
	}
}

// anonymous are the operations that need no name, though they are no GET: they change nothing that is anybody's.
var anonymous = []string{
	"PUT /api/me",
	"POST /api/session",
	"POST /api/links/look",
	"POST /api/links/take",
	"POST /api/demo",
	"POST /api/projects/:id/stems",
	"POST /api/projects/:id/versions/:version/match",
	"POST /api/projects/:id/trials",
	"POST /api/projects/:id/clips/levels",
	"POST /api/projects/:id/clips/untreated",
	"POST /api/projects/:id/clips/marks",
	"POST /api/projects/:id/steps/:hash/now",
	"POST /api/projects/:id/works/:key",
	"DELETE /api/projects/:id/works/:key",
}

func (s *Server) routes() {
	for _, r := range table() {
		op := r.method + " " + r.path
		open := r.method == http.MethodGet || slices.Contains(anonymous, op)
		handle := func(c *gin.Context) {
			if s.permit(c, op) && (open || s.named(c)) {
				r.handle(s, c)
			}
		}
		s.http.Handle(r.method, r.path, handle)
		if r.method == http.MethodGet {
			s.http.HEAD(r.path, handle) // the standard library leaves the body out
		}
	}
}
