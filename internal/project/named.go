package project

import (
	"bytes"
	"encoding/json"
	"fmt"

	"shoal/internal/param"
)

// Files hold choices and switches by their names ("bell", "on"), so that they can be read and stay right when a
// list gets another order; in memory and on the way to a window they are numbers.

// Named writes what holds stages (a project, a chain, presets) with choices by their names.
func Named(v any, effects Effects) ([]byte, error) {
	b, err := json.Marshal(v)
	if err != nil {
		return nil, err
	}
	tree, err := asTree(b)
	if err != nil {
		return nil, err
	}
	if err := eachSetting(tree, effects, nameIn); err != nil {
		return nil, err
	}
	return json.MarshalIndent(tree, "", " ")
}

// Numbered turns choices that stand there by their names, and values that are written as people do, into numbers.
// What holds only numbers stays as it is.
func Numbered(b []byte, effects Effects) ([]byte, error) {
	tree, err := asTree(b)
	if err != nil {
		return nil, err
	}
	if err := eachSetting(tree, effects, numberIn); err != nil {
		return nil, err
	}
	return json.Marshal(tree)
}

func asTree(b []byte) (tree any, err error) {
	d := json.NewDecoder(bytes.NewReader(b))
	d.UseNumber() // no figure may change on the way
	return tree, d.Decode(&tree)
}

// eachSetting calls visit for every value of every stage in a tree, and for those of the points of their lines: the
// values are in m, by key.
func eachSetting(tree any, effects Effects, visit func(p *param.Param, m map[string]any, key string) error) error {
	stages := map[string]EffectInfo{}
	if err := eachStage(tree, effects, func(info EffectInfo, id string, params map[string]any) error {
		stages[id] = info
		for name := range params {
			if p, ok := info.Param(name); ok {
				if err := visit(&p, params, name); err != nil {
					return fmt.Errorf("%s: %w", info.Name, err)
				}
			}
		}
		return nil
	}); err != nil {
		return err
	}
	document, _ := tree.(map[string]any)
	lines, _ := document["lines"].([]any)
	for _, l := range lines {
		line, _ := l.(map[string]any)
		owner, _ := line["owner"].(string)
		name, _ := line["name"].(string)
		p, ok := stages[owner].Param(name)
		if !ok || !p.Stepped() {
			continue
		}
		points, _ := line["points"].([]any)
		for _, x := range points {
			if point, ok := x.(map[string]any); ok {
				if err := visit(&p, point, "value"); err != nil {
					return fmt.Errorf("a line of %s: %w", stages[owner].Name, err)
				}
			}
		}
	}
	return nil
}

// eachStage finds what has an effect and parameters, wherever it stands: stages, and presets of one, whose
// parameters lie in their body.
func eachStage(tree any, effects Effects, found func(info EffectInfo, id string, params map[string]any) error) error {
	switch t := tree.(type) {
	case []any:
		for _, x := range t {
			if err := eachStage(x, effects, found); err != nil {
				return err
			}
		}
	case map[string]any:
		holder := t
		if body, ok := t["body"].(map[string]any); ok {
			holder = body
		}
		id, _ := t["effect"].(string)
		if params, ok := holder["params"].(map[string]any); ok && id != "" {
			if info, ok := infoOf(t, id, effects); ok {
				own, _ := t["id"].(string)
				if err := found(info, own, params); err != nil {
					return err
				}
			}
		}
		for _, x := range t {
			if err := eachStage(x, effects, found); err != nil {
				return err
			}
		}
	}
	return nil
}

// infoOf is what is known of the effect of a stage or a preset, in its version or the newest.
func infoOf(stage map[string]any, id string, effects Effects) (EffectInfo, bool) {
	key := "version"
	if _, isPreset := stage["body"]; isPreset {
		key = "effectVersion"
	}
	version := 0
	if n, ok := stage[key].(json.Number); ok {
		v, _ := n.Int64()
		version = int(v)
	}
	if info, ok := effects(id, version); ok {
		return info, true
	}
	return effects(id, 0) // refused, or left out, by those who read it
}

func nameIn(p *param.Param, m map[string]any, key string) error {
	n, ok := m[key].(json.Number)
	if !ok {
		return nil
	}
	if v, err := n.Float64(); err == nil {
		if word, ok := p.Word(v); ok {
			m[key] = word
		}
	}
	return nil
}

func numberIn(p *param.Param, m map[string]any, key string) error {
	text, ok := m[key].(string)
	if !ok {
		return nil
	}
	v, err := p.Read(text)
	if err != nil {
		return err
	}
	m[key] = v
	return nil
}
