// Command audiodoc writes docs/audio.md from the effects themselves: what each is,
// from the comment above its description, and its parameters.
package main

import (
	_ "embed"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"shoal/internal/effect"
	"shoal/internal/param"
)

// head is what holds for all effects; it is written by hand.
//
//go:embed head.md
var head string

func main() {
	text, err := document("internal/effect")
	if err == nil {
		err = os.WriteFile("docs/audio.md", []byte(text), 0o644)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "audiodoc:", err)
		os.Exit(1)
	}
}

// document is the whole text; dir holds the sources of package effect.
func document(dir string) (string, error) {
	comments, err := readComments(dir)
	if err != nil {
		return "", err
	}
	var b strings.Builder
	b.WriteString(head)
	family := ""
	for _, k := range slices.Concat(effect.Kinds(), effect.Whole()) {
		if k.Family != family {
			family = k.Family
			fmt.Fprintf(&b, "# %s\n\n", family)
		}
		writeKind(&b, k, comments)
	}
	return b.String(), nil
}

// writeKind writes what an effect is, its parameters, and what older documents keep of it.
func writeKind(b *strings.Builder, k effect.Kind, comments map[string]string) {
	fmt.Fprintf(b, "## %s (`%s`)\n\n%s\n\n", k.Name, k.ID, k.Says)
	if c := comments[k.ID]; c != "" {
		fmt.Fprintf(b, "%s\n\n", c)
	}
	if !k.Whole {
		fmt.Fprintf(b, "Inserted with a mix of %g %%, %s.", k.Mix, k.MixLaw)
	}
	if k.Latency != nil {
		fmt.Fprintf(b, " Latency with its defaults at 48 kHz: %d frames.", k.Latency(48000, k.Defaults()))
	}
	if len(k.Params) == 0 {
		b.WriteString("It has no parameters.\n\n")
		return
	}
	writeParams(b, k.Params)
	for _, old := range effect.Older() {
		if old.ID == k.ID {
			says := comments[fmt.Sprint(k.ID, old.Version)]
			fmt.Fprintf(b, "\nThis is version %d; documents that have version %d keep it. %s\n", k.Version, old.Version, says)
		}
	}
	b.WriteString("\n")
}

// writeParams writes a table of parameters; of groups, which are all alike, the first.
func writeParams(b *strings.Builder, params []param.Param) {
	b.WriteString("\n\n| parameter | range | default | |\n|---|---|---|---|\n")
	var groups []string
	for _, p := range params {
		if p.Group != "" && !slices.Contains(groups, p.Group) {
			groups = append(groups, p.Group)
		}
		if p.Group != "" && p.Group != groups[0] {
			continue
		}
		structural := ""
		if p.Structural {
			structural = " *structural*"
		}
		fmt.Fprintf(b, "| %s `%s` | %s | %s | %s%s |\n", p.Label, p.Name, span(p), value(p, p.Default), p.Says, structural)
	}
	if len(groups) > 1 {
		fmt.Fprintf(b, "\nThere are %d groups of the parameters that end in a number, of which the first is shown.\n", len(groups))
	}
}

func span(p param.Param) string {
	switch p.Taper {
	case param.Choice:
		return strings.Join(p.Choices, ", ")
	case param.Switch:
		return "off, on"
	}
	return strings.TrimSpace(fmt.Sprintf("%s to %s %s", value(p, p.Min), value(p, p.Max), p.Unit))
}

func value(p param.Param, v float64) string {
	switch p.Taper {
	case param.Choice:
		return p.Choices[int(v)]
	case param.Switch:
		return []string{"off", "on"}[int(v)]
	case param.Level:
		if v <= -120 {
			return "off"
		}
	}
	if v >= 1000 {
		return fmt.Sprintf("%.0f", v)
	}
	return fmt.Sprintf("%.4g", v)
}

// readComments finds the comment above each variable of the package, by the variable's name and, where it is
// written out there, by the effect's id.
func readComments(dir string) (map[string]string, error) {
	names, err := filepath.Glob(filepath.Join(dir, "*.go"))
	if err != nil {
		return nil, err
	}
	out := map[string]string{}
	for _, name := range names {
		f, err := parser.ParseFile(token.NewFileSet(), name, nil, parser.ParseComments)
		if err != nil {
			return nil, err
		}
		for _, d := range f.Decls {
			if g, ok := d.(*ast.GenDecl); ok && g.Tok == token.VAR && g.Doc != nil {
				name, text := commentOf(g)
				out[name] = text
				if id := idIn(g); id != "" {
					out[id] = text
				}
			}
		}
	}
	return out, nil
}

// commentOf is the comment above a variable, as a sentence about it.
func commentOf(g *ast.GenDecl) (name, text string) {
	name = g.Specs[0].(*ast.ValueSpec).Names[0].Name
	text = strings.TrimPrefix(strings.Join(strings.Fields(g.Doc.Text()), " "), name)
	if strings.HasPrefix(text, " are") {
		return name, "They" + text
	}
	return name, "It" + text
}

// idIn is the effect's id, where the variable is written out.
func idIn(g *ast.GenDecl) (id string) {
	ast.Inspect(g, func(n ast.Node) bool {
		kv, ok := n.(*ast.KeyValueExpr)
		if !ok {
			return true
		}
		key, ok1 := kv.Key.(*ast.Ident)
		if lit, ok2 := kv.Value.(*ast.BasicLit); ok1 && ok2 && key.Name == "ID" && id == "" {
			id = strings.Trim(lit.Value, `"`)
		}
		return true
	})
	return id
}
