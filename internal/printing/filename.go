package printing

import (
	"regexp"
	"strings"
	"unicode"
)

// longestName is how many letters a file's name has at most, without its extension.
const longestName = 120

// reserved are names that some file systems keep for devices.
var reserved = regexp.MustCompile(`(?i)^(con|prn|aux|nul|com[0-9]|lpt[0-9])(\..*)?$`)

// FileName makes a name that every common file system takes: what some refuse becomes a dash.
func FileName(name string) string {
	name = strings.Map(func(r rune) rune {
		switch {
		case strings.ContainsRune(`/\:*?"<>|`, r):
			return '-'
		case unicode.IsControl(r) || r == unicode.ReplacementChar:
			return -1
		}
		return r
	}, strings.ToValidUTF8(name, ""))
	if letters := []rune(name); len(letters) > longestName {
		name = string(letters[:longestName])
	}
	name = strings.TrimLeft(strings.TrimRight(name, ". "), " .")
	if name == "" {
		return "unnamed"
	}
	if reserved.MatchString(name) {
		return name + "_"
	}
	return name
}
