package template

var field = &Template{
	ID: "field", Name: "Field recording",
	Says:  "A place laid out in depth: what is all around, what is near, single finds made fit to use, and a distance to put them in.",
	Tempo: 60, Beats: 4, Unit: 4,
	rows: []row{
		{name: "All around", to: "Place", chain: "shoal-chain-atmosphere", tint: 6},
		{name: "Near", to: "Place", tint: 3, sends: []share{{"Open air", -24}}},
		{name: "Place", group: true, tint: 6},
		{name: "Finds", chain: "shoal-chain-noisy-find", tint: 2}, // with a little air of its own
		{name: "Far off", chain: "shoal-chain-far-away", tint: 5},
	},
	returns:  []shared{{"Open air", "shoal-reverb-cistern"}},
	sections: []section{{"Arriving", 1}, {"There", 17}, {"Leaving", 49}},
	whole:    "shoal-chain-whole-mix",
}
