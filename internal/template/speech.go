package template

var speech = &Template{
	ID: "speech", Name: "Spoken word", Says: "One or two readers, a place behind them, a jingle: clean, even, with one small room for all.",
	Tempo: 60, Beats: 4, Unit: 4,
	rows: []row{
		{name: "Reader", to: "Voices", chain: "shoal-chain-spoken-voice", tint: 8, sends: []share{{"Small room", -22}}},
		{name: "Guest", to: "Voices", chain: "shoal-chain-spoken-voice", tint: 7, sends: []share{{"Small room", -22}}},
		{name: "Voices", group: true, tint: 8},
		{name: "Place", chain: "shoal-chain-atmosphere", tint: 6},
		{name: "Jingle", tint: 2},
	},
	returns:  []shared{{"Small room", "shoal-reverb-mill-floor"}},
	sections: []section{{"Opening", 1}, {"Talk", 5}, {"Close", 65}},
	whole:    "shoal-chain-whole-mix",
}
