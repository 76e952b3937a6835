//go:build !js

package project

import "github.com/rivo/uniseg"

// withinLetters reports whether a text has at most so many letters.
func withinLetters(s string, most int) bool {
	if len(s) <= most {
		return true // no letter is less than a byte
	}
	return len(s) <= most*maxLetter && uniseg.GraphemeClusterCount(s) <= most
}

// firstLetters is as much of a text as has room; it never ends within a letter.
func firstLetters(s string, most int) string {
	if withinLetters(s, most) {
		return s
	}
	end, state := 0, -1
	for range most {
		letter, _, _, next := uniseg.FirstGraphemeClusterInString(s[end:], state)
		if len(letter) > maxLetter {
			break
		}
		end, state = end+len(letter), next
	}
	return s[:end]
}
