package template

var transitions = &Template{
	ID: "transitions", Name: "Transitions",
	Says:  "Sections that end in something: a rise, a stop into silence, a wash into the return. Bring your own sound.",
	Tempo: 112, Beats: 4, Unit: 4,
	rows: []row{
		{name: "Pulse", to: "All that stops", chain: "shoal-chain-hand-drum", tint: 4},
		{name: "Low", to: "All that stops", tint: 3},
		{name: "Chords", to: "All that stops", tint: 1, sends: []share{{"Wide hall", -16}}},
		{name: "All that stops", group: true, tint: 4},
		{name: "Lead", tint: 5, sends: []share{{"Wide hall", -14}}},
		{name: "What goes on", tint: 6},
	},
	returns:  []shared{{"Wide hall", "shoal-reverb-stone-hall"}},
	sections: []section{{"Low", 1}, {"Build", 9}, {"High", 17}, {"Out", 33}},
	passages: []over{
		{"rise", "Build", 13, 16, []string{"All that stops"}},
		{"stop", "Held breath", 16, 17, []string{"All that stops"}},
		{"wash", "Washed out", 37, 41, []string{"Chords", "Lead"}},
	},
	whole: "shoal-chain-whole-mix",
}
