package template

var ensemble = &Template{
	ID: "ensemble", Name: "Small ensemble",
	Says:  "Mallets, a drum, a low horn and voices, each with its chain, a near room and a hall to share.",
	Tempo: 96, Beats: 4, Unit: 4,
	rows: []row{
		{name: "Mallets", to: "Band", chain: "shoal-chain-mallets", tint: 1, sends: []share{{"Hall", -16}}},
		{name: "Drum", to: "Band", chain: "shoal-chain-hand-drum", tint: 4, sends: []share{{"Near room", -14}}},
		{name: "Low horn", to: "Band", chain: "shoal-chain-low-brass", tint: 3, sends: []share{{"Hall", -14}}},
		{name: "Band", group: true, tint: 3},
		{name: "Bells", chain: "shoal-chain-handbells", tint: 2, sends: []share{{"Hall", -9}}},
		{name: "Voices", chain: "shoal-chain-choir", tint: 5}, // with a space of its own
	},
	returns:  []shared{{"Near room", "shoal-reverb-mill-floor"}, {"Hall", "shoal-reverb-stone-hall"}},
	sections: []section{{"Opening", 1}, {"First part", 9}, {"Second part", 25}, {"Ending", 41}},
	whole:    "shoal-chain-whole-mix",
}
