package param

import (
	"fmt"
	"strconv"
	"strings"
)

// written are the units that a value may be written with, those first that end with another one. (By hand, and not by regular
// expressions: those would be a twentieth of the engine that a browser loads.)
var written = []string{"khz", "hz", "k", "db", "ms", "s", "%", "x", "×", ": 1", ":1"}

// parts are the number and the unit of a value.
func parts(t string) (number, unit string) {
	for _, u := range written {
		if rest, ok := strings.CutSuffix(t, u); ok {
			return strings.TrimRight(rest, " \t"), u
		}
	}
	return t, ""
}

// isNumber reports whether something is a number as people write it: digits, a point, a power of ten.
func isNumber(s string) bool {
	return s != "" && strings.Trim(s, "+-.e0123456789") == "" && s[len(s)-1] >= '0' && s[len(s)-1] <= '9'
}

// spelt writes out the letter behind the figure at the end of a note length.
func spelt(t, letter, word string) string {
	rest, ok := strings.CutSuffix(t, letter)
	figure := strings.TrimRight(rest, " \t")
	if !ok || figure == "" || figure[len(figure)-1] < '0' || figure[len(figure)-1] > '9' {
		return t
	}
	return figure + " " + word
}

// Read reads a value as people write it: "2k", "-6 dB", "1.5 s" for a time in ms, "1/8d", "bell", "off". It may lie
// outside the range; the error says what can be written.
func (p *Param) Read(text string) (float64, error) {
	t := strings.ToLower(strings.TrimSpace(text))
	if p.Taper == Choice {
		return p.readChoice(t, text)
	}
	t = strings.NewReplacer("−", "-", ",", ".").Replace(t)
	switch {
	case p.Taper == Switch && (t == "on" || t == "yes" || t == "true"):
		return 1, nil
	case p.Taper == Switch && (t == "off" || t == "no" || t == "false"):
		return 0, nil
	case p.Taper == Level && (t == "off" || t == "-∞" || t == "-inf"):
		return p.Min, nil
	}
	number, unit := parts(t)
	v, err := strconv.ParseFloat(number, 64)
	if err != nil || !isNumber(number) {
		return 0, fmt.Errorf("%s: %q is no value; write a number, as %g %s", p.Label, text, p.Default, p.Unit)
	}
	switch {
	case unit == "k" || unit == "khz":
		v *= 1000
	case unit == "s" && p.Unit == "ms":
		v *= 1000
	case unit == "ms" && p.Unit == "s":
		v /= 1000
	}
	return v, nil
}

// Word is how a choice or a switch is called, and whether it is one and has the value.
func (p *Param) Word(v float64) (string, bool) {
	i := int(v)
	switch {
	case float64(i) != v || i < 0:
	case p.Taper == Choice && i < len(p.Choices):
		return p.Choices[i], true
	case p.Taper == Switch && i < 2:
		return [2]string{"off", "on"}[i], true
	}
	return "", false
}

// readChoice finds a choice by its name or by how it begins; "1/8d" is dotted and "1/8t" a triplet.
func (p *Param) readChoice(t, text string) (float64, error) {
	full := spelt(spelt(t, "d", "dotted"), "t", "triplet")
	begins := -1
	for i, c := range p.Choices {
		if c = strings.ToLower(c); c == full {
			return float64(i), nil
		} else if begins < 0 && full != "" && strings.HasPrefix(c, full) {
			begins = i
		}
	}
	if begins >= 0 {
		return float64(begins), nil
	}
	return 0, fmt.Errorf("%s: there is no choice %q; it is one of %s", p.Label, text, strings.Join(p.Choices, ", "))
}

// Text is a value as people read it: with its digits and its unit, or a choice by its name.
func (p *Param) Text(v float64) string {
	if word, ok := p.Word(v); ok {
		return word
	}
	if p.Taper == Level && v <= p.Min {
		return "off"
	}
	text := strings.Replace(strconv.FormatFloat(v, 'f', p.Digits, 64), "-", "−", 1)
	if p.Unit == "" {
		return text
	}
	return text + " " + p.Unit
}
