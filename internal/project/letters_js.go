package project

// A browser's engine gets documents that the server has let in, and what is changed there the server looks at as well: the tables
// of all scripts, which tell letters apart, are not loaded for it.

func withinLetters(string, int) bool { return true }

func firstLetters(s string, _ int) string { return s }
