package sounding

// rules lists every rule, in the order in which an engineer would go through them.
var rules = []rule{
	{"nothing-returns", "Nothing comes back from a send", nothingReturns},
	{"feeds-nothing", "A row leads nowhere", feedsNothing},
	{"silent-key", "A key is silent", silentKey},
	{"not-fully-wet", "A return doubles the dry signal", notFullyWet},
	{"space-twice", "The same kind of space twice", spaceTwice},
	{"ghost", "A send without its row", ghost},
	{"side-track-solo", "Solo would silence a side track", sideTrackSolo},
	{"cancels", "Signals cancel each other", cancels},
	{"dry-path-on-return", "A path on a return doubles the dry signal", dryPathOnReturn},
	{"path-not-wet", "A path doubles the dry signal", pathNotWet},
	{"phase-turned", "A phase is turned on one path", phaseTurned},
	{"copies-louder", "Copies add up to more", copiesLouder},
	{"paths-alike", "Two paths are alike", pathsAlike},
	{"hot-or-cold", "A stage changes the level by far", hotOrCold},
	{"over-the-top", "The main output is above −1 dBTP", overTheTop},
	{"print-changed", "A print is no longer what its row gives", printChanged},
	{"near-the-limit", "The engine is near its limit", nearTheLimit},
	{"does-nothing", "A chain does nothing", doesNothing},
	{"empty-fork", "A fork holds nothing", emptyFork},
	{"silent-path", "A path is silent", silentPath},
	{"tail-after-stop", "A tail comes back after a stop", tailAfterStop},
	{"crossovers-close", "Crossovers on top of each other", crossoversClose},
	{"order", "An order worth hearing the other way round", orderOfStages},
	{"piece-and-row", "A piece and its row do the same", pieceAndRow},
	{"cross-fade-dips", "A cross-fade dips", crossFadeDips},
	{"hard-edge", "An edge clicks", hardEdge},
	{"far-stretched", "A voice is stretched far", farStretched},
	{"low-end-in-space", "Low end goes into a reverb", lowEndInSpace},
}

// Count is how many rules there are.
func Count() int { return len(rules) }
